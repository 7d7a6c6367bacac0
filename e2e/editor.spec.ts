import {
  choosePattern,
  copyOfDemo,
  demoId,
  expect,
  expectAccessible,
  findings,
  inspector,
  movingPart,
  openBuild,
  partsButton,
  saved,
  sheet,
  stateBar,
  test,
} from './support';

test('the demo opens on its findings; show leads to the evidence', async ({ page }) => {
  await page.goto('/');
  await expect(page.getByRole('row', { name: /KS-12/ })).toContainText('9 blocking', { timeout: 120_000 });
  await expect(page.getByRole('row', { name: /KS-13/ })).not.toContainText('blocking');
  await page.getByRole('link', { name: 'Causeway patrol KS-12' }).click();
  await expect(findings(page)).toContainText('White to the rear');
  await page.getByRole('link', { name: /^Visibility/ }).click();
  await findings(page)
    .getByRole('button', { name: /^Show: Optical power to the rear/ })
    .click();
  await expect(partsButton(page)).toHaveText('Hatch open');
  await expect(await movingPart(page, 'Hatch')).toHaveAttribute('aria-pressed', 'true');
  await expect(stateBar(page).getByRole('button', { name: 'Night' })).toHaveAttribute('aria-pressed', 'true');
  await expect(page.getByRole('complementary')).toContainText(/rear, \d+°–\d+°: below the minimum/);
});

test('the state bar changes the sheet, the ring and the findings', async ({ page }) => {
  await openBuild(page, demoId.ks12, 'visibility');
  const aside = page.getByRole('complementary');
  await aside.getByLabel('Bearing, degrees').fill('180');
  const power = aside.getByText(/cd·s\/min/).first();
  const shut = await power.textContent();
  await (await movingPart(page, 'Hatch')).click();
  await expect(power).not.toHaveText(shut ?? '');
  await expect(aside).toContainText('hatch open');
  await stateBar(page).getByRole('button', { name: 'Off', exact: true }).click();
  await expect(aside).toContainText('No lamp reaches this bearing');
  await expect(findings(page)).toContainText('4 in this state');
});

test('keys pressed while a build is being opened are not lost', async ({ page }) => {
  await page.goto('/');
  // Its own answer is slow: nothing of the build is there yet when the keys are pressed.
  await page.route('**/api/v1/builds/*', async (route) => {
    await new Promise((done) => setTimeout(done, 1500));
    await route.continue();
  });
  await page.getByRole('link', { name: 'Causeway patrol KS-13' }).click();
  await page.keyboard.press('3');
  await page.keyboard.press('d');
  await expect(stateBar(page).getByRole('button', { name: 'Stage 3' })).toHaveAttribute(
    'aria-pressed',
    'true',
    {
      timeout: 60_000,
    },
  );
  await expect(stateBar(page).getByRole('button', { name: 'Night' })).toHaveAttribute('aria-pressed', 'true');
  // Each once: from one step to the next nothing is pressed again.
  await page.getByRole('link', { name: /^Timing/ }).click();
  await page.keyboard.press('1');
  await page.getByRole('link', { name: /^Layout/ }).click();
  await expect(stateBar(page).getByRole('button', { name: 'Stage 1' })).toHaveAttribute(
    'aria-pressed',
    'true',
  );
  await expect(stateBar(page).getByRole('button', { name: 'Night' })).toHaveAttribute('aria-pressed', 'true');
});

test('the focus stays where somebody works: after a deletion, an undo, and into a step', async ({ page }) => {
  await openBuild(page, await copyOfDemo(page, 'ks-13'), 'layout');
  await page.getByRole('button', { name: 'Grille L', exact: true }).click();
  await page.keyboard.press('Delete');
  await expect(page.getByRole('button', { name: 'Grille L', exact: true })).toHaveCount(0);
  // It is on the lamp that came next.
  await expect(sheet(page).locator(':focus')).toHaveCount(1);
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('button', { name: 'Grille L', exact: true })).toBeVisible();
  await expect(sheet(page).locator(':focus')).toHaveCount(1);
  await page.getByRole('link', { name: /^Timing/ }).focus();
  await page.keyboard.press('Enter');
  await page.waitForURL('**/timing');
  await expect(page.getByRole('main')).toBeFocused();
  await page.keyboard.press('Tab');
  await expect(page.getByRole('main').locator(':focus')).toHaveCount(1);
});

