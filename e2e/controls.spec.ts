import { readFileSync } from 'node:fs';
import { gunzipSync } from 'node:zlib';
import type { Locator, Page } from '@playwright/test';
import { z } from 'zod';
import {
  copyOfDemo,
  expect,
  expectAccessible,
  findings,
  openBuild,
  saved,
  test,
  reopen,
  openList,
} from './support';

type How = 'mouse' | 'keyboard';

const press = (target: Locator, how: How): Promise<void> =>
  how === 'mouse' ? target.click() : target.press('Enter');

/** The command vehicle as it was before there were functions: lamps, groups and stages, no more. */
async function beforeFunctions(page: Page): Promise<string> {
  const packed = readFileSync(new URL('../core/test/reference/older/schema-4.json.gz', import.meta.url));
  const builds = z.record(z.string(), z.looseObject({})).parse(JSON.parse(gunzipSync(packed).toString()));
  const id = crypto.randomUUID();
  const answer = await page.request.post('/api/v1/builds/import', {
    data: { ...builds['incident-command'], id },
  });
  expect(answer.status()).toBe(201);
  return id;
}

const template = (page: Page, name: string): Locator =>
  page.getByRole('region', { name: 'Templates' }).getByRole('button', { name: `Apply ${name}`, exact: true });
const now = (page: Page): Locator => page.locator('.drive .now');
const input = (page: Page, name: string, value: string): Locator =>
  page.getByRole('group', { name, exact: true }).getByRole('button', { name: value, exact: true });
const key = (page: Page, panel: string, name: string): Locator =>
  page.getByRole('region', { name: panel, exact: true }).getByRole('button', { name, exact: true });
const slide = (page: Page, panel: string, value: string): Locator =>
  page
    .getByRole('region', { name: panel, exact: true })
    .getByRole('radiogroup', { name: 'Warning' })
    .getByRole('radio', { name: value, exact: true });
const step = (page: Page, name: string): Locator =>
  page.getByRole('group', { name: 'Program', exact: true }).getByRole('button', { name, exact: true });

/** The whole programme of docs/controls.md, driven: slide, white, hatch, turn, green and rear panel; kept as a trial, replayed, in the atlas. */
async function driveAll(page: Page, how: How): Promise<void> {
  // Nothing comes before the ignition; then the slide brings its stage.
  await press(slide(page, 'Switch panel', '2'), how);
  await expect(now(page)).toHaveText('Nothing on');
  await press(input(page, 'Ignition', 'on'), how);
  await expect(now(page)).toHaveText('Stage 2');

  await press(key(page, 'Switch panel', 'White'), how);
  await expect(now(page)).toHaveText(/Stage 2, White override/);
  await press(key(page, 'Switch panel', 'No white'), how);
  await expect(now(page)).toContainText('Fog cancel');
  await press(key(page, 'Switch panel', 'No white'), how);
  await press(key(page, 'Switch panel', 'White'), how);

  // The supplement under the hatch stays five seconds after it is shut.
  await press(input(page, 'Hatch', 'open'), how);
  await expect(now(page)).toContainText('Hatch supplement');
  await press(input(page, 'Hatch', 'closed'), how);
  await expect(page.getByText('Hatch supplement: timer ends in 5 s')).toBeVisible();
  await press(page.getByRole('button', { name: 'End now' }), how);
  await expect(now(page)).toHaveText('Stage 2');

  await press(input(page, 'Turn signal', 'left'), how);
  await expect(now(page)).toContainText('Left turn reads');
  await press(input(page, 'Turn signal', 'none'), how);
  await press(key(page, 'Switch panel', 'Command'), how);
  await expect(now(page)).toHaveText(/Stage 2, Command green/);

  // The state bar says the same in every step, and the twin at the rear moves the same slide.
  await expect(page.getByRole('region', { name: 'State bar' })).toContainText('Command green');
  await press(slide(page, 'Rear panel', 'off'), how);
  await expect(slide(page, 'Switch panel', 'off')).toHaveAttribute('aria-checked', 'true');
  await expect(now(page)).toHaveText(/Off, Command green/);
  await press(page.getByRole('button', { name: 'Step back' }), how);
  await expect(now(page)).toHaveText(/Stage 2, Command green/);

  const name = page.getByLabel('Test name');
  await name.fill('Command in stage 2');
  await name.press('Enter');
  await expect(page.getByRole('button', { name: 'Command in stage 2', exact: true })).toBeVisible();
  await saved(page).waitFor();
  await reopen(page);
  await press(page.getByRole('button', { name: 'Command in stage 2', exact: true }), how);
  await expect(now(page)).toHaveText(/Stage 2, Command green/);

  // The atlas: slide against gear, as the controls stand.
  await press(page.getByRole('button', { name: 'State matrix', exact: true }), how);
  await expect(page.getByRole('region', { name: 'State matrix' }).getByRole('button')).toHaveCount(16);
}

