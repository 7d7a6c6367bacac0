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

export const demoBuild = (name: DemoBuild): Build => readBuildText(demoFile(`builds/${name}.json`));

export const demoPack = (): RulePack => readRulePack(JSON.parse(demoFile('packs/kestrel-sound.json')));
