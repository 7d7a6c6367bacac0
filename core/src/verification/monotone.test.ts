import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { demoBuild } from '../../test/reference/demo.ts';
import { everyKind } from '../../test/reference/rules.ts';
import type { Build } from '../design/schema.ts';
import type { Drive } from '../resolve/channels.ts';
import { showingOf } from '../resolve/showing.ts';
import { RULE_KINDS } from '../rules/registry.ts';
import { Situation } from '../rules/situation.ts';
import { stateWith } from '../state/state.ts';
import { AMBIENTS, type Ambient } from '../words/ambient.ts';
import { askedRule, type Asked } from './asked.ts';

/** Channels of one kind of flash are told by the first of them, so that their troubles change their name with it. */
const NAMED_BY_FIRST = ['flash-rate', 'permitted-patterns', 'pulses', 'white-rear'];

const BUILDS = (['ks-12', 'shore-medic-7', 'line-marking'] as const).map((name) => demoBuild(name));
const KINDS = RULE_KINDS.filter(({ inStates }) => inStates).map(({ kind }) => kind);

/** A rule of a kind as it begins, its figures some times what they are. */
function ruleOf(build: Build, kind: string, times = 1): Asked {
  const [pack] = everyKind(times);
  const rule = pack?.rules.find((one) => one.kind === kind);
  const asked = pack === undefined || rule === undefined ? null : askedRule(build, { pack, rule });
  if (asked === null) throw new Error(`no rule of kind ${kind}`);
  return asked;
}

/** Every channel that some function lights by itself in one light, as far as a rule regards it. */
const channelsOf = (build: Build, { regards }: Asked, ambient: Ambient): Drive[] => {
  const showing = showingOf(build);
  return showing.ons.flatMap((on) => showing.driven([on], ambient)).filter(regards);
};

/** By what it is about: the least room; and over all that is judged. */
function judged(
  build: Build,
  asked: Asked,
  drives: readonly Drive[],
  of: { ambient: Ambient; open: string[] },
) {
  // Two ways in which one channel lights are two channels, as in a bound.
  const given = drives.map((drive, i) => ({ ...drive, channelId: `${drive.channelId}~${i}` }));
  const state = stateWith({ ...of, on: [], given: { key: String(key++), drives: given, isBound: false } });
  const all = asked.judge(new Situation(build, state, asked.upperAboveM));
  const troubles = new Map<string, number>();
  for (const one of all)
    if (one.outcome !== 'holds')
      troubles.set(one.about, Math.min(one.margin ?? -Infinity, troubles.get(one.about) ?? Infinity));
  const margins = all.flatMap((one) =>
    one.outcome === 'holds' ? (one.margin ?? []) : [one.margin ?? -Infinity],
  );
  return { troubles, least: Math.min(Infinity, ...margins) };
}
let key = 0;

const CLOSE = 1e-9;

describe('one more channel always helps, or always hurts, as each kind of rule says', () => {
  test.each(KINDS)('%s', (kind) => {
    fc.assert(
      fc.property(
        fc.constantFrom(...BUILDS),
        fc.constantFrom(...AMBIENTS),
        fc.array(fc.nat(), { maxLength: 8 }),
        fc.nat(),
        fc.record({ isOpen: fc.boolean(), times: fc.constantFrom(0.1, 1, 5) }),
        (build, ambient, picks, pick, { isOpen, times }) => {
          const asked = ruleOf(build, kind, times);
          const { more, lots } = asked;
          const all = channelsOf(build, asked, ambient);
          const [added] = all.length === 0 ? [] : [all[pick % all.length]];
          if (added === undefined || more === null) return;
          const open = isOpen && asked.poses === null ? ['hatch', 'door-front-left'] : [];
          const before = [...new Set(picks.map((at) => all[at % all.length]))].flatMap((d) => d ?? []);
          if (before.includes(added)) return;
          const of = { ambient, open };
          const [few, many] = [before, [...before, added]].map((drives) => judged(build, asked, drives, of));
          if (few === undefined || many === undefined) return;
          const [worse, better] = more === 'hurts' ? [many, few] : [few, many];
          const at = new Situation(build, stateWith({}), 0);
          // Of a lot that is empty nothing is said, so it cannot get better.
          const isTold = (about: string): boolean =>
            lots === null ||
            before.some((drive) => lots(drive, at).some((lot) => lot.split('@')[0] === about));
          for (const [about, margin] of better.troubles) {
            if (NAMED_BY_FIRST.includes(kind) || !isTold(about)) continue;
            expect(worse.troubles.get(about) ?? Infinity, about).toBeLessThanOrEqual(margin + CLOSE);
          }
          if (lots === null) expect(worse.least).toBeLessThanOrEqual(better.least + CLOSE);
        },
      ),
      { numRuns: 60, seed: 33 },
    );
  });
});

describe('what a kind of rule says of one lot does not depend on the others', () => {
  test.each(KINDS.filter((kind) => ruleOf(BUILDS[0] ?? demoBuild('ks-12'), kind).lots !== null))(
    '%s',
    (kind) => {
      fc.assert(
        fc.property(
          fc.constantFrom(...BUILDS),
          fc.array(fc.nat(), { minLength: 1, maxLength: 8 }),
          fc.array(fc.nat(), { maxLength: 4 }),
          (build, picks, others) => {
            const asked = ruleOf(build, kind);
            const all = channelsOf(build, asked, 'day');
            if (all.length === 0 || asked.lots === null) return;
            const { lots } = asked;
            const at = new Situation(build, stateWith({}), 0);
            const drives = picks.flatMap((one) => all[one % all.length] ?? []);
            const told = new Set(drives.flatMap((drive) => lots(drive, at)));
            // With everything shut no lamp that is of no lot lights for one.
            const apart = others
              .flatMap((one) => all[one % all.length] ?? [])
              .filter((drive) => !lots(drive, at).some((lot) => told.has(lot)));
            const of = { ambient: 'day' as const, open: [] };
            const alone = judged(build, asked, drives, of);
            const together = judged(build, asked, [...drives, ...apart], of);
            for (const lot of told) {
              const about = lot.split('@')[0] ?? lot;
              expect(together.troubles.get(about)).toEqual(alone.troubles.get(about));
            }
          },
        ),
        { numRuns: 60, seed: 34 },
      );
    },
  );
});
