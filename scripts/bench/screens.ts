import { changeEffect } from '@flarik/core/design/controlEdits';
import { groupTarget, lightCue } from '@flarik/core/design/functions';
/** The screens in Chromium: frames while a lamp is dragged, the wait after it, and opening; the largest demo build beside the smallest. */
import { stagesOf } from '@flarik/core/design/controls';
import { Build } from '@flarik/core/design/schema';
import { chromium, type Page } from '@playwright/test';
import { z } from 'zod';

const SavedBuild = z.object({ build: Build });

const [address, executablePath] = process.argv.slice(2);
if (address === undefined || executablePath === undefined) throw new Error('run it by npm run bench');

const BUILDS = [
  { name: 'Tunnel pumper 3', id: '0c6f0d5e-6a0e-4b7e-9d1c-5a1f5d0c3300', lamp: 'nose-1' },
  { name: 'Ferry-slip marshal van', id: '0c6f0d5e-6a0e-4b7e-9d1c-5a1f5d0c8100', lamp: '' },
] as const;
const STEPS = 180;
const FRAME_MS = 1000 / 60;

const sorted = (values: readonly number[]): number[] => values.toSorted((a, b) => a - b);
const at = (values: readonly number[], share: number): number =>
  sorted(values)[Math.min(values.length - 1, Math.floor(values.length * share))] ?? 0;
const round = (ms: number): number => Math.round(ms * 10) / 10;

const FINDINGS = '[aria-label="Findings"]';

async function opened(page: Page, id: string): Promise<number> {
  await page.goto('about:blank');
  await page.goto(`${address}/builds/${id}/layout`, { waitUntil: 'commit' });
  await page.locator('[data-placement]').first().waitFor();
  return page.evaluate(() => performance.now());
}

/** Collects the time between frames until stopped. As text, since the page knows nothing of a compiler's helpers. */
const START = `
  window.flarikFrames = [];
  window.flarikStop = { now: false };
  (function tick(t) {
    if (t !== undefined) window.flarikFrames.push(t);
    if (!window.flarikStop.now) requestAnimationFrame(tick);
  })();
`;
const startFrames = (page: Page): Promise<unknown> => page.evaluate(START);

/** From letting go until findings and proof, which comes last, are there. */
const WAIT = `
  window.flarikWait = new Promise((done) => {
    window.addEventListener('pointerup', () => {
      const t0 = performance.now();
      let begun = false;
      (function look() {
        const working = document.querySelector('${FINDINGS}').getAttribute('aria-busy') === 'true';
        begun ||= working;
        if (begun && !working) done(performance.now() - t0);
        else setTimeout(look, 1);
      })();
    }, { once: true, capture: true });
  });
  undefined;
`;

const endFrames = async (page: Page): Promise<number[]> => {
  const times: unknown = await page.evaluate(
    'flarikStop.now = true, new Promise((done) => requestAnimationFrame(() => done(flarikFrames)))',
  );
  const list = Array.isArray(times) ? times.map(Number) : [];
  return list.slice(1).map((t, i) => t - (list[i] ?? t));
};

/** Drags a lamp to and fro; frames meanwhile, and how long findings and proof take after it is let go. */
async function dragged(page: Page, lampId: string) {
  const lamp = page.locator(lampId === '' ? '[data-placement]' : `[data-placement="${lampId}"]`).first();
  const box = await lamp.boundingBox();
  if (box === null) throw new Error('the lamp is on the screen');
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await startFrames(page);
  for (let i = 1; i <= STEPS; i++) {
    await page.mouse.move(x + 12 * Math.sin(i / 9), y + 2 * Math.cos(i / 7));
    await page.waitForTimeout(FRAME_MS / 2);
  }
  const frames = await endFrames(page);
  await page.evaluate(WAIT);
  await page.mouse.up();
  const waitMs = Number(await page.evaluate('flarikWait'));
  return { frames, waitMs };
}

/** A copy of a build in which the highest stage lights every channel there is. */
async function allLit(page: Page, id: string): Promise<{ readonly id: string; readonly stage: string }> {
  const { build } = SavedBuild.parse(await (await page.request.get(`${address}/api/v1/builds/${id}`)).json());
  const cues = build.timing.groups.flatMap(({ id: groupId }) =>
    ([1, 2, 3] as const).map((slot) => lightCue(groupTarget(groupId), slot, 'double')),
  );
  const [stage] = stagesOf(build).toSorted((a, b) => (b.mode ?? 0) - (a.mode ?? 0));
  if (stage === undefined) throw new Error('a build has stages');
  const lit = { ...changeEffect(build, stage.id, { cues }), id: crypto.randomUUID() };
  const answer = await page.request.post(`${address}/api/v1/builds/import`, { data: lit });
  return { ...z.object({ id: z.string() }).parse(await answer.json()), stage: stage.name };
}

