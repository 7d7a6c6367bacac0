/** Takes the pictures of `docs/screenshots/` from a running app that holds the demo data. */
import { chromium, expect, type Page } from '@playwright/test';

const [address, executablePath] = process.argv.slice(2);
if (address === undefined || executablePath === undefined) throw new Error('run it by npm run screenshots');

const KS12 = '/builds/0c6f0d5e-6a0e-4b7e-9d1c-5a1f5d0c1200';
const PUMPER = '/builds/0c6f0d5e-6a0e-4b7e-9d1c-5a1f5d0c3300';
const KS13 = '/builds/0c6f0d5e-6a0e-4b7e-9d1c-5a1f5d0c1300';
const INCIDENT = '/builds/0c6f0d5e-6a0e-4b7e-9d1c-5a1f5d0c5100';

interface Shot {
  readonly file: string;
  readonly path: string;
  readonly theme?: 'white';
  readonly act?: (page: Page) => Promise<void>;
}

/** Until all is proved: not on the way to it. */
const proved = (page: Page) =>
  page.locator('[aria-label="Findings"][aria-busy="false"]').waitFor({ timeout: 60_000 });

const show = (name: RegExp) => async (page: Page) => {
  await proved(page);
  await page.getByRole('button', { name: 'Expand findings' }).click();
  await page.getByRole('button', { name }).first().click();
};

/** Stage 3 with the hatch open and white by hand, and the function that takes over under the hatch. */
async function drive(page: Page): Promise<void> {
  await page.getByLabel('Events to play').fill('ignition=on, slide=3, part.hatch=hatch, key-white=press');
  await page.getByRole('button', { name: 'Play', exact: true }).last().click();
  await page.getByRole('button', { name: /^Hatch supplement warning/ }).click();
}

const SHOTS: readonly Shot[] = [
  {
    file: 'builds',
    path: '/',
    act: async (page) => {
      await expect(page.getByText('Checking …')).toHaveCount(0, { timeout: 60_000 });
    },
  },
  { file: 'brief', path: `${KS12}/brief` },
  {
    file: 'vehicle',
    path: `${PUMPER}/vehicle`,
    act: (page) => page.getByLabel('Wheelbase, mm').focus(),
  },
  { file: 'pumper', path: `${PUMPER}/layout` },
  {
    file: 'layout',
    path: `${KS12}/layout`,
    act: (page) => page.getByRole('button', { name: 'Roof', exact: true }).click(),
  },
  {
    file: 'timing',
    path: `${KS12}/timing`,
    act: async (page) => {
      await page.getByRole('button', { name: 'Stage 3', exact: true }).first().click();
      await page.getByLabel('Time in the pattern, milliseconds').fill('480');
    },
  },
  { file: 'controls', path: `${KS13}/controls`, act: drive },
  {
    file: 'atlas',
    path: `${KS13}/controls`,
    act: async (page) => {
      await drive(page);
      await page.getByRole('button', { name: 'State matrix', exact: true }).click();
    },
  },
  {
    file: 'proof',
    path: `${KS12}/controls`,
    act: async (page) => {
      await page.getByRole('button', { name: 'Verification', exact: true }).click();
      await page.getByRole('button', { name: /^Play: .*Siren is on/ }).click({ timeout: 60_000 });
    },
  },
  {
    file: 'visibility',
    path: `${KS12}/visibility`,
    act: show(/^Show: Optical power to the rear/),
  },
  {
    file: 'all-directions',
    path: `${KS13}/visibility`,
    act: async (page) => {
      await page.getByRole('button', { name: 'Direction map' }).click();
      await page.getByLabel('Bearing, degrees').fill('150');
      await page.getByRole('img', { name: /^Light by bearing/ }).waitFor({ timeout: 60_000 });
    },
  },
  {
    file: 'seen-in-time',
    path: `${PUMPER}/visibility`,
    act: async (page) => {
      await page.getByRole('button', { name: /^Car from behind · fog · day: / }).click({ timeout: 60_000 });
      await page.getByRole('img', { name: /^Light at the eye/ }).waitFor({ timeout: 60_000 });
    },
  },
  {
    file: 'ground',
    path: `${PUMPER}/visibility`,
    act: async (page) => {
      await page.getByRole('button', { name: 'Scene light', exact: true }).click();
      await page.getByRole('checkbox', { name: /^Scene light/ }).check({ timeout: 60_000 });
      await expect(page.getByText(/^No lamp is lit steady/)).toHaveCount(0, { timeout: 60_000 });
    },
  },
  {
    file: 'glare-light',
    path: `${KS13}/visibility`,
    theme: 'white',
    act: async (page) => {
      await page.getByRole('button', { name: 'Night', exact: true }).first().click();
      await page.getByRole('button', { name: 'Glare and fog' }).click();
      await page.getByRole('button', { name: 'Driver' }).click({ timeout: 60_000 });
      await page.getByText(/^Worst for the driver/).waitFor();
    },
  },
  {
    file: 'by-eye',
    path: `${PUMPER}/visibility`,
    act: async (page) => {
      await page.getByRole('button', { name: '3D view' }).click();
      await page.getByRole('button', { name: 'Night', exact: true }).first().click();
      await page.getByLabel('Distance').fill('16');
      await page.keyboard.press('2');
      await expect(page.getByRole('button', { name: 'Stop', exact: true })).toHaveCount(0, {
        timeout: 60_000,
      });
    },
  },
  {
    file: 'patterns',
    path: `${KS13}/timing`,
    act: async (page) => {
      await page.getByRole('button', { name: 'Draw the pattern of Roof bar in Stage 2' }).click();
      await page.getByRole('button', { name: 'Library', exact: true }).click();
    },
  },
  {
    file: 'rules',
    path: `${KS12}/rules`,
    act: proved,
  },
  {
    file: 'rules-editor',
    path: `${INCIDENT}/rules`,
    act: async (page) => {
      await page.getByRole('button', { name: 'Edit a copy' }).first().click();
      await page.getByRole('article', { name: /\(copy\)$/ }).waitFor();
      await proved(page);
    },
  },
  {
    file: 'layout-light',
    path: `${KS12}/layout`,
    theme: 'white',
    act: show(/^Show: Optical power to the right/),
  },
];

const browser = await chromium.launch({
  executablePath,
  chromiumSandbox: false,
  args: [
    '--disable-quic',
    '--disable-dev-shm-usage',
    // Software drawing in three dimensions, without a driver's remarks on the console.
    '--use-angle=swiftshader',
    '--force-color-profile=srgb',
    '--font-render-hinting=none',
  ],
});
for (const { file, path, theme, act } of SHOTS) {
  const context = await browser.newContext({
    baseURL: address,
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    timezoneId: 'UTC',
  });
  if (theme !== undefined) await context.addCookies([{ name: 'theme', value: theme, url: address }]);
  await context.addInitScript(() => localStorage.setItem('flarik-tour-offered', 'true'));
  const page = await context.newPage();
  await page.goto(path);
  if (path !== '/')
    await page
      .getByText(/in this state|requirements pass in every state/)
      .first()
      .waitFor();
  await act?.(page);
  await page.waitForTimeout(800);
  await page.screenshot({ path: new URL(`../docs/screenshots/${file}.png`, import.meta.url).pathname });
  await context.close();
}
await browser.close();
