import {
  openList,
  copyOfDemo,
  expect,
  expectAccessible,
  findings,
  inspector,
  partsButton,
  saved,
  stateBar,
  tabTo,
  test,
} from './support';
import { z } from 'zod';

test('first minutes: a bar on the roof of a new build lights at once, in a group of its place', async ({
  page,
}) => {
  await openList(page);
  await page.getByRole('button', { name: 'New build' }).click();
  const dialog = page.getByRole('dialog', { name: 'New build' });
  await dialog.getByLabel('Name of the build').fill('First minutes');
  await dialog.getByText('Large SUV', { exact: true }).click();
  // Packs follow where it drives; the neighbour's is not among them.
  await expect(dialog.getByLabel('Kestrel Sound lighting by-law (example)')).toBeChecked();
  await expect(dialog.getByLabel('Dunmarrow lighting by-law (example)')).not.toBeChecked();
  await dialog.getByLabel('Jurisdictions').fill('Dunmarrow');
  await expect(dialog.getByLabel('Kestrel Sound lighting by-law (example)')).not.toBeChecked();
  await expect(dialog.getByLabel('Dunmarrow lighting by-law (example)')).toBeChecked();
  await dialog.getByLabel('Jurisdictions').fill('Kestrel Sound');
  await expectAccessible(page);
  await dialog.getByRole('button', { name: 'Create' }).click();

  await page.getByRole('link', { name: /^Layout/ }).click();
  // Nothing stands yet: one sentence with the next step, not a list.
  await expect(findings(page)).toContainText('1 in total');
  await expect(findings(page)).toContainText('Place a lamp on the drawing');
  await page.getByRole('button', { name: /^Roof bar, 1.2 m/ }).click();
  await page.getByLabel('Zone', { exact: true }).selectOption('Roof');
  await page.getByRole('button', { name: 'Place one' }).click();
  await expect(inspector(page).getByLabel('Sync group')).toHaveValue('upper');
  await expect(findings(page)).not.toContainText('No lamp is lit in Stage 2');
  await page.keyboard.press('3');
  await expect(stateBar(page).getByRole('button', { name: 'Stage 3' })).toHaveAttribute(
    'aria-pressed',
    'true',
  );
  await expect(partsButton(page)).toHaveText('All closed');
  // One undo takes place, group, phases and colours back.
  await page.getByRole('button', { name: /^Undo: Place Roof bar/ }).click();
  await expect(findings(page)).toContainText('1 in total');
  await saved(page).waitFor();
});

test('two builds side by side, by keyboard: light, current, holes and money in one stage', async ({
  page,
}) => {
  await page.goto('/');
  const beside = page.getByRole('button', { name: /compare/i });
  await expect(beside).toHaveCount(0);
  for (const name of ['Causeway patrol KS-12', 'Causeway patrol KS-13']) {
    await tabTo(page, page.getByRole('checkbox', { name: `Select ${name} to compare` }));
    await page.keyboard.press('Space');
  }
  await tabTo(page, page.getByRole('button', { name: 'Compare 2 builds' }));
  await page.keyboard.press('Enter');
  const dialog = page.getByRole('dialog', { name: 'Comparison' });
  await expect(dialog.getByRole('columnheader')).toHaveText([
    'Causeway patrol KS-12',
    'Causeway patrol KS-13',
  ]);
  const rear = dialog.getByRole('row', { name: /^Least light to the rear/ });
  await expect(rear).toContainText(/\d,\d{3}/);
  const inThree = await rear.textContent();
  await dialog.getByText('Stage 1', { exact: true }).click();
  await expect(rear).not.toHaveText(inThree ?? '');
  await expect(dialog.getByRole('row', { name: /^Fixture cost/ })).toContainText('EUR');
  await expectAccessible(page);
  await page.keyboard.press('Escape');
  await expect(dialog).toBeHidden();
});

test('a build that is deleted elsewhere while the list stands open is no error', async ({ page }) => {
  const id = await copyOfDemo(page, 'ks-13');
  // Its preview is made, and then asked for only after it is gone.
  const summary = async () =>
    z
      .array(z.object({ id: z.string(), pictureKey: z.string().nullable() }))
      .parse(await (await page.request.get('/api/v1/builds')).json())
      .find((build) => build.id === id);
  await expect.poll(async () => (await summary())?.pictureKey ?? null, { timeout: 60_000 }).not.toBeNull();
  await page.route(`**/builds/${id}/picture*`, async (route) => {
    await page.request.delete(`/api/v1/builds/${id}`);
    await route.continue();
  });
  const asked = page.waitForResponse(`**/builds/${id}/picture*`);
  await page.goto('/');
  expect((await asked).status()).toBe(200);
});

test('the list: found, sorted, copied, put away and brought back', async ({ page }) => {
  await copyOfDemo(page, 'ferry-slip');
  await page.goto('/');
  const rows = page.getByRole('row').filter({ has: page.getByRole('rowheader') });
  await page.getByLabel('Search builds').fill('copy of ferry utility kestrel');
  const row = rows.first();
  await expect(row).toContainText('Copy of ferry-slip');
  await page.getByLabel('Search builds').fill('copy of no such build');
  await expect(page.getByText('No builds match.')).toBeVisible();
  await page.getByLabel('Search builds').fill('copy of ferry');

  await row.getByRole('button', { name: /^Actions for/ }).click();
  await page.getByRole('menuitem', { name: 'Duplicate' }).click();
  await expect(page.getByRole('link', { name: 'Copy of Copy of ferry-slip' }).first()).toBeVisible();
  await page.getByLabel('Search builds').fill('copy of copy of ferry');
  const copies = await rows.count();
  await page.getByLabel('Sort by').selectOption('name');
  await rows
    .first()
    .getByRole('button', { name: /^Actions for/ })
    .click();
  await page.getByRole('menuitem', { name: 'Archive' }).click();
  await expect(rows).toHaveCount(copies - 1);
  await page.getByRole('checkbox', { name: /^Show archived/ }).check();
  await rows
    .first()
    .getByRole('button', { name: /^Actions for/ })
    .click();
  await page.getByRole('menuitem', { name: 'Restore' }).click();
  await page.getByLabel('Search builds').fill('copy of copy of ferry');
  await expectAccessible(page);
});

test.describe('for the first time', () => {
  test.use({ tab: 'new' });
  test('the tour shows what is where, and can be left', async ({ page }) => {
    await page.addInitScript(() => localStorage.removeItem('flarik-tour-offered'));
    const id = await copyOfDemo(page, 'ks-13');
    await page.goto(`/builds/${id}/layout`);
    await page.getByRole('button', { name: 'Take the tour' }).click();
    const stop = page.getByRole('dialog');
    await expect(stop).toContainText('Steps');
    await stop.getByRole('button', { name: 'Next' }).click();
    await expect(stop).toContainText('Catalogue');
    await page.keyboard.press('Escape');
    await expect(stop).toHaveCount(0);
    await expect(page.getByText('New to Flarik?')).toHaveCount(0);
  });
});
