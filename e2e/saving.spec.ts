import { readFileSync } from 'node:fs';
import type { BrowserContext, Page } from '@playwright/test';
import { z } from 'zod';
import { copyOfDemo, expect, findings, inspector, openBuild, saved, test } from './support';

test.use({ expectedNoise: [/Failed to load resource/] });

/** No save gets through from here on. */
const cutSaves = (page: Page): Promise<unknown> =>
  page.route('**/api/v1/builds/*', (route) =>
    route.request().method() === 'PUT' ? route.abort() : route.continue(),
  );

const NAME = 'Name';
async function rename(page: Page, label: string, was = 'Grille L'): Promise<void> {
  await page.getByRole('button', { name: was, exact: true }).click();
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
  await cutSaves(page);
  await rename(page, 'Grille far left');
  await expect(
    page.getByText(/Not saved: The server cannot be reached\. Kept in this browser, trying again\./),
  ).toBeVisible();
  await page.reload();
  await expect(page.getByText('Unsaved work was found.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Grille L', exact: true })).toBeVisible();
  await page.unroute('**/api/v1/builds/*');
  await page.getByRole('button', { name: 'Restore' }).click();
  await expect(page.getByRole('button', { name: 'Grille far left' })).toBeVisible();
  await saved(page).waitFor();
  await page.reload();
  await expect(page.getByRole('button', { name: 'Grille far left' })).toBeVisible();
  await expect(page.getByText('Unsaved work was found.')).toHaveCount(0);
});

test('work that an earlier version kept in the browser is taken over once, and offered', async ({ page }) => {
  const id = await copyOfDemo(page, 'ks-13');
  await openBuild(page, id, 'layout');
  const key = `flarik:unsaved:${id}`;
  const answer = await page.request.get(`/api/v1/builds/${id}`);
  const { build } = z.object({ build: z.looseObject({}) }).parse(await answer.json());
  const kept = JSON.stringify({ build: { ...build, name: 'Of an earlier version' }, basedOn: 1 });
  await page.evaluate(
    ([at, text]) => {
      localStorage.setItem(at, text);
      localStorage.setItem('flarik:unsaved:broken', '{"build":');
    },
    [key, kept] as const,
  );
  await page.reload();
  await expect(page.getByText('Unsaved work was found.')).toBeVisible();
  await page.getByRole('button', { name: 'Restore' }).click();
  await expect(page.getByRole('heading', { name: 'Of an earlier version' })).toBeVisible();
  await saved(page).waitFor();
  const left = await page.evaluate(
    (at) => [localStorage.getItem(at), localStorage.getItem('flarik:unsaved:broken')],
    key,
  );
  expect(left).toEqual([null, '{"build":']);
  await page.evaluate(() => localStorage.removeItem('flarik:unsaved:broken'));
  await page.reload();
  await expect(page.getByRole('heading', { name: 'Of an earlier version' })).toBeVisible();
  await expect(page.getByText('Unsaved work was found.')).toHaveCount(0);
});

