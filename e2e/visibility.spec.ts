import type { Locator } from '@playwright/test';
import {
  copyOfDemo,
  demoId,
  expect,
  expectAccessible,
  movingPart,
  openBuild,
  saved,
  stateBar,
  tabTo,
  test,
} from './support.ts';

const PUMPER = '0c6f0d5e-6a0e-4b7e-9d1c-5a1f5d0c3300';
/** The first approach table of a large vehicle takes a second or two, more on a busy machine. */
const WORKED_OUT = { timeout: 180_000 };

test('the worst gap and the worst approach stand above every view, and lead to it', async ({ page }) => {
  await openBuild(page, PUMPER, 'visibility');
  const worst = page.getByRole('button', { name: /^Car from behind · fog · day: detected at 166 m/ });
  await expect(worst).toBeVisible(WORKED_OUT);
  await worst.click();
  await expect(page.getByRole('row', { name: /^Car from behind fog · day 110 166 214/ })).toBeVisible();
  const aside = page.getByRole('complementary', { name: 'Selected approach' });
  await expect(aside).toContainText('margin −1.6 s');
  await expect(aside.getByRole('img', { name: /^Light at the eye by distance/ })).toBeVisible();
  await expect(aside.getByRole('button', { name: /Box rear, top \+\d+ m/ })).toBeVisible();
  await expectAccessible(page);
  await stateBar(page).getByRole('button', { name: 'Off', exact: true }).click();
  await expect(page.getByRole('row', { name: /not detected/ }).first()).toBeVisible(WORKED_OUT);
});

test('an approach of one’s own: copied, changed in its sentence, removed, undone', async ({ page }) => {
  await openBuild(page, await copyOfDemo(page, 'line-marking'), 'visibility');
  await page.getByRole('button', { name: /^Car from behind · fog · day: / }).click(WORKED_OUT);
  await page.getByRole('button', { name: 'Copy to this build' }).click();
  await page.getByLabel('Speed, km/h').fill('60');
  await page.keyboard.press('Tab');
  await page.getByLabel('Name of the approach').fill('Tractor on the causeway');
  await page.keyboard.press('Tab');
  const row = page.getByRole('row', { name: /^Tractor on the causeway fog · day 60 171 83/ });
  await expect(row).toBeVisible(WORKED_OUT);
  await page.getByLabel('Crest', { exact: true }).selectOption('over a crest');
  await expect(row).toHaveCount(0, WORKED_OUT);
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Remove', exact: true }).click();
  await expect(page.getByRole('row', { name: /^Tractor/ })).toHaveCount(0, WORKED_OUT);
  await page.getByRole('button', { name: 'Undo: Remove Tractor on the causeway' }).click();
  await expect(page.getByRole('row', { name: /^Tractor/ })).toHaveCount(1, WORKED_OUT);
});

test('all directions: pointed at, one says who lights it and what hides the rest', async ({ page }) => {
  await openBuild(page, await copyOfDemo(page, 'ks-13'), 'visibility');
  await page.getByRole('button', { name: 'Direction map' }).click();
  const map = page.getByRole('img', { name: /^Light by bearing and elevation/ });
  await expect(map).toBeVisible(WORKED_OUT);
  await page.getByLabel('Bearing, degrees').fill('180');
  const aside = page.getByRole('complementary');
  await (await movingPart(page, 'Hatch')).click();
  await page.keyboard.press('Escape');
  await expect(aside).toContainText('Blocked toward it');
  await expect(aside).toContainText('by hatch');
  await page.getByLabel(/^Elevation/).fill('10');
  await expect(aside).toContainText('180°, 10° up');
  const box = await map.boundingBox();
  if (box === null) throw new Error('the map is on the screen');
  await page.mouse.click(box.x + box.width / 2, box.y + box.height * 0.66);
  await expect(aside).toContainText(/Toward (0|359|1)°/);
  await page.getByRole('button', { name: 'Peak', exact: true }).click();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'By open parts' }).click();
  const shut = page.getByRole('button', { name: 'everything closed', exact: true });
  await expect(shut).toHaveAttribute('aria-pressed', 'false', WORKED_OUT);
  await shut.click();
  await expect(shut).toHaveAttribute('aria-pressed', 'true', WORKED_OUT);
  await page.getByRole('button', { name: 'By function' }).click();
  await expect(page.getByRole('button', { name: 'Stage 3', exact: true })).toHaveCount(2, WORKED_OUT);
  await expectAccessible(page);
});

