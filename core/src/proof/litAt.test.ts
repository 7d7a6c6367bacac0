import { describe, expect, test } from 'vitest';
import { demoBuild } from '../../test/reference/demo.ts';
import { withControls } from '../design/controlEdits.ts';
import { AMBIENTS } from '../words/ambient.ts';
import { LitAt } from './litAt.ts';
import { OnTable } from './onTable.ts';
import { ProofSubject } from './subject.ts';

/** Every n-th moment is held against what is shown then, worked out by itself. */
const EVERY = 37;

describe.each(['ks-12', 'shore-medic-7', 'line-marking'] as const)('%s', (name) => {
  const subject = new ProofSubject(demoBuild(name));
  const { showing, moments } = subject;
  const some = Array.from({ length: moments.count }, (_, at) => [at, moments.at(at)] as const).filter(
    ([at]) => at % EVERY === 0,
  );

  test.each(AMBIENTS)('what lights at a moment, by %s, is what its functions show', (ambient) => {
    const lit = new LitAt(showing, moments);
    const there = lit.in(ambient);
    const sets = lit.setsOf(there);
    const contents = (drives: Iterable<object>): string[] =>
      Array.from(drives, (drive) => JSON.stringify({ ...drive, on: null })).toSorted();
    for (const [at, { on }] of some) {
      const set = sets[there.litOf[at] ?? -1];
      const mine = lit.drives.filter((_, i) => set?.has(i));
      expect(contents(mine)).toEqual(contents(showing.driven(on, ambient)));
    }
    expect(some.length).toBeGreaterThan(5);
  });

  test('module by module the cases say the same, and each is told by a moment that it is of', () => {
    for (const ambient of AMBIENTS) {
      const cases = subject.cases(ambient);
      for (const [at, moment] of some) {
        if (!subject.ambientsOf(moment).includes(ambient)) continue;
        const mine = showing.modules.flatMap((_, index) => [...cases.at(index, at)]);
        expect(mine).toEqual([...showing.driven(moment.on, ambient)]);
      }
      for (const { module, drives, moment } of cases.all()) {
        const there = showing
          .driven(moment.on, ambient)
          .filter((d) => d.placementId === module.placementId && d.moduleId === module.moduleId);
        expect(drives).toEqual(there);
      }
    }
  });

  test('the table of cases is made once for all who ask about the same moments', () => {
    expect(OnTable.of(showing, moments)).toBe(OnTable.of(showing, moments));
    expect(OnTable.of(showing, moments, [0])).not.toBe(OnTable.of(showing, moments));
    const table = OnTable.of(showing, moments);
    for (const [at, { on }] of some) {
      const heeded = showing.ons.map((_, place) => place);
      const there = table.onIn(heeded, table.caseOf[at] ?? 0).map((place) => showing.ons[place]);
      // The case is of all that some module heeds: what it says is on is on.
      for (const [day, night] of [[showing.heeds('day').flat(), showing.heeds('night').flat()]] as const) {
        const matters = new Set([...day, ...night].map((place) => showing.ons[place]));
        expect(there.filter((one) => matters.has(one))).toEqual(
          showing.ranked(on).filter((one) => matters.has(one)),
        );
      }
    }
  });
});

test('where the controls ask for the light around, a case of the night is none by day', () => {
  const van = demoBuild('ks-12');
  const atNight = withControls(van, {
    functions: van.controls.functions.map((fn) =>
      fn.id === 'white' ? { ...fn, enabledBy: { kind: 'is', input: 'ambient', values: ['night'] } } : fn,
    ),
    trials: [],
  });
  const subject = new ProofSubject(atNight);
  const withWhite = AMBIENTS.map(
    (ambient) => [...subject.cases(ambient).all()].filter(({ on }) => on.includes('white')).length,
  );
  expect(withWhite[0]).toBe(0);
  expect(withWhite[1]).toBeGreaterThan(0);
});
