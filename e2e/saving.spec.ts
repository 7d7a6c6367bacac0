import type { BrowserContext } from '@playwright/test';
import { copyOfDemo, expect, findings, inspector, openBuild, saved, test } from './support';

test.use({ expectedNoise: [/Failed to load resource/] });

const NAME = 'Name';
async function rename(page: Parameters<typeof openBuild>[0], label: string): Promise<void> {
  await page.getByRole('button', { name: 'Grille L', exact: true }).click();
  await inspector(page).getByLabel(NAME).fill(label);
  await inspector(page).getByLabel(NAME).press('Enter');
}

/** Another window opens the build, renames a lamp and saves. */
async function saveElsewhere(context: BrowserContext, id: string): Promise<void> {
  const other = await context.newPage();
  await openBuild(other, id, 'layout');
  await rename(other, 'Theirs');
  await expect(saved(other)).toContainText('revision 2');
  await other.close();
}

test('a lost connection loses nothing: kept, said, tried again, offered after a reload', async ({ page }) => {
  const id = await copyOfDemo(page, 'ks-13');
  await openBuild(page, id, 'layout');
  await page.route('**/api/v1/builds/*', (route) =>
    route.request().method() === 'PUT' ? route.abort() : route.continue(),
  );
  await rename(page, 'Grille far left');
  await expect(
    page.getByText(/Not saved: The server cannot be reached\. Kept in this browser, trying again\./),
  ).toBeVisible();
  await page.reload();
  await expect(page.getByText('Unsaved work was found.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Grille L', exact: true })).toBeVisible();
  await page.unroute('**/api/v1/builds/*');
  await page.getByRole('button', { name: 'Restore it' }).click();
  await expect(page.getByRole('button', { name: 'Grille far left' })).toBeVisible();
  await expect(saved(page)).toBeVisible();
  await page.reload();
  await expect(page.getByRole('button', { name: 'Grille far left' })).toBeVisible();
  await expect(page.getByText('Unsaved work was found.')).toHaveCount(0);
});

test('a save whose answer was lost is not offered again', async ({ page }) => {
  const id = await copyOfDemo(page, 'ks-13');
  await openBuild(page, id, 'layout');
  let reached = 0;
  await page.route('**/api/v1/builds/*', async (route) => {
    if (route.request().method() !== 'PUT') return route.continue();
    await route.fetch();
    reached++;
    return route.abort();
  });
  await rename(page, 'Saved all the same');
  await expect.poll(() => reached).toBeGreaterThan(0);
  await page.unrouteAll({ behavior: 'ignoreErrors' });
  await page.reload();
  await expect(page.getByRole('button', { name: 'Saved all the same' })).toBeVisible();
  await expect(page.getByText('Unsaved work was found.')).toHaveCount(0);
});

test('two windows: the stale one is refused, and both sides are kept', async ({ page, context }) => {
  const id = await copyOfDemo(page, 'ks-13');
  await openBuild(page, id, 'layout');
  await saveElsewhere(context, id);
  await rename(page, 'Mine');
  const dialog = page.getByRole('dialog', { name: 'This build was saved elsewhere' });
  await expect(dialog).toContainText('Revision 2');
  await dialog.getByRole('button', { name: 'Keep both' }).click();
  await expect(page.getByRole('heading', { name: 'Copy of ks-13 (mine)' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Mine', exact: true })).toBeVisible();
  await openBuild(page, id, 'layout');
  await expect(page.getByRole('button', { name: 'Theirs', exact: true })).toBeVisible();
});

test('or mine goes over theirs, which stays as a revision', async ({ page, context }) => {
  const id = await copyOfDemo(page, 'ks-13');
  await openBuild(page, id, 'layout');
  await saveElsewhere(context, id);
  await rename(page, 'Mine');
  await page.getByRole('button', { name: 'Put mine over it' }).click();
  await expect(saved(page)).toContainText('revision 3');
  await page.reload();
  await expect(page.getByRole('button', { name: 'Mine', exact: true })).toBeVisible();
});

test('a bad build file or rule pack is one sentence, and nothing is stored', async ({ page }) => {
  // Other tests import at the same time, so the list is not counted: what this page sent is.
  const stored: string[] = [];
  page.on('response', (answer) => {
    const asked = answer.request().method();
    if (answer.ok() && asked !== 'GET') stored.push(`${asked} ${answer.url()}`);
  });
  await page.goto('/');
  const take = (name: string, text: string) =>
    page
      .getByLabel('Build file to import')
      .setInputFiles({ name, mimeType: 'application/json', buffer: Buffer.from(text) });
  await take('broken.json', '{"format":');
  await expect(page.getByRole('alert')).toContainText('the build file is not valid JSON');
  await take('big.json', ' '.repeat(49 * 1024 * 1024));
  await expect(page.getByRole('alert')).toContainText(
    'big.json: the build file is too large: 49.0 MB, at most 4 MB',
  );
  await take('html.json', '<html></html>');
  await expect(page.getByRole('alert')).toContainText('not valid JSON');
  await page.waitForLoadState('networkidle');
  expect(stored).toEqual([]);

  const id = await copyOfDemo(page, 'ks-13');
  await openBuild(page, id, 'rules');
  await page.getByLabel('Rule pack file to import').setInputFiles({
    name: 'stars.json',
    mimeType: 'application/json',
    buffer: Buffer.from('{"format":"flarik-rule-pack","rules":[{"kind":"astrology"}]}'),
  });
  await expect(page.getByRole('alert')).toContainText(
    /stars\.json: rules\[0\]\.kind: unknown kind of rule 'astrology'/,
  );
  await expect(findings(page)).toContainText('every rule and wish holds');
});

test('a build that is not there says so and leads back', async ({ page }) => {
  await page.goto('/builds/00000000-0000-4000-8000-000000000000/layout');
  await expect(page.getByRole('heading', { name: 'Not found' })).toBeVisible();
  await page.getByRole('link', { name: 'To the list of builds' }).click();
  await expect(page.getByRole('heading', { name: 'Builds' })).toBeVisible();
});