test('ground: a light to work by is switched on, and the ground beside it is bright', async ({ page }) => {
  await openBuild(page, PUMPER, 'visibility');
  await page.getByRole('button', { name: 'Scene light', exact: true }).click();
  await expect(page.getByText(/^No lamp is lit steady/)).toBeVisible(WORKED_OUT);
  await page.getByRole('checkbox', { name: /^Scene light/ }).check();
  await expect(page.getByRole('row', { name: /^Left side, 3 m \d{3} \d+\.\d 0\.\d\d 100 %/ })).toBeVisible(
    WORKED_OUT,
  );
  await page.getByLabel('Required illuminance, lx').selectOption('50');
  await page.getByRole('button', { name: 'Pump panel' }).click();
  await expect(page.getByText(/^About \d+ lx are added by reflection/)).toBeVisible();
  await expectAccessible(page);
});

test('a work place is added, dragged on the plan, changed in its sentence and undone; a panel stands upright', async ({
  page,
}) => {
  await openBuild(page, await copyOfDemo(page, 'tunnel-pumper-3'), 'visibility');
  await page.getByRole('button', { name: 'Scene light', exact: true }).click();
  await page.getByRole('checkbox', { name: /^Scene light/ }).check(WORKED_OUT);
  await expect(page.getByRole('row', { name: /^Pump panel \d\.\d \d\.\d/ })).toBeVisible(WORKED_OUT);
  await page.getByRole('button', { name: 'Panel at the left side' }).click();
  const row = page.getByRole('row', { name: /^Panel at the left side/ });
  await expect(row).toBeVisible();
  const aside = page.getByLabel('To the left of the middle, m');
  await expect(aside).toHaveValue('1.24');
  const grip = page.locator('circle.grip.chosen');
  const box = await grip.boundingBox();
  if (box === null) throw new Error('the grip is on the screen');
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2, box.y - 40, { steps: 4 });
  await page.mouse.up();
  await expect(aside).not.toHaveValue('1.24');
  await page.getByLabel('Faces').selectOption('to the right');
  await expect(row).toContainText('100 %', WORKED_OUT);
  await page.getByLabel('Name of the work area').fill('Cabinet across');
  await page.keyboard.press('Tab');
  await expect(page.getByRole('row', { name: /^Cabinet across/ })).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Remove', exact: true }).click();
  await expect(page.getByRole('row', { name: /^Cabinet across/ })).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo: Remove Cabinet across' }).click();
  await expect(page.getByRole('row', { name: /^Cabinet across/ })).toBeVisible(WORKED_OUT);
});

test('a work place with corners is drawn on the plan; edges that cross are not taken', async ({ page }) => {
  await openBuild(page, await copyOfDemo(page, 'tunnel-pumper-3'), 'visibility');
  await page.getByRole('button', { name: 'Scene light', exact: true }).click();
  await page.getByRole('button', { name: /^Hoses/ }).click();
  const corner = page.locator('rect.corner');
  await expect(corner).toHaveCount(6);
  const drag = async (from: Locator, byX: number, byY: number): Promise<void> => {
    const box = await from.boundingBox();
    if (box === null) throw new Error('it is on the screen');
    const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
    await page.mouse.move(x, y);
    await page.mouse.down();
    await page.mouse.move(x + byX, y + byY, { steps: 4 });
    await page.mouse.up();
  };
  const first = page.getByLabel('Corner 1, m ahead');
  await expect(first).toHaveValue('-1.5');
  await drag(corner.first(), -30, 0);
  await expect(first).not.toHaveValue('-1.5');
  await page.getByRole('button', { name: /^Undo: Corner of Hoses/ }).click();
  await expect(first).toHaveValue('-1.5');
  // Drawn out of an edge, a corner more.
  await drag(page.locator('circle.between').first(), -20, 0);
  await expect(corner).toHaveCount(7);
  await page.getByRole('button', { name: 'Remove corner 2' }).click();
  await expect(corner).toHaveCount(6);
  // Over the whole figure and beyond: not taken, nothing is changed.
  await drag(corner.first(), 400, 0);
  await expect(first).toHaveValue('-1.5');
  await first.fill('30');
  await first.press('Enter');
  await expect(page.getByRole('alert').filter({ hasText: 'its edges must not cross' })).toBeVisible();
  await page.getByLabel('Outline of the work place').selectOption('rectangle');
  await expect(page.getByLabel('Along the vehicle, m')).toHaveValue('8');
  await expectAccessible(page);
});