for (const how of ['mouse', 'keyboard'] as const)
  test(`by ${how}: a programme is put down, driven, kept as a trial and played again`, async ({ page }) => {
    const id = await beforeFunctions(page);
    await openBuild(page, id, 'controls');
    for (const name of ['Slide and eight keys', 'Command green', 'Second panel at the rear'])
      await press(template(page, name), how);
    await expect(template(page, 'Command green')).toBeDisabled();

    await driveAll(page, how);
  });

test('rank decides who wins, and why a lamp shows what it does is told', async ({ page }) => {
  const id = await beforeFunctions(page);
  await openBuild(page, id, 'controls');
  await press(template(page, 'Slide and eight keys'), 'mouse');
  await press(input(page, 'Ignition', 'on'), 'mouse');
  await press(slide(page, 'Switch panel', '3'), 'mouse');
  await press(key(page, 'Switch panel', 'White'), 'mouse');
  const ladder = page.getByRole('region', { name: 'Priority list' });
  await step(page, 'Lamp sets').click();
  await page
    .getByRole('region', { name: 'Sets of lamps' })
    .getByRole('listitem')
    .filter({ has: page.getByLabel('Name of set White ahead') })
    .getByRole('button', { name: /modules/ })
    .click();
  await expect(ladder).toBeVisible();
  await ladder.getByRole('button', { name: /^White override light/ }).click();
  await expect(page.getByRole('region', { name: 'Function White override' })).toBeVisible();
  for (let i = 0; i < 6; i++)
    await page.getByRole('button', { name: 'White override lower priority' }).click();
  await expect(page.getByRole('button', { name: /Undo/ })).toBeEnabled();
});

for (const how of ['mouse', 'keyboard'] as const)
  test(`by ${how}: a lamp set by rule takes what it says, with exceptions, and a fixed list tells what is outside`, async ({
    page,
  }) => {
    const id = await beforeFunctions(page);
    await openBuild(page, id, 'controls');
    await press(step(page, 'Lamp sets'), how);
    const sets = page.getByRole('region', { name: 'Sets of lamps' });
    await press(sets.getByRole('button', { name: 'New set by rule' }), how);
    const set = sets.getByRole('listitem', { name: 'Set Set 1' });
    await expect(set).toContainText('Warning lamps.');
    await press(set.getByRole('button', { name: '+ condition' }), how);
    await expect(set).toContainText('Warning lamps that can show white.');
    await set.getByLabel('Set 1, condition 2: about').selectOption('Shines to the');
    await expect(set).toContainText('Warning lamps that shine to the front.');
    const count = set.getByRole('button', { name: /^\d+ modules?$/ });
    const before = Number((await count.innerText()).split(' ')[0]);
    await set.getByLabel('Set 1, condition 2: applies or not').selectOption('none of');
    await expect(set).toContainText('that do not shine to the front.');
    await set.getByLabel('Set 1, condition 2: applies or not').selectOption('any of');
    await press(count, how);
    await press(set.getByRole('button', { name: 'Exclude the selection' }), how);
    await expect(count).toHaveText('0 modules');
    await expect(set).toContainText(`${before} excluded by hand`);
    await press(set.getByRole('button', { name: 'Clear exceptions' }), how);
    await expect(count).toHaveText(`${before} modules`);
    await press(set.getByRole('button', { name: 'Keep as a fixed list' }), how);
    await expect(set).toContainText('Fixed list.');
    await expect(set.getByText('outside')).toBeHidden();
  });

