import {
  openList,
  reopen,
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

const STL_BOX = (() => {
  const corners = [
    [0, 0, 0],
    [2000, 0, 0],
    [0, 1000, 0],
    [0, 0, 900],
  ];
  const faces = [
    [0, 1, 2],
    [0, 1, 3],
    [0, 2, 3],
    [1, 2, 3],
  ];
  const facets = faces.map(
    (f) =>
      `facet normal 0 0 1\nouter loop\n${f.map((i) => `vertex ${corners[i]?.join(' ') ?? ''}`).join('\n')}\nendloop\nendfacet`,
  );
  return `solid box\n${facets.join('\n')}\nendsolid box\n`;
})();

test('a new build on a pumper: typed measures, what was measured drawn, an option fitted', async ({
  page,
}) => {
  await openList(page);
  await page.getByRole('button', { name: 'New build' }).click();
  await page.getByLabel('Name of the build').fill('Pumper by the tape');
  await page.getByText('Pumper', { exact: true }).click();
  await page.getByRole('button', { name: 'Create' }).click();
  await expect(page.getByRole('heading', { name: 'Pumper by the tape' })).toBeVisible();
  await page.getByRole('link', { name: /^Vehicle/ }).click();
  const body = page.getByRole('region', { name: 'Body' });
  await body.getByLabel('Length, mm').fill('9200');
  await expect(sheet(page)).toContainText('Length: 8,900 mm, front-most to rear-most point of the body.');
  await body.getByLabel('Length, mm').press('Enter');
  await expect(sheet(page)).toContainText('Length: 9,200 mm');
  await body.getByText('Lightboard on a mast').click();
  await partsButton(page).click();
  await expect(page.getByRole('button', { name: 'Lightboard mast' })).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('button', { name: /^Undo: Fit/ }).click();
  await expect(page.getByRole('button', { name: 'Lightboard mast' })).toHaveCount(0);
});

test('measures that do not go together are refused with the reason', async ({ page }) => {
  await openBuild(page, await copyOfDemo(page, 'ferry-slip'), 'vehicle');
  const body = page.getByRole('region', { name: 'Body' });
  await body.getByLabel('Wheelbase, mm').fill('4400');
  await expect(body).toContainText('the rear wheel comes behind the tail');
  await body.getByLabel('Wheelbase, mm').press('Enter');
  await body.getByLabel('Wheelbase, mm').press('Escape');
  await expect(body.getByLabel('Wheelbase, mm')).toHaveValue('3200');
  await expect(page.getByRole('button', { name: 'Nothing to undo' })).toBeVisible();
});

test('another body takes lamps off only after a yes, and undo brings them back', async ({ page }) => {
  await openBuild(page, await copyOfDemo(page, 'ks-13'), 'vehicle');
  const body = page.getByRole('region', { name: 'Body' });
  await body.getByLabel('Body type').selectOption('Sedan');
  const dialog = page.getByRole('dialog', { name: 'Remove lamps?' });
  await expect(dialog).toContainText(/\d+ lamps are on a zone that this change removes/);
  await dialog.getByRole('button', { name: 'Continue' }).click();
  await expect(body).toContainText('Sedan');
  await saved(page).waitFor();
  await page.getByRole('button', { name: 'Undo: Make it a Sedan' }).click();
  await page.getByRole('link', { name: /^Layout/ }).click();
  await expect(page.getByRole('status', { name: 'Layout totals' })).toContainText('28 heads');
});

test('a zone is drawn with its mirror image, put right by figures, and takes a lamp', async ({ page }) => {
  await openBuild(page, await copyOfDemo(page, 'ks-13'), 'vehicle');
  await page.getByRole('button', { name: 'Custom parts' }).click();
  const own = page.getByRole('region', { name: 'Custom parts' });
  await own.getByLabel('with its mirror image').check();
  await own.getByRole('button', { name: 'Draw', exact: true }).first().click();
  const canvas = page.locator('[data-draw="left"]');
  const box = await canvas.boundingBox();
  if (box === null) throw new Error('the view is on the screen');
  await page.mouse.move(box.x + box.width * 0.5, box.y + box.height * 0.55);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width * 0.62, box.y + box.height * 0.7, { steps: 5 });
  await page.mouse.up();
  await expect(own).toContainText('Custom zone 1 left');
  await expect(own).toContainText('Custom zone 1 right');
  await own.getByText('Custom zone 1 left').click();
  await own.getByLabel('Width, mm').first().fill('400');
  await own.getByLabel('Width, mm').first().press('Enter');
  await own.getByLabel('Name', { exact: true }).first().fill('<b>');
  await own.getByLabel('Name', { exact: true }).first().press('Enter');
  await expect(own.getByRole('alert')).toContainText('must be one line without < or >');
  await page.getByRole('link', { name: /^Layout/ }).click();
  await page.getByRole('button', { name: /^Perimeter head, one colour/ }).click();
  await page.getByLabel('Zone', { exact: true }).selectOption({ label: 'Custom zone 1 left' });
  await page.getByRole('button', { name: 'Place one' }).click();
  await expect(page.getByRole('button', { name: 'Custom zone 1 L', exact: true })).toBeVisible();
  await saved(page).waitFor();
});

