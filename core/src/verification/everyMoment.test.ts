import fc from 'fast-check';
import { expect, test } from 'vitest';
import { demoBuild } from '../../test/reference/demo.ts';
import { everyOutputState } from '../../test/reference/everyPicture.ts';
import type { Condition } from '../design/condition.ts';
import { withControls } from '../design/controlEdits.ts';
import type { ControlFunction } from '../design/functions.ts';
import { Build } from '../design/schema.ts';
import { applicableRules } from '../rules/registry.ts';
import { Situation } from '../rules/situation.ts';
import { stateWith } from '../state/state.ts';
import { COLOURS } from '../words/colour.ts';
import { FACES } from '../words/face.ts';
import { askedRule, requirementQuery, type Asked } from './asked.ts';
import { packRules } from './packRules.ts';
import { VerificationSubject } from './subject.ts';

const is = (input: string, ...values: string[]): Condition => ({ kind: 'is', input, values });
const CONDITIONS = [
  null,
  is('ambient', 'night'),
  is('gear', 'reverse'),
  is('gear', 'park'),
  is('engine', 'running'),
];

/** What is done to one function: another kind, condition or show, so that many lamps light alike for different reasons. */
const change = fc.record({
  at: fc.nat(),
  like: fc.nat(),
  what: fc.constantFrom('kind', 'enabledBy', 'when', 'shows', 'twin', 'night', 'mode'),
  kind: fc.constantFrom<ControlFunction['kind']>('stage', 'warning', 'light', 'signal'),
  condition: fc.constantFrom(...CONDITIONS),
  mode: fc.constantFrom(null, 1, 2, 3),
});
type Change = ReturnType<(typeof change)['generate']>['value'];

function changed(fn: ControlFunction, like: ControlFunction, { what, ...to }: Change): ControlFunction {
  const { condition } = to;
  switch (what) {
    case 'kind':
      return { ...fn, kind: to.kind };
    case 'night':
      return {
        ...fn,
        shows: fn.shows.map((shown) => ({
          ...shown,
          cues: shown.cues.map((cue) => (cue.show === 'light' ? { ...cue, nightLevel: 0.02 } : cue)),
        })),
      };
    case 'mode':
      return { ...fn, mode: to.mode };
    case 'enabledBy':
      return { ...fn, enabledBy: condition };
    case 'shows':
      return like.shows.length === fn.shows.length ? { ...fn, shows: like.shows } : fn;
    case 'twin':
      return like.shows.length === fn.shows.length
        ? { ...fn, shows: like.shows, mode: null, kind: like.kind === 'signal' ? 'light' : 'signal' }
        : fn;
    case 'when':
      return fn.when.way === 'while' && condition !== null ? { ...fn, when: { ...fn.when, condition } } : fn;
  }
}

const wish = fc.record({
  kind: fc.constantFrom('never-colours', 'only-colours'),
  severity: fc.constant('blocks'),
  colours: fc.subarray([...COLOURS], { minLength: 1 }),
  faces: fc.subarray([...FACES], { minLength: 2 }),
  light: fc.constantFrom('any', 'steady', 'flashing'),
});

const ofRule = ({ head }: Asked): string => `${head.packId}|${head.ruleId}`;

/** All that rules and wishes say, asked in every moment by itself, nothing taken as alike: what each is about. */
function plainly(build: Build, subject: VerificationSubject): Map<string, Set<string>> {
  const asked = [
    ...applicableRules(build).flatMap((rule) => askedRule(build, rule) ?? []),
    ...build.brief.constraints.flatMap((one) => requirementQuery(build, one) ?? []),
  ];
  const whens = asked.flatMap(({ when }) => when ?? []);
  const told = new Map<string, Set<string>>();
  for (const { on, ambient, mode, open, holds: truths } of everyOutputState(subject, whens).pictures)
    for (const one of asked) {
      const holdsNow = one.when === null || truths[whens.indexOf(one.when)] === true;
      const speaks = holdsNow && one.ambients.includes(ambient) && (one.modes?.includes(mode) ?? true);
      const isThere = one.poses?.some((pose) => pose.join() === open.join()) ?? true;
      if (!speaks || !(isThere || one.sees === 'driven')) continue;
      const at = new Situation(build, stateWith({ on, open, ambient }), one.upperAboveM);
      for (const judgement of one.judge(at))
        if (judgement.outcome !== 'holds')
          told.set(ofRule(one), (told.get(ofRule(one)) ?? new Set()).add(judgement.about));
    }
  return told;
}

/** The marshal's van, which goes back by the light of its first stage, and is lit to work by that of its second. */
function van(): Build {
  const build = demoBuild('ferry-slip');
  const [second, first] = build.controls.functions;
  if (second === undefined || first === undefined) throw new Error('the van has two stages');
  const besides = (id: string, kind: 'signal' | 'light', from: ControlFunction, condition: Condition) => ({
    ...from,
    id,
    name: id,
    kind,
    mode: null,
    when: { way: 'while' as const, condition, afterMs: 0, staysMs: 0 },
  });
  return withControls(build, {
    functions: [
      besides('going-back', 'signal', first, is('gear', 'reverse')),
      besides('working', 'light', second, is('engine', 'running')),
      ...build.controls.functions,
    ],
    trials: [],
  });
}

test('what any moment shows to be wrong is found, however many light alike for other reasons', () => {
  const base = van();
  let troubles = 0;
  fc.assert(
    fc.property(
      fc.array(change, { minLength: 2, maxLength: 5 }),
      fc.array(wish, { minLength: 2, maxLength: 3 }),
      (changes, wishes) => {
        const functions = changes.reduce<readonly ControlFunction[]>((all, one) => {
          const like = all[one.like % all.length];
          return all.map((fn, i) => (i === one.at % all.length && like ? changed(fn, like, one) : fn));
        }, base.controls.functions);
        const constraints = wishes.map((one, i) => ({ ...one, id: `w${i}` }));
        const read = Build.safeParse({
          ...withControls(base, { functions: [...functions] }),
          brief: { ...base.brief, constraints },
        });
        fc.pre(read.success);
        const build = read.data;
        const subject = new VerificationSubject(build);
        const run = packRules(subject, applicableRules(build), () => false);
        let step = run.next();
        while (step.done !== true) step = run.next();
        const found = new Map(
          step.value.map(({ outcome: { packId, ruleId }, troubles: of }) => [
            `${packId}|${ruleId}`,
            new Set(of.map(({ trouble }) => trouble.about)),
          ]),
        );
        for (const [rule, abouts] of plainly(build, subject))
          for (const about of abouts) {
            troubles++;
            expect([...(found.get(rule) ?? [])], rule).toContain(about);
          }
      },
    ),
    { numRuns: 25, seed: 10 },
  );
  expect(troubles).toBeGreaterThan(25);
});
