import type { Locator, Page } from '@playwright/test';
import { z } from 'zod';
import {
  choosePattern,
  copyOfDemo,
  expect,
  expectAccessible,
  inspector,
  openBuild,
  saved,
  tabTo,
  test,
} from './support';

type How = 'mouse' | 'keyboard';

/** Goes to what the Tab key stops at. Walking there stop by stop is tried in the first test and for the whole path. */
async function reach(target: Locator): Promise<void> {
  await expect(target).toBeVisible();
  expect(
    await target.evaluate((element) =>
      element instanceof HTMLElement || element instanceof SVGElement ? element.tabIndex : -1,
    ),
  ).toBe(0);
  await target.focus();
}

/** Presses a button as someone would who has a mouse, or who has none. */
async function press(page: Page, target: Locator, how: How): Promise<void> {
  if (how === 'mouse') return target.click();
  await reach(target);
  await page.keyboard.press('Enter');
}

/** Chooses from a list: by its text, or by typing how the text begins. */
async function choose(page: Page, list: Locator, text: string, how: How): Promise<void> {
  if (how === 'mouse') {
    await choosePattern(list, { label: text });
    return;
  }
  await reach(list);
  // A space would open the list.
  await page.keyboard.type(text.split(' ')[0] ?? '');
}

async function typeInto(page: Page, field: Locator, text: string, how: How): Promise<void> {
  if (how === 'mouse') await field.click();
  else await reach(field);
  await field.fill(text);
  await page.keyboard.press('Enter');
}

const panel = (page: Page): Locator => page.getByRole('region', { name: 'Pattern' });
const lane = (page: Page, group: string, line: string): Locator =>
  page.getByRole('button', { name: `${group}, ${line}: Enter adds a bar` });
const bars = (page: Page, group: string, line: string): Locator =>
  page.locator(`[data-bar][aria-label^="${group}, ${line}, bar"]`);
const barTexts = async (page: Page, group: string, line: string): Promise<string[]> =>
  (
    await bars(page, group, line).evaluateAll((all) => all.map((bar) => bar.getAttribute('aria-label') ?? ''))
  ).map((text) => text.slice(text.indexOf(': ') + 2));

/** Pulls a bar across an empty part of a line, from one time to another; the score shows one second. */
async function pull(page: Page, target: Locator, fromMs: number, toMs: number): Promise<void> {
  const box = await target.boundingBox();
  if (box === null) throw new Error('the line is not on the screen');
  const x = (ms: number): number => box.x + (box.width * ms) / 1000;
  const y = box.y + box.height / 2;
  await page.mouse.move(x(fromMs), y);
  await page.mouse.down();
  await page.mouse.move((x(fromMs) + x(toMs)) / 2, y);
  await page.mouse.move(x(toMs), y);
  await page.mouse.up();
}

const Saved = z.object({
  build: z.object({
    timing: z.object({
      patterns: z.array(
        z.object({
          id: z.string(),
          name: z.string(),
          cycleMs: z.number(),
          by: z.string(),
          lines: z.array(
            z.array(z.object({ fromMs: z.number(), toMs: z.number(), slot: z.number().optional() })),
          ),
        }),
      ),
    }),
    controls: z.object({
      functions: z.array(
        z.object({
          id: z.string(),
          shows: z.array(
            z.object({
              cues: z.array(
                z.object({
                  target: z.object({ groupId: z.string().optional() }),
                  nightPatternId: z.string().nullish(),
                }),
              ),
            }),
          ),
        }),
      ),
    }),
    placements: z.array(
      z.object({ modules: z.array(z.object({ groupId: z.string().nullable(), phase: z.string() })) }),
    ),
  }),
});

/** The build as the server has it, once all is saved. */
async function stored(page: Page, id: string) {
  await saved(page).waitFor();
  const answer = await page.request.get(`/api/v1/builds/${id}`);
  return Saved.parse(await answer.json()).build;
}

const times = (line: readonly { fromMs: number; toMs: number }[] | undefined): number[][] =>
  (line ?? []).map((s) => [s.fromMs, s.toMs]);

