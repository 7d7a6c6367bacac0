import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { z } from 'zod';
import {
  copyOfDemo,
  expect,
  expectAccessible,
  findings,
  inspector,
  openBuild,
  saved,
  sheet,
  tabTo,
  test,
  partsButton,
} from './support';

const counts = 'Layout totals';

const Placed = z.looseObject({
  id: z.string(),
  label: z.string(),
  zoneId: z.string(),
  fixtureId: z.string(),
  uM: z.number(),
  vM: z.number(),
  modules: z.array(z.unknown()),
});
const Saved = z.looseObject({ build: z.looseObject({ placements: z.array(Placed) }) });

/** The build as the server has it, once all is saved. */
async function stored(page: Page, id: string) {
  await saved(page).waitFor();
  const answer = await page.request.get(`/api/v1/builds/${id}`);
  return Saved.parse(await answer.json()).build;
}

/** A flat beam of 1000 cd as EULUMDAT: 13 planes would be too many for a test, so it is round about its axis. */
const IES = [
  'IESNA:LM-63-2002',
  '[TEST] made up',
  'TILT=NONE',
  '1 -1 1 3 1 1 2 0.1 0.1 0',
  '1 1 10',
  '0 45 90',
  '0',
  '7000 3500 0',
  '',
].join('\r\n');

test('a dragged lamp is drawn to the middle of its zone and shows its distances', async ({ page }) => {
  await openBuild(page, await copyOfDemo(page, 'ks-13'), 'layout');
  await sheet(page).getByRole('button', { name: 'Front', exact: true }).click();
  const lamp = page.getByRole('button', { name: 'Grille L', exact: true });
  const box = await lamp.boundingBox();
  const zone = await page.getByRole('button', { name: 'Grille R', exact: true }).boundingBox();
  if (box === null || zone === null) throw new Error('the lamps are on the screen');
  const middle = (box.x + zone.x + box.width) / 2;
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(middle + 30, y, { steps: 5 });
  await page.mouse.move(middle + 3, y, { steps: 3 });
  await expect(sheet(page)).toContainText('across: middle');
  await expect(sheet(page)).toContainText(/\d+ up/);
  await page.mouse.up();
  await expect(inspector(page).getByLabel('Across, mm')).toHaveValue('0');
  // A gap is typed, and the lamp moves.
  await inspector(page).getByLabel('Left gap, mm').fill('100');
  await inspector(page).getByLabel('Left gap, mm').press('Enter');
  await expect(inspector(page).getByLabel('Left gap, mm')).toHaveValue('100');
});

test('a lamp is dragged over the edge of its zone onto another, and exchanged; both are one undo', async ({
  page,
}) => {
  const id = await copyOfDemo(page, 'ks-13');
  await openBuild(page, id, 'layout');
  const before = await stored(page, id);
  const lampOf = (build: typeof before, label: string) => build.placements.find((p) => p.label === label);
  const from = lampOf(before, 'Sill L');
  expect(from?.zoneId).toBe('sill-left');
  const lamp = page.getByRole('button', { name: 'Sill L', exact: true }).first();
  const box = await lamp.boundingBox();
  if (box === null) throw new Error('the lamp is drawn');
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 + 20, box.y, { steps: 4 });
  // While a lamp is dragged the zones that take it stand out.
  const zone = await page.locator('.fits[data-zone="wing-left"]').first().boundingBox();
  if (zone === null) throw new Error('the zone is drawn');
  await page.mouse.move(zone.x + zone.width / 2 + 4, zone.y + zone.height / 2 + 4, { steps: 8 });
  await page.mouse.move(zone.x + zone.width / 2, zone.y + zone.height / 2, { steps: 3 });
  await expect(page.getByText(/^Let go to move it to /)).toBeVisible();
  await page.mouse.up();
  const moved = (await stored(page, id)).placements.find((p) => p.id === from?.id);
  expect(moved?.zoneId).toBe('wing-left');
  expect(moved?.modules).toEqual(from?.modules);
  await page.keyboard.press('Control+z');
  expect(lampOf(await stored(page, id), 'Sill L')?.zoneId).toBe('sill-left');

  await lamp.click();
  await inspector(page).getByText('Exchange or move').click();
  await inspector(page).getByLabel('Exchange for').selectOption('perimeter-head-3');
  await expect(inspector(page).getByRole('status')).toContainText('The counterpart follows.');
  await inspector(page).getByRole('button', { name: 'Apply', exact: true }).click();
  const after = await stored(page, id);
  expect(['Sill L', 'Sill R'].map((label) => lampOf(after, label)?.fixtureId)).toEqual([
    'perimeter-head-3',
    'perimeter-head-3',
  ]);
});

