import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import type { Page } from '@playwright/test';
import {
  choosePattern,
  expect,
  findings,
  inspector,
  openList,
  saved,
  sheet,
  stateBar,
  tabTo,
  test,
} from './support';

const TWO_RULES = fileURLToPath(new URL('files/two-rules.json', import.meta.url));

const BLUE = /Flashing blue|Blue to the rear/;
const GAP = /Optical power to the rear: .* Gap: 135°/;

/** Export, import, export again: the two files hold the same build, but for its id. */
async function expectRoundTrip(
  page: Page,
  exportBuild: () => Promise<void>,
  importFile: (path: string) => Promise<void>,
): Promise<void> {
  const file = async (): Promise<string> => {
    const [download] = await Promise.all([page.waitForEvent('download'), exportBuild()]);
    return download.path();
  };
  const first = await file();
  await importFile(first);
  await saved(page).waitFor();
  const second = await file();
  const withoutId = (path: string): unknown => ({
    ...(JSON.parse(readFileSync(path, 'utf8')) as object),
    id: '',
  });
  expect(withoutId(second)).toEqual(withoutId(first));
}

test('by mouse: from a new build to a clean one, and out and in again', async ({ page }) => {
  await openList(page);
  await page.getByRole('button', { name: 'New build' }).click();
  await page.getByLabel('Name of the build').fill('Mouse patrol');
  for (const pack of await page.getByRole('dialog').getByRole('checkbox').all())
    await pack.uncheck({ force: true });
  await page.getByRole('radio', { name: /^None/ }).check();
  await page.getByRole('button', { name: 'Create' }).click();
  await expect(page.getByRole('heading', { name: 'Mouse patrol' })).toBeVisible();

  await page.getByRole('link', { name: /^Rules/ }).click();
  await page.getByLabel('Rule pack file to import').setInputFiles(TWO_RULES);
  await expect(page.getByRole('heading', { name: 'Two rules for the test' })).toBeVisible();

  // Drag a head onto the rear bumper as the rear view shows it, then give it its partner.
  await page.getByRole('link', { name: /^Layout/ }).click();
  const head = page.getByRole('button', { name: /^Perimeter head, two colours/ });
  await head.hover();
  await page.mouse.down();
  const box = await sheet(page).boundingBox();
  if (box === null) throw new Error('the sheet is on the screen');
  await page.mouse.move(box.x + 60, box.y + 60, { steps: 4 });
  const zone = page.locator('[data-zone="rear-bumper"][data-view="rear"]');
  const at = await zone.boundingBox();
  if (at === null) throw new Error('the zone is on the screen');
  await page.mouse.move(at.x + at.width * 0.25, at.y + at.height / 2, { steps: 6 });
  await expect(sheet(page)).toContainText('Rear bumper: fits.');
  await page.mouse.up();
  await expect(inspector(page).getByRole('heading', { name: 'Rear bumper L' })).toBeVisible();
  await inspector(page).getByRole('button', { name: 'Add counterpart' }).click();

  await inspector(page).getByLabel('Colour 1').selectOption('blue');
  await inspector(page).getByRole('button', { name: 'New group for them' }).click();
  await page.getByRole('link', { name: /^Timing/ }).click();
  await choosePattern(page.getByLabel('Pattern of Group 2 in Stage 2', { exact: true }), 'single');
  await stateBar(page).getByRole('button', { name: 'Stage 2' }).click();
  await expect(findings(page)).toContainText(BLUE);
  await expect(findings(page)).toContainText(GAP);

  // Show takes the state bar and the selection to the evidence; there it is put right.
  await stateBar(page).getByRole('button', { name: 'Off' }).click();
  await findings(page)
    .getByRole('button', { name: /^Show: .*blue/i })
    .click();
  await expect(stateBar(page).getByRole('button', { name: 'Stage 2' })).toHaveAttribute(
    'aria-pressed',
    'true',
  );
  await expect(inspector(page).getByRole('heading', { name: /Rear bumper L and its partner/ })).toBeVisible();
  await inspector(page).getByLabel('Colour 1').selectOption('red');
  await expect(findings(page)).not.toContainText(BLUE);
  await inspector(page).getByLabel('Pan, °').fill('20');
  await inspector(page).getByLabel('Pan, °').press('Enter');
  await expect(findings(page)).toContainText('All rules and requirements pass');

  await saved(page).waitFor();
  await page.reload();
  await expect(findings(page)).toContainText('All rules and requirements pass');
  await page.getByRole('link', { name: /^Layout/ }).click();
  await expect(page.getByRole('button', { name: 'Rear bumper R', exact: true })).toBeVisible();

  await expectRoundTrip(
    page,
    () => page.getByRole('button', { name: 'Export', exact: true }).click(),
    async (path) => {
      await page.getByRole('link', { name: 'Flarik: all builds' }).click();
      await page.getByLabel('Build file to import').setInputFiles(path);
      await expect(page.getByRole('heading', { name: 'Mouse patrol' })).toBeVisible();
    },
  );
});

