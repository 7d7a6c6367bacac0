/** Draws the pictures of `docs/phases-and-sync-groups.md` from the library and a demo build: `docs/pictures/*.svg`. */
import { readBuildText } from '@flarik/core/rules/document';
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { schemeParts, type Scheme } from '@flarik/core/arrange/schemes';
import { lookupOf } from '@flarik/core/resolve/lookup';
import { LIBRARY } from '@flarik/core/timing/book';
import { lineName, type Cycle } from '@flarik/core/timing/pattern';
import { atSpeed, percentSpeed } from '@flarik/core/timing/recipes/speed';
import { endLevelOf, shifted, type Span } from '@flarik/core/timing/span';

const folder = new URL('../docs/pictures/', import.meta.url);
mkdirSync(folder, { recursive: true });

const LEFT = 130;
const WIDTH = 560;
const LANE = 26;
const HUES = ['#d1382f', '#2b62c9', '#b87400', '#2b8a4b'];

interface Lane {
  readonly name: string;
  readonly spans: readonly Span[];
  readonly cycleMs: number;
  readonly hue: string;
}

/** Lanes of bars over a time, with a ruler below. */
function lanes(name: string, showMs: number, rows: readonly Lane[]): void {
  const x = (ms: number): number => LEFT + (Math.min(ms, showMs) / showMs) * WIDTH;
  const bars = rows.map((lane, i) => {
    const low = (i + 1) * LANE - 5;
    const h = LANE - 8;
    const shapes: string[] = [];
    for (let begin = -lane.cycleMs; begin < showMs; begin += lane.cycleMs)
      for (const s of lane.spans) {
        const [from, to] = [begin + s.fromMs, begin + s.toMs];
        if (to <= 0 || from >= showMs) continue;
        shapes.push(
          `M${x(Math.max(0, from)).toFixed(1)} ${low}V${(low - h * s.level).toFixed(1)}L${x(to).toFixed(1)} ${(low - h * endLevelOf(s)).toFixed(1)}V${low}Z`,
        );
      }
    return `<text x="4" y="${low - 4}">${lane.name}</text><path d="M${LEFT} ${low}H${LEFT + WIDTH}" stroke="#888" stroke-width="0.7"/><path d="${shapes.join('')}" fill="${lane.hue}"/>`;
  });
  const bottom = rows.length * LANE;
  const step = showMs > 3000 ? 1000 : 200;
  const ticks = Array.from({ length: Math.floor(showMs / step) + 1 }, (_, i) => i * step).map(
    (ms) =>
      `<path d="M${x(ms).toFixed(1)} 0V${bottom}" stroke="#bbb" stroke-width="0.5"/><text x="${x(ms).toFixed(1)}" y="${bottom + 14}" text-anchor="middle">${ms}</text>`,
  );
  write(name, LEFT + WIDTH + 24, bottom + 22, [...ticks, ...bars]);
}

function write(name: string, width: number, height: number, parts: readonly string[]): void {
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" width="${width}" height="${height}" font-family="sans-serif" font-size="12"><rect width="${width}" height="${height}" fill="#fff"/>${parts.join('')}</svg>\n`;
  writeFileSync(new URL(`${name}.svg`, folder), svg);
}

const ofCycle = (cycle: Cycle): Lane[] =>
  cycle.lines.map((spans, i) => ({
    name: lineName(cycle.by, i),
    spans,
    cycleMs: cycle.cycleMs,
    hue: HUES[i % HUES.length] ?? '#000',
  }));

lanes('halves', 1600, ofCycle(LIBRARY.cycle('double')));
lanes('quarters', 2400, ofCycle(LIBRARY.cycle('quarters-turn')));
lanes('middle-out', 2000, ofCycle(LIBRARY.cycle('centre-out')));
lanes('turning', 2400, ofCycle(LIBRARY.cycle('turning-slow')));

const front = LIBRARY.cycle('single');
const rear = atSpeed(front, percentSpeed(50));
lanes('half-speed', 3200, [
  { name: 'Front, phase A', spans: front.lines[0] ?? [], cycleMs: front.cycleMs, hue: '#d1382f' },
  {
    name: 'Rear, half as fast',
    spans: shifted(rear.lines[0] ?? [], rear.cycleMs, 0),
    cycleMs: rear.cycleMs,
    hue: '#b87400',
  },
]);
lanes('drift', 8000, [
  { name: 'Head one', spans: front.lines[0] ?? [], cycleMs: 800, hue: '#d1382f' },
  { name: 'Head two, 5 % slow', spans: front.lines[0] ?? [], cycleMs: 840, hue: '#2b62c9' },
]);

/** The patrol car from above, each module with its part in a scheme. */
function schemes(name: string, shown: readonly (readonly [Scheme, string])[]): void {
  const build = readBuildText(readFileSync(new URL('../demo/builds/ks-13.json', import.meta.url), 'utf8'));
  const { lengthM, widthM } = lookupOf(build).vehicle;
  const scale = 30;
  const each = lengthM * scale + 40;
  const parts = shown.flatMap(([scheme, title], i) => {
    const middle = { x: i * each + each / 2, y: 50 + (widthM * scale) / 2 };
    const all = schemeParts(build, new Set(build.placements.map((p) => p.id)), scheme);
    return [
      `<rect x="${middle.x - (lengthM * scale) / 2}" y="${middle.y - (widthM * scale) / 2}" width="${lengthM * scale}" height="${widthM * scale}" rx="14" fill="#e6eaee" stroke="#888"/>`,
      `<text x="${middle.x}" y="22" text-anchor="middle">${title}</text>`,
      ...all.map(
        (part) =>
          `<circle cx="${(middle.x + part.at[0] * scale).toFixed(1)}" cy="${(middle.y - part.at[1] * scale).toFixed(1)}" r="4" fill="${HUES['ABCD'.indexOf(part.phase)] ?? '#000'}"/>`,
      ),
    ];
  });
  write(name, each * shown.length, 74 + widthM * scale, parts);
}
schemes('schemes', [
  ['halves', 'Left and right'],
  ['x', 'X across the corners'],
  ['quarters', 'Quarters in turn'],
]);