/** Chooses what a part of a condition asks about: the first that a few words find. */
async function askAbout(within: Locator, part: string, words: string): Promise<void> {
  const box = within.getByRole('combobox', { name: `${part}: reads`, exact: true });
  await box.click();
  await box.fill(words);
  await box.press('ArrowDown');
  await box.press('Enter');
}

test('a condition in a few steps: found by words, wrapped, unwrapped, named, and asked for by its name', async ({
  page,
}) => {
  const id = await beforeFunctions(page);
  await openBuild(page, id, 'controls');
  const ladder = page.getByRole('region', { name: 'Priority list' });
  await ladder.getByRole('button', { name: 'Add a function' }).click();
  const panel = page.getByRole('region', { name: /^Function New function/ });
  await panel.getByLabel('Kind').selectOption('light');
  await panel.getByLabel('Way').selectOption('while');
  await askAbout(panel, 'While', 'any door');
  // A light is first asked to burn at night.
  await panel.getByRole('button', { name: 'and', exact: true }).first().click();
  await expect(panel).toContainText(/while \(.*door is open or .*\) and Light around is night/i);
  const all = panel.getByRole('group', { name: 'While', exact: true });
  const doors = panel.getByRole('group', { name: 'While, part 1', exact: true });
  const count = await doors.getByRole('combobox', { name: /: reads$/ }).count();
  expect(count).toBeGreaterThanOrEqual(4);
  await doors.getByRole('button', { name: 'name it' }).first().click();
  await doors.getByLabel('While, part 1: call it').fill('Somebody gets out');
  await doors.getByRole('button', { name: 'Save' }).click();
  await expect(panel).toContainText(/while Somebody gets out is on and Light around is night/);
  await expect(ladder.getByRole('button', { name: /^Somebody gets out condition/ })).toBeVisible();
  // What is wrapped can stand beside the others again.
  await panel
    .getByRole('group', { name: 'While, part 1', exact: true })
    .getByRole('button', { name: 'or', exact: true })
    .click();
  await expect(panel).toContainText(
    /while \(Somebody gets out is on or Light around is night\) and Light around is night/,
  );
  await panel.getByRole('button', { name: 'unwrap' }).click();
  await expect(panel).toContainText(
    /while Somebody gets out is on and Light around is night and Light around is night/,
  );
  await expect(all.getByRole('combobox', { name: /: reads$/ })).toHaveCount(3);
  await askAbout(panel, 'While, part 3', 'somebody');
  await expect(panel).toContainText(/and Somebody gets out is on/);
});

test('two keys together are put together key by key', async ({ page }) => {
  const id = await beforeFunctions(page);
  await openBuild(page, id, 'controls');
  await press(template(page, 'Slide and eight keys'), 'mouse');
  const ladder = page.getByRole('region', { name: 'Priority list' });
  await ladder
    .getByRole('button', { name: /^Scene light/ })
    .first()
    .click();
  const panel = page.getByRole('region', { name: 'Function Scene light' });
  await panel.getByLabel('On and off when: add').selectOption('two keys together …');
  const chord = panel.getByRole('group', { name: 'On and off when: two keys together' });
  await chord.getByLabel('First key').selectOption('“White”');
  await chord.getByLabel('Second key').selectOption('“White”');
  await expect(chord.getByRole('button', { name: 'Add' })).toBeDisabled();
  await chord.getByLabel('Second key').selectOption('“Scene”');
  await chord.getByRole('button', { name: 'Add' }).click();
  await expect(panel).toContainText('“White” and “Scene” are pressed together');
});

