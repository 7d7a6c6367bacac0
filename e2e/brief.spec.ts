import { copyOfDemo, expect, findings, openBuild, saved, tabTo, test, reopen } from './support';

const wishes = 'Requirements';

test('what the agency said is kept, and put down as a wish it is checked at once', async ({ page }) => {
  await openBuild(page, await copyOfDemo(page, 'ks-13'), 'brief');
  const said = page.getByRole('region', { name: 'Agency request' });
  await said.getByLabel('Agency').fill('Kestrel Sound patrol, night shift');
  await said.getByLabel('Agency').press('Enter');
  await said.getByLabel('Growth').fill('Two more heads at the rear.');
  await said.getByLabel('Growth').blur();
  await said.getByLabel('Currency').fill('money');
  await said.getByLabel('Currency').press('Enter');
  await expect(said).toContainText('must be a currency of three letters, such as EUR');

  const region = page.getByRole('region', { name: wishes });
  await region.getByLabel('New requirement').selectOption('No holes');
  await region.getByRole('button', { name: 'Add' }).click();
  await expect(region).toContainText('3 holes in');
  await expect(findings(page)).toContainText('3 holes in');
  await expect(page.getByRole('link', { name: /^Brief/ })).toContainText(/\d/);

  // The wish is narrowed to a zone that bears no lamp, and holds.
  const wish = region.getByRole('listitem').last();
  await wish.getByText('any zone of the vehicle').click();
  await wish.getByRole('checkbox', { name: 'Grille', exact: true }).check();
  await expect(wish).toContainText('✓ Pass');
  await saved(page).waitFor();
  await reopen(page);
  await expect(said.getByLabel('Agency')).toHaveValue('Kestrel Sound patrol, night shift');
  await expect(page.getByRole('region', { name: wishes })).toContainText('drilled in Grille');
});

test('by keyboard: a wish is added, its figure typed, made graver and deleted, and all is undone', async ({
  page,
}) => {
  await openBuild(page, await copyOfDemo(page, 'ks-13'), 'brief');
  const region = page.getByRole('region', { name: wishes });
  const before = await region.getByRole('listitem').count();
  await tabTo(page, region.getByLabel('New requirement'));
  await page.keyboard.type('Spend');
  await tabTo(page, region.getByRole('button', { name: 'Add' }));
  await page.keyboard.press('Enter');
  await expect(region.getByRole('listitem')).toHaveCount(before + 1);
  const wish = region.getByRole('listitem').last();
  await tabTo(page, wish.getByLabel('Cost limit, EUR'));
  await page.keyboard.press('Control+a');
  await page.keyboard.type('100');
  await page.keyboard.press('Tab');
  await expect(wish).toContainText(/Fixture cost: [\d,]+ EUR \(limit/);
  await page.keyboard.type('Blocking');
  await expect(findings(page)).toContainText('(limit');
  await tabTo(page, wish.getByRole('button', { name: /^Delete:/ }));
  await page.keyboard.press('Enter');
  await expect(region.getByRole('listitem')).toHaveCount(before);
  await page.keyboard.press('Control+z');
  await expect(region.getByRole('listitem')).toHaveCount(before + 1);
});

test('a wish about what the controls do asks for a level, then for a pattern, and is proved each time', async ({
  page,
}) => {
  await openBuild(page, await copyOfDemo(page, 'ks-13'), 'brief');
  const region = page.getByRole('region', { name: wishes });
  await region.getByLabel('New requirement').selectOption('Control behaviour');
  await region.getByRole('button', { name: 'Add' }).click();
  const wish = region.getByRole('listitem').last();
  await wish.getByLabel('Whenever, never or possible').selectOption('Whenever');
  await wish.getByLabel('Required state').selectOption('at most at …');
  await expect(wish.getByLabel('Share of their light, %')).toHaveValue('50');
  await expect(wish).toContainText('✓ Pass', { timeout: 60_000 });
  await wish.getByLabel('Required state').selectOption('in pattern …');
  await expect(wish.getByLabel('Share of their light, %')).toHaveCount(0);
  await wish.getByLabel('Pattern that they are to be in').selectOption('Double flash');
  await expect(wish).toContainText(/Required: all lamps: all lit lamps use pattern “Double flash”/, {
    timeout: 60_000,
  });
  await expect(findings(page)).toContainText('Required: all lamps: all lit lamps');
  await saved(page).waitFor();
  await reopen(page);
  await expect(
    page.getByRole('region', { name: wishes }).getByLabel('Pattern that they are to be in'),
  ).toHaveValue('double');
});