test('text that is typed and not left is kept over a reload', async ({ page }) => {
  await openBuild(page, await copyOfDemo(page, 'ks-13'), 'brief');
  await page.getByLabel('Growth').fill('a second radio next year');
  await page.reload();
  const restore = page.getByRole('button', { name: 'Restore', exact: true });
  const growth = page.getByLabel('Growth');
  // The save may have reached the server, or else the browser has kept it.
  await expect
    .poll(
      async () => (await restore.count()) > 0 || (await growth.inputValue()) === 'a second radio next year',
    )
    .toBe(true);
  if ((await restore.count()) > 0) await restore.click();
  await expect(growth).toHaveValue('a second radio next year');
});

test('tools that are folded away leave the drawing whole', async ({ page }) => {
  await openBuild(page, await copyOfDemo(page, 'ks-13'), 'timing');
  await page.getByRole('button', { name: 'Collapse Timing tools' }).click();
  await page.getByRole('button', { name: 'Timing tools', exact: true }).click();
  await expect(sheet(page)).toBeVisible();
});

test('one colour alone, one level alone', async ({ page }) => {
  await openBuild(page, demoId.ks12, 'visibility');
  const aside = page.getByRole('complementary');
  await page.getByRole('group', { name: 'Colour' }).getByRole('button', { name: 'A', exact: true }).click();
  await expect(aside).toContainText('no amber');
  await page.getByRole('group', { name: 'Lamp' }).getByRole('button', { name: 'Lower' }).click();
  await expect(aside).toContainText('all round');
});

test('drag a lamp, type its place, undo and redo', async ({ page }) => {
  await openBuild(page, await copyOfDemo(page, 'ks-13'), 'layout');
  const lamp = page.getByRole('button', { name: 'Grille L', exact: true });
  await lamp.click();
  const across = inspector(page).getByLabel('Across, mm');
  await expect(across).toHaveValue('300');
  const box = await lamp.boundingBox();
  if (box === null) throw new Error('the lamp is on the screen');
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 - 8, box.y + box.height / 2, { steps: 4 });
  await page.mouse.up();
  await expect(across).not.toHaveValue('300');
  await page.getByRole('button', { name: 'Undo: Move Grille L' }).click();
  await expect(across).toHaveValue('300');
  await page.getByRole('button', { name: 'Redo: Move Grille L' }).click();
  await expect(across).not.toHaveValue('300');
  await across.fill('120');
  await across.press('Enter');
  await expect(across).toHaveValue('120');
  await across.fill('far');
  await expect(inspector(page)).toContainText('enter a number');
  await across.press('Escape');
  await expect(across).toHaveValue('120');
});

test('the catalogue is searched, and narrowed to a kind and to what fits a zone', async ({ page }) => {
  await openBuild(page, demoId.ks13, 'layout');
  const catalogue = page.getByRole('region', { name: 'Catalogue' });
  const listed = catalogue.getByRole('listitem');
  const all = await listed.count();
  expect(all).toBeGreaterThanOrEqual(45);
  await catalogue.getByLabel('Search the catalogue').fill('beacon green');
  await expect(listed).toHaveCount(1);
  await catalogue.getByLabel('Search the catalogue').fill('unicorn');
  await expect(catalogue).toContainText('No matching fixtures.');
  await catalogue.getByLabel('Search the catalogue').fill('');
  await catalogue.getByLabel('Only what fits a zone').selectOption({ label: 'fits Roof' });
  await catalogue.getByLabel('Kind of fixture').selectOption('legacy');
  await expect(listed).toHaveCount(2);
});

test('one lamp is repeated along its zone; several are brought to one height', async ({ page }) => {
  await openBuild(page, await copyOfDemo(page, 'ks-13'), 'layout');
  await page.getByRole('button', { name: /^Mini head, one colour/ }).click();
  await page.getByLabel('Zone', { exact: true }).selectOption({ label: 'Windscreen top' });
  await page.getByRole('button', { name: 'Place one' }).click();
  await inspector(page).getByLabel('Number along the zone').fill('5');
  await inspector(page).getByRole('button', { name: 'Repeat to 5' }).click();
  await expect(inspector(page).getByRole('heading', { name: '5 lamps' })).toBeVisible();
  // The middle one of five stands where the camera looks out, and that is said.
  await expect(findings(page)).toContainText(/Windscreen top: \d+ mm inside a keep-out/);
  await inspector(page).getByRole('button', { name: 'Equal spacing' }).click();
  await inspector(page).getByRole('button', { name: 'Same height' }).click();
  await saved(page).waitFor();
  // Two for one place stand side by side; moved onto each other, they overlap, and it is said at once.
  for (let i = 0; i < 2; i++) {
    await page.getByRole('button', { name: /^Mini head, one colour/ }).click();
    await page.getByLabel('Zone', { exact: true }).selectOption({ label: 'Grille' });
    await page.getByRole('button', { name: 'Place one' }).click();
  }
  const across = inspector(page).getByLabel('Across, mm');
  await expect(across).not.toHaveValue('0');
  await expect(findings(page)).not.toContainText(/stand in each other/);
  await across.fill('0');
  await across.press('Enter');
  await expect(findings(page)).toContainText(/overlap by \d+ mm/);
});

