import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import {
  expect,
  test as base,
  type Browser,
  type ConsoleMessage,
  type Locator,
  type Page,
  type Request,
} from '@playwright/test';
import { z } from 'zod';

/** A document that is only looked into where a test changes it. */
type Loose = Readonly<Record<string, unknown>>;

/** The copies that a test has made, by its page. */
const copies = new WeakMap<Page, string[]>();

/** The tab that tests of this process go on in, as somebody does who works all day: code and workers are warm. */
let dayTab: Page | null = null;

/** The findings stand open and the tour has been offered, as for whoever has worked here before. */
const asBefore = (): void => {
  localStorage.setItem('flarik-findings-unfolded', 'true');
  localStorage.setItem('flarik-tour-offered', 'true');
};

async function openTab(browser: Browser): Promise<Page> {
  const page = await (await browser.newContext()).newPage();
  await page.addInitScript(asBefore);
  // Nothing glides: pictures on the way from one to another cost time, and no test looks at them.
  await page.addInitScript(() => {
    const still = new CSSStyleSheet();
    still.replaceSync('*, ::before, ::after { animation: none !important; transition: none !important }');
    document.adoptedStyleSheets.push(still);
  });
  return page;
}

/** Goes somewhere in the app as by a link of the page: nothing is loaded anew but what is looked at. */
async function follow(page: Page, path: string): Promise<void> {
  await page.evaluate((href) => {
    const link = Object.assign(document.createElement('a'), { href });
    document.querySelector('a')?.parentElement?.append(link);
    link.click();
    link.remove();
  }, path);
}

const isOpen = (page: Page): boolean => page.url().startsWith('http');
const isList = (page: Page): boolean => isOpen(page) && new URL(page.url()).pathname === '/';
const list = (page: Page): Locator => page.getByRole('heading', { name: 'Builds', exact: true });

/** Goes to the list of builds as by a link, wherever one is; it may be as old as the last look at it. */
export async function openList(page: Page): Promise<void> {
  if (!isOpen(page)) await page.goto('/');
  else if (!isList(page)) await follow(page, '/');
  await list(page).waitFor();
}

/** Leaves the build for the list, and what a browser keeps as it was at first. */
async function leave(page: Page): Promise<void> {
  if (!isOpen(page)) return;
  await page.unrouteAll({ behavior: 'ignoreErrors' });
  await page.mouse.move(0, 0);
  // What stands open on the list is not left by going there.
  if (isList(page)) await page.goto('/');
  else await openList(page);
  await page.evaluate(() => localStorage.clear());
  await page.evaluate(asBefore);
}

/**
 * Every test fails when the console says anything, or when a request leaves this machine. Tests go on in the tab of the
 * tests before them; those that need another begin in a `new` one.
 */
export const test = base.extend<{ guarded: undefined; expectedNoise: RegExp[]; tab: 'same' | 'new' }>({
  expectedNoise: [[], { option: true }],
  tab: ['same', { option: true }],
  page: async ({ browser, tab }, use) => {
    if (tab === 'same') {
      dayTab ??= await openTab(browser);
      await use(dayTab);
    } else {
      const page = await openTab(browser);
      await use(page);
      await page.context().close();
    }
  },
  guarded: [
    async ({ page, tab, baseURL, expectedNoise }, use) => {
      const wrong: string[] = [];
      const saves = new Set<Request>();
      const onConsole = (message: ConsoleMessage): void => {
        const text = `console ${message.type()}: ${message.text()}`;
        if (!expectedNoise.some((noise) => noise.test(text))) wrong.push(text);
      };
      const onError = (error: Error): unknown => wrong.push(`page error: ${error.message}`);
      const onRequest = (request: Request): void => {
        const url = new URL(request.url());
        if (url.protocol.startsWith('http') && url.origin !== baseURL) wrong.push(`request to ${url.href}`);
        if (request.method() === 'PUT') saves.add(request);
      };
      const onAnswered = (request: Request): unknown => saves.delete(request);
      page.on('console', onConsole).on('pageerror', onError).on('request', onRequest);
      page.on('requestfinished', onAnswered).on('requestfailed', onAnswered);
      await use(undefined);
      if (tab === 'same') {
        await leave(page);
        // What was not saved yet is sent as the build is left.
        await expect.poll(() => saves.size).toBe(0);
        page.off('console', onConsole).off('pageerror', onError).off('request', onRequest);
        page.off('requestfinished', onAnswered).off('requestfailed', onAnswered);
      }
      expect(wrong).toEqual([]);
      // What nobody looks at any more costs the server no digest. It may have ended an idle connection just now.
      for (const id of copies.get(page) ?? [])
        await page.request.delete(`/api/v1/builds/${id}`, { maxRetries: 3 });
      copies.delete(page);
    },
    { auto: true },
  ],
});
export { expect };

