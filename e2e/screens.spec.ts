import { demoId, expect, expectAccessible, findings, openBuild, sheet, test } from './support';

const STEPS = ['brief', 'vehicle', 'layout', 'timing', 'visibility', 'rules'] as const;

for (const theme of ['g100', 'white'] as const) {
  test.describe(`theme ${theme}`, () => {
    test.beforeEach(async ({ context, baseURL }) => {
      await context.addCookies([{ name: 'theme', value: theme, url: baseURL ?? '' }]);
    });

    test('axe finds nothing on the list, and in its dialogs', async ({ page }) => {
      await page.goto('/');
      await expectAccessible(page);
      await page.getByRole('button', { name: 'New build' }).click();
      await expect(page.getByLabel('Name of the build')).toBeFocused();
      await expectAccessible(page);
    });

    for (const step of STEPS) {
      test(`axe finds nothing in ${step}`, async ({ page }) => {
        await openBuild(page, demoId.ks12, step);
        await expectAccessible(page);
        if (step !== 'layout') return;
        await page.getByRole('button', { name: /^Perimeter head, two colours/ }).click();
        await page.getByRole('button', { name: 'Grille L', exact: true }).focus();
        await page.keyboard.press('Enter');
        await expectAccessible(page);
        await page.keyboard.press('?');
        await expect(page.getByRole('dialog', { name: 'Keys and words' })).toBeVisible();
        await expectAccessible(page);
      });
    }
  });
}

for (const [width, height] of [
  [1024, 768],
  [1280, 800],
  [1920, 1080],
] as const) {
  test(`nothing is cut off at ${width}×${height}`, async ({ page }) => {
    await page.setViewportSize({ width, height });
    for (const step of STEPS) {
      await openBuild(page, demoId.ks12, step);
      const spill = await page.evaluate(() => ({
        x: document.documentElement.scrollWidth - window.innerWidth,
        y: document.documentElement.scrollHeight - window.innerHeight,
      }));
      expect(spill, step).toEqual({ x: 0, y: 0 });
      await expect(findings(page)).toBeInViewport({ ratio: 1 });
      await expect(page.getByRole('group', { name: 'Preview of the flashing' })).toBeInViewport({ ratio: 1 });
    }
    await openBuild(page, demoId.ks12, 'layout');
    await expect(sheet(page)).toBeInViewport({ ratio: 1 });
  });
}

test('the fonts are our own', async ({ page }) => {
  await page.goto('/');
  const loaded = await page.evaluate(async () => {
    await document.fonts.ready;
    return [...document.fonts].filter((f) => f.status === 'loaded').map((f) => f.family);
  });
  expect(loaded.join()).toContain('IBM Plex Sans');
});