test('lamps to spare: what each saves and costs in room; one is left out, and the list is made anew', async ({
  page,
}) => {
  await openBuild(page, await copyOfDemo(page, 'line-marking'), 'visibility');
  await page.getByRole('button', { name: 'Redundancy' }).click();
  const pair = page.getByRole('row', { name: /^Deck rear edge R1 and Deck rear edge L1 .* \d+ % \d+ %/ });
  await expect(pair).toBeVisible(WORKED_OUT);
  await expectAccessible(page);
  await pair.getByRole('button', { name: /^Remove/ }).click();
  await expect(pair).toHaveCount(0);
  // Its neighbours are needed now.
  await expect(page.getByRole('row', { name: /^Deck rear edge R2/ })).toHaveCount(0, WORKED_OUT);
  await page.getByRole('button', { name: 'Undo: Remove Deck rear edge R1 and Deck rear edge L1' }).click();
  await expect(pair).toBeVisible(WORKED_OUT);
});

test('what takes long is stopped, stays so, and is begun anew', async ({ page }) => {
  await openBuild(page, PUMPER, 'visibility');
  await page.getByRole('button', { name: 'Redundancy' }).click();
  const stop = page.getByRole('button', { name: 'Stop', exact: true });
  await stop.click(WORKED_OUT);
  await expect(page.getByText('Stopped. The figures may belong to another state.')).toBeVisible();
  await expect(stop).toHaveCount(0);
  await expect(page.getByText('Calculating …')).toHaveCount(0);
  await page.getByRole('button', { name: 'Calculate' }).click();
  await expect(page.getByText('Stopped. The figures')).toHaveCount(0);
  await expect(stop).toBeVisible(WORKED_OUT);
});

test('before and after the work: the ring and all else go by what was there', async ({ page }) => {
  await openBuild(page, await copyOfDemo(page, 'shore-medic-7'), 'visibility');
  const aside = page.getByRole('complementary', { name: 'Direction details' });
  await page.getByLabel('Bearing, degrees').fill('180');
  await expect(aside).toContainText(/Toward 180°/);
  const after = await aside.textContent();
  await page.getByRole('group', { name: 'Before or after' }).getByRole('button', { name: 'Before' }).click();
  await expect.poll(() => aside.textContent(), WORKED_OUT).not.toBe(after);
  const findings = page.getByRole('region', { name: 'Findings' });
  await expect(findings).toContainText(/Before the work.*resolved, 1 unchanged, 2 new/, WORKED_OUT);
  const list = page.getByRole('list', { name: 'Findings before and after the work' });
  await expect(list).toContainText(/Box rear, top: no lamp stays visible.*resolved/);
  await page.getByRole('link', { name: /^Timing/ }).click();
  await expect(page).toHaveURL(/timing$/);
  await page.getByRole('link', { name: /^Visibility/ }).click();
  await expect(
    page.getByRole('group', { name: 'Before or after' }).getByRole('button', { name: 'After' }),
  ).toHaveAttribute('aria-pressed', 'true');
});

test('glare and fog, by keyboard: who dazzles whom, and what fog throws back', async ({ page }) => {
  await openBuild(page, PUMPER, 'visibility');
  await stateBar(page).getByRole('button', { name: 'Night' }).click();
  const view = page.getByRole('button', { name: 'Glare and fog' });
  await tabTo(page, view);
  await page.keyboard.press('Enter');
  await expect(page.getByText(/^Following driver, same lane: highest threshold increment/)).toBeVisible(
    WORKED_OUT,
  );
  const driver = page.getByRole('complementary', { name: 'Selected driver' });
  const veil = driver.getByText(/cd\/m²/).first();
  const at40 = await veil.textContent();
  await driver.getByRole('slider').focus();
  await page.keyboard.press('End');
  await expect(driver).toContainText('At 200 m');
  await expect(veil).not.toHaveText(at40 ?? '');
  // An eye used to less needs more contrast still.
  const needed = page.getByText(/^Following driver, same lane: highest threshold increment/);
  const used = await needed.textContent();
  await page.getByLabel('Adaptation luminance, cd/m²').fill('0.5');
  await page.keyboard.press('Tab');
  await expect(needed).not.toHaveText(used ?? '');
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Driver', exact: true }).press('Enter');
  await expect(page.getByText('No lit lamp is in the driver’s direct view.')).toBeVisible();
  const lit = page.getByRole('table', { name: 'Lit surfaces before the driver' });
  await expect(lit.getByRole('row', { name: /^road .*% \d\.\d\d \d\.\d\d \d+°, -\d+° / })).toBeVisible();
  await expect(page.getByText(/^Reflection in/)).toHaveCount(0);
  const fog = page.getByRole('complementary', { name: 'Fog backscatter' });
  const before = await fog
    .getByText(/cd\/m²/)
    .first()
    .textContent();
  await fog.getByRole('button', { name: '50 m', exact: true }).click();
  await expect(fog.getByText(/cd\/m²/).first()).not.toHaveText(before ?? '', WORKED_OUT);
  await expectAccessible(page);
});