/** An empty pattern for a group in stage 1, and the score at one second. */
async function beginEmpty(page: Page, group: string, how: How): Promise<void> {
  await press(page, page.getByRole('button', { name: `New pattern for ${group} in Stage 1` }), how);
  await expect(panel(page).getByRole('textbox', { name: 'Name', exact: true })).toHaveValue('Pattern 1');
  if (how === 'mouse') await page.getByLabel('Width of the time shown').selectOption('1000');
}

for (const how of ['mouse', 'keyboard'] as const) {
  test.describe(`drawn from an empty pattern by ${how}`, () => {
    test('a triple flash left and right, then its quarter-speed variant for the night', async ({ page }) => {
      const id = await copyOfDemo(page, 'ks-13');
      await openBuild(page, id, 'timing');
      await beginEmpty(page, 'Front and sides', how);
      const a = lane(page, 'Front and sides', 'phase a');
      if (how === 'mouse') {
        await pull(page, a, 0, 70);
        await pull(page, a, 120, 190);
        await pull(page, a, 240, 310);
      } else {
        await tabTo(page, a);
        for (let i = 0; i < 3; i++) await page.keyboard.press('Enter');
        // The last bar has the focus: 10 ms later, and 30 ms shorter at its end.
        await page.keyboard.press('ArrowRight');
        for (let i = 0; i < 3; i++) await page.keyboard.press('Shift+ArrowLeft');
      }
      await expect(bars(page, 'Front and sides', 'phase a')).toHaveCount(3);
      await typeInto(page, panel(page).getByLabel('Cycle, ms'), '900', how);
      await press(page, panel(page).getByRole('button', { name: 'Alternate in Phase B' }), how);
      await expect(bars(page, 'Front and sides', 'phase b')).toHaveCount(3);
      const drawn = (await stored(page, id)).timing.patterns[0];
      const first =
        how === 'mouse'
          ? [
              [0, 70],
              [120, 190],
              [240, 310],
            ]
          : [
              [0, 100],
              [160, 260],
              [330, 400],
            ];
      expect(times(drawn?.lines[0])).toEqual(first);
      expect(times(drawn?.lines[1])).toEqual(first.map((span) => span.map((ms) => ms + 450)));

      await press(page, panel(page).getByRole('button', { name: 'Use it at night' }), how);
      await press(page, page.getByRole('button', { name: 'Functions', exact: true }), how);
      await expect(page.getByLabel('Pattern at night of Front and sides in Stage 1')).toHaveValue(/./);
      await expect(page.getByRole('region', { name: 'Timeline of Stage 1' })).toContainText('3,600 ms');
      const { timing: night, controls } = await stored(page, id);
      expect(night.patterns[1]?.name).toBe('Pattern 1, 25 % speed 2');
      expect(times(night.patterns[1]?.lines[0])).toEqual(first.map((span) => span.map((ms) => ms * 4)));
      const cues = controls.functions.find((f) => f.id === 'stage-1')?.shows[0]?.cues;
      expect(cues?.find((c) => c.target.groupId === 'front')?.nightPatternId).toBe(night.patterns[1]?.id);
      await page.keyboard.press('Escape');
    });

    test('an X across the four corners in two colours', async ({ page }) => {
      const id = await copyOfDemo(page, 'ks-13');
      await openBuild(page, id, 'timing');
      await beginEmpty(page, 'Front and sides', how);
      await press(page, page.getByRole('button', { name: 'Functions', exact: true }), how);
      await press(page, page.getByRole('button', { name: '12 modules', exact: true }), how);
      // Blue is fitted and disabled in this build.
      const spare = inspector(page)
        .getByRole('group', { name: /^Disabled/ })
        .getByLabel('blue');
      await expect(spare).toBeChecked();
      await reach(spare);
      await page.keyboard.press('Space');
      await expect(spare).not.toBeChecked();
      await press(page, inspector(page).getByText(/^Assign phases/), how);
      await press(page, inspector(page).getByRole('button', { name: 'X across the corners' }), how);
      const phases = (await stored(page, id)).placements.flatMap((p) =>
        p.modules.filter((m) => m.groupId === 'front').map((m) => m.phase),
      );
      expect([phases.filter((p) => p === 'A').length, phases.filter((p) => p === 'B').length]).toEqual([
        6, 6,
      ]);
      for (const [line, slot] of [
        ['phase a', '1'],
        ['phase b', '2'],
      ] as const) {
        const here = lane(page, 'Front and sides', line);
        if (how === 'mouse')
          await pull(page, here, line === 'phase a' ? 0 : 500, line === 'phase a' ? 400 : 900);
        else {
          await reach(here);
          await page.keyboard.press('Enter');
        }
        if (how === 'mouse') await bars(page, 'Front and sides', line).first().click();
        await typeInto(page, panel(page).getByLabel('To, ms'), line === 'phase a' ? '400' : '900', how);
        await typeInto(page, panel(page).getByLabel('From, ms'), line === 'phase a' ? '0' : '500', how);
        await choose(page, panel(page).getByLabel('Colour slot'), slot, how);
      }
      const pattern = (await stored(page, id)).timing.patterns[0];
      expect(pattern?.lines[0]?.map((s) => [s.fromMs, s.toMs, s.slot])).toEqual([[0, 400, 1]]);
      expect(pattern?.lines[1]?.map((s) => [s.toMs, s.slot])).toEqual([[900, 2]]);
      // Red one way across the corners, blue the other.
      const score = page.getByRole('region', { name: 'Timeline of Stage 1' });
      await expect(score.locator('[data-bar][aria-label*="phase a, bar 1"] .letter').first()).toHaveText('R');
      await expect(score.locator('[data-bar][aria-label*="phase b, bar 1"] .letter').first()).toHaveText('B');
    });

    test('an arrow from the middle out over eight heads', async ({ page }) => {
      const id = await copyOfDemo(page, 'ks-13');
      await openBuild(page, id, 'timing');
      await beginEmpty(page, 'Rear arrow', how);
      await press(page, panel(page).getByRole('button', { name: 'by place in a row' }), how);
      await typeInto(page, panel(page).getByLabel('Steps, lines'), '8', how);
      // Half of it by hand, the other half copied from its mirror image.
      for (const [step, from] of [
        [4, 0],
        [3, 140],
        [2, 280],
        [1, 420],
      ] as const) {
        const here = lane(page, 'Rear arrow', `step ${step}`);
        if (how === 'mouse') {
          await here.scrollIntoViewIfNeeded();
          await pull(page, here, from, 800);
        } else {
          await reach(here);
          await page.keyboard.press('Enter');
          await typeInto(page, panel(page).getByLabel('To, ms'), '800', how);
          if (from > 0) await typeInto(page, panel(page).getByLabel('From, ms'), String(from), how);
        }
        if (how === 'mouse') {
          await press(page, panel(page).getByRole('button', { name: 'Copy line' }), how);
          await panel(page)
            .getByLabel('Line', { exact: true })
            .selectOption(String(8 - step));
          await press(page, panel(page).getByRole('button', { name: 'Paste', exact: true }), how);
        } else {
          await reach(here);
          await page.keyboard.press('Control+c');
          await reach(lane(page, 'Rear arrow', `step ${9 - step}`));
          await page.keyboard.press('Control+v');
        }
      }
      const pattern = (await stored(page, id)).timing.patterns[0];
      expect(pattern?.by).toBe('order');
      expect(pattern?.lines.map((line) => times(line)[0])).toEqual([
        [420, 800],
        [280, 800],
        [140, 800],
        [0, 800],
        [0, 800],
        [140, 800],
        [280, 800],
        [420, 800],
      ]);
    });
  });
}