test('a zone that does not fit says why and takes nothing', async ({ page }) => {
  await openBuild(page, await copyOfDemo(page, 'ks-13'), 'layout');
  await page.getByRole('button', { name: /^Roof bar, 1.2 m/ }).click();
  const zone = page.locator('[data-zone="grille"][data-view="front"]');
  await zone.hover({ force: true });
  await expect(sheet(page)).toContainText('Grille: does not fit; made for roof, this is panel.');
  await zone.click({ force: true });
  await expect(inspector(page)).toContainText('Nothing selected');
  await page.keyboard.press('Escape');
  await expect(sheet(page)).not.toContainText('does not fit');
});

test.describe('before anybody has agreed', () => {
  test.use({ tab: 'new' });
  test('nothing flashes before the notice; calm by default; Esc stops', async ({ page }) => {
    await openBuild(page, demoId.ks12, 'timing');
    await page.getByRole('button', { name: 'Play' }).click();
    const notice = page.getByRole('dialog', { name: 'Before lights flash on this screen' });
    await expect(notice).toContainText('can cause seizures');
    const time = page.getByLabel('Time in the pattern, milliseconds');
    await expect(time).toHaveValue('0');
    await notice.getByRole('button', { name: 'Play', exact: true }).click();
    await expect(notice).toBeHidden();
    await expect(stateBar(page)).toContainText('% speed');
    await expect(time).not.toHaveValue('0');
    await page.keyboard.press('Escape');
    await expect(page.getByRole('button', { name: 'Play' })).toBeVisible();
    await expect(time).toHaveValue('0');
  });
});

test.describe('with reduced motion', () => {
  test.use({ contextOptions: { reducedMotion: 'reduce' }, tab: 'new' });
  test('nothing plays; the time can be scrubbed', async ({ page }) => {
    await openBuild(page, demoId.ks12, 'timing');
    await expect(stateBar(page)).toContainText('Paused: your system requests reduced motion');
    await expect(page.getByRole('button', { name: 'Play' })).toHaveCount(0);
    await page.getByLabel('Time in the pattern, milliseconds').fill('500');
    await expect(stateBar(page)).toContainText('500 ms');
  });
});

test('patterns, slots, night level and groups are edited in the table', async ({ page }) => {
  await openBuild(page, await copyOfDemo(page, 'ks-12'), 'timing');
  await choosePattern(page.getByLabel('Pattern of Rear arrow in Stage 2', { exact: true }), 'sweep');
  await expect(findings(page)).not.toContainText('48 times a minute');
  await page.getByLabel('Name of group Rear arrow').fill('Arrow');
  await page.getByLabel('Name of group Rear arrow').press('Enter');
  await expect(page.getByLabel('Pattern of Arrow in Stage 2', { exact: true })).toHaveValue('sweep');
  await page.getByRole('button', { name: 'Delete group Arrow' }).click();
  await expect(page.getByLabel('Pattern of Arrow in Stage 2', { exact: true })).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo: Delete group Arrow' }).click();
  await expect(page.getByLabel('Pattern of Arrow in Stage 2', { exact: true })).toHaveValue('sweep');
  await page.getByLabel('Night level of Stage 2, percent').fill('50');
  await page.getByLabel('Night level of Stage 2, percent').press('Enter');
  await saved(page).waitFor();
});

