import type { Page } from '@playwright/test';
import { copyOfDemo, expect, expectAccessible, findings, openBuild, test } from './support';

test.use({ tab: 'new' });

const STEPS = ['brief', 'vehicle', 'layout', 'timing', 'controls', 'visibility', 'rules'] as const;
type Step = (typeof STEPS)[number];

/** Every view of each step by the button that opens it: a view without a row here fails below. */
const VIEWS: Readonly<Record<Step, readonly string[]>> = {
  brief: [],
  vehicle: ['Survey', 'Custom parts'],
  layout: [],
  timing: ['Functions', 'Lamp', 'Pattern', 'Library', 'Clocks', 'Compare stages', 'Scene'],
  controls: [
    'Priority',
    'State matrix',
    'Verification',
    'Function',
    'Templates',
    'Panels',
    'Inputs',
    'Lamp sets',
    'Cab',
  ],
  visibility: [
    'Polar',
    'Direction map',
    'Sight distance',
    'Junction',
    'Scene light',
    'Glare and fog',
    '3D view',
    'Redundancy',
  ],
  rules: [],
};

/** The usual window, a small one, and the usual one enlarged to twice its size. */
const SIZES = [
  { width: 1280, height: 800 },
  { width: 1024, height: 640 },
  { width: 640, height: 400 },
] as const;

const viewButton = (page: Page, name: string) =>
  page.locator('[data-views]').getByRole('button', { name, exact: true });

/** Looks at what is open in windows of some sizes. */
async function expectWhole(
  page: Page,
  view: string,
  sizes: readonly (typeof SIZES)[number][],
): Promise<void> {
  for (const size of sizes) {
    await page.setViewportSize(size);
    const at = `${view} at ${size.width} × ${size.height}`;
    await expect(findings(page), at).toBeInViewport();
    const spill = await page.evaluate(() => ({
      x: document.documentElement.scrollWidth - window.innerWidth,
      y: document.documentElement.scrollHeight - window.innerHeight,
    }));
    expect(spill, at).toEqual({ x: 0, y: 0 });
    await expectAccessible(page);
  }
}

/** It is drawn by what only the browser for three dimensions has. */
const IN_3D = '3D view';

for (const theme of ['g100', 'white'] as const)
  for (const step of STEPS)
    test(`${step}, ${theme}: every view is accessible and whole`, async ({ page, baseURL }) => {
      await page.context().addCookies([{ name: 'theme', value: theme, url: baseURL ?? '' }]);
      await openBuild(page, await copyOfDemo(page, 'incident-command'), step);
      const named = await page.locator('[data-views] button').allTextContents();
      expect(named.map((name) => name.trim())).toEqual(VIEWS[step]);
      // Colours are the same at every size.
      const sizes = theme === 'g100' ? SIZES : SIZES.slice(0, 1);
      await expectWhole(page, step, sizes);
      for (const name of VIEWS[step].filter((view) => view !== IN_3D)) {
        await viewButton(page, name).click();
        await expectWhole(page, name, sizes);
      }
    });

test('the view in three dimensions is accessible and whole @three-dimensions', async ({ page }) => {
  await openBuild(page, await copyOfDemo(page, 'incident-command'), 'visibility');
  await viewButton(page, IN_3D).click();
  await expectWhole(page, IN_3D, SIZES);
});
