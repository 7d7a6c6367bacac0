import { groupTarget, lightCue } from '../design/functions.ts';
import { setCue } from '../design/controlEdits.ts';
import { describe, expect, test } from 'vitest';
import { addPlacement, setColour } from '../arrange/lamps.ts';
import { litChannels } from '../coverage/ring.ts';
import { changeModules } from '../design/moduleEdits.ts';
import type { Build } from '../design/schema.ts';
import { addGroup, changeGroup } from '../design/timingEdits.ts';
import { demoBuild } from '../../test/reference/demo.ts';
import { put, stageId } from '../../test/reference/places.ts';
import { common, packOf, withRules, withWhiteOfAnyLamp } from '../../test/reference/rules.ts';
import { addRequirement } from '../design/briefEdits.ts';
import { stateWith } from '../state/state.ts';
import { checkBuild } from './check.ts';
import type { Finding } from './finding.ts';
import type { RuleOf } from './registry.ts';

const found = (build: Build): Finding[] => checkBuild(build).findings.filter((f) => f.packId === 'test');

/** Two white heads to the rear side by side, 180 mm apart, in two groups that show a pattern each. */
function twoWhite(
  rule: RuleOf<'white-rear'>,
  patterns: readonly [string, string],
  phase: 'A' | 'B' = 'A',
): Build {
  const heads = (['a', 'b'] as const).reduce(
    (b, id, i) => put(b, id, { zone: 'rear-bumper', uM: 0.2 + 0.18 * i }),
    withRules(rule),
  );
  const refs = (id: string) => [{ placementId: id, moduleId: 'm1' }];
  const white = (['a', 'b'] as const).reduce((b, id) => setColour(b, refs(id), 1, 'white'), heads);
  return (['a', 'b'] as const).reduce((b, id, i) => {
    const patternId = patterns[i] ?? 'single';
    const grouped = changeModules(addGroup(b, { id: `g${id}`, name: id }), refs(id), {
      groupId: `g${id}`,
      phase: id === 'b' ? phase : 'A',
    });
    const target = groupTarget(`g${id}`);
    return setCue(grouped, 'stage-2', target, 1, lightCue(target, 1, patternId));
  }, white);
}