test('bars are dragged, resized, split and tapped; undo takes each back', async ({ page }) => {
  const id = await copyOfDemo(page, 'ks-13');
  await openBuild(page, id, 'timing');
  await page.getByRole('button', { name: 'Stage 2', exact: true }).first().click();
  await page.getByLabel('Width of the time shown').selectOption('1000');
  const first = bars(page, 'Front and sides', 'phase a').first();
  const box = await first.boundingBox();
  if (box === null) throw new Error('no bar');
  const middle = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  const pxPerMs = box.width / 110;
  await page.mouse.move(middle.x, middle.y);
  await page.mouse.down();
  await page.mouse.move(middle.x + 20 * pxPerMs, middle.y);
  await page.mouse.move(middle.x + 40 * pxPerMs, middle.y);
  await page.mouse.up();
  // The library's own stays as it is: this is a copy for this place.
  await expect(panel(page).getByRole('textbox', { name: 'Name', exact: true })).toHaveValue('Double flash 2');
  expect(await barTexts(page, 'Front and sides', 'phase a')).toEqual(['40 to 150 ms', '160 to 270 ms']);
  // Its end, pulled back by 40 ms.
  const moved = await first.boundingBox();
  if (moved === null) throw new Error('no bar');
  const end = { x: moved.x + moved.width - 3, y: moved.y + moved.height / 2 };
  await page.mouse.move(end.x, end.y);
  await page.mouse.down();
  await page.mouse.move(end.x - 20 * pxPerMs, end.y);
  await page.mouse.move(end.x - 40 * pxPerMs, end.y);
  await page.mouse.up();
  expect((await barTexts(page, 'Front and sides', 'phase a'))[0]).toBe('40 to 110 ms');
  await bars(page, 'Front and sides', 'phase a').first().focus();
  await page.keyboard.press('s');
  await expect(bars(page, 'Front and sides', 'phase a')).toHaveCount(3);
  await page.keyboard.press('Delete');
  await expect(bars(page, 'Front and sides', 'phase a')).toHaveCount(2);

  await panel(page).getByRole('button', { name: 'Tap in rhythm' }).click();
  const pad = panel(page).getByRole('button', { name: 'Hold while it should be lit' });
  for (let i = 0; i < 2; i++) await pad.click({ delay: 80 });
  await panel(page).getByRole('button', { name: 'Done' }).click();
  expect((await barTexts(page, 'Front and sides', 'phase a'))[0]).toMatch(/^0 to /);
  for (let i = 0; i < 5; i++) await page.keyboard.press('Control+z');
  await expect(panel(page).getByRole('heading', { name: 'Double flash' })).toBeVisible();
  expect(await barTexts(page, 'Front and sides', 'phase a')).toEqual(['0 to 110 ms', '160 to 270 ms']);
});