test('eyes at the vehicle: a usual one is made one’s own, moved and turned on the plan, and taken back', async ({
  page,
}) => {
  await openBuild(page, await copyOfDemo(page, 'tunnel-pumper-3'), 'visibility');
  await page.getByRole('button', { name: 'Glare and fog' }).click();
  await page.getByRole('button', { name: 'At the vehicle' }).click(WORKED_OUT);
  await expect(page.getByRole('row', { name: /Pump operator, reading the panel/ })).toBeVisible();
  await page.getByRole('button', { name: 'At the rear, facing it', exact: true }).click();
  await page.getByRole('button', { name: 'Copy to this build' }).click();
  const eye = page.getByRole('complementary', { name: 'Selected viewpoint' });
  await expect(eye.getByLabel('Name of the viewpoint')).toHaveValue('At the rear, facing it (copy)');
  const look = eye.getByLabel('Direction, degrees clockwise from ahead');
  await expect(look).toHaveValue('0');
  await expectAccessible(page);
  // Dragged toward the front on the plan, then turned back by the end of its look.
  const plan = page.getByRole('img', { name: /^Viewpoints around the vehicle/ });
  const dragBy = async (what: Locator, x: number, y: number): Promise<void> => {
    const box = await what.boundingBox();
    if (box === null) throw new Error('it is drawn');
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
    await page.mouse.down();
    await page.mouse.move(box.x + box.width / 2 + x, box.y + box.height / 2 + y, { steps: 4 });
    await page.mouse.up();
  };
  const ahead = eye.getByLabel('Ahead of the origin, m');
  const at = Number(await ahead.inputValue());
  await dragBy(plan.locator('circle.eye.looked'), 0, 60);
  await expect(page.getByRole('button', { name: /^Undo: Move At the rear/ })).toBeVisible();
  expect(Math.abs(Number(await ahead.inputValue()) - at)).toBeLessThan(0.2);
  await dragBy(plan.locator('circle.turn'), -60, 0);
  await expect(page.getByRole('button', { name: /^Undo: Turn At the rear/ })).toBeVisible();
  expect(Number(await look.inputValue())).toBeGreaterThan(90);
  await page.getByRole('button', { name: /^Undo: Turn At the rear/ }).click();
  await expect(look).toHaveValue('0');
});

test('a calm rear is laid, and what it costs in range stands beside the approach', async ({ page }) => {
  await openBuild(page, await copyOfDemo(page, 'ks-13'), 'controls');
  await page.getByRole('button', { name: 'Templates' }).click();
  await page.getByRole('button', { name: 'Apply Calm rear' }).click();
  await expect(page.getByRole('button', { name: 'Apply Calm rear' })).toBeDisabled();
  await page.getByRole('link', { name: /^Visibility/ }).click();
  await stateBar(page).getByRole('button', { name: 'Stage 2' }).click();
  await page.getByRole('button', { name: 'Sight distance' }).click();
  await page.getByRole('row', { name: /^Car from behind fog · day/ }).click(WORKED_OUT);
  const aside = page.getByRole('complementary', { name: 'Selected approach' });
  await expect(aside).toContainText('Calm rear: detection 156 m instead of 174 m (0.6 s later).', WORKED_OUT);
});

