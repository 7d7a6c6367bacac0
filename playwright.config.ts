import { defineConfig } from '@playwright/test';

/** Of the app that these tests need: `npm run screens` starts one. */
const { ADDRESS } = process.env;

/** Tests that draw in three dimensions say so. */
const THREE_D = /@three-dimensions/;

const launchedWith = (...args: string[]) => ({
  launchOptions: {
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium-headless-shell',
    chromiumSandbox: false,
    args: [
      '--disable-quic',
      '--disable-dev-shm-usage',
      // A page lives for seconds: to make its code as fast as can be takes longer than it saves.
      '--js-flags=--no-turbofan --min-semi-space-size=16',
      '--force-color-profile=srgb',
      '--font-render-hinting=none',
      ...args,
    ],
  },
});

export default defineConfig({
  testDir: 'e2e',
  outputDir: 'test-results',
  workers: 2,
  fullyParallel: true,
  forbidOnly: process.env.CI !== undefined,
  // Bounds for what never comes, not measures: a machine may be very busy.
  timeout: 600_000,
  expect: { timeout: 60_000 },
  reporter: [['list']],
  use: {
    ...(ADDRESS === undefined ? {} : { baseURL: ADDRESS }),
    viewport: { width: 1280, height: 800 },
    deviceScaleFactor: 1,
    colorScheme: 'dark',
    locale: 'en-GB',
    timezoneId: 'UTC',
    // A trace takes a copy of the page at every step, which costs more than the step; a picture tells most.
    trace: process.env.TRACE === undefined ? 'off' : 'retain-on-failure',
    screenshot: 'only-on-failure',
  },
  projects: [
    {
      name: 'three dimensions',
      // One after the other, beside the screens: two at once wait for each other.
      workers: 1,
      grep: THREE_D,
      use: launchedWith('--use-angle=swiftshader', '--disable-gpu-rasterization'),
    },
    // Drawn on the processor itself: a graphics card that is imitated costs more than the pages.
    { name: 'screens', grepInvert: THREE_D, use: launchedWith('--disable-gpu') },
  ],
});
