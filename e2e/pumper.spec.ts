import type { Page } from '@playwright/test';
import { WalkedPage } from './pages';
import { choosePattern, expect, findings, inspector, keepPacks, openList, placeLamp, test } from './support';

const walked = new WalkedPage('build-the-pumper.md');
const table = (firstColumn: string): string[][] => walked.table(firstColumn);

async function typed(page: Page, label: string, value: string): Promise<void> {
  const field = inspector(page).getByLabel(label);
  await field.fill(value);
  await field.press('Enter');
}

/** Finds by Ctrl+K and takes the first. */
async function find(page: Page, words: string): Promise<void> {
  await page.keyboard.press('Control+k');
  await expect(page.getByRole('combobox', { name: 'Find a command, lamp, zone or finding' })).toBeFocused();
  await page.keyboard.type(words);
  await page.keyboard.press('Enter');
}

test('the Tunnel pumper is built as its page says, from the body type and a list of dimensions', async ({
  page,
}) => {
  await openList(page);
  await page.getByRole('button', { name: 'New build' }).click();
  await page.getByLabel('Name of the build').fill('My pumper');
  await page.getByRole('dialog').getByLabel('Service', { exact: true }).selectOption('Fire');
  await page.getByText('Pumper', { exact: true }).click();
  await page.getByRole('radio', { name: /^None/ }).check();
  await keepPacks(page, /optical power form|intensity limits/i);
  await page.getByRole('button', { name: 'Create' }).click();
  await expect(page.getByRole('heading', { name: 'My pumper' })).toBeVisible();

  const wishes = page.getByRole('region', { name: 'Requirements' });
  for (const [wish = '', figure = ''] of table('Requirement')) {
    await wishes.getByLabel('New requirement').selectOption(wish);
    await wishes.getByRole('button', { name: 'Add' }).click();
    const added = wishes.getByRole('listitem').last();
    if (figure !== '') {
      await added.getByRole('spinbutton').fill(figure);
      await added.getByRole('spinbutton').blur();
    } else {
      for (const colour of ['blue', 'green', 'purple'])
        await added.getByRole('checkbox', { name: colour }).check();
      await added.getByRole('checkbox', { name: 'white' }).uncheck();
    }
  }

  await page.getByRole('link', { name: /^Vehicle/ }).click();
  for (const [dimension = '', mm = ''] of table('Dimension')) {
    const field = page.getByRole('region', { name: 'Body' }).getByLabel(`${dimension}, mm`, { exact: true });
    await field.fill(mm);
    await field.press('Enter');
  }

  await page.getByRole('link', { name: /^Layout/ }).click();
  for (const [fixture = '', zone = '', how = '', across = '', up = ''] of table('Fixture')) {
    await placeLamp(page, fixture, zone, how === 'one' ? 'one' : 'pair');
    if (across !== '') await typed(page, 'Across, mm', across);
    if (up !== '') await typed(page, 'Up, mm', up);
    const times = /× (\d+)/.exec(how)?.[1];
    if (times === undefined) continue;
    await inspector(page).getByLabel('Number along the zone').fill(times);
    await inspector(page)
      .getByRole('button', { name: `Repeat to ${times}` })
      .click();
  }
  await expect(page.getByRole('status', { name: 'Layout totals' })).toContainText('68 heads');

  await page.keyboard.press('Control+a');
  for (const [i, colour] of ['red', 'amber', 'white'].entries())
    await inspector(page)
      .getByLabel(`Colour ${i + 1}`)
      .selectOption(colour);
  await inspector(page).getByRole('button', { name: 'New group for them' }).click();
  const apart = [
    ...table('Zone').map(([zone = '']) => `zone ${zone}`),
    'lamp Box upper L4',
    'lamp Box upper R4',
  ];
  for (const words of apart) {
    await find(page, words);
    await inspector(page).getByLabel('Sync group').selectOption('none: free-running');
  }

  await page.getByRole('link', { name: /^Timing/ }).click();
  await choosePattern(page.getByLabel(/^Pattern of Group \d in Stage 1$/), 'single');
  for (const stage of [2, 3])
    await choosePattern(page.getByLabel(new RegExp(`^Pattern of Group \\d in Stage ${stage}$`)), 'double');

  await page.getByRole('link', { name: /^Controls/ }).click();
  await page.getByRole('button', { name: 'Templates', exact: true }).click();
  await page.getByRole('button', { name: 'Apply Scene light', exact: true }).click();
  await page.getByRole('button', { name: 'Verification', exact: true }).click();
  for (const colour of ['amber', 'white']) {
    await page.getByRole('button', { name: `Disable there: No function shows ${colour}` }).click();
    await expect(
      page.getByRole('button', { name: `Disable there: No function shows ${colour}` }),
    ).toBeHidden();
  }
  await expect(findings(page)).toContainText('All rules and requirements pass');
});
