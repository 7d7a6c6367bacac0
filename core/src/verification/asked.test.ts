import { describe, expect, test } from 'vitest';
import type { Brief } from '../design/brief.ts';
import { withControls } from '../design/controlEdits.ts';
import type { ControlFunction } from '../design/functions.ts';
import type { Build } from '../design/schema.ts';
import { checkBuild } from '../rules/check.ts';
import type { Finding } from '../rules/finding.ts';
import { modeOf } from '../state/state.ts';
import { demoBuild } from '../../test/reference/demo.ts';
import { verify } from './prove.ts';

const car = demoBuild('incident-command');

/** The car with one wish alone and no packs. */
const wishing = (wish: Brief['constraints'][number], build = car): Build => ({
  ...build,
  rulePacks: [],
  brief: { ...build.brief, constraints: [wish] },
});
const never = (colours: readonly string[], faces: readonly string[], light = 'any') => ({
  kind: 'never-colours',
  id: 'w',
  severity: 'blocks' as const,
  colours: [...colours],
  faces: [...faces],
  light,
});
const ofBrief = (findings: readonly Finding[]): Finding[] =>
  findings.filter(({ packId }) => packId === 'brief');

describe('a wish about colours is held against every picture', () => {
  test('light to work by, which no stage shows, breaks it: by the way there, and with no warning on', () => {
    const build = wishing(never(['white'], ['left'], 'steady'));
    const checked = checkBuild(build);
    // No function with a mode shows it.
    expect(ofBrief(checked.findings)).toEqual([]);
    const proof = verify(build, checked);
    const [found] = ofBrief(proof.findings);
    if (found === undefined) throw new Error('the scene light shows white to the left');
    expect(found.outcome).toBe('fails');
    expect(found.sentence).toContain('white to the left');
    expect(found.evidence.steps.length).toBeGreaterThan(0);
    // The nearest is one in which nothing warns.
    expect(modeOf(build, found.evidence.state?.on ?? [])).toBe(0);
    expect(proof.outcomes.find(({ ruleId }) => ruleId === 'w')?.verdict).toBe('broken');
  });

  test('put right it holds, in more states than the stages are', () => {
    const build = wishing(never(['white'], ['left'], 'steady'));
    const dark = withControls(build, {
      functions: build.controls.functions.filter(({ kind }) => kind !== 'light'),
      trials: [],
    });
    const proof = verify(dark);
    expect(ofBrief(proof.findings)).toEqual([]);
    const outcome = proof.outcomes.find(({ ruleId }) => ruleId === 'w');
    expect(outcome?.verdict).toBe('holds');
    expect(outcome?.statesChecked).toBeGreaterThan(3);
  });

  test('what the vehicle signals is no light that an agency wishes away: white of the reversing lamps, red of the brake', () => {
    const signals = car.controls.functions.filter(({ kind }) => kind === 'signal').map(({ id }) => id);
    expect(signals).toEqual(expect.arrayContaining(['brake', 'reverse']));
    const alone = withControls(car, {
      functions: car.controls.functions.filter(({ kind }) => kind === 'signal'),
      trials: [],
    });
    const proof = verify(
      wishing(never(['white', 'red', 'amber'], ['rear', 'left', 'right', 'front']), alone),
    );
    expect(ofBrief(proof.findings)).toEqual([]);
    expect(proof.outcomes.find(({ ruleId }) => ruleId === 'w')?.verdict).toBe('holds');
  });

  test.each([0, 1])(
    'the same lamps by a light that is no signal count, whichever comes first (%i)',
    (before) => {
      const reverse = car.controls.functions.find(({ id }) => id === 'reverse');
      if (reverse?.when.way !== 'while')
        throw new Error('the reversing lamps burn while the gear is in reverse');
      const working: ControlFunction = {
        ...reverse,
        id: 'working',
        name: 'Working light',
        kind: 'light',
        when: { ...reverse.when, condition: { kind: 'is', input: 'gear', values: ['neutral'] } },
      };
      const functions = [reverse, working];
      const build = withControls(car, {
        functions: before === 0 ? functions : functions.toReversed(),
        trials: [],
      });
      const [found, ...others] = ofBrief(verify(wishing(never(['white'], ['rear']), build)).findings);
      expect(others.map(({ sentence }) => sentence)).toEqual([]);
      expect(found?.sentence).toMatch(
        /^White to the rear: 11,100 cd combined at 180° \(limit 5 cd\), from 4 lamps\./,
      );
    },
  );
});
