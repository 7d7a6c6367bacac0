import type { ControlFunction, Cue, LightCue, Target } from '../../src/design/functions.ts';
import type { ModuleSetup, Placement } from '../../src/design/placement.ts';
import type { Build } from '../../src/design/schema.ts';
import { lookupOf } from '../../src/resolve/lookup.ts';
import { bookOf } from '../../src/timing/book.ts';
import { timeOf } from '../../src/timing/clock.ts';
import { spansFor } from '../../src/timing/pattern.ts';
import { atSpeed, SAME_SPEED } from '../../src/timing/recipes/speed.ts';
import { levelAtTime } from '../../src/timing/span.ts';
import type { Ambient } from '../../src/words/ambient.ts';

/** What one module shows at one instant: the intensity of each colour slot that burns, cd. */
export type Burning = ReadonlyMap<number, number>;

/**
 * What a module shows at an instant, worked out afresh by walking the functions that are on, strongest first, and the
 * cues of each as the rules of who wins are written down. All clocks begin at 0.
 *
 * @param ons - functions that are on, by id, with the number of a cycle after a colon
 */
export function bruteShown(
  build: Build,
  p: Placement,
  m: ModuleSetup,
  ons: readonly string[],
  ambient: Ambient,
  timeMs: number,
): Burning {
  const fixture = lookupOf(build).fixture(p.fixtureId);
  const outputs = lookupOf(build).outputs(fixture, m);
  const byRank = ranked(build, p, fixture.kind === 'factory', ons);
  const forbidden = new Set<string>();
  const claims: { slot: number; cd: number; dark: boolean }[] = [];
  for (const { fn, cues } of byRank) {
    const here = cues.filter((cue) => speaksTo(build, cue.target, p, m));
    const own: { slot: number; colour: string; cue: LightCue }[] = [];
    const forbids: string[] = [];
    const counted: Cue[] = [];
    for (const cue of here) {
      if (cue.show === 'dark') {
        counted.push(cue);
        if (cue.colours.length === 0) own.length = 0;
        else
          for (const colour of cue.colours) {
            forbids.push(colour);
            for (let i = own.length - 1; i >= 0; i--) if (own[i]?.colour === colour) own.splice(i, 1);
          }
        continue;
      }
      const slots = slotsOfCue(build, m, cue, ambient).filter((slot) => {
        const colour = m.colours[slot - 1];
        return colour !== undefined && outputs[colour] !== undefined && !m.disabled.includes(colour);
      });
      if (slots.length === 0) continue;
      counted.push(cue);
      for (const slot of slots) {
        for (let i = own.length - 1; i >= 0; i--) if (own[i]?.slot === slot) own.splice(i, 1);
        own.unshift({ slot, colour: m.colours[slot - 1] ?? '', cue });
      }
    }
    for (const { slot, colour, cue } of own) {
      if (claims.some((c) => c.slot === slot)) continue;
      const output = Object.entries(outputs).find(([name]) => name === colour)?.[1];
      const level =
        levelOf(build, m, cue, slot, ambient, timeMs, p) *
        cue.level *
        (ambient === 'night' && fn.kind !== 'signal' ? cue.nightLevel : 1) *
        dimmed(build, p, m, fn, cue, ons);
      claims.push({ slot, cd: (output?.peakCd ?? 0) * level, dark: forbidden.has(colour) });
    }
    for (const colour of forbids) forbidden.add(colour);
    const onlyForbids = counted.every((cue) => cue.show === 'dark' && cue.colours.length > 0);
    const allAdd = counted.every((cue) => cue.adds && !(cue.show === 'dark' && cue.colours.length === 0));
    if (counted.length > 0 && !onlyForbids && !allAdd) break;
  }
  const burning = claims.filter((c) => !c.dark && c.cd > 0).slice(0, fixture.coloursAtOnce);
  const share = fixture.sharedPower ? Math.max(1, burning.length) : 1;
  return new Map(burning.map(({ slot, cd }) => [slot, cd / share]));
}

function ranked(build: Build, p: Placement, factory: boolean, ons: readonly string[]) {
  const rank = (fn: ControlFunction): number => {
    if (fn.kind !== 'signal') return 1;
    return factory && !p.stopsFor.includes(fn.id) ? 2 : 0;
  };
  const on = build.controls.functions.flatMap((fn) =>
    fn.shows.flatMap((show, i) =>
      ons.includes(i === 0 ? fn.id : `${fn.id}:${i + 1}`) ? [{ fn, cues: show.cues }] : [],
    ),
  );
  return [0, 1, 2].flatMap((r) => on.filter(({ fn }) => rank(fn) === r));
}

function speaksTo(build: Build, target: Target, p: Placement, m: ModuleSetup): boolean {
  if (target.kind === 'group') return m.groupId === target.groupId;
  if (target.kind === 'ungrouped') return m.groupId === null;
  const set = build.controls.sets.find((s) => s.id === target.setId);
  return set?.modules.some((r) => r.placementId === p.id && r.moduleId === m.id) === true;
}

const patternOf = (cue: LightCue, ambient: Ambient): string =>
  ambient === 'night' && cue.nightPatternId !== null ? cue.nightPatternId : cue.patternId;

const meant = (m: ModuleSetup, { ink }: LightCue): number =>
  typeof ink === 'number' ? ink : m.colours.indexOf(ink) + 1;

/** The colour slots of a cue on a module, in the order in which its pattern names them. */
function slotsOfCue(build: Build, m: ModuleSetup, cue: LightCue, ambient: Ambient): number[] {
  const base = meant(m, cue);
  if (base === 0) return [];
  const { lines } = bookOf(build).cycle(patternOf(cue, ambient));
  return [...new Set(lines.flat().map((s) => s.slot ?? base))];
}

function levelOf(
  build: Build,
  m: ModuleSetup,
  cue: LightCue,
  slot: number,
  ambient: Ambient,
  timeMs: number,
  p: Placement,
): number {
  const time = m.groupId === null ? null : timeOf(build.timing.groups, m.groupId);
  const cycle = atSpeed(bookOf(build).cycle(patternOf(cue, ambient)), time?.speed ?? SAME_SPEED);
  const own = cue.phases?.find((o) => o.placementId === p.id && o.moduleId === m.id) ?? m;
  const base = meant(m, cue);
  const spans = spansFor(cycle, own.phase, own.order).filter((s) => (s.slot ?? base) === slot);
  return levelAtTime(spans, cycle.cycleMs, timeMs - (time?.offsetMs ?? 0) - m.offsetMs);
}

function dimmed(
  build: Build,
  p: Placement,
  m: ModuleSetup,
  fn: ControlFunction,
  cue: LightCue,
  ons: readonly string[],
): number {
  let factor = 1;
  for (const other of build.controls.functions)
    for (const [i, show] of other.shows.entries()) {
      if (!ons.includes(i === 0 ? other.id : `${other.id}:${i + 1}`)) continue;
      for (const dim of show.dims) {
        const reaches = dim.targets.some((target) => speaksTo(build, target, p, m));
        const acts = cue.dimmed ?? dim.kinds.includes(fn.kind);
        if (reaches && acts) factor *= dim.factor;
      }
    }
  return factor;
}