test('a second lamp from the list stands beside the first, not on it', async ({ page }) => {
  const id = await copyOfDemo(page, 'ks-13');
  await openBuild(page, id, 'layout');
  const catalogue = page.getByRole('region', { name: 'Catalogue' });
  await catalogue.getByLabel('Search the catalogue').fill('Perimeter head, two colours');
  for (let i = 0; i < 2; i++) {
    await catalogue.locator('[data-fixture]').first().click();
    await page.getByLabel('Zone', { exact: true }).selectOption({ label: 'Grille' });
    await page.getByRole('button', { name: 'Place a mirrored pair' }).click();
  }
  const grille = (await stored(page, id)).placements.filter((p) => p.zoneId === 'grille');
  expect(grille.length).toBeGreaterThanOrEqual(6);
  expect(new Set(grille.map((p) => `${p.uM}/${p.vM}`)).size).toBe(grille.length);
  await expect(page.getByText(/stand in each other/)).toBeHidden();
});

test('a lamp is aimed by its beam, and by the keys', async ({ page }) => {
  await openBuild(page, await copyOfDemo(page, 'ks-13'), 'layout');
  const lamp = page.getByRole('button', { name: 'Front wing L', exact: true });
  await lamp.click();
  const grip = page.locator('.grip');
  const at = await grip.boundingBox();
  if (at === null) throw new Error('the beam is on the screen');
  await page.mouse.move(at.x + at.width / 2, at.y + at.height / 2);
  await page.mouse.down();
  await page.mouse.move(at.x + 40, at.y + 10, { steps: 6 });
  await expect(sheet(page)).toContainText(/pan −?-?\d+°/);
  await page.mouse.up();
  const pan = inspector(page).getByLabel('Pan, °');
  await expect(pan).not.toHaveValue('0');
  const turned = Number(await pan.inputValue());
  expect(turned % 5).toBe(0);
  await tabTo(page, lamp);
  await page.keyboard.press(']');
  await expect(pan).toHaveValue(String(turned + 5));
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect(pan).toHaveValue('0');
});

test('many are chosen with a box, all with Ctrl+A; they move together', async ({ page }) => {
  await openBuild(page, await copyOfDemo(page, 'ks-13'), 'layout');
  const region = await sheet(page).boundingBox();
  if (region === null) throw new Error('the sheet is on the screen');
  await page.keyboard.down('Shift');
  await page.mouse.move(region.x + region.width - 8, region.y + 45);
  await page.mouse.down();
  await page.mouse.move(region.x + region.width * 0.74, region.y + region.height - 8, { steps: 6 });
  await page.mouse.up();
  await page.keyboard.up('Shift');
  await expect(inspector(page).getByRole('heading', { name: /^\d+ lamps$/ })).toBeVisible();
  await page.keyboard.press('Control+a');
  await expect(inspector(page).getByRole('heading', { name: '28 lamps' })).toBeVisible();
});