test('clocks: the rear at half the front’s speed; a head that runs free is shown', async ({ page }) => {
  const id = await copyOfDemo(page, 'ferry-slip');
  await openBuild(page, id, 'timing');
  await page.getByRole('button', { name: 'Clocks' }).click();
  await page.getByLabel('Heads follows the clock of').selectOption({ label: 'Old beacons' });
  await page.getByLabel('Speed of Heads, percent').fill('50');
  await page.keyboard.press('Tab');
  await expect(page.getByRole('region', { name: /^Timeline/ })).toContainText('1,600 ms');
  await expect(
    page.getByRole('button', { name: /Roof: has its own flasher without a sync line; up to 40 ms/ }),
  ).toBeVisible();
  // As fast as that no flash of it would last: it says so, and changes nothing.
  await page.getByRole('button', { name: 'Functions', exact: true }).click();
  await choosePattern(page.getByLabel('Pattern of Heads in Stage 2', { exact: true }), 'chance');
  await page.getByRole('button', { name: 'Clocks' }).click();
  await page.getByLabel('Speed of Heads, percent').fill('10');
  await page.keyboard.press('Tab');
  await expect(page.getByRole('alert')).toContainText('Nothing was changed');
});

test('the library: filtered, duplicated, changed by its recipe, saved as a file and brought in again', async ({
  page,
}) => {
  const id = await copyOfDemo(page, 'ks-13');
  await openBuild(page, id, 'timing');
  await page.getByRole('button', { name: 'Draw the pattern of Roof bar in Stage 2' }).click();
  await page.getByRole('button', { name: 'Library', exact: true }).click();
  const patterns = page.getByRole('group', { name: 'Library' });
  await page.getByRole('button', { name: 'Wide or narrow' }).click();
  const use = patterns.getByRole('button', { name: 'Duplicate Double flash', exact: true });
  await use.scrollIntoViewIfNeeded();
  await expect(use).toBeInViewport({ ratio: 1 });
  await page.getByLabel('Only those allowed in Stage 2').check();
  await expect(patterns.getByRole('rowheader', { name: /Slow alternate/ })).toHaveCount(0);
  await page.getByRole('button', { name: 'along a row' }).click();
  await expect(panel(page).getByRole('textbox', { name: 'Name', exact: true })).toHaveValue('Row 1');
  await panel(page).getByLabel('Direction of movement').selectOption({ label: 'Centre-out' });
  await typeInto(page, panel(page).getByLabel('Heads, in the row'), '6', 'mouse');
  await page.getByRole('button', { name: 'Library', exact: true }).click();
  await expect(patterns.getByRole('row', { name: /Row 1/ })).toContainText('75');
  const download = page.waitForEvent('download');
  await patterns.getByRole('button', { name: 'Save Row 1 as a file' }).click();
  const file = await (await download).path();
  await page.getByLabel('Import file').setInputFiles(file);
  await expect(patterns.getByRole('rowheader', { name: /Row 1/ })).toHaveCount(2);
  await page.getByLabel('Import file').setInputFiles({
    name: 'wrong.json',
    mimeType: 'application/json',
    buffer: Buffer.from('{"format":"else"}'),
  });
  await expect(page.getByRole('alert')).toContainText("wrong.json: format: must be 'flarik-patterns'");
  await expectAccessible(page);
});

