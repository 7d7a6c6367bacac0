import type { Locator } from '@playwright/test';
import {
  copyOfDemo,
  expect,
  expectAccessible,
  findings,
  openBuild,
  saved,
  tabTo,
  test,
  reopen,
} from './support';

test('a form is filled in: copied, its figures changed where they stand, tried, shelved, held against its earlier version', async ({
  page,
}) => {
  const id = await copyOfDemo(page, 'ks-13');
  await openBuild(page, id, 'rules');
  await page
    .getByRole('listitem')
    .filter({ hasText: 'Zone optical power form' })
    .getByRole('button', { name: 'Add' })
    .click();
  await page
    .getByRole('article', { name: /^Zone optical power form/ })
    .getByRole('button', { name: 'Fill in a copy' })
    .click();
  const own = page.getByRole('article', { name: /\(copy\)$/ });
  await expect(own).toContainText('Custom pack');
  const rule = own.getByRole('listitem').filter({ hasText: 'cd·s/min from' }).first();

  // A figure nobody reaches is broken at once; one that is reached holds, and undo brings the first back.
  const figure = rule.getByLabel('Least optical power, cd·s/min');
  await figure.fill('99000000');
  await figure.press('Tab');
  await expect(rule.getByRole('button', { name: '✕ Fail: show' })).toBeVisible();
  await figure.fill('1');
  await figure.press('Tab');
  await expect(rule).toContainText('✓ Pass');
  await saved(page).waitFor();

  await own.getByLabel('Name of the pack').fill('Our own by-law');
  await own.getByLabel('Name of the pack').press('Tab');
  const ours = page.getByRole('article', { name: 'Our own by-law' });
  await ours.getByRole('button', { name: 'Add to library' }).click();
  await expect(
    page.getByRole('status').filter({ hasText: 'Our own by-law was added to the library' }),
  ).toBeVisible();

  // Another edition: a rule more, held against the one on the shelf, on every build there is.
  await ours.getByLabel('Kind of rule').selectOption({ label: 'Peak current' });
  await ours.getByRole('button', { name: 'Add the rule' }).click();
  await ours.getByLabel('Most current, A').fill('0.5');
  await ours.getByLabel('Most current, A').press('Tab');
  await ours.getByRole('button', { name: 'Try on other builds' }).click();
  const box = page.getByRole('dialog');
  await box.getByLabel('Compare with').selectOption({ index: 1 });
  await expect(box.getByRole('list', { name: 'Changed rules' })).toContainText('At most 0.5 A');
  await box.getByRole('button', { name: 'Try', exact: true }).click();
  await expect(box.getByRole('row').filter({ hasText: '(differs)' }).first()).toBeVisible();
  await box.getByRole('button', { name: 'Stop', exact: true }).click();
  await expect(box.getByRole('button', { name: 'Try', exact: true })).toBeVisible();
});

test('by keyboard: a pack of one’s own from nothing, a rule with a condition, moved and deleted', async ({
  page,
}) => {
  const id = await copyOfDemo(page, 'lift-bridge-crew');
  await openBuild(page, id, 'rules');
  const press = async (name: string, within = page.locator('main')): Promise<void> => {
    const button = within.getByRole('button', { name, exact: true });
    await tabTo(page, button);
    await page.keyboard.press('Enter');
  };
  await press('New pack');
  const own = page.getByRole('article', { name: 'Custom rules' });
  for (const kind of ['White to the rear', 'Pulses in a flash']) {
    const select = own.getByLabel('Kind of rule');
    await tabTo(page, select);
    await select.selectOption({ label: kind });
    await press('Add the rule', own);
  }
  const white = own.getByRole('listitem').filter({ hasText: 'No white above' });
  await press('only when …', white);
  await expect(white.getByRole('group', { name: 'Only when' }).first()).toBeVisible();
  await press(
    'Down: No white above 40 cd (combined) to the rear from warning lamps except steady reversing lamps, any door position, in stage 1, 2, 3, when gear is drive.',
    own,
  );
  await expect(own.getByRole('listitem').first()).toContainText('in one flash');
  await press('Delete: At most 4 pulses in one flash, in stage 1, 2, 3.', own);
  await expect(own.getByRole('listitem')).toHaveCount(1);
  await page.keyboard.press('Control+z');
  await expect(own.getByRole('listitem')).toHaveCount(2);
  await expectAccessible(page, 'main');
});