test('by keyboard: a keep-out by figures, and a lamp that stands in it is found', async ({ page }) => {
  await openBuild(page, await copyOfDemo(page, 'ks-13'), 'vehicle');
  await tabTo(page, page.getByRole('button', { name: 'Custom parts' }));
  await page.keyboard.press('Enter');
  const own = page.getByRole('region', { name: 'Custom parts' });
  await tabTo(page, own.getByRole('button', { name: 'Enter dimensions' }).nth(2));
  await page.keyboard.press('Enter');
  await tabTo(page, own.getByText('Custom keep-out 1'));
  await page.keyboard.press('Enter');
  // Over the whole left front wing, where a lamp is.
  for (const [label, value] of [
    ['From x, mm', '0'],
    ['To x, mm', '3000'],
    ['From y, mm', '700'],
    ['From z, mm', '200'],
    ['To z, mm', '1500'],
  ] as const) {
    await tabTo(page, own.getByLabel(label));
    await page.keyboard.press('Control+a');
    await page.keyboard.type(value);
    await page.keyboard.press('Enter');
  }
  await expect(findings(page)).toContainText(/: \d+ mm inside a keep-out: Custom keep-out 1/);
  await expect(findings(page)).toHaveAttribute('aria-busy', 'false');
  // A layout check is in no rule pack; its findings stand all the same.
  await expect(findings(page)).not.toContainText('All rules and requirements pass');
});

test('the survey: glass, single walls and tying in are put right', async ({ page }) => {
  await openBuild(page, await copyOfDemo(page, 'ks-13'), 'vehicle');
  const survey = page.getByRole('region', { name: 'Survey' });
  const tie = survey.getByRole('checkbox', { name: /reversing lamp may be tied in/ }).first();
  await tie.uncheck();
  await survey.getByText(/^Glass/).click();
  await survey.getByLabel('Windscreen, %').fill('20');
  await survey.getByLabel('Windscreen, %').press('Enter');
  await survey.getByText(/^Single-wall panels/).click();
  await survey.getByText(/^Rear bumper:/).click();
  await expect(findings(page)).toContainText('Rear bumper, a single-skin panel');
  await saved(page).waitFor();
  await reopen(page);
  await expect(
    survey.getByRole('checkbox', { name: /reversing lamp may be tied in/ }).first(),
  ).not.toBeChecked();
});

test('the survey measures a lamp, adds one, and lifts a keep-out only with a reason', async ({ page }) => {
  await openBuild(page, await copyOfDemo(page, 'ks-13'), 'vehicle');
  const survey = page.getByRole('region', { name: 'Survey' });
  await survey.getByRole('button', { name: 'Measure Left tail lamp' }).click();
  await survey.getByLabel('Width, mm').fill('310');
  await survey.getByLabel('Width, mm').press('Enter');
  await expect(survey.getByRole('button', { name: 'Measure Left tail lamp' })).toHaveText('measured');
  await survey.getByRole('button', { name: 'Use the body type’s values' }).click();
  await expect(survey.getByRole('button', { name: 'Measure Left tail lamp' })).toHaveText('measure');

  await survey.getByRole('button', { name: 'Add a factory lamp' }).click();
  await survey.getByLabel('Name', { exact: true }).fill('Roof marker');
  await survey.getByLabel('Name', { exact: true }).press('Enter');
  await survey.getByRole('checkbox', { name: 'Roof marker may be tied in' }).check();
  await expect(survey.getByRole('checkbox', { name: 'Roof marker may be tied in' })).toBeChecked();

  await survey.getByText('Factory lamps').click();
  await survey
    .locator('summary')
    .filter({ hasText: /^Keep-outs/ })
    .click();
  const camera = survey.locator('details.one').filter({ hasText: 'Camera behind the windscreen' });
  await camera.locator('summary').first().click();
  await camera.getByRole('button', { name: 'Lift it' }).click();
  await expect(survey.getByRole('alert')).toContainText('say first who found it so, and why');
  await camera.getByLabel('Found by, and reason').fill('J. R.: no camera on this car');
  await camera.getByRole('button', { name: 'Lift it' }).click();
  await expect(survey).toContainText('lifted: J. R.: no camera on this car');
  await expect(findings(page)).toContainText(
    'Keep-out Camera behind the windscreen (camera), lifted in the survey: J. R.: no camera on this car.',
  );
  await saved(page).waitFor();
  await expectAccessible(page);

  await page.getByRole('link', { name: /^Layout/ }).click();
  const sill = sheet(page).getByRole('button', { name: 'Sill L', exact: true }).first();
  await sill.click();
  const notes = inspector(page).getByLabel('Notes', { exact: true });
  await notes.fill('Chosen because it clears the ferry gate.');
  await notes.blur();
  await inspector(page).getByLabel('Lens colour').selectOption('red');
  await saved(page).waitFor();
  await reopen(page);
  await sill.click();
  await expect(notes).toHaveValue('Chosen because it clears the ferry gate.');
  await expect(inspector(page).getByLabel('Lens colour')).toHaveValue('red');
});

