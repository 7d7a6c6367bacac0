import { readBuildText, readRulePack } from '../../src/rules/document.ts';
import type { RulePack } from '../../src/design/rulePack.ts';
import { readFileSync } from 'node:fs';
import type { Build } from '../../src/design/schema.ts';

const demoFile = (path: string): string =>
  readFileSync(new URL(`../../../demo/${path}`, import.meta.url), 'utf8');

/** A build of the demo scenario. */
export const DEMO_BUILDS = [
  'ks-12',
  'ks-13',
  'coast-watch',
  'tunnel-pumper-3',
  'shore-medic-7',
  'incident-command',
  'lift-bridge-crew',
  'line-marking',
  'ferry-slip',
] as const;
export type DemoBuild = (typeof DEMO_BUILDS)[number];

const read = new Map<DemoBuild, Build>();

/** Read once by a process: whoever asks gets the same document, and what is remembered of it. Nobody can change it. */
export function demoBuild(name: DemoBuild): Build {
  const known = read.get(name) ?? frozen(readBuildText(demoFile(`builds/${name}.json`)));
  read.set(name, known);
  return known;
}

function frozen<T>(value: T): T {
  if (typeof value === 'object' && value !== null && !Object.isFrozen(value)) {
    Object.freeze(value);
    for (const inner of Object.values(value)) frozen(inner);
  }
  return value;
}

export const demoPack = (): RulePack => readRulePack(JSON.parse(demoFile('packs/kestrel-sound.json')));

/** Every lamp beside its place, each by something else and turned: what stands wrong is found. */
export const astray = (build: Build): Build => ({
  ...build,
  placements: build.placements.map((p, i) => ({
    ...p,
    uM: p.uM + 0.04 * ((i % 7) - 3),
    vM: p.vM + 0.03 * ((i % 5) - 2),
    panDeg: (i % 4) * 15,
    tiltDeg: (i % 3) * 12 - 12,
    rollDeg: i % 6 === 0 ? 20 : 0,
  })),
});