test('a finding is accepted with a reason, is no longer counted, and is taken back', async ({ page }) => {
  const id = await copyOfDemo(page, 'ks-12');
  await openBuild(page, id, 'layout');
  const list = findings(page);
  await expect(list).toContainText(/\d+ blocking/);
  const row = list.getByRole('listitem').filter({ hasText: 'Slow alternate on Rear glass' });
  await row.getByRole('button', { name: /^Accept:/ }).click();
  await expect(list.getByRole('button', { name: 'Accept', exact: true })).toBeDisabled();
  await list.getByLabel('Justification').fill('The arrow is off on the road');
  await list.getByLabel('Accepted by').fill('R. Example');
  await list.getByRole('button', { name: 'Accept', exact: true }).click();
  await expect(list).toContainText('1 accepted');
  await expect(row).toHaveCount(0);
  await saved(page).waitFor();
  await reopen(page);
  await list.getByRole('button', { name: 'Accepted', exact: true }).click();
  await expect(list).toContainText('The arrow is off on the road');
  await list.getByRole('button', { name: /^Withdraw: Slow alternate/ }).click();
  await expect(list).toContainText('No accepted findings.');
});

test('findings by cause: opened, chosen from by gravity and lamp, saved as a table; what holds by its margin', async ({
  page,
}) => {
  await openBuild(page, '0c6f0d5e-6a0e-4b7e-9d1c-5a1f5d0c1200', 'layout');
  const list = findings(page);
  const folded = list.getByRole('listitem').filter({ hasText: 'Optical power to the rear' }).first();
  await folded.getByRole('button', { name: /findings$/ }).click();
  await expect(folded.getByRole('listitem').first()).toBeVisible();
  await list.getByLabel('Severity').selectOption({ label: 'Note' });
  await expect(list).not.toContainText('Too little light');
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    list.getByRole('button', { name: 'Export CSV' }).click(),
  ]);
  expect(file.suggestedFilename()).toContain('findings.csv');
  await list.getByRole('button', { name: 'Passed', exact: true }).click();
  await expect(list.getByRole('listitem').first()).toContainText(/margin \d+ %/);
});

test('a by-law of ten rules is put down as docs/packs.md says: each with its figure, clause and gravity, tried, checked and shelved', async ({
  page,
}) => {
  await openBuild(page, await copyOfDemo(page, 'ks-13'), 'rules');
  await page.getByRole('button', { name: 'New pack', exact: true }).click();
  const type = async (label: string, text: string, own: Locator): Promise<void> => {
    await own.getByLabel(label, { exact: true }).fill(text);
    await own.getByLabel(label, { exact: true }).press('Tab');
  };
  await type('Name of the pack', 'By-law of the test', page.getByRole('article', { name: 'Custom rules' }));
  const own = page.getByRole('article', { name: 'By-law of the test' });
  await type('Source', 'Made up for the test', own);
  await type('Edition', 'First', own);
  const rules = own.getByRole('listitem');
  const KINDS = [
    ['Least optical power', '30000'],
    ['Most optical power', '900000'],
    ['White to the rear', '60'],
    ['Flash rate', '70'],
    ['Longest darkness', '30'],
    ['Pulses in a flash', '6'],
    ['Number of lamps', '2'],
    ['Height of lamps', '0.3'],
    ['Peak current', '80'],
    ['Flashes in any second', '10'],
  ] as const;
  for (const [i, [kind, figure]] of KINDS.entries()) {
    await own.getByLabel('Kind of rule').selectOption({ label: kind });
    await own.getByRole('button', { name: 'Add the rule' }).click();
    const rule = rules.nth(i);
    const first = rule.getByRole('spinbutton').first();
    await first.fill(figure);
    await first.press('Tab');
    await expect(rule.getByRole('spinbutton').first()).toHaveValue(figure);
    await type('Clause', `${i + 1}`, rule);
    await rule.getByLabel('Severity').selectOption({ index: i % 4 });
  }
  await expect(rules).toHaveCount(KINDS.length);
  // Each is tried on the open build as it is put down.
  for (let i = 0; i < KINDS.length; i++)
    await expect(rules.nth(i)).toContainText(/✓ Pass|✕ Fail|Inconclusive|Not applicable/);
  await type('Checked against this edition by', 'R. Example', own);
  await type('Checked on (YYYY-MM-DD)', '2026-11-28', own);
  await own.getByRole('button', { name: 'Add to library' }).click();
  await expect(
    page.getByRole('status').filter({ hasText: 'By-law of the test was added to the library' }),
  ).toBeVisible();
  await saved(page).waitFor();
  await reopen(page);
  await expect(rules).toHaveCount(KINDS.length);
  await expect(rules.first().getByRole('spinbutton').first()).toHaveValue('30000');
});