test('a ring of functions is refused with its names, and nothing is changed', async ({ page }) => {
  const id = await beforeFunctions(page);
  await openBuild(page, id, 'controls');
  await press(template(page, 'Hatch supplement'), 'mouse');
  await page
    .getByRole('region', { name: 'Priority list' })
    .getByRole('button', { name: /^Stage 2 stage/ })
    .click();
  const panel = page.getByRole('region', { name: 'Function Stage 2' });
  await askAbout(panel, 'While', 'hatch supp');
  await expect(panel.getByRole('alert')).toContainText(/functions wait for each other: ".*" → ".*"/);
});

test('nothing that axe finds is wrong with Controls', async ({ page }) => {
  const id = await beforeFunctions(page);
  await openBuild(page, id, 'controls');
  await press(template(page, 'Slide and eight keys'), 'mouse');
  await expectAccessible(page);
  for (const tab of ['Panels', 'Inputs', 'Lamp sets']) {
    await step(page, tab).click();
    await expectAccessible(page);
  }
});

test('two keys together, and one that is held, do what a press does not', async ({ page }) => {
  const text = readFileSync(new URL('../demo/builds/ks-13.json', import.meta.url), 'utf8');
  const build = z
    .looseObject({ controls: z.looseObject({ functions: z.array(z.looseObject({ id: z.string() })) }) })
    .parse(JSON.parse(text));
  const [like] = build.controls.functions.filter(({ id }) => id === 'white');
  const by = (id: string, name: string, event: object) => ({
    ...like,
    id,
    name,
    when: { way: 'latched', sets: [], clears: [], toggles: [event], timeoutMs: 0 },
  });
  const id = crypto.randomUUID();
  const answer = await page.request.post('/api/v1/builds/import', {
    data: {
      ...build,
      id,
      name: 'Two keys together',
      controls: {
        ...build.controls,
        functions: [
          by('together', 'Both keys', { kind: 'chord', controls: ['key-white', 'key-scene-light'] }),
          by('held', 'Held key', { kind: 'press', control: 'key-siren', press: 'long' }),
          ...build.controls.functions,
        ],
      },
    },
  });
  expect(answer.status()).toBe(201);
  await openBuild(page, id, 'controls');
  await input(page, 'Ignition', 'on').click();
  await key(page, 'Switch panel', 'White and Scene together').click();
  await expect(now(page)).toContainText('Both keys');
  await expect(now(page)).not.toContainText('White override');
  await key(page, 'Switch panel', 'Siren').press('Shift+Enter');
  await expect(now(page)).toContainText('Held key');
  await key(page, 'Switch panel', 'Siren').click({ delay: 1100 });
  await expect(now(page)).not.toContainText('Held key');
  // A key without a long press is quick or slow.
  await key(page, 'Switch panel', 'No white').click({ delay: 1100 });
  await expect(now(page)).toContainText('Fog cancel');
});