describe('what an observer sees is the sum', () => {
  const one: RuleOf<'white-rear'> = { ...common, kind: 'white-rear', aboveCd: 1e5 };
  const peak = (build: Build, bearing: number): number =>
    litChannels(build, stateWith({ on: ['stage-2'] }), {
      elevationDeg: 0,
      colour: 'white',
      level: 'any',
      upperAboveM: 1.5,
    }).reduce((sum, { drive, share }) => sum + drive.peakCd * (share[bearing] ?? 0), 0);
  const both = peak(twoWhite(one, ['steady', 'steady']), 180);

  test('two lamps that hold one by one do not hold together; the limit’s two sides', () => {
    const limit = (aboveCd: number, of: 'sum' | 'lamp'): RuleOf<'white-rear'> => ({ ...one, aboveCd, of });
    const at = (rule: RuleOf<'white-rear'>) => found(twoWhite(rule, ['steady', 'steady']));
    expect(at(limit(both * 1.0001, 'sum'))).toEqual([]);
    expect(at(limit(both * 0.75, 'lamp'))).toEqual([]);
    const [sum] = at(limit(both * 0.75, 'sum'));
    expect(sum?.figure?.value).toBeCloseTo(both, 6);
    expect(sum?.evidence.channels).toHaveLength(2);
    expect(sum?.sentence).toMatch(
      /^White to the rear from 2 lamps: 8,740 cd combined at 180° \(limit 6,560 cd\)\. Only steady reversing lamps are exempt\./,
    );
    expect(at(limit(both * 0.4, 'lamp'))).toHaveLength(1);
  });

  test('lamps that alternate on one clock never burn together; drifting they do some time', () => {
    const rule: RuleOf<'white-rear'> = { ...one, aboveCd: both * 0.75 };
    const alternating = changeGroup(twoWhite(rule, ['slow-alternate', 'slow-alternate'], 'B'), 'gb', {
      followsId: 'ga',
    });
    expect(found(alternating)).toEqual([]);
    const drifting = twoWhite(rule, ['slow-alternate', 'slow-alternate'], 'B');
    expect(found(drifting)[0]?.figure?.value).toBeCloseTo(both, 6);
  });

  describe('the pumper before its compartment lights were turned down', () => {
    const pumper = withWhiteOfAnyLamp(demoBuild('tunnel-pumper-3'));
    const lit = (stage: number, level: number): Build =>
      setCue(
        pumper,
        stageId(stage),
        groupTarget('inside'),
        1,
        lightCue(groupTarget('inside'), 1, 'steady', { level }),
      );
    const white = (build: Build, stage: number) =>
      checkBuild(build).findings.filter(
        (f) => f.kind === 'white-rear' && f.evidence.state?.on[0] === stageId(stage),
      );

    test('as it is nothing shows', () => {
      expect(white(pumper, 2)).toEqual([]);
      expect(white(pumper, 3)).toEqual([]);
    });

    test('bright, one shutter is enough', () => {
      const [first] = white(lit(2, 1), 2);
      expect(first?.evidence.state?.open).toEqual(['rear-shutter']);
      expect(first?.figure?.value).toBeCloseTo(302.7, 1);
    });

    test('at less, no part open by itself shows too much, but three together do', () => {
      const [first] = white(lit(3, 0.4), 3);
      const open = ['shutter-front-right', 'shutter-wheel-right', 'shutter-rear-right'];
      expect(first?.evidence.state?.open).toEqual(open);
      expect(first?.figure?.value).toBeGreaterThan(150);
      expect(first?.sentence).toMatch(
        /^White to the rear from 4 lamps: 176 cd combined at 135° \(limit 150 cd\)\. Only steady reversing lamps are exempt\./,
      );
      for (const stop of open) {
        const less = { on: ['stage-3'], open: open.filter((id) => id !== stop), ambient: 'day' } as const;
        const there = checkBuild(lit(3, 0.4), less).findings.filter((f) => f.kind === 'white-rear');
        expect(there, `with ${stop} shut`).toEqual([]);
      }
    });
  });

  test('scene, work and cabin lights count only where the rule says so', () => {
    const rule = (lamps: 'warning' | 'all' | undefined): RuleOf<'white-rear'> => ({
      ...one,
      stages: [1, 2, 3],
      aboveCd: 40,
      ...(lamps === undefined ? {} : { lamps }),
    });
    const medic = (r: RuleOf<'white-rear'>): Finding[] => {
      const build = demoBuild('shore-medic-7');
      return found({ ...build, rulePacks: [packOf(r)] });
    };
    // What is left out is noted, and breaks nothing.
    const gravity = (r: RuleOf<'white-rear'>) => new Set(medic(r).map(({ severity }) => severity));
    expect(gravity(rule(undefined))).toEqual(new Set(['notes']));
    expect(gravity(rule('warning'))).toEqual(new Set(['notes']));
    expect(gravity(rule('all'))).toEqual(new Set([one.severity]));
  });

  test('a wish about colours sums too, and can speak of steady light alone', () => {
    const lamps = twoWhite(one, ['steady', 'slow-alternate']);
    const wish = (light: 'steady' | 'flashing' | 'any') =>
      checkBuild(
        addRequirement(lamps, {
          kind: 'never-colours',
          id: 'w',
          severity: 'warns',
          colours: ['white'],
          faces: ['rear'],
          light,
        }),
      ).findings.filter((f) => f.packId === 'brief');
    const worst = (light: 'steady' | 'flashing' | 'any') => wish(light)[0]?.figure?.value ?? 0;
    expect(worst('any')).toBeCloseTo(both, 6);
    expect(worst('steady') + worst('flashing')).toBeGreaterThan(both * 0.99);
    expect(worst('steady')).toBeLessThan(both * 0.75);
  });
});

describe('reversing lamps', () => {
  /** The demo SUV's reversing lamp tied in, showing a pattern. */
  function reversing(patternId: string): Build {
    const rule: RuleOf<'white-rear'> = { ...common, kind: 'white-rear', aboveCd: 40 };
    const lamp = addPlacement(withRules(rule), {
      id: 'r',
      fixtureId: 'factory-reverse',
      zoneId: 'tie-reverse-left',
      uM: 0,
      vM: 0,
    });
    const ref = [{ placementId: 'r', moduleId: 'm1' }];
    const grouped = changeModules(addGroup(lamp, { id: 'g', name: 'G' }), ref, { groupId: 'g' });
    return setCue(grouped, 'stage-2', groupTarget('g'), 1, lightCue(groupTarget('g'), 1, patternId));
  }
  test('may burn to the rear, and are told by name when they flash there', () => {
    expect(found(reversing('steady'))).toEqual([]);
    const [finding] = found(reversing('single'));
    expect(finding?.sentence).toMatch(
      /^Flashing white to the rear from the reversing lamps: 320 cd combined at 180° \(limit 40 cd\)\. Reversing lamps must be steady\./,
    );
  });
});