test('by keyboard alone: the same path', async ({ page }) => {
  test.slow(); // hundreds of presses, one after the other
  const press = (...keys: string[]) =>
    keys.reduce((before, key) => before.then(() => page.keyboard.press(key)), Promise.resolve());
  const activate = async (target: Parameters<typeof tabTo>[1], key = 'Enter') => {
    await tabTo(page, target);
    await press(key);
  };
  const pick = async (target: Parameters<typeof tabTo>[1], text: string) => {
    await tabTo(page, target);
    await page.keyboard.type(text);
  };

  await openList(page);
  await activate(page.getByRole('button', { name: 'New build' }));
  await expect(page.getByLabel('Name of the build')).toBeFocused();
  await page.keyboard.type('Keyboard patrol');
  await tabTo(page, page.getByRole('radio', { name: /^Rear · all/ }));
  await press('ArrowDown', 'ArrowDown', 'ArrowDown');
  await expect(page.getByRole('radio', { name: /^None/ })).toBeChecked();
  for (const pack of await page.getByRole('dialog').getByRole('checkbox').all())
    if (await pack.isChecked()) await activate(pack, 'Space');
  await activate(page.getByRole('button', { name: 'Create' }));
  await expect(page.getByRole('heading', { name: 'Keyboard patrol' })).toBeVisible();

  await activate(page.getByRole('link', { name: /^Rules/ }));
  const [packChooser] = await Promise.all([
    page.waitForEvent('filechooser'),
    activate(page.getByRole('button', { name: 'Import a rule pack' })),
  ]);
  await packChooser.setFiles(TWO_RULES);
  await expect(page.getByRole('heading', { name: 'Two rules for the test' })).toBeVisible();

  await activate(page.getByRole('link', { name: /^Layout/ }));
  await pick(page.getByLabel('Search the catalogue'), 'perimeter');
  await tabTo(page, page.getByRole('button', { name: /^Perimeter head, one colour/ }));
  await press('ArrowDown', 'Enter');
  await pick(page.getByLabel('Zone', { exact: true }), 'Rear bumper');
  await activate(page.getByRole('button', { name: 'Place a mirrored pair' }));
  await expect(inspector(page).getByRole('heading', { name: 'Rear bumper L and its partner' })).toBeVisible();

  await pick(inspector(page).getByLabel('Colour 1'), 'B');
  await activate(inspector(page).getByRole('button', { name: 'New group for them' }));
  await activate(page.getByRole('link', { name: /^Timing/ }));
  await pick(page.getByLabel('Pattern of Group 2 in Stage 2', { exact: true }), 'Single');
  await press('2');
  await expect(findings(page)).toContainText(BLUE);
  await expect(findings(page)).toContainText(GAP);

  await activate(findings(page).getByRole('button', { name: /^Show: .*blue/i }));
  await pick(inspector(page).getByLabel('Colour 1'), 'R');
  await expect(findings(page)).not.toContainText(BLUE);
  await tabTo(page, inspector(page).getByLabel('Pan, °'));
  await press('Control+a');
  await page.keyboard.type('20');
  await press('Enter');
  await expect(findings(page)).toContainText('All rules and requirements pass');

  // Nudge a lamp on the sheet, think better of it, and leave all as it was.
  await activate(page.getByRole('link', { name: /^Layout/ }));
  const lamp = page.getByRole('button', { name: 'Rear bumper L', exact: true });
  await activate(lamp);
  const across = inspector(page).getByLabel('Across, mm');
  const before = await across.inputValue();
  await tabTo(page, lamp);
  await press('ArrowRight', 'Shift+ArrowRight');
  await expect(across).toHaveValue(String(Number(before) + 30));
  await press('Control+z');
  await expect(across).toHaveValue(before);

  await saved(page).waitFor();
  await page.reload();
  await expect(findings(page)).toContainText('All rules and requirements pass');

  await expectRoundTrip(
    page,
    () => activate(page.getByRole('button', { name: 'Export', exact: true })),
    async (path) => {
      await activate(page.getByRole('link', { name: 'Flarik: all builds' }));
      const [chooser] = await Promise.all([
        page.waitForEvent('filechooser'),
        activate(page.getByRole('button', { name: 'Import build' })),
      ]);
      await chooser.setFiles(path);
      await expect(page.getByRole('heading', { name: 'Keyboard patrol' })).toBeVisible();
    },
  );
});