test('a build deleted by someone else can be stored again', async ({ page }) => {
  const id = await copyOfDemo(page, 'ks-13');
  await openBuild(page, id, 'layout');
  await page.request.delete(`/api/v1/builds/${id}`);
  await rename(page, 'Still here');
  await expect(page.getByText(/Not saved: There is no build .* Kept in this browser\./)).toBeVisible();
  await page.getByRole('button', { name: 'Save again' }).click();
  await expect(page.getByRole('button', { name: 'Still here', exact: true })).toBeVisible();
  await expect(saved(page)).toContainText('revision 2');
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

test('one more edit after a save whose answer was lost is no conflict with oneself, nor after a reload', async ({
  page,
}) => {
  const id = await copyOfDemo(page, 'ks-13');
  await openBuild(page, id, 'layout');
  let reached = 0;
  await page.route('**/api/v1/builds/*', async (route) => {
    if (route.request().method() !== 'PUT') return route.continue();
    // The first gets there; all others, and every answer, are lost.
    if (reached++ === 0) await route.fetch();
    return route.abort();
  });
  await rename(page, 'First');
  await expect.poll(() => reached).toBeGreaterThan(0);
  await rename(page, 'Second', 'First');
  await expect(page.getByText(/Not saved: The server cannot be reached/)).toBeVisible();
  await page.unrouteAll({ behavior: 'ignoreErrors' });
  await page.reload();
  await page.getByRole('button', { name: 'Restore' }).click();
  await expect(page.getByRole('button', { name: 'Second', exact: true })).toBeVisible();
  await expect(saved(page)).toContainText('revision 3');
  await expect(page.getByRole('dialog', { name: 'This build was saved elsewhere' })).toHaveCount(0);
});

test('two windows: the stale one is refused, and both sides are kept', async ({ page }) => {
  const id = await copyOfDemo(page, 'ks-13');
  await openBuild(page, id, 'layout');
  await saveElsewhere(page.context(), id);
  await rename(page, 'Mine');
  const dialog = page.getByRole('dialog', { name: 'This build was saved elsewhere' });
  await expect(dialog).toContainText('Revision 2');
  await dialog.getByRole('button', { name: 'Keep both' }).click();
  await expect(page.getByRole('heading', { name: 'Copy of ks-13 (mine)' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Mine', exact: true })).toBeVisible();
  await openBuild(page, id, 'layout');
  await expect(page.getByRole('button', { name: 'Theirs', exact: true })).toBeVisible();
});

test('or mine goes over theirs, which stays as a revision', async ({ page }) => {
  const id = await copyOfDemo(page, 'ks-13');
  await openBuild(page, id, 'layout');
  await saveElsewhere(page.context(), id);
  await rename(page, 'Mine');
  await page.getByRole('button', { name: 'Overwrite it' }).click();
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
  await expect(findings(page)).toContainText('All rules and requirements pass');
});

test('a build that is not there says so and leads back', async ({ page }) => {
  await page.goto('/builds/00000000-0000-4000-8000-000000000000/layout');
  await expect(page.getByRole('heading', { name: 'Not found' })).toBeVisible();
  await page.getByRole('link', { name: 'To the list of builds' }).click();
  await expect(page.getByRole('heading', { name: 'Builds' })).toBeVisible();
});

test('an earlier revision is looked at, named and restored; nothing can be changed in it', async ({
  page,
}) => {
  const id = await copyOfDemo(page, 'ks-13');
  await openBuild(page, id, 'layout');
  await rename(page, 'Left fang');
  await expect(saved(page)).toContainText('revision 2');
  await saved(page).click();
  const dialog = page.getByRole('dialog', { name: 'Revisions' });
  await expect(dialog.getByRole('row', { name: /^2 / })).toContainText('Rename Grille L');
  await dialog.getByLabel('Name of revision 1').fill('As ordered');
  await dialog.getByLabel('Name of revision 1').press('Enter');
  await dialog.getByRole('button', { name: 'View revision 1' }).click();

  const past = page.getByRole('status').filter({ hasText: 'Read-only' });
  await expect(past).toBeVisible();
  await page.getByRole('button', { name: 'Grille L', exact: true }).click();
  await page.keyboard.press('Delete');
  await expect(page.getByRole('button', { name: 'Grille L', exact: true })).toBeVisible();
  await page.getByRole('link', { name: /^Timing/ }).click();
  await expect(past).toBeVisible();
  await past.getByRole('button', { name: 'Back to the current build' }).click();
  await expect(past).toHaveCount(0);
  await page.getByRole('link', { name: /^Layout/ }).click();
  await expect(page.getByRole('button', { name: 'Left fang', exact: true })).toBeVisible();

  await saved(page).click();
  await expect(dialog.getByLabel('Name of revision 1')).toHaveValue('As ordered');
  await dialog.getByRole('button', { name: 'View revision 1' }).click();
  await past.getByRole('button', { name: 'Restore' }).click();
  await expect(page.getByRole('button', { name: 'Grille L', exact: true })).toBeVisible();
  await expect(saved(page)).toContainText('revision 3');
  await page.getByRole('button', { name: 'Undo: Restore revision 1' }).click();
  await expect(page.getByRole('button', { name: 'Left fang', exact: true })).toBeVisible();

  await saved(page).click();
  await dialog.getByRole('button', { name: 'View revision 1' }).click();
  await past.getByRole('button', { name: 'Save as new build' }).click();
  await expect(page.getByRole('heading', { name: /, revision 1$/ })).toBeVisible();
  await expect(page).not.toHaveURL(new RegExp(id));
  await expect(page.getByRole('button', { name: 'Grille L', exact: true })).toBeVisible();
});

test('unsaved work taken up while an earlier revision is looked at is not lost', async ({ page }) => {
  const id = await copyOfDemo(page, 'ks-13');
  await openBuild(page, id, 'layout');
  await rename(page, 'Once');
  await expect(saved(page)).toContainText('revision 2');
  await cutSaves(page);
  await rename(page, 'Never sent', 'Once');
  await expect(page.getByText(/Not saved: The server cannot be reached/)).toBeVisible();
  await page.reload();
  await page.unrouteAll({ behavior: 'ignoreErrors' });
  await expect(page.getByText('Unsaved work was found.')).toBeVisible();
  await saved(page).click();
  await page.getByRole('button', { name: 'View revision 1' }).click();
  await expect(page.getByText('Read-only')).toBeVisible();
  // The first of the two: that of the work, above that of the revision.
  await page.getByRole('button', { name: 'Restore' }).first().click();
  await expect(page.getByRole('button', { name: 'Never sent', exact: true })).toBeVisible();
  await expect(page.getByText('Read-only')).toHaveCount(0);
  await expect(saved(page)).toContainText('revision 3');
});

test('a server that hangs is given up after a while, said, and tried again', async ({ page }) => {
  const id = await copyOfDemo(page, 'ks-13');
  await openBuild(page, id, 'layout');
  let hangs = true;
  await page.route('**/api/v1/builds/*', (route) => {
    if (route.request().method() === 'PUT' && hangs) return;
    return route.continue();
  });
  await rename(page, 'Waiting for an answer');
  await expect(page.getByText(/Not saved: The server does not answer\. Kept in this browser/)).toBeVisible({
    timeout: 60_000,
  });
  hangs = false;
  await expect(saved(page)).toContainText('revision 2');
});

test.describe('in a browser of its own', () => {
  test.use({ tab: 'new' });

  test('a browser that keeps nothing still saves, and says when work would be lost', async ({ page }) => {
    await page.addInitScript(() => {
      const denied = () => {
        throw new DOMException('denied', 'SecurityError');
      };
      Object.defineProperty(window, 'localStorage', { get: denied });
      IDBFactory.prototype.open = denied;
    });
    const id = await copyOfDemo(page, 'ks-13');
    await openBuild(page, id, 'layout');
    await rename(page, 'Saved without a shelf');
    await expect(saved(page)).toContainText('revision 2');
    await cutSaves(page);
    await rename(page, 'Nowhere kept', 'Saved without a shelf');
    await expect(page.getByText(/Not saved: .* This browser cannot keep it, trying again\./)).toBeVisible();
    const file = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Save as file' }).click();
    expect((await file).suggestedFilename()).toBe('Copy-of-ks-13.flarik.json');
    await page.unroute('**/api/v1/builds/*');
    await expect(saved(page)).toContainText('revision 3');
  });

  test('what two tabs could not save is kept for each, and listed until it is taken or thrown away', async ({
    page,
  }) => {
    const id = await copyOfDemo(page, 'ks-13');
    const tabs = [page, await page.context().newPage()];
    for (const [i, tab] of tabs.entries()) {
      await cutSaves(tab);
      await openBuild(tab, id, 'layout');
      await rename(tab, `Tab ${i + 1}`);
      await expect(tab.getByText(/Kept in this browser, trying again/)).toBeVisible();
    }
    const [, second] = tabs;
    await second?.close();
    await page.goto('/');
    const unsaved = page.getByRole('region', { name: 'Unsaved work in this browser' });
    await expect(unsaved.getByRole('listitem')).toHaveCount(2);
    await unsaved.getByRole('button', { name: 'Discard' }).first().click();
    await expect(unsaved.getByRole('listitem')).toHaveCount(1);
    await page.unroute('**/api/v1/builds/*');
    await unsaved.getByRole('link', { name: 'Open the build' }).click();
    await page.getByRole('button', { name: 'Restore' }).click();
    await expect(page.getByRole('button', { name: 'Tab 1', exact: true })).toBeVisible();
    await expect(saved(page)).toContainText('revision 2');
    await page.goto('/');
    await expect(page.getByRole('heading', { name: 'Builds' })).toBeVisible();
    await expect(unsaved).toHaveCount(0);
  });

  test('a full disk: saves go out all the same; what neither side can keep goes into a file', async ({
    page,
    baseURL,
  }) => {
    const id = await copyOfDemo(page, 'ks-13');
    const chromium = await page.context().newCDPSession(page);
    await openBuild(page, id, 'layout');
    await chromium.send('Storage.overrideQuotaForOrigin', { origin: baseURL ?? '', quotaSize: 1 });
    await rename(page, 'Saved though full');
    await expect(saved(page)).toContainText('revision 2');
    await cutSaves(page);
    await rename(page, 'Kept nowhere', 'Saved though full');
    await expect(page.getByText(/Not saved: .* This browser cannot keep it/)).toBeVisible();
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'Save as file' }).click(),
    ]);
    expect(readFileSync(await download.path(), 'utf8')).toContain('Kept nowhere');
    await page.unroute('**/api/v1/builds/*');
    await expect(saved(page)).toContainText('revision 3');
  });
});