test('what was there before: kept, reused, removed; before and after', async ({ page }) => {
  await openBuild(page, await copyOfDemo(page, 'ks-13'), 'layout');
  const lamp = page.getByRole('button', { name: 'Roof', exact: true });
  await lamp.click();
  await inspector(page).getByLabel('Status').selectOption('removed');
  await expect(page.getByRole('status', { name: counts })).toContainText('27 heads');
  await expect(lamp).toHaveCount(0);
  await sheet(page).getByRole('button', { name: 'Before' }).click();
  await expect(lamp).toBeVisible();
  await lamp.click();
  await inspector(page).getByLabel('Status').selectOption('kept in place');
  await expect(page.getByRole('status', { name: counts })).toContainText('28 heads');
  await sheet(page).getByRole('button', { name: 'After' }).click();
  await expect(lamp).toBeVisible();
  await saved(page).waitFor();
});

test('layers: keep-outs, names, sizes and the look when off', async ({ page }) => {
  await openBuild(page, await copyOfDemo(page, 'ks-13'), 'layout');
  await sheet(page).getByText('Layers').click();
  const layers = sheet(page).getByRole('group', { name: 'Layers' });
  await layers.getByLabel('Names').check();
  await expect(sheet(page).locator('text.name', { hasText: 'Grille L' })).toBeVisible();
  await layers.getByLabel('Keep-outs').check();
  await layers.getByLabel('Off-look').check();
  await expect(sheet(page).locator('.halo')).toHaveCount(0);
  await expectAccessible(page);
});

