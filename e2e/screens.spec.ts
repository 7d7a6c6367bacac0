import type { Page } from '@playwright/test';
import { copyOfDemo, demoId, expect, expectAccessible, findings, openBuild, sheet, test } from './support';

test.use({ tab: 'new' });

const STEPS = ['Brief', 'Vehicle', 'Layout', 'Timing', 'Controls', 'Visibility', 'Rules'] as const;
async function goTo(page: Page, step: string): Promise<void> {
  await page.getByRole('link', { name: new RegExp(`^${step}`) }).click();
  await expect(page).toHaveURL(new RegExp(`/${step.toLowerCase()}$`));
}

for (const theme of ['g100', 'white'] as const) {
  test.describe(`theme ${theme}`, () => {
    test.beforeEach(async ({ page, baseURL }) => {
      await page.context().addCookies([{ name: 'theme', value: theme, url: baseURL ?? '' }]);
    });

    test('axe finds nothing on the list, and in its dialogs', async ({ page }) => {
      await page.goto('/');
      await expectAccessible(page);
      await page.getByRole('button', { name: 'New build' }).click();
      await expect(page.getByLabel('Name of the build')).toBeFocused();
      await expectAccessible(page);
    });

    test('axe finds nothing where a lamp is chosen, and in the keys', async ({ page }) => {
      await openBuild(page, demoId.ks12, 'layout');
      await page.getByRole('button', { name: /^Perimeter head, two colours/ }).click();
      await page.getByRole('button', { name: 'Grille L', exact: true }).focus();
      await page.keyboard.press('Enter');
      await expectAccessible(page);
      await page.keyboard.press('?');
      await expect(page.getByRole('dialog', { name: 'Keys and terms' })).toBeVisible();
      await expectAccessible(page);
    });
  });
}

const SIZES = [
  [1024, 768],
  [1280, 800],
  [1920, 1080],
] as const;

test('nothing is cut off in any step, small or large', async ({ page }) => {
  await openBuild(page, demoId.ks12, 'brief');
  for (const step of STEPS) {
    await goTo(page, step);
    for (const [width, height] of SIZES) {
      await page.setViewportSize({ width, height });
      const at = `${step} at ${width}×${height}`;
      await expect(findings(page), at).toBeInViewport({ ratio: 1 });
      await expect(page.getByRole('group', { name: 'Preview of the flashing' }), at).toBeInViewport({
        ratio: 1,
      });
      if (step === 'Layout') await expect(sheet(page), at).toBeInViewport({ ratio: 1 });
      const spill = await page.evaluate(() => ({
        x: document.documentElement.scrollWidth - window.innerWidth,
        y: document.documentElement.scrollHeight - window.innerHeight,
      }));
      expect(spill, at).toEqual({ x: 0, y: 0 });
    }
  }
});

test('the fonts are our own', async ({ page }) => {
  await page.goto('/');
  const loaded = await page.evaluate(async () => {
    await document.fonts.ready;
    return [...document.fonts].filter((f) => f.status === 'loaded').map((f) => f.family);
  });
  expect(loaded.join()).toContain('IBM Plex Sans');
});

test('no page tries what the content policy forbids', async ({ page }) => {
  await page.addInitScript(() =>
    document.addEventListener('securitypolicyviolation', ({ violatedDirective, blockedURI }) =>
      sessionStorage.setItem('violation', `${violatedDirective} ${blockedURI}`),
    ),
  );
  await page.goto('/');
  await expect(page.getByRole('heading', { name: 'Builds' })).toBeVisible();
  await openBuild(page, await copyOfDemo(page, 'ks-13'), 'layout');
  await expect(findings(page)).toContainText('All rules and requirements pass');
  expect(await page.evaluate(() => sessionStorage.getItem('violation'))).toBeNull();
});