for (const how of ['mouse', 'keyboard'] as const)
  test(`by ${how}: modes at one command are laid and worked`, async ({ page }) => {
    await openBuild(page, await beforeFunctions(page), 'controls');
    for (const name of [
      'Slide and eight keys',
      'Rear switch that leads',
      'Arrow keys',
      'Slow in park',
      'Parade',
      'Emergency lights',
      'Main power',
    ])
      await press(template(page, name), how);
    await press(input(page, 'Ignition', 'on'), how);
    await press(slide(page, 'Switch panel', '2'), how);
    await expect(now(page)).toHaveText(/Slow in park, Stage 2/);
    await press(input(page, 'Gear', 'neutral'), how);
    await expect(now(page)).toHaveText('Stage 2');

    // Both arrow keys together, then one: the other way goes out.
    await press(key(page, 'Switch panel', 'Left and Right together'), how);
    await expect(now(page)).toHaveText('Stage 2, Arrow both ways');
    await press(key(page, 'Switch panel', 'Left'), how);
    await expect(now(page)).toHaveText('Stage 2, Arrow left');
    await press(key(page, 'Switch panel', 'Left'), how);

    // The siren stops when its key is held; it is not part of the emergency lights.
    await press(key(page, 'Switch panel', 'Siren'), how);
    await expect(now(page)).toContainText('Siren: wail');
    if (how === 'mouse') await key(page, 'Switch panel', 'Siren').click({ delay: 1100 });
    else await key(page, 'Switch panel', 'Siren').press('Shift+Enter');
    await expect(now(page)).not.toContainText('Siren');
    await press(slide(page, 'Switch panel', 'off'), how);
    await press(key(page, 'Switch panel', 'Emergency'), how);
    await press(key(page, 'Switch panel', 'Siren'), how);
    await expect(now(page)).toHaveText('Off, Emergency lights');
    await press(key(page, 'Switch panel', 'Emergency'), how);
    await press(key(page, 'Switch panel', 'Parade'), how);
    await expect(now(page)).toHaveText('Off, Parade');
    await press(key(page, 'Switch panel', 'Parade'), how);

    // The switch at the rear goes before the slide until it stands at front.
    const rear = (value: string) =>
      page
        .getByRole('region', { name: 'Rear switch', exact: true })
        .getByRole('radio', { name: value, exact: true });
    await press(rear('3'), how);
    await expect(now(page)).toHaveText('Stage 3');
    await press(rear('front'), how);
    await expect(now(page)).toHaveText('Off');

    const main = (value: string) =>
      page
        .getByRole('radiogroup', { name: 'Main', exact: true })
        .getByRole('radio', { name: value, exact: true });
    await press(slide(page, 'Switch panel', '1'), how);
    await press(main('off'), how);
    await expect(now(page)).toHaveText('Nothing on');
    await press(main('on'), how);
    await expect(now(page)).toHaveText('Stage 1');
    await saved(page).waitFor();
  });

test('a programme that is full takes no more: said in its place, and nothing is changed', async ({
  page,
}) => {
  const Programme = z.looseObject({ functions: z.array(z.looseObject({ id: z.string() })) });
  const id = await copyOfDemo(page, 'ks-13', (build) => {
    const controls = Programme.parse(build.controls);
    const { functions } = controls;
    const white = functions.find((fn) => fn.id === 'white');
    const more = Array.from({ length: 64 - functions.length }, (_, i) => ({
      ...white,
      id: `more-${i}`,
      name: `More ${i}`,
      when: { way: 'always' },
    }));
    return { ...build, controls: { ...controls, functions: [...functions, ...more], trials: [] } };
  });
  await openBuild(page, id, 'controls');
  await step(page, 'Templates').click();
  await template(page, 'Parade').click();
  await expect(page.locator('.one').filter({ hasText: 'A key shows a slow, dimmed pattern' })).toContainText(
    'Not available: functions must be at most 64 functions.',
  );
  const ladder = page.getByRole('region', { name: 'Priority list' });
  await ladder.getByRole('button', { name: 'Add a function' }).click();
  await expect(ladder.getByRole('alert')).toContainText('Not added: functions must be at most 64 functions.');
  // Nor does a condition that gets a name.
  await ladder.getByRole('button', { name: /^Hatch supplement warning/ }).click();
  const panel = page.getByRole('region', { name: 'Function Hatch supplement' });
  await panel.getByRole('button', { name: 'name it' }).first().click();
  await panel.getByLabel(/: call it$/).fill('Hatch up');
  await panel.getByRole('button', { name: 'Save' }).click();
  await expect(panel.getByRole('alert')).toContainText('Not named: functions must be at most 64 functions.');
  await expect(page.getByRole('button', { name: 'Nothing to undo' })).toBeDisabled();
});

test('a ready function says what it would break before it is laid', async ({ page }) => {
  await openBuild(page, await copyOfDemo(page, 'ks-13'), 'controls');
  await step(page, 'Templates').click();
  const ready = page.locator('.one').filter({ hasText: 'Emergency lights' });
  await ready.getByRole('button', { name: 'Preview findings' }).click();
  await expect(ready.getByRole('status')).toContainText(/new finding|No new findings/, {
    timeout: 30_000,
  });
  await expect(page.getByRole('button', { name: 'Nothing to undo' })).toBeDisabled();
  await template(page, 'Emergency lights').click();
  // Said of the build as it was, so it goes.
  await expect(ready.getByRole('status')).toHaveCount(0);
});

