import { readFileSync } from 'node:fs';
import { readBuildText, type Build } from '../../src/build/schema.ts';
import { readRulePack, type RulePack } from '../../src/rules/pack.ts';

const demoFile = (path: string): string =>
  readFileSync(new URL(`../../../demo/${path}`, import.meta.url), 'utf8');

/** A build of the demo scenario. */
export const demoBuild = (name: 'ks-12' | 'ks-13'): Build => readBuildText(demoFile(`builds/${name}.json`));

export const demoPack = (): RulePack => readRulePack(JSON.parse(demoFile('packs/kestrel-sound.json')));