const axeSource = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');
const AxeResult = z.object({
  violations: z.array(z.object({ id: z.string(), nodes: z.array(z.object({ html: z.string() })) })),
});

/**
 * Nothing that axe can find is wrong with the page as it stands. Styles and media are not fetched anew for it:
 * only its rules on screens that may not be turned and on sound that plays by itself need that.
 */
export async function expectAccessible(page: Page, within = 'html'): Promise<void> {
  await page.evaluate(axeSource);
  const { violations } = AxeResult.parse(
    await page.evaluate(
      `axe.run(${JSON.stringify(within)}, { resultTypes: ['violations'], preload: false })`,
    ),
  );
  expect(violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.html.slice(0, 160)).join(' | ')}`)).toEqual(
    [],
  );
}

export const demoId = {
  ks12: '0c6f0d5e-6a0e-4b7e-9d1c-5a1f5d0c1200',
  ks13: '0c6f0d5e-6a0e-4b7e-9d1c-5a1f5d0c1300',
};

/** Opens a build's step and waits until it is checked. */
export async function openBuild(
  page: Page,
  id: string,
  step: 'brief' | 'vehicle' | 'layout' | 'timing' | 'controls' | 'visibility' | 'rules',
): Promise<void> {
  const path = `/builds/${id}/${step}`;
  if (isOpen(page)) {
    // Whatever was open is left first, so that the build is read anew.
    await openList(page);
    await follow(page, path);
    await page.waitForURL(path);
  } else await page.goto(path);
  await checked(page);
}

/** Waited for, not expected: what is expected and not yet there has the whole page described at each look. */
async function checked(page: Page): Promise<void> {
  await page
    .locator('[aria-label="Findings"]', {
      hasText: /in this state|All rules|No findings|No open findings|No rule pack/,
    })
    // The first check of a build waits for whatever else the machine does.
    .waitFor({ timeout: 120_000 });
}

/** Leaves the build and comes back to the same step: what is there then is what the server has. */
export async function reopen(page: Page): Promise<void> {
  const path = new URL(page.url()).pathname;
  await openList(page);
  await follow(page, path);
  await page.waitForURL(path);
  await checked(page);
}

export const findings = (page: Page): Locator => page.getByRole('region', { name: 'Findings' });
export const stateBar = (page: Page): Locator => page.getByRole('region', { name: 'State bar' });
/** The button that opens the box of doors, hatch and other moving parts; it says what is open. */
export const partsButton = (page: Page): Locator => page.getByTitle('Doors, hatch and other moving parts');
/** One of the moving parts, in the box that is opened for it. */
export async function movingPart(page: Page, name: string): Promise<Locator> {
  const box = page.getByRole('group', { name: 'Doors, hatch and other moving parts' });
  if (!(await box.isVisible())) await partsButton(page).click();
  return box.getByRole('button', { name, exact: true });
}
export const inspector = (page: Page): Locator => page.getByRole('region', { name: 'Inspector' });
export const sheet = (page: Page): Locator => page.getByRole('region', { name: 'Vehicle drawing' });
/** What says that the build is saved; to be waited for. */
export const saved = (page: Page): Locator => page.getByText(/^Saved .* · revision/);

/** Chooses from a list that is filled when somebody comes to it. */
export async function choosePattern(list: Locator, pattern: string | { label: string }): Promise<void> {
  await list.hover();
  await list.selectOption(pattern);
}

/** A copy of a demo build under an id of its own, for tests that change things. */
export async function copyOfDemo(
  page: Page,
  name: string,
  change: (build: Loose) => Loose = (build) => build,
): Promise<string> {
  const text = readFileSync(new URL(`../demo/builds/${name}.json`, import.meta.url), 'utf8');
  const build = {
    ...change(z.looseObject({}).parse(JSON.parse(text))),
    id: crypto.randomUUID(),
    name: `Copy of ${name}`,
  };
  const answer = await page.request.post('/api/v1/builds/import', { data: build });
  const { id } = z.object({ id: z.string() }).parse(await answer.json());
  copies.set(page, [...(copies.get(page) ?? []), id]);
  return id;
}

/** More presses than any step has stops: what is not reached by then is not reached. */
const MOST_PRESSES = 220;

/**
 * Presses Tab, or Shift and Tab where it lies behind, until the element has the focus, as someone without a mouse would.
 * It looks where it is only now and then: after two thirds of the stops that it believes to lie between.
 */
export async function tabTo(page: Page, target: Locator): Promise<void> {
  await expect(target).toBeVisible();
  for (let presses = 0; presses < MOST_PRESSES;) {
    const away = await target.evaluate((element) => {
      const here = document.activeElement ?? document.body;
      if (element === here) return 0;
      const isBefore = (one: Element, other: Element): boolean =>
        (one.compareDocumentPosition(other) & Node.DOCUMENT_POSITION_FOLLOWING) !== 0;
      const isBehind = isBefore(element, here);
      const [from, to] = isBehind ? [element, here] : [here, element];
      const between = [...document.querySelectorAll('a, button, input, select, textarea, [tabindex]')].filter(
        (stop) =>
          (stop instanceof HTMLElement || stop instanceof SVGElement) &&
          stop.tabIndex >= 0 &&
          isBefore(from, stop) &&
          isBefore(stop, to) &&
          !stop.matches(':disabled') &&
          stop.checkVisibility(),
      );
      return (between.length + 1) * (isBehind ? -1 : 1);
    });
    if (away === 0) return;
    const blind = Math.max(1, Math.floor((Math.abs(away) * 2) / 3));
    for (let i = 0; i < blind; i++) await page.keyboard.press(away > 0 ? 'Tab' : 'Shift+Tab');
    presses += blind;
  }
  throw new Error('the element cannot be reached with Tab');
}

/** In the dialog of a new build: of the rule packs just these. */
export async function keepPacks(page: Page, kept: RegExp): Promise<void> {
  for (const pack of await page.getByRole('dialog').getByRole('checkbox').all()) {
    const name = await pack.evaluate((box) => box.closest('div')?.textContent ?? '');
    await pack.setChecked(kept.test(name), { force: true });
  }
}

/** Finds a fixture in the catalogue and places it on a zone, alone or with its mirror image. */
export async function placeLamp(
  page: Page,
  fixture: string,
  zone: string,
  how: 'one' | 'pair',
): Promise<void> {
  const catalogue = page.getByRole('region', { name: 'Catalogue' });
  await catalogue.getByLabel('Search the catalogue').fill(fixture);
  const entry = catalogue.locator('[data-fixture]').filter({ hasText: fixture }).first();
  if ((await entry.getAttribute('aria-pressed')) !== 'true') await entry.click();
  await page.getByLabel('Zone', { exact: true }).selectOption({ label: zone });
  await page.getByRole('button', { name: how === 'one' ? 'Place one' : 'Place a mirrored pair' }).click();
}