test('each door’s lamp is its own door’s, on the medic', async ({ page }) => {
  await openBuild(page, await copyOfDemo(page, 'shore-medic-7'), 'controls');
  await input(page, 'Ignition', 'on').click();
  await slide(page, 'Switch panel', '2').click();
  await input(page, 'Rear left door', 'pinned at 90°').click();
  await expect(now(page)).toContainText('Rear left door, its lamp, in warning');
  await expect(now(page)).not.toContainText('Rear right door');
  await input(page, 'Rear left door', 'closed').click();
  await expect(now(page)).toHaveText('Stage 2');
});

test('from a new build with nothing on it: lamps, templates, and the whole programme is driven', async ({
  page,
}) => {
  await openList(page);
  await page.getByRole('button', { name: 'New build' }).click();
  const dialog = page.getByRole('dialog', { name: 'New build' });
  await dialog.getByLabel('Name of the build').fill('From nothing');
  await dialog.getByText('Large SUV', { exact: true }).click();
  await dialog.getByRole('button', { name: 'Create' }).click();
  await page.getByRole('link', { name: /^Layout/ }).click();
  for (const [lamp, zone] of [
    [/^Roof bar, 1.2 m/, 'Roof'],
    [/^Command beacon/, 'Roof'],
    [/^Perimeter head, two colours/, 'Grille'],
    [/^Perimeter head, two colours/, 'Rear bumper'],
    [/^Perimeter head, one colour/, 'Front left corner'],
    [/^Perimeter head, one colour/, 'Front right corner'],
    [/^Under-hatch head/, 'Under the hatch'],
  ] as const) {
    await page.getByRole('button', { name: lamp }).click();
    await page.getByLabel('Zone', { exact: true }).selectOption(zone);
    await page.getByRole('button', { name: 'Place one' }).click();
    if (lamp.source.includes('two colours')) await page.getByLabel('Colour 2').selectOption('white');
  }
  await page.getByRole('link', { name: /^Controls/ }).click();
  for (const name of ['Slide and eight keys', 'Command green', 'Second panel at the rear'])
    await press(template(page, name), 'mouse');
  await driveAll(page, 'mouse');
});

test('the cab: a panel that does not fit is told, a control that moved too; where an input comes from is kept', async ({
  page,
}) => {
  await openBuild(page, await copyOfDemo(page, 'tunnel-pumper-3'), 'controls');
  await step(page, 'Cab').click();
  const cab = page.getByRole('region', { name: 'Cab' });
  const wide = cab.getByRole('group', { name: 'Centre console' }).getByLabel(/^Wide/);
  await wide.fill('100');
  await wide.press('Enter');
  await expect(findings(page)).toContainText('(Centre console: 100 mm)');
  await cab.getByRole('button', { name: 'Copy the current panel' }).click();
  await expect(cab.getByRole('button', { name: /Siren kept/ })).toBeVisible();
  await cab.getByRole('button', { name: /Siren kept/ }).click();
  await cab.getByLabel('Label', { exact: true }).fill('Wail');
  await cab.getByLabel('Label', { exact: true }).press('Enter');
  await expect(cab.getByRole('button', { name: /Wail moved/ })).toBeVisible();
  await expect(cab).toContainText('label “Siren” instead of “Wail”');
  await step(page, 'Inputs').click();
  const from = page.getByLabel('Turn signal comes from');
  await expect(from).toHaveValue('data bus');
  await from.selectOption('wire');
  await saved(page).waitFor();
  await reopen(page);
  await step(page, 'Inputs').click();
  await expect(page.getByLabel('Turn signal comes from')).toHaveValue('wire');
});