test('equipment that is no lamp keeps lamps out of its place', async ({ page }) => {
  await openBuild(page, await copyOfDemo(page, 'ks-13'), 'vehicle');
  await page.getByRole('button', { name: 'Custom parts' }).click();
  const own = page.getByRole('region', { name: 'Custom parts' });
  const row = own.locator('.add').filter({ hasText: 'Equipment' });
  await row.getByRole('button', { name: 'Enter dimensions' }).click();
  await own
    .locator('summary')
    .filter({ hasText: /^Equipment 1/ })
    .click();
  await own.getByLabel('Kind').selectOption('siren speaker');
  await own.getByLabel('Operating current, A').fill('8');
  await own.getByLabel('Operating current, A').press('Enter');
  await expect(own).toContainText('Equipment draws 8 A in total, in addition to all lamps.');
  await own.getByRole('button', { name: 'Delete' }).click();
  await expect(own).not.toContainText('Equipment draws');
});

test('a mesh is read, placed and taken off; a bad one is one sentence', async ({ page }) => {
  await openBuild(page, await copyOfDemo(page, 'ks-13'), 'vehicle');
  await page.getByRole('button', { name: 'Custom parts' }).click();
  const own = page.getByRole('region', { name: 'Custom parts' });
  const give = (name: string, text: string) =>
    own
      .getByLabel('Mesh file')
      .setInputFiles({ name, mimeType: 'application/octet-stream', buffer: Buffer.from(text) });
  await give('car.gltf', '{"asset":{"version":"2.0"},"buffers":[{"uri":"car.bin","byteLength":4}]}');
  await expect(own.getByRole('alert')).toContainText(
    'car.gltf: cannot be read as GLTF: its shape is in another file, car.bin',
  );
  await give('box.stl', STL_BOX);
  const placing = own.getByRole('group', { name: 'Mesh position' });
  await expect(placing).toContainText('2000 × 1000 × 900 mm; 4 triangles');
  await placing.getByLabel('Unit of the file').selectOption('m');
  await expect(placing.getByRole('alert')).toContainText('is the unit right?');
  await placing.getByLabel('Unit of the file').selectOption('mm');
  await placing.getByRole('button', { name: 'Add to the vehicle' }).click();
  await expect(own).toContainText('box.stl: 4 triangles, 2000 × 1000 × 900 mm, replaces the body');
  await saved(page).waitFor();
  await own.getByRole('button', { name: 'Remove' }).click();
  await expect(own).not.toContainText('in place of the body');
});

test('a vehicle goes out as a file and into another build', async ({ page }) => {
  await openBuild(page, await copyOfDemo(page, 'tunnel-pumper-3'), 'vehicle');
  await page.getByRole('button', { name: 'Custom parts' }).click();
  const own = page.getByRole('region', { name: 'Custom parts' });
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    own.getByRole('button', { name: 'Export', exact: true }).click(),
  ]);
  const path = await download.path();
  await openBuild(page, await copyOfDemo(page, 'ks-13'), 'vehicle');
  await page.getByRole('button', { name: 'Custom parts' }).click();
  await own.getByLabel('Vehicle file').setInputFiles(path);
  await expect(page.getByRole('region', { name: 'Body' }).getByLabel('Body type')).toHaveValue('pumper');
  await own
    .getByLabel('Vehicle file')
    .setInputFiles({ name: 'x.json', mimeType: 'application/json', buffer: Buffer.from('{}') });
  await expect(own.getByRole('alert')).toContainText('x.json: format: this is not a Flarik vehicle');
});