test('stages side by side, and a scene of two vehicles in step', async ({ page }) => {
  const id = await copyOfDemo(page, 'ks-13');
  await openBuild(page, id, 'timing');
  await page.getByRole('button', { name: 'Compare stages' }).click();
  await expect(page.getByRole('group', { name: 'Stage comparison' })).toContainText('A worst');
  await page.getByRole('button', { name: 'Scene', exact: true }).click();
  const clocks = page.locator('dt', { hasText: 'Clocks that drift' }).locator('+ dd');
  const before = Number(await clocks.textContent());
  await page.getByLabel('Add vehicle').selectOption({ label: 'Tunnel pumper 3' });
  await expect.poll(async () => Number(await clocks.textContent())).toBeGreaterThan(before);
  const apart = Number(await clocks.textContent());
  for (const tie of await page.getByLabel(/synchronised with/).all()) await tie.selectOption({ index: 1 });
  await expect.poll(async () => Number(await clocks.textContent())).toBeLessThan(apart);
  await page.getByRole('button', { name: /^Eye at/ }).focus();
  await page.keyboard.press('ArrowRight');
  await expect(page.getByText('Eye -39 m ahead')).toBeVisible();
  await expectAccessible(page);
});

test(
  'seen by eye: walked round, in fog, filmed as a calm loop',
  { tag: '@three-dimensions' },
  async ({ page }) => {
    const id = await copyOfDemo(page, 'ks-13');
    await openBuild(page, id, 'visibility');
    await page.getByRole('button', { name: '3D view' }).click();
    const round = page.getByRole('slider', { name: 'Orbit the vehicle' });
    await expect(round).toBeVisible();
    await page.keyboard.press('4');
    await expect(round).toHaveAttribute('aria-valuenow', '135');
    await round.focus();
    await page.keyboard.press('ArrowRight');
    await expect(round).toHaveAttribute('aria-valuenow', '140');
    await page.getByRole('button', { name: 'Fog', exact: true }).click();
    await expect(round).toHaveAttribute('aria-valuetext', /in fog at night/);
    await page.getByLabel('Observer').selectOption('Protan (red-deficient)');
    const picture = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Save image' }).click();
    expect((await picture).suggestedFilename()).toBe('Copy of ks-13, 140°.png');
    const download = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Save slow animation' }).click();
    expect((await download).suggestedFilename()).toBe('Copy of ks-13, 140°.gif');
    await expectAccessible(page);
  },
);
