import { WalkedPage } from './pages';
import { expect, findings, keepPacks, openList, placeLamp, test } from './support';

const walked = new WalkedPage('build-the-patrol-car.md');

test('a full patrol car is built and proved as its page says, from nothing', async ({ page }) => {
  await openList(page);
  await page.getByRole('button', { name: 'New build' }).click();
  await page.getByLabel('Name of the build').fill('My patrol car');
  await keepPacks(page, /kestrel sound lighting|intensity limits/i);
  await page.getByRole('button', { name: 'Create' }).click();
  await expect(page.getByRole('heading', { name: 'My patrol car' })).toBeVisible();

  await page.getByRole('link', { name: /^Layout/ }).click();
  for (const [fixture = '', zone = '', how = ''] of walked.table('Fixture'))
    await placeLamp(page, fixture, zone, how === 'one' ? 'one' : 'pair');
  await expect(page.getByRole('status', { name: 'Layout totals' })).toContainText('37 heads');

  await page.getByRole('link', { name: /^Controls/ }).click();
  await page.getByRole('button', { name: 'Templates', exact: true }).click();
  for (const [template = ''] of walked.table('Template'))
    await page.getByRole('button', { name: `Apply ${template}`, exact: true }).click();
  await page.getByRole('button', { name: 'Verification', exact: true }).click();
  const disable = page.getByRole('button', { name: 'Disable there: No function shows white' });
  await disable.click();
  await expect(disable).toBeHidden();
  await expect(page.getByText(/^Checking /)).toBeHidden();
  await expect(findings(page)).toContainText('Stage 2, Brake, Scene all round');
  await expect(findings(page)).toContainText(/\d advice/);
  await expect(findings(page)).not.toContainText(/\d (blocking|warning)/);
});