test('a phase scheme is laid over all lamps, seen in the score, and undone', async ({ page }) => {
  await openBuild(page, await copyOfDemo(page, 'ks-13'), 'timing');
  await page.keyboard.press('Control+a');
  await inspector(page).getByText('Assign phases to 28 lamps').click();
  await inspector(page).getByRole('button', { name: 'All together' }).click();
  await expect(inspector(page).getByLabel('Phase')).toHaveValue('A');
  await inspector(page).getByRole('button', { name: 'X across the corners' }).click();
  await expect(inspector(page).getByLabel('Phase')).toHaveValue('~mixed');
  await page.getByRole('button', { name: /^Undo: X across/ }).click();
  await expect(inspector(page).getByLabel('Phase')).toHaveValue('A');
});

test('a colour plan says what it would break before it is laid', async ({ page }) => {
  await openBuild(page, await copyOfDemo(page, 'ks-13'), 'layout');
  await page.keyboard.press('Control+a');
  await inspector(page).getByText('Colour 28 lamps by a plan').click();
  await inspector(page).getByLabel('Colour plan').selectOption('Red on the left, blue on the right');
  await inspector(page).getByRole('button', { name: 'Preview findings' }).click();
  await expect(inspector(page).getByRole('status')).toContainText(/blue to the rear/i);
  await expect(findings(page)).toContainText('All rules and requirements pass');
  await inspector(page).getByRole('button', { name: 'Apply' }).click();
  await expect(findings(page)).toContainText(/blue to the rear/i);
  await page.getByRole('button', { name: /^Undo: Red on the left/ }).click();
  await expect(findings(page)).toContainText('All rules and requirements pass');
});

test('patterns that the packs do not allow are marked, or left out', async ({ page }) => {
  await openBuild(page, await copyOfDemo(page, 'ks-12'), 'timing');
  const list = page.getByLabel('Pattern of Front and sides in Stage 2', { exact: true });
  await list.hover();
  const choices = list.getByRole('option');
  await expect.poll(() => choices.count()).toBeGreaterThan(40);
  await expect(choices.filter({ hasText: 'Slow alternate ✕' })).toHaveCount(1);
  await page.getByLabel('Only permitted patterns').check();
  await expect(choices.filter({ hasText: 'Slow alternate' })).toHaveCount(0);
  await expect(choices.filter({ hasText: '✕' })).toHaveCount(0);
});

test('the vehicle follows the tape measure; a measure out of range is refused with its range', async ({
  page,
}) => {
  await openBuild(page, await copyOfDemo(page, 'ks-13'), 'vehicle');
  const body = page.getByRole('region', { name: 'Body' });
  const height = body.getByLabel('Height, mm');
  await expect(height).toHaveValue('1770');
  const bar = page.getByRole('button', { name: 'Roof', exact: true });
  const before = await bar.boundingBox();
  await height.fill('1900');
  await height.press('Enter');
  await expect.poll(async () => (await bar.boundingBox())?.y).not.toBe(before?.y);
  await height.fill('900');
  await expect(body).toContainText('1600 to 1950');
  await height.press('Escape');
  await expect(height).toHaveValue('1900');
  await page.getByRole('link', { name: /^Layout/ }).click();
  await inspector(page).getByLabel('Name of the build').fill('Tall patrol');
  await inspector(page).getByLabel('Name of the build').press('Enter');
  await expect(page.getByRole('heading', { name: 'Tall patrol' })).toBeVisible();
  await saved(page).waitFor();
});

test('the finder finds lamps, findings and commands by keyboard', async ({ page }) => {
  await openBuild(page, demoId.ks12, 'timing');
  await page.keyboard.press('Control+k');
  const box = page.getByRole('combobox', { name: 'Find a command, lamp, zone or finding' });
  await expect(box).toBeFocused();
  await expectAccessible(page, '.finder');
  await page.keyboard.type('lamp grille');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/layout$/);
  await expect(inspector(page).getByRole('heading', { name: 'Grille R' })).toBeVisible();
  await page.keyboard.press('Control+k');
  await expect(box).toBeFocused();
  await page.keyboard.type('state stage');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(stateBar(page).getByRole('button', { name: 'Stage 3' })).toHaveAttribute(
    'aria-pressed',
    'true',
  );
});

test('names with markup are not taken', async ({ page }) => {
  await openBuild(page, await copyOfDemo(page, 'ks-13'), 'layout');
  await page.getByRole('button', { name: 'Grille L', exact: true }).click();
  await inspector(page).getByLabel('Name').fill('<b>bold</b>');
  await inspector(page).getByLabel('Name').press('Enter');
  await expect(inspector(page).getByRole('heading', { name: 'Grille L' })).toBeVisible();
});
