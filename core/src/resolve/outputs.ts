import type { ModuleSetup } from '../design/placement.ts';
import type { Build } from '../design/schema.ts';
import { AMBIENTS } from '../words/ambient.ts';
import { showingOf, type Claim } from './showing.ts';

/**
 * How many outputs the lamps of a build need: one for all channels that every function lights, takes and forbids alike, by day and
 * at night. A colour that no function shows needs none on a module that shows another; a module that nothing lights yet needs one
 * for each colour that is not disabled, and so does one that is planned. Fuses and currents are not looked at.
 */
export function outputsNeeded(build: Build): number {
  const showing = showingOf(build);
  const needed = new Set<string>();
  const setups = new Map(
    build.placements.flatMap((p) => p.modules.map((m): [string, ModuleSetup] => [`${p.id}/${m.id}`, m])),
  );
  for (const [index, ref] of showing.modules.entries()) {
    const key = `${ref.placementId}/${ref.moduleId}`;
    const setup = setups.get(key);
    const mine = new Set<string>();
    for (const [i, colour] of (setup?.colours ?? []).entries()) {
      const asked = AMBIENTS.flatMap((ambient) =>
        showing.ons.map((on) => {
          const want = showing.wants(on, ambient)[index] ?? null;
          const claim = want?.claims.find(({ slot }) => slot === i + 1);
          const others = `${want?.takes === true}|${want?.forbids.includes(colour) === true}`;
          return { light: claim === undefined ? '' : lightOf(claim), others };
        }),
      );
      if (asked.some(({ light }) => light !== ''))
        mine.add(asked.map(({ light, others }) => `${light}|${others}`).join(';'));
    }
    const open = (setup?.insert === 'blank' ? [] : (setup?.colours ?? [])).filter(
      (colour) => setup?.disabled.includes(colour) === false,
    );
    for (const output of mine.size > 0 ? mine : open.map((colour) => `${key} ${colour}`)) needed.add(output);
  }
  // What is left for later is wired for.
  const planned = build.placements
    .filter(({ status }) => status === 'planned')
    .flatMap(({ modules }) => modules)
    .filter(({ insert }) => insert !== 'blank')
    .reduce((n, { colours, disabled }) => n + colours.filter((c) => !disabled.includes(c)).length, 0);
  return needed.size + planned;
}

/** What an output has to do for a claim: its times and their clock, and how brightly. */
const lightOf = ({ cue, drive }: Claim): string =>
  `${drive.steady ? '' : `${drive.clockId} ${drive.cycleMs} ${JSON.stringify(drive.spans)}`} ${cue.level} ${cue.nightLevel}`;