test('matt film on a wing throws a tenth of the light back, and can be taken off again', async ({ page }) => {
  await openBuild(page, await copyOfDemo(page, 'ks-13'), 'visibility');
  await stateBar(page).getByRole('button', { name: 'Stage 2' }).click();
  await page.getByRole('button', { name: 'Glare and fog' }).click();
  await page.getByRole('button', { name: 'Driver', exact: true }).click(WORKED_OUT);
  const lit = page.getByRole('table', { name: 'Lit surfaces before the driver' });
  await expect(
    page.getByText(/^Worst for the driver: right front wing, lit to 1\.49 cd\/m² by Roof/),
  ).toBeVisible();
  await expect(page.getByRole('img', { name: /^Driver’s view/ })).toContainText(
    'right front wing 1.49 cd/m²',
  );
  const wing = lit.getByRole('row', { name: /^right front wing/ });
  await expect(wing).toContainText('1.49', WORKED_OUT);
  await wing.getByLabel('right front wing, reflectance, %').fill('5');
  await page.keyboard.press('Tab');
  await expect(wing).toContainText('0.15', WORKED_OUT);
  await expect(page.getByText(/^Worst for the driver: /)).not.toContainText('right front wing');
  await wing.getByRole('button', { name: 'Use the default reflectance of right front wing' }).click();
  await expect(wing).toContainText('1.49', WORKED_OUT);
  await expect(lit.getByRole('row', { name: /^bonnet .*below 0.01/ })).toBeVisible();
  await saved(page).waitFor();
});

test(
  'by eye, by keyboard: from the wheel in fog, and another vehicle of the scene before a wet road',
  { tag: '@three-dimensions' },
  async ({ page }) => {
    await openBuild(page, await copyOfDemo(page, 'ks-13'), 'timing');
    await page.getByRole('button', { name: 'Scene', exact: true }).click();
    await page.getByLabel('Add vehicle').selectOption({ label: 'Ferry-slip marshal van' });
    await page.getByRole('link', { name: /^Visibility/ }).click();
    await page.getByRole('button', { name: '3D view' }).click();
    const around = page.getByRole('group', { name: 'Around' });
    await around.getByRole('button', { name: 'Rain' }).click();
    const walk = page.getByRole('slider', { name: 'Orbit the vehicle' });
    await walk.focus();
    await page.keyboard.press('ArrowRight');
    await expect(walk).toHaveAttribute('aria-valuetext', 'from 5°, 10 m, eye 1.7 m, in rain at night');
    // What both vehicles and the mirrors in the road look like is drawn: the picture is not one colour.
    const colours = (): Promise<number> =>
      page.evaluate(() => {
        const canvas = document.querySelector('canvas');
        const copy = document.createElement('canvas');
        [copy.width, copy.height] = [64, 64];
        const drawn = copy.getContext('2d');
        if (canvas === null || drawn === null) return 0;
        drawn.drawImage(canvas, 0, 0, 64, 64);
        const { data } = drawn.getImageData(0, 0, 64, 64);
        return new Set(Array.from({ length: 64 * 64 }, (_, i) => data.slice(4 * i, 4 * i + 3).join())).size;
      });
    await expect.poll(colours, WORKED_OUT).toBeGreaterThan(100);
    await around.getByRole('button', { name: 'Fog' }).click();
    await page.getByRole('combobox', { name: 'Eye' }).selectOption('Driver’s view');
    const head = page.getByRole('slider', { name: 'Driver’s view direction' });
    await expect(head).toHaveAttribute('aria-valuetext', 'driver’s view toward 0°, in fog at night');
    await expect(page.getByText(/fog backscatter \d+\.\d cd\/m²/)).toBeVisible(WORKED_OUT);
    await head.focus();
    await page.keyboard.press('ArrowLeft');
    await expect(head).toHaveAttribute('aria-valuenow', '355');
    await expectAccessible(page, '.night');
  },
);

test('what one more pair would gain an approach is tried, and added with one undo', async ({ page }) => {
  await openBuild(page, await copyOfDemo(page, 'line-marking'), 'visibility');
  await page.getByRole('button', { name: 'Sight distance' }).click();
  await page
    .getByRole('row', { name: /^Car from ahead fog · day/ })
    .getByRole('button')
    .click(WORKED_OUT);
  await page.getByRole('button', { name: 'Find lamps' }).click(WORKED_OUT);
  const first = page
    .getByRole('listitem')
    .filter({ hasText: /^\+\d+ m/ })
    .first();
  await expect(first).toContainText(/pair of .*, Front bumper/, WORKED_OUT);
  await first.getByRole('button', { name: 'Add' }).click();
  await expect(page.getByRole('button', { name: /^Undo: Add / })).toBeVisible();
  // What was tried was tried on the build as it was.
  await expect(page.getByRole('button', { name: 'Find lamps' })).toBeVisible(WORKED_OUT);
  await page.getByRole('button', { name: /^Undo: Add / }).click();
});