test('the light of a lamp goes out as an IES file', async ({ page }) => {
  await openBuild(page, await copyOfDemo(page, 'ks-13'), 'layout');
  await page.getByRole('button', { name: 'Grille L', exact: true }).click();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    inspector(page).getByRole('button', { name: 'Export this state as IES' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('Copy of ks-13, Grille L, Stage 2.ies');
  expect(readFileSync(await download.path(), 'latin1')).toMatch(/^IESNA:LM-63-2002\r\n/);
});

test('a roof bar is built slot by slot', async ({ page }) => {
  await openBuild(page, await copyOfDemo(page, 'ks-13'), 'layout');
  await page.getByRole('button', { name: 'Roof', exact: true }).click();
  await inspector(page).getByLabel('Module').selectOption({ index: 1 });
  await inspector(page).getByLabel('Built with').selectOption('Clear flood');
  await expect(inspector(page).getByLabel('Colour 1')).toHaveValue('white');
  await page.getByRole('button', { name: /^Undo: Build/ }).click();
  await expect(inspector(page).getByLabel('Built with')).toHaveValue('warning');
});

test('details: a measured file is attached, drawn, used, detached; a bad one names its line', async ({
  page,
}) => {
  await openBuild(page, await copyOfDemo(page, 'ks-13'), 'layout');
  await page.getByRole('button', { name: /^Perimeter head, two colours/ }).click();
  await page.getByRole('button', { name: 'Details' }).click();
  const dialog = page.getByRole('dialog', { name: 'Perimeter head, two colours' });
  await expect(dialog.getByRole('img', { name: 'Polar plot, greatest 2300 candela' })).toBeVisible();
  const give = (name: string, text: string) =>
    dialog.getByLabel('Photometric file').setInputFiles({
      name,
      mimeType: 'text/plain',
      buffer: Buffer.from(text),
    });
  await give('broken.ies', 'TILT=NONE\n1 2 three\n');
  await expect(dialog.getByRole('alert')).toContainText('broken.ies: line 2');
  await give('round.ies', IES);
  await expect(dialog.getByRole('img', { name: 'Polar plot, greatest 7000 candela' })).toBeVisible();
  await expect(dialog).toContainText('from the attached file');
  await expectAccessible(page);
  await dialog.getByRole('button', { name: 'Detach' }).click();
  await expect(dialog.getByRole('img', { name: 'Polar plot, greatest 2300 candela' })).toBeVisible();
});

test.describe('with favourites', () => {
  test.use({ tab: 'new' });
  test('favourites, two fixtures side by side, and a copy as one’s own', async ({ page }) => {
    await openBuild(page, await copyOfDemo(page, 'ks-13'), 'layout');
    const catalogue = page.getByRole('region', { name: 'Catalogue' });
    await catalogue.getByRole('button', { name: /^Perimeter head, two colours/ }).click();
    await catalogue.getByRole('button', { name: '☆ Favourite' }).click();
    await catalogue.getByRole('button', { name: 'Compare', exact: true }).click();
    await catalogue.getByRole('button', { name: /^Long slim head, two colours/ }).click();
    await catalogue.getByRole('button', { name: 'Compare', exact: true }).click();
    await catalogue.getByRole('button', { name: 'Compare 2' }).click();
    const dialog = page.getByRole('dialog', { name: 'Comparison' });
    await expect(dialog.getByRole('row', { name: /^Price, EUR/ })).toContainText('98');
    await expectAccessible(page);
    await page.keyboard.press('Escape');
    await catalogue.getByLabel('Kind of fixture').selectOption('★ favourites');
    await expect(catalogue.getByRole('listitem')).toHaveCount(1);
    await catalogue.getByRole('button', { name: /^Perimeter head, two colours/ }).click();
    await catalogue.getByRole('button', { name: 'Copy as custom' }).click();
    await catalogue.getByLabel('Kind of fixture').selectOption('custom');
    await expect(catalogue.getByRole('listitem')).toHaveCount(1);
    await catalogue.getByRole('button', { name: 'Details' }).click();
    const own = page.getByRole('dialog', { name: /^Custom perimeter head/ });
    await own.getByLabel('Price, EUR').fill('75');
    await own.getByLabel('Price, EUR').press('Enter');
    await expect(own).toContainText('75');
    await saved(page).waitFor();
  });
});

test('a table of fixtures goes out and in; bad rows are all named and nothing is taken', async ({ page }) => {
  await openBuild(page, await copyOfDemo(page, 'ks-13'), 'layout');
  const catalogue = page.getByRole('region', { name: 'Catalogue' });
  await catalogue.getByLabel('Kind of fixture').selectOption('beacon');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    catalogue.getByRole('button', { name: 'Export CSV' }).click(),
  ]);
  const text = readFileSync(await download.path(), 'utf8');
  const give = (table: string) =>
    catalogue.getByLabel('Table of fixtures').setInputFiles({
      name: 'shop.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from(table),
    });
  // The very ids of the catalogue are refused.
  await give(text);
  await expect(catalogue.getByRole('alert')).toContainText('is a fixture of the catalogue');
  const [heading = '', ...rows] = text.trim().split('\n');
  await give([heading, ...rows.map((row) => `shop-${row}`)].join('\n'));
  await expect(catalogue.getByRole('listitem')).toHaveCount(rows.length);
  await expect(catalogue.getByRole('alert')).toHaveCount(0);
  await give([heading, `bad-${rows[0]?.replace(/,\d+(\.\d+)?,/, ',wide,') ?? ''}`].join('\n'));
  await expect(catalogue.getByRole('alert')).toContainText(/row 2, \w+: 'wide' is not a number/);
  await catalogue.getByRole('button', { name: 'Close' }).click();
  await expect(catalogue.getByRole('listitem')).toHaveCount(rows.length);
  await page.getByRole('button', { name: /^Undo: Take/ }).click();
  await expect(catalogue).toContainText('No matching fixtures.');
});

test('the largest build opens and is edited without a word in the console', async ({ page }) => {
  await openBuild(page, await copyOfDemo(page, 'tunnel-pumper-3'), 'layout');
  await expect(page.getByRole('status', { name: counts })).toContainText('68 heads');
  await expect(page.getByRole('status', { name: counts })).toContainText('244 channels');
  await partsButton(page).click();
  await page
    .getByRole('button', { name: /shutter/i })
    .first()
    .click();
  await expect(partsButton(page)).toContainText(/shutter.* open$/);
  await expect(findings(page)).toContainText('All rules and requirements pass');
});
