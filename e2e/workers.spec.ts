import { copyOfDemo, expect, findings, inspector, openBuild, test } from './support';

// Its workers are ended, so that no other test is given one that is dead.
test.use({ tab: 'new' });

test('workers that end by themselves are replaced: no old verdict is left standing', async ({ page }) => {
  await openBuild(page, await copyOfDemo(page, 'ks-13'), 'layout');
  await expect(findings(page)).toContainText('All rules and requirements pass');
  const dead = page.workers();
  expect(dead.length).toBeGreaterThanOrEqual(2);
  for (const worker of dead) await worker.evaluate(() => self.close());
  await expect.poll(() => page.workers().length).toBe(0);
  await page.keyboard.press('Control+a');
  await inspector(page).getByText('Colour 28 lamps by a plan').click();
  await inspector(page).getByLabel('Colour plan').selectOption('Red on the left, blue on the right');
  await inspector(page).getByRole('button', { name: 'Apply' }).click();
  await expect(findings(page)).toContainText(/blue to the rear/i);
  await page.getByRole('button', { name: /^Undo: Red on the left/ }).click();
  await expect(findings(page)).toContainText('All rules and requirements pass');
});