test('a strip of road says how far along it the light reaches', async ({ page }) => {
  await openBuild(page, await copyOfDemo(page, 'tunnel-pumper-3'), 'visibility');
  await page.getByRole('button', { name: 'Scene light', exact: true }).click();
  await page.getByRole('checkbox', { name: /^Scene light/ }).check(WORKED_OUT);
  await page.getByRole('button', { name: 'Road ahead, 5 × 80 m' }).click();
  const says = page.getByRole('complementary', { name: 'Ground illuminance' });
  await says.getByRole('button', { name: 'Left side, 3 m' }).click();
  await expect(says).toContainText(/Left side, 3 m, by lamp: average and minimum/, WORKED_OUT);
  await expect(says.getByRole('button', { name: /^Over the pump panel L \d+ lx \d/ })).toBeVisible();
  await says.getByRole('button', { name: 'Road ahead, 5 × 80 m' }).nth(1).click();
  await expect(
    page.getByText(/^(No part is above 10 lx\.|Above 10 lx from 0 to \d+ m of its 80 m)/),
  ).toBeVisible(WORKED_OUT);
});

test('a blind corner, by keyboard: where the nose stands as light is first seen, and which lamps are seen there', async ({
  page,
}) => {
  await openBuild(page, PUMPER, 'visibility');
  await tabTo(page, page.getByRole('button', { name: 'Junction' }));
  await page.keyboard.press('Enter');
  const says = page.getByRole('complementary', { name: 'Crossing driver' });
  await expect(says).toContainText(/first visible with the bumper \d\.\d m before the line/, WORKED_OUT);
  const nose = page.getByRole('slider', { name: 'Front bumper before the crossing line, m' });
  const lamps = page.getByRole('status').filter({ hasText: 'lit lamps are visible' });
  const count = async (): Promise<number> => parseInt((await lamps.textContent()) ?? '', 10);
  await expect(lamps).toHaveText(/^[1-9]\d* of \d+ lit/);
  const atFirst = await count();
  await tabTo(page, nose);
  await page.keyboard.press('End');
  await expect(page.getByText('no lamp is visible separately')).toBeVisible();
  await page.keyboard.press('Home');
  await expect.poll(count).toBeGreaterThan(atFirst);
  const before = await says.textContent();
  await says.getByLabel('Wall ends before the line, m').fill('8');
  await page.keyboard.press('Tab');
  await expect.poll(() => says.textContent(), WORKED_OUT).not.toBe(before);
  // An eye this side of the corner cannot be asked for.
  const along = says.getByLabel('Eye along the crossing road, m');
  await along.fill('2');
  await page.keyboard.press('Tab');
  await expect(along).toHaveValue('5.1');
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Sight distance' }).click();
  await page.getByRole('button', { name: /^Car from behind fog · night/ }).click(WORKED_OUT);
  await expect(page.getByText(/reflective markings detected at \d+ m/)).toBeVisible(WORKED_OUT);
});

test.describe('while it is being calculated', () => {
  test.use({ tab: 'new' });

  test('no gap is denied and no figure is given for what is not known yet', async ({ page }) => {
    let release = (): void => undefined;
    const held = new Promise<void>((done) => (release = done));
    await page.route(/analysis\.worker/, async (route) => {
      await held;
      await route.continue();
    });
    await page.goto(`/builds/${demoId.ks13}/visibility`);
    const aside = page.getByRole('complementary', { name: 'Direction details' });
    await expect(aside).toContainText('Calculating …');
    await expect(aside).not.toContainText(/No gaps|not detected|Effective intensity|No lamp reaches/);
    await expect(page.getByText('No gap', { exact: true })).toHaveCount(0);
    release();
    await expect(aside).toContainText('✓ No gaps', WORKED_OUT);
    await expect(aside).toContainText(/Effective intensity \d/);
    await expect(page.getByText('No gap', { exact: true })).toBeVisible();
  });
});