test('proof: each mistake by its shortest way, played, kept as a trial, and gone when it is put right', async ({
  page,
}) => {
  await openBuild(page, await copyOfDemo(page, 'ks-12'), 'controls');
  await page.getByRole('button', { name: 'Verification', exact: true }).click();
  const proof = page.getByRole('region', { name: 'Verification' });
  await expect(proof).toContainText(/All [\d,]+ reachable states checked/);
  await expect(proof).toContainText('Ignition goes to on → Hatch goes to open → “Siren” is pressed');
  await expectAccessible(page, '.proof');
  await proof.getByRole('button', { name: /^Play: This occurs: Siren is on/ }).press('Enter');
  await expect(now(page)).toContainText('Siren: wail');
  await expect(input(page, 'Hatch', 'open')).toHaveAttribute('aria-pressed', 'true');
  await proof.getByRole('button', { name: /^Save as test: This occurs: Siren/ }).click();
  await expect(page.getByRole('button', { name: 'This occurs: Siren is on.', exact: true })).toBeVisible();
  // Fog cancel above white by hand: what takes white then takes it.
  await page.getByRole('button', { name: 'Priority', exact: true }).click();
  for (let presses = 0; presses < 2; presses++)
    await page.getByRole('button', { name: 'Fog cancel higher priority' }).press('Enter');
  await page.getByRole('button', { name: 'Verification', exact: true }).click();
  await expect(proof).not.toContainText('still shows white');
  await expect(proof).toContainText(/Cut-outs are effective\s*Pass/);
  await saved(page).waitFor();
});

test('a wish about the controls is put down as a sentence, and proved', async ({ page }) => {
  await openBuild(page, await copyOfDemo(page, 'ks-13'), 'brief');
  const wishes = page.getByRole('region', { name: 'Requirements' });
  await wishes.getByLabel('New requirement').selectOption('Control behaviour');
  await wishes.getByRole('button', { name: 'Add' }).click();
  const mine = wishes.getByRole('listitem').last();
  await expect(mine).toContainText('✓ Pass');
  await mine.getByLabel('Whenever, never or possible').selectOption('Possible: when');
  await expect(mine).toContainText('Not in any reachable state');
  await mine.getByLabel('Subject of the requirement').selectOption('Siren');
  await expect(mine.getByLabel('Required value')).toHaveValue('on');
  await saved(page).waitFor();
});

test('a control changes its place on the panel by mouse and by keys, and the panel stays as it is put', async ({
  page,
}) => {
  await openBuild(page, await copyOfDemo(page, 'ks-13'), 'controls');
  await page.getByRole('button', { name: 'Arrange Switch panel' }).click();
  const held = (name: string): Locator => page.getByRole('button', { name: new RegExp(`^${name}, column`) });
  await expect(held('Scene')).toHaveAccessibleName(/^Scene, column 1, row 3/);
  await held('Scene').focus();
  await page.keyboard.press('ArrowRight');
  // Two of one width change places, and the one that was moved keeps the focus.
  await expect(held('Scene')).toHaveAccessibleName(/^Scene, column 2, row 3/);
  await expect(held('Siren')).toHaveAccessibleName(/^Siren, column 1, row 3/);
  await expect(held('Scene')).toBeFocused();
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('ArrowUp');
  await expect(page.getByText('No room there for Scene.')).toBeVisible();
  await expect(held('Scene')).toHaveAccessibleName(/^Scene, column 2, row 2/);

  const from = await held('Siren').boundingBox();
  const to = await held('White').boundingBox();
  if (from === null || to === null) throw new Error('both keys are on the screen');
  await page.mouse.move(from.x + 8, from.y + 8);
  await page.mouse.down();
  await page.mouse.move(to.x + 8, to.y + 8, { steps: 4 });
  await page.mouse.up();
  await expect(held('Siren')).toHaveAccessibleName(/^Siren, column 1, row 2/);
  await expectAccessible(page);
  await saved(page).waitFor();
  await reopen(page);
  await page.getByRole('button', { name: 'Arrange Switch panel' }).click();
  await expect(held('Siren')).toHaveAccessibleName(/^Siren, column 1, row 2/);
  await expect(held('White')).toHaveAccessibleName(/^White, column 1, row 3/);
});