/** Drags a bar of the score to and fro, every group opened into its channels. */
async function drawn(page: Page, like: string) {
  const { id, stage } = await allLit(page, like);
  await page.goto(`${address}/builds/${id}/timing`);
  await page.locator(`${FINDINGS}[aria-busy="false"]`).waitFor();
  await page.getByRole('button', { name: stage, exact: true }).first().click();
  for (const opener of await page.getByRole('button', { name: /^Channels of/ }).all()) await opener.click();
  await page.waitForTimeout(1500);
  const box = await page.locator('[data-bar="0"]').first().boundingBox();
  if (box === null) throw new Error('a bar is on the screen');
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + 12, y);
  await startFrames(page);
  for (let i = 1; i <= STEPS; i++) {
    await page.mouse.move(x + 14 + 10 * Math.sin(i / 9), y);
    await page.waitForTimeout(FRAME_MS / 2);
  }
  const frames = await endFrames(page);
  await page.keyboard.press('Escape');
  await page.mouse.up();
  return {
    channels: await page.locator('.channel').count(),
    frameMs: { median: round(at(frames, 0.5)), p95: round(at(frames, 0.95)), count: frames.length },
  };
}

/** The controls of the pumper's panel that are operated, one after the other, by what stands on them. */
const OPERATED = ['1', '3', 'White', 'No white', 'Scene', '2'];
/** Presses a control as a frame begins; the work until it is painted, ms. As text, as the page knows nothing of a compiler's helpers. */
const operate = (name: string): string => `
  new Promise((done) => {
    const control = [...document.querySelectorAll('button')].find(
      (b) => (b.getAttribute('aria-label') ?? b.textContent.trim()) === '${name}',
    );
    requestAnimationFrame(() => {
      const from = performance.now();
      control.click();
      setTimeout(() => done(performance.now() - from));
    });
  })`;

/** Operates the controls of a build's panels: panel, sheet and state bar are drawn anew. */
async function operated(page: Page, id: string) {
  await page.goto(`${address}/builds/${id}/controls`);
  await page.locator(`${FINDINGS}[aria-busy="false"]`).waitFor();
  await page.waitForTimeout(15_000);
  const times: number[] = [];
  for (let round = 0; round < 10; round++)
    for (const name of OPERATED) {
      times.push(Number(await page.evaluate(operate(name))));
      await page.waitForTimeout(400);
    }
  return {
    firstMs: round(times[0] ?? 0),
    medianMs: round(at(times, 0.5)),
    p95Ms: round(at(times, 0.95)),
    withinAFrame: `${String(times.filter((ms) => ms <= FRAME_MS).length)} of ${String(times.length)}`,
  };
}

const browser = await chromium.launch({
  executablePath,
  chromiumSandbox: false,
  args: ['--disable-quic', '--disable-dev-shm-usage'],
});
const report = [];
for (const { name, id, lamp } of BUILDS) {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await opened(page, id);
  const openings: number[] = [];
  for (let i = 0; i < 5; i++) openings.push(await opened(page, id));
  await page.locator(`${FINDINGS}[aria-busy="false"]`).waitFor();
  await page.waitForTimeout(1500);
  await startFrames(page);
  await page.waitForTimeout(1500);
  const idle = await endFrames(page);
  const drags = [];
  for (let i = 0; i < 5; i++) {
    drags.push(await dragged(page, lamp));
    await page.waitForTimeout(600);
  }
  const frames = drags.flatMap((d) => d.frames);
  const lamps = await page.locator('[data-placement]').count();
  report.push({
    build: name,
    lamps,
    openWarmMs: round(at(openings, 0.5)),
    frameMs: { median: round(at(frames, 0.5)), p95: round(at(frames, 0.95)), count: frames.length },
    idleFrameMs: { median: round(at(idle, 0.5)), p95: round(at(idle, 0.95)) },
    timesAnIdleFrame: round(at(frames, 0.5) / at(idle, 0.5)),
    score: await drawn(page, id),
    ...(lamp === '' ? {} : { operated: await operated(page, id) }),
    findingsAndProofAfterMs: round(
      at(
        drags.map((d) => d.waitMs),
        0.5,
      ),
    ),
  });
  await page.close();
}
await browser.close();
process.stdout.write(`${JSON.stringify({ screens: report }, null, 2)}\n`);
