import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { common, packOf } from '../../test/reference/rules.ts';
import { demoBuild, DEMO_BUILDS } from '../../test/reference/demo.ts';
import { happenings } from '../../test/reference/bruteReach.ts';
import { randomProgram } from '../../test/reference/randomProgramme.ts';
import { changePlacement, removePlacements, setColour } from '../arrange/lamps.ts';
import { put } from '../../test/reference/places.ts';
import { setDisabled } from '../design/moduleEdits.ts';
import { fixedSet } from '../design/lampSets.ts';
import { button, freePlace } from '../arrange/panelEdits.ts';
import type { ControlState, ControlProgram } from '../controls/program.ts';
import { stepText } from '../controls/script.ts';
import { initialControlState, isTiming, step } from '../controls/step.ts';
import { runTest } from '../controls/controlTest.ts';
import { compileProgram } from '../controls/program.ts';
import type { Condition, InputEvent } from '../design/condition.ts';
import { addRequirement, changeRequirement } from '../design/briefEdits.ts';
import {
  addFunction,
  changeFunction,
  changeEffect,
  putPanel,
  putSet,
  setNightLevel,
  withControls,
} from '../design/controlEdits.ts';
import {
  darkCue,
  groupTarget,
  lightCue,
  newFunction,
  type ControlFunction,
  type Cue,
} from '../design/functions.ts';
import type { Build } from '../design/schema.ts';
import type { BehaviourRequirement } from '../rules/brief/requirements/behaviour.ts';
import { readBuild } from '../rules/document.ts';
import { vehicleOf } from '../vehicle/vehicle.ts';
import type { RuleData } from '../design/rulePack.ts';
import type { Finding } from '../rules/finding.ts';
import { byOperator, towards, withVehicle, type Cost } from './actions.ts';
import { NONE, type Diagram } from './diagrams.ts';
import { practiceFor } from '../rules/practice.ts';
import type { VerificationFinding } from './found.ts';
import { foundByRule } from './programRules.ts';
import { verify, PROOF_CHECKS } from './prove.ts';
import { ReachableSet } from './reachable.ts';
import { outcomeOfBehaviour } from './checks/behaviours.ts';
import { VerificationSubject } from './subject.ts';

const car = demoBuild('ks-13');
/** The same with its spare blue allowed. */
const blueAllowed: Build = {
  ...car,
  placements: car.placements.map((p) => ({
    ...p,
    modules: p.modules.map((m) => ({ ...m, disabled: [] })),
  })),
};
const is = (input: string, ...values: string[]): Condition => ({ kind: 'is', input, values });
const all = (...of: Condition[]): Condition => ({ kind: 'all', of });
const press = (control: string): InputEvent => ({ kind: 'press', control, press: 'short' });
const during = (condition: Condition): ControlFunction['when'] => ({
  way: 'while',
  condition,
  afterMs: 0,
  staysMs: 0,
});
const white: Cue = lightCue({ kind: 'set', setId: 'with-white' }, 'white', 'steady');
const told = (build: Build, id: string): string[] => {
  const subject = new VerificationSubject(build);
  const check = PROOF_CHECKS.find(({ kind }) => kind === id);
  const rule = practiceFor(build).rules.find((one) => one.id === id);
  const found = check?.find(subject) ?? (rule === undefined ? null : foundByRule(subject, rule));
  if (found === null) throw new Error(`there is no check ${id}`);
  return found.map(({ sentence }) => sentence);
};
/** What a wish or a rule about behaviour comes to, and the way to where it is not so. */
function behaviour(
  build: Build,
  mine: string,
): { readonly found: VerificationFinding | null; readonly way: string | null } {
  const subject = new VerificationSubject(build);
  const asked = subject.behaviours.find(({ id }) => id === mine);
  if (asked === undefined) throw new Error(`nobody asks for ${mine}`);
  const { found } = outcomeOfBehaviour(subject, asked);
  const to = found?.where ?? null;
  return { found, way: to === null ? null : subject.stepsTo(to).steps.map(stepText).join(', ') };
}
const way = ({ evidence }: Finding): string => evidence.steps.map(stepText).join(', ');
const withKey = (build: Build, id: string, label: string): Build => {
  const [panel] = build.controls.panels;
  if (panel === undefined) throw new Error('the car has a panel');
  const at = freePlace(panel);
  if (at === null) throw new Error('its panel has room');
  return putPanel(build, { ...panel, controls: [...panel.controls, button(id, label, at, null)] });
};

/** A car with a function that needs every one of some new keys. */
const three = (keys: readonly string[]): Build =>
  addFunction(
    keys.reduce<Build>(
      (b, id) =>
        addFunction(
          withKey(b, id, id),
          newFunction(
            id,
            id,
            'cut',
            { way: 'latched', sets: [], clears: [], toggles: [press(id)], timeoutMs: 0 },
            [],
          ),
        ),
      car,
    ),
    newFunction(
      'x',
      'Far',
      'warning',
      during(all(...keys.map((id): Condition => ({ kind: 'on', functionId: id })))),
      [],
    ),
  );

describe('the demo builds', () => {
  const proofs = new Map(DEMO_BUILDS.map((name) => [name, verify(demoBuild(name))]));
  test.each(DEMO_BUILDS.filter((name) => name !== 'ks-12'))(
    '%s: every check holds in every state',
    (name) => {
      const proof = proofs.get(name);
      expect(proof?.counts.whole).toBe(true);
      expect(proof?.findings.map((f) => f.sentence)).toEqual([]);
      expect(new Set(proof?.outcomes.map((o) => o.verdict))).toEqual(new Set(['holds']));
    },
  );

  test('KS-12: its three mistakes, each by a shortest way', () => {
    const found = proofs
      .get('ks-12')
      ?.findings.filter((f) => f.packId === 'brief' || f.packId === 'controls');
    expect(found?.map((f) => [f.ruleId, f.severity, way(f)])).toEqual([
      ['no-white-in-fog', 'blocks', 'ignition=on, key-white=press, key-fog-cancel=press'],
      ['turn-reads-right', 'blocks', 'ignition=on, slide=1, turn=right'],
      ['no-siren-at-the-hatch', 'blocks', 'ignition=on, part.hatch=hatch, key-siren=press'],
      ['beaten-cut', 'warns', 'ignition=on, key-white=press, key-fog-cancel=press'],
    ]);
  });

  test('a finding can be kept as a trial: its steps lead where it says', () => {
    const build = demoBuild('ks-12');
    for (const { evidence } of proofs.get('ks-12')?.findings ?? []) {
      const trial = { id: 't', name: 'T', steps: [...evidence.steps], on: [...(evidence.state?.on ?? [])] };
      expect(runTest(compileProgram(build), trial)).toMatchObject({ missing: [], surplus: [] });
    }
  });
});

const groups = car.timing.groups.map((g) => g.id);
const SHUT_HATCH: InputEvent = { kind: 'arrives', input: 'part.hatch', value: 'shut' };

describe('each check fires on what it is for, and is silent when that is put right', () => {
  const truck = demoBuild('line-marking');
  const trap = (clears: InputEvent[]): Build =>
    addFunction(
      car,
      newFunction(
        'trap',
        'Trap',
        'warning',
        {
          way: 'latched',
          sets: [{ kind: 'arrives', input: 'gear', value: 'reverse' }],
          clears,
          toggles: [],
          timeoutMs: 0,
        },
        [],
        { mode: 2, withoutMaster: true },
      ),
      0,
    );
  const byGear = (condition: Condition, withoutMaster = true): Build =>
    addFunction(
      car,
      newFunction('x', 'Rear white', 'light', during(condition), [white], { withoutMaster }),
      0,
    );
  const redByGear = (condition: Condition): Build =>
    addFunction(
      car,
      newFunction(
        'x',
        'Rear red',
        'light',
        during(condition),
        [lightCue(groupTarget('rear'), 'red', 'steady')],
        { withoutMaster: true },
      ),
      0,
    );
  /** A key that takes all lamps from what lies below it. */
  const overBy = (build: Build): Build =>
    addFunction(
      withKey(build, 'over', 'Over'),
      newFunction(
        'over',
        'Over',
        'cut',
        { way: 'latched', sets: [], clears: [], toggles: [press('over')], timeoutMs: 0 },
        [darkCue({ kind: 'set', setId: 'with-white' })],
        { withoutMaster: true },
      ),
      0,
    );
  const byTwoKeys = (): Build => {
    const keys = ['ka', 'kb'];
    const latched = keys.reduce<Build>(
      (b, id) =>
        addFunction(
          withKey(b, id, id),
          newFunction(
            id,
            id,
            'load',
            { way: 'latched', sets: [], clears: [], toggles: [press(id)], timeoutMs: 0 },
            [],
          ),
        ),
      car,
    );
    const either: Condition = {
      kind: 'any',
      of: keys.map((functionId): Condition => ({ kind: 'on', functionId })),
    };
    return addFunction(latched, newFunction('x', 'Rear white', 'light', during(either), [white]), 0);
  };
  const flashedByHatch = (clears: InputEvent[], timeoutMs = 0): Build =>
    addFunction(
      car,
      newFunction(
        'x',
        'At the hatch',
        'warning',
        {
          way: 'latched',
          sets: [{ kind: 'arrives', input: 'part.hatch', value: 'hatch' }],
          clears,
          toggles: [],
          timeoutMs,
        },
        [lightCue(groupTarget('rear'), 1, 'double')],
        // Else the key off, the hatch shut and the key on leave it on, and only opening the hatch again would end it.
        { forgets: true },
      ),
      0,
    );
  const hidden = (rank: number): Build =>
    addFunction(
      car,
      newFunction('x', 'Hidden', 'warning', during({ kind: 'on', functionId: 'stage-2' }), [
        lightCue(groupTarget('front'), 1, 'single'),
      ]),
      rank,
    );
  const atDoor = (condition: Condition): Build =>
    addFunction(
      car,
      newFunction(
        'x',
        'At the hatch',
        'light',
        during(condition),
        groups.map((id) => lightCue(groupTarget(id), 1, 'steady')),
        { withoutMaster: true, mayStay: true },
      ),
    );
  const shut = vehicleOf(car.vehicle).parts.map(({ id }) => is(`part.${id}`, 'shut'));
  const rearBy = (condition: Condition): Build =>
    addFunction(
      car,
      newFunction('x', 'Back', 'warning', during(condition), [lightCue(groupTarget('rear'), 1, 'double')]),
    );
  /** Blue of one function beside stage 2 from the same heads: over its steady red, or over none. */
  const two = (over: Cue[]): Build =>
    addFunction(
      changeEffect(blueAllowed, 'stage-2', { cues: over }),
      newFunction('x', 'Both', 'warning', during({ kind: 'on', functionId: 'stage-2' }), [
        { ...lightCue(groupTarget('front'), 'blue', 'single'), adds: true },
      ]),
      0,
    );
  const setByDoor = (timeoutMs: number): Build =>
    addFunction(
      car,
      newFunction(
        'x',
        'Set by the hatch',
        'light',
        {
          way: 'latched',
          sets: [{ kind: 'arrives', input: 'part.hatch', value: 'hatch' }],
          clears: [],
          toggles: [],
          timeoutMs,
        },
        groups.map((id) => lightCue(groupTarget(id), 1, 'steady')),
        { withoutMaster: true, mayStay: true },
      ),
    );
  /** The same by a key, beside a small light that the hatch sets; both go with the ignition. */
  const setByKey = (): Build => {
    const off = is('ignition', 'off');
    const latched = (sets: InputEvent[], toggles: InputEvent[]): ControlFunction['when'] => ({
      way: 'latched',
      sets,
      clears: [],
      toggles,
      timeoutMs: 0,
    });
    const more = { withoutMaster: true, mayStay: true, enabledBy: off, forgets: true };
    const hatch = latched([{ kind: 'arrives', input: 'part.hatch', value: 'hatch' }], []);
    const large = groups.map((id) => lightCue(groupTarget(id), 1, 'steady'));
    return addFunction(
      addFunction(withKey(car, 'key-x', 'Key'), newFunction('small', 'Small', 'light', hatch, [], more)),
      newFunction('x', 'By key', 'light', latched([], [press('key-x')]), large, more),
    );
  };
  const idle = (cues: Cue[]): Build =>
    addFunction(
      withKey(car, 'key-x', 'Nothing'),
      newFunction(
        'x',
        'Nothing',
        'light',
        { way: 'latched', sets: [], clears: [], toggles: [press('key-x')], timeoutMs: 0 },
        cues,
      ),
    );

  /** A bar of two modules, of which some are lit by a function of their own. */
  const halfLit = (modules: string[]): Build => {
    const placed = put(car, 'pair', { zone: 'front-bumper', fixture: 'corner-head' });
    const set = fixedSet(
      'pair',
      'Pair',
      modules.map((moduleId) => ({ placementId: 'pair', moduleId })),
    );
    return addFunction(
      putSet(placed, set),
      newFunction('own', 'Own', 'warning', during(is('ignition', 'on')), [
        lightCue({ kind: 'set', setId: 'pair' }, 1, 'single'),
        lightCue({ kind: 'set', setId: 'pair' }, 2, 'single'),
      ]),
    );
  };
  /** A key for light of a head that every stage takes. */
  const byKey = (rank: number, kind: 'light' | 'warning' = 'light'): Build =>
    addFunction(
      withKey(car, 'key-x', 'Key'),
      newFunction(
        'x',
        'By key',
        kind,
        { way: 'latched', sets: [], clears: [], toggles: [press('key-x')], timeoutMs: 0 },
        [lightCue(groupTarget('front'), 1, 'steady')],
      ),
      rank,
    );
  const grille = [{ placementId: 'grille', moduleId: 'm1' }];
  const spare = setColour(car, grille, 2, 'white');

  test.each<[string, Build, Build, RegExp]>([
    [
      'never-on',
      changeFunction(car, 'siren', { enabledBy: all(is('ignition', 'off'), is('ignition', 'on')) }),
      car,
      /^Siren is never on in any reachable state\./,
    ],
    [
      'idle-control',
      withKey(car, 'key-x', 'Nothing'),
      car,
      /^“Nothing” on Switch panel has no effect\. Assign a function or mark it spare\./,
    ],
    [
      'never-shown',
      hidden(99),
      hidden(0),
      /^Hidden never lights a lamp: functions with higher priority override it in every state\./,
    ],
    [
      'unlit',
      spare,
      setDisabled(spare, grille, 'white', true),
      /^No function shows white on Grille L\. Disable/,
    ],
    [
      'unlit',
      put(car, 'late', { zone: 'front-bumper' }),
      changePlacement(put(car, 'late', { zone: 'front-bumper' }), 'late', { status: 'planned' }),
      /^No function lights .+\.$/,
    ],
    ['unlit', halfLit(['m1']), halfLit(['m1', 'm2']), /^No function lights 1 module of .+\.$/],
    [
      'hidden-press',
      byKey(99),
      byKey(0),
      /^By key switches on without changing a lamp: Stage 2 overrides every lamp it lights\. Raise its priority, or release lamps in the other function\./,
    ],
    // Below every stage it is meant for when none is on.
    [
      'hidden-press',
      byKey(99),
      byKey(99, 'warning'),
      /^By key switches on without changing a lamp: Stage 2 overrides every lamp it lights\. Raise its priority, or release lamps in the other function\./,
    ],
    [
      'stuck',
      trap([]),
      trap([
        { kind: 'arrives', input: 'slide', value: 'off' },
        { kind: 'arrives', input: 'ignition', value: 'off' },
      ]),
      /^Trap can be on without any way to switch it off with the ignition on\./,
    ],
    // The key ends it, and does not count: nobody turns it on the road to end a warning.
    [
      'stuck',
      trap([{ kind: 'arrives', input: 'ignition', value: 'off' }]),
      trap([{ kind: 'arrives', input: 'slide', value: 'off' }]),
      /^Trap can be on without any way to switch it off with the ignition on\./,
    ],
    [
      'left-on',
      addFunction(
        car,
        newFunction('x', 'Always', 'light', { way: 'always' }, [white], { withoutMaster: true }),
      ),
      addFunction(
        car,
        newFunction('x', 'Always', 'light', { way: 'always' }, [white], {
          withoutMaster: true,
          mayStay: true,
        }),
      ),
      /^Always stays on with the ignition off/,
    ],
    [
      'endless-white',
      byGear(is('gear', 'reverse')),
      byGear(is('slide', '3')),
      /^Rear white lights white that no operator action, closed door or timer ends with the ignition on\./,
    ],
    ['endless-white', byGear(is('gear', 'reverse'), false), byGear(is('slide', '3'), false), /^Rear white/],
    // A key that turns it off the lamps ends the white, though the function stays on; so do two presses of two keys.
    ['endless-white', byGear(is('gear', 'reverse')), overBy(byGear(is('gear', 'reverse'))), /^Rear white/],
    ['endless-white', byGear(is('gear', 'reverse')), byTwoKeys(), /^Rear white/],
    [
      'endless-white',
      redByGear(is('gear', 'reverse')),
      redByGear(is('slide', '3')),
      /^Rear red lights red that no operator action, closed door or timer ends with the ignition on\./,
    ],
    // What a door brings on is ended by the door, by a timer or by hand; flashing, too.
    ['endless-white', flashedByHatch([]), flashedByHatch([SHUT_HATCH]), /^At the hatch lights lamps that no/],
    ['endless-white', flashedByHatch([]), flashedByHatch([], 600_000), /^At the hatch lights lamps that no/],
    ['endless-white', flashedByHatch([]), flashedByHatch([press('key-white')]), /^At the hatch lights lamps/],
    [
      'unasked-white',
      byGear(all(is('gear', 'reverse'), is('part.hatch', 'hatch'))),
      byGear(all(is('gear', 'reverse'), ...shut)),
      /^Rear white switches white on automatically while the hatch is open\./,
    ],
    // A door that nothing asks about may stand open, too.
    [
      'unasked-white',
      byGear(is('gear', 'reverse')),
      byGear(all(is('slide', '3'), is('gear', 'reverse', 'park', 'neutral', 'drive'))),
      /^Rear white switches white on automatically while the hatch is open\./,
    ],
    [
      'light-at-doors',
      rearBy(is('part.hatch', 'hatch')),
      rearBy(all(is('part.hatch', 'hatch'), is('slide', '3'))),
      /^Back starts automatically and raises the light to the rear from 0 cd to 8,330 cd while the hatch is open\./,
    ],
    [
      'light-at-doors',
      rearBy(is('gear', 'park')),
      rearBy(all(is('gear', 'park'), is('slide', '3'))),
      /^Back starts automatically and raises the light to the rear from 0 cd to 8,330 cd while the hatch is open\./,
    ],
    [
      'two-colours',
      two([lightCue(groupTarget('front'), 'red', 'steady')]),
      two([lightCue(groupTarget('rear'), 'red', 'steady')]),
      /^Grille L and 9 more: Stage 2, Both request blue, red together\. Only one colour can be lit; the higher priority wins\./,
    ],
    [
      'raised-at-speed',
      withControls(truck, { functions: truck.controls.functions.filter(({ id }) => id !== 'raised-alarm') }),
      truck,
      /^the lightboard mast can be raised at speed without a warning to the driver\. Add a buzzer, key indicator or cab light\./,
    ],
    [
      'raised-at-speed',
      changeFunction(truck, 'raised-alarm', { enabledBy: is('slide', '1') }),
      truck,
      /^the lightboard mast can be raised at speed without a warning to the driver\. Add a buzzer, key indicator or cab light\./,
    ],
    [
      'actions',
      three(['ka', 'kb', 'kc']),
      three(['ka', 'kb']),
      /^Far: 3 actions from all warning off \(limit 2\)\./,
    ],
    [
      'drain',
      atDoor(is('part.hatch', 'hatch')),
      atDoor(all(is('part.hatch', 'hatch'), is('engine', 'running'))),
      /^At the hatch draws \d+ W/,
    ],
    // What asks for a stopped engine is no better for it, and what a door sets stays after it.
    [
      'drain',
      atDoor(all(is('part.hatch', 'hatch'), is('engine', 'stopped'))),
      atDoor(all(is('part.hatch', 'hatch'), is('ignition', 'on'))),
      /^At the hatch draws \d+ W/,
    ],
    // A key’s light is no door’s, though both forget with the ignition.
    ['drain', setByDoor(0), setByKey(), /^Set by the hatch draws \d+ W/],
    ['drain', setByDoor(0), setByDoor(600_000), /^Set by the hatch draws \d+ W/],
    [
      'idle-control',
      idle([]),
      idle([white]),
      /^“Nothing” on Switch panel has no effect: its functions are empty\. Add an effect or mark it spare\./,
    ],
    [
      'labels',
      withKey(car, 'key-x', 'Siren'),
      withKey(car, 'key-x', 'Horn'),
      /^“Siren” appears twice on Switch panel\. Use different labels of at most 12 characters\./,
    ],
  ])('%s', (kind, wrong, right, sentence) => {
    expect(told(wrong, kind)).toEqual([expect.stringMatching(sentence)]);
    expect(told(right, kind)).toEqual([]);
  });
});

describe('rules of packs about the controls', () => {
  const packed = (build: Build, ...rules: RuleData[]): Build => ({
    ...build,
    rulePacks: [{ ...packOf(), rules }],
  });
  const outcomes = (build: Build): Record<string, string> =>
    Object.fromEntries(verify(build).outcomes.map((o) => [o.ruleId, o.verdict]));
  const behaves = (patch: object): Build =>
    packed(car, {
      ...common,
      kind: 'behaviour',
      id: 'b',
      says: 'whenever',
      when: all(is('ignition', 'on'), is('slide', '2', '3'), is('gear', 'drive')),
      colours: ['red', 'blue'],
      faces: ['rear'],
      is: 'flashing',
      moduleCount: 1,
      ...patch,
    });

  test('a limit of a pack takes the place of the usual one', () => {
    const usual = outcomes(packed(car));
    expect([usual.actions, usual.drain, usual.stuck]).toEqual(['holds', 'holds', 'holds']);
    const strict = packed(three(['ka', 'kb']), {
      ...common,
      kind: 'few-actions',
      id: 'few',
      toHighestStage: 1,
      toOthers: 1,
    });
    const came = outcomes(strict);
    expect(came.actions).toBeUndefined();
    expect(came.few).toBe('broken');
    expect(came.stuck).toBe('holds');
    expect(
      outcomes(
        packed(three(['ka', 'kb']), {
          ...common,
          kind: 'few-actions',
          id: 'few',
          toHighestStage: 1,
          toOthers: 2,
        }),
      ).few,
    ).toBe('holds');
  });
  test('behaviour: toward a side, under a condition, by warning lamps', () => {
    expect(outcomes(behaves({})).b).toBe('holds');
    expect(outcomes(behaves({ says: 'never' })).b).toBe('broken');
    const holds = (patch: object): boolean => behaviour(behaves(patch), 'b').found === null;
    expect(holds({ moduleCount: 200 })).toBe(false);
    expect(holds({ colours: ['purple'] })).toBe(false);
    expect(holds({ colours: ['purple'], is: 'dark' })).toBe(true);
    expect(holds({ says: 'possible', when: null })).toBe(true);
    expect(holds({ when: null })).toBe(false);
  });
  test('a rule of a state takes no condition where it could not ask for it', () => {
    const bad = packed(car, {
      ...common,
      kind: 'all-off',
      id: 'x',
      actionsToOff: 2,
      when: is('gear', 'drive'),
    });
    expect(() => readBuild(structuredClone(bad))).toThrow(/takes no condition/);
  });
});

test('a door that darkens a side is told, and where another lamp takes over it is not', () => {
  const only = (...ids: string[]): Build =>
    removePlacements(car, new Set(car.placements.map(({ id }) => id).filter((id) => !ids.includes(id))));
  const darkened = (build: Build): Finding[] =>
    verify(build).findings.filter(({ id }) => id === 'controls|darkness|reached|rear');
  const [mine, ...others] = darkened(only('grille', 'tail', 'tail-x'));
  expect(others).toEqual([]);
  expect(mine?.sentence).toMatch(/^No warning light to the rear with hatch open\./);
  expect(mine === undefined ? '' : way(mine)).toBe('ignition=on, part.hatch=hatch, slide=2');
  expect(darkened(only('grille', 'tail', 'tail-x', 'bumper', 'bumper-x'))).toEqual([]);
});

describe('wishes about behaviour', () => {
  const blankWish: BehaviourRequirement = {
    kind: 'behaviour',
    id: 'w',
    severity: 'warns',
    says: 'never',
    when: is('ignition', 'on'),
    unless: null,
    subject: { kind: 'function', functionId: 'siren' },
    is: 'on',
    atLeast: 1,
    patternId: null,
    mostLevel: null,
    withinS: null,
  };
  const wish = (patch: Partial<BehaviourRequirement>): Build =>
    addRequirement(car, { ...blankWish, says: 'possible', when: is('slide', '1'), ...patch });
  const outcome = (build: Build): string => (behaviour(build, 'w').found === null ? 'holds' : 'broken');

  test('what is possible is, what never comes about is told, exceptions are left out', () => {
    expect(outcome(wish({}))).toBe('holds');
    expect(outcome(wish({ when: is('slide', 'off') }))).toBe('broken');
    expect(outcome(wish({ says: 'never' }))).toBe('broken');
    expect(outcome(wish({ says: 'never', unless: is('ignition', 'on') }))).toBe('holds');
  });
  test('in a pattern, at most at a level, two colours from one head', () => {
    const front = (patch: Partial<BehaviourRequirement>): string =>
      outcome(
        wish({
          says: 'whenever',
          when: all(is('ignition', 'on'), is('slide', '2')),
          subject: { kind: 'lamps', target: groupTarget('front'), colours: ['red', 'blue'], faces: [] },
          is: 'lit',
          ...patch,
        }),
      );
    expect(front({ is: 'in pattern', patternId: 'double' })).toBe('holds');
    expect(front({ is: 'in pattern', patternId: 'quad' })).toBe('broken');
    expect(front({ is: 'in pattern', patternId: 'double', atLeast: 200 })).toBe('broken');
    const either = all(is('ignition', 'on'), is('slide', '2', '3'));
    expect(front({ is: 'in pattern', patternId: 'double', when: either })).toBe('broken');
    // By day at full, at night at what the stage's night level says.
    expect(front({ is: 'at most', mostLevel: 1 })).toBe('holds');
    expect(front({ is: 'at most', mostLevel: 0.99 })).toBe('broken');
    const dimmed = setNightLevel(car, 'stage-2', 0.3);
    const atNight = (mostLevel: number): string =>
      outcome(
        addRequirement(dimmed, {
          ...blankWish,
          says: 'whenever',
          when: all(is('ambient', 'night'), is('ignition', 'on'), is('slide', '2')),
          subject: { kind: 'lamps', target: groupTarget('front'), colours: [], faces: [] },
          is: 'at most',
          mostLevel,
        }),
      );
    expect(atNight(0.3)).toBe('holds');
    expect(atNight(0.29)).toBe('broken');
    const heads = (build: Build): string => {
      const subject: BehaviourRequirement['subject'] = {
        kind: 'lamps',
        target: null,
        colours: ['red', 'blue'],
        faces: [],
      };
      return outcome(
        addRequirement(build, { ...blankWish, when: is('ignition', 'on'), subject, is: 'in two colours' }),
      );
    };
    expect(heads(changeEffect(changeEffect(car, 'stage-2', { cues: [] }), 'stage-3', { cues: [] }))).toBe(
      'holds',
    );
    expect(
      heads(
        changeEffect(blueAllowed, 'stage-2', {
          cues: [
            lightCue(groupTarget('front'), 'red', 'steady'),
            lightCue(groupTarget('front'), 'blue', 'single'),
          ],
        }),
      ),
    ).toBe('broken');
    expect(
      behaviour(
        addRequirement(car, {
          ...blankWish,
          when: is('ignition', 'on'),
          is: 'in pattern',
          patternId: 'gone',
          subject: { kind: 'lamps', target: null, colours: [], faces: [] },
        }),
        'w',
      ).found?.sentence,
    ).toBe('it uses a deleted pattern.');
  });
  test('within n seconds: what follows after timers holds from their set time on', () => {
    const late = (withinS: number | null, patch: Partial<BehaviourRequirement> = {}): string[] => {
      const dome = newFunction(
        'dome',
        'Dome',
        'load',
        { way: 'while', condition: is('part.hatch', 'hatch'), afterMs: 4000, staysMs: 0 },
        [],
        { withoutMaster: true },
      );
      const asked = addFunction(
        wish({
          says: 'whenever',
          when: is('part.hatch', 'hatch'),
          subject: { kind: 'function', functionId: 'dome' },
          withinS,
          ...patch,
        }),
        dome,
      );
      const { found, way: to } = behaviour(asked, 'w');
      return found === null ? [] : [`${found.sentence} ${to ?? ''}`];
    };
    expect(late(4)).toEqual([]);
    expect(late(3)).toEqual(['required: Dome is on within 3 s. It fails. part.hatch=hatch']);
    expect(late(null)).toEqual(['required: Dome is on. It fails. part.hatch=hatch']);
    expect(late(3, { unless: is('ignition', 'off') })).toHaveLength(1);
    expect(late(3, { unless: is('part.hatch', 'hatch') })).toEqual([]);
    // Where no timer brings it about, no time is enough.
    expect(late(3600, { is: 'off' })).toHaveLength(1);
  });
  test('lamps go dark in time, and time is given to nothing but what must be so', () => {
    const front = (withinS: number | null): string =>
      outcome(
        wish({
          says: 'whenever',
          when: is('ignition', 'off'),
          subject: { kind: 'lamps', target: null, colours: [], faces: ['front'] },
          is: 'dark',
          withinS,
        }),
      );
    expect(front(null)).toBe(front(1));
    for (const says of ['never', 'possible'] as const)
      expect(() => readBuild(structuredClone(wish({ says, withinS: 2 })))).toThrow(/withinS/);
  });
  test('lamps: lit, flashing, steady and dark, counted by modules', () => {
    const front = (patch: Partial<BehaviourRequirement>): Build =>
      wish({
        says: 'whenever',
        when: {
          kind: 'all',
          of: [
            is('ignition', 'on'),
            is('slide', '2'),
            is('turn', 'none'),
            is('gear', 'drive'),
            is('brake', 'up'),
          ],
        },
        subject: { kind: 'lamps', target: null, colours: ['red'], faces: [] },
        ...patch,
      });
    expect(outcome(front({ is: 'flashing' }))).toBe('holds');
    expect(outcome(front({ is: 'lit', atLeast: 400 }))).toBe('broken');
    expect(outcome(front({ is: 'dark' }))).toBe('broken');
    expect(
      outcome(
        front({ is: 'dark', subject: { kind: 'lamps', target: null, colours: ['purple'], faces: [] } }),
      ),
    ).toBe('holds');
  });
  test('what is so at night alone is found, with nightfall on the way', () => {
    const shows = car.controls.functions.find(({ id }) => id === 'stage-2')?.shows ?? [];
    const steadyAtNight = changeFunction(car, 'stage-2', {
      shows: shows.map((s) => ({
        ...s,
        cues: s.cues.map((c) => (c.show === 'light' ? { ...c, nightPatternId: 'steady' } : c)),
      })),
    });
    const flashing = wish({
      says: 'whenever',
      when: all(is('ignition', 'on'), is('slide', '2')),
      unless: {
        kind: 'any',
        of: [is('turn', 'left', 'right', 'hazard'), is('gear', 'reverse'), is('brake', 'down')],
      },
      subject: { kind: 'lamps', target: groupTarget(groups[0] ?? null), colours: [], faces: [] },
      is: 'flashing',
    });
    expect(outcome(flashing)).toBe('holds');
    const [mine] = verify({ ...steadyAtNight, brief: flashing.brief }).findings.filter(
      (f) => f.ruleId === 'w',
    );
    expect(mine?.evidence.state?.ambient).toBe('night');
    expect(mine === undefined ? '' : way(mine)).toBe('ignition=on, slide=2, ambient=night');
  });
  test('where the controls ask for the light around, day is not judged as night', () => {
    const dimmed = addFunction(
      car,
      newFunction(
        'lit-by-day',
        'By day',
        'light',
        during(all(is('ambient', 'day', 'dusk'), is('ignition', 'on'))),
        [],
      ),
    );
    const never: BehaviourRequirement = {
      kind: 'behaviour',
      id: 'w',
      severity: 'warns',
      says: 'never',
      when: is('ambient', 'night'),
      unless: null,
      subject: { kind: 'function', functionId: 'lit-by-day' },
      is: 'on',
      atLeast: 1,
      patternId: null,
      mostLevel: null,
      withinS: null,
    };
    expect(outcome(addRequirement(dimmed, never))).toBe('holds');
    expect(outcome(addRequirement(dimmed, { ...never, when: is('ambient', 'dusk') }))).toBe('broken');
  });
  test('what never speaks does not hold, and what names something gone cannot be told', () => {
    const verdict = (build: Build) =>
      verify({ ...build, rulePacks: [] }).outcomes.find((o) => o.ruleId === 'w')?.verdict;
    expect(verdict(wish({ says: 'whenever', when: all(is('slide', '1'), is('slide', '2')) }))).toBe('silent');
    expect(verdict(wish({ says: 'never', subject: { kind: 'function', functionId: 'ghost' } }))).toBe(
      'cannot tell',
    );
    expect(
      verdict(
        wish({
          says: 'never',
          subject: { kind: 'lamps', target: { kind: 'set', setId: 'ghost' }, colours: [], faces: [] },
          is: 'lit',
        }),
      ),
    ).toBe('cannot tell');
    expect(verdict(wish({ says: 'never', when: { kind: 'on', functionId: 'ghost' } }))).toBe('cannot tell');
    expect(verdict(wish({ says: 'never', when: is('part.ghost', 'open') }))).toBe('cannot tell');
  });
  test('a wish put right is one that holds', () => {
    const broken = wish({ says: 'never' });
    const [mine] = broken.brief.constraints.filter((w) => w.id === 'w');
    if (mine === undefined) throw new Error('the wish is there');
    expect(outcome(changeRequirement(broken, { ...mine, says: 'possible' }))).toBe('holds');
  });
});

/** The fewest actions to each state by a plain walk over `step`, cheapest first. */
function plainActions(
  programme: ControlProgram,
  free: (event: InputEvent) => boolean,
): Map<string, { readonly actions: number; readonly on: ReadonlySet<string> }> {
  const key = ({ values, memory, phases }: ControlState) =>
    [...values.values(), '|', ...memory.values(), '|', ...phases.values()].join(' ');
  const least = new Map<string, { readonly actions: number; readonly on: ReadonlySet<string> }>();
  let now: ControlState[] = [initialControlState(programme)];
  for (let actions = 0; now.length > 0; actions++) {
    const next: ControlState[] = [];
    while (now.length > 0) {
      const state = now.pop();
      if (state === undefined || least.has(key(state))) continue;
      least.set(key(state), { actions, on: state.on });
      for (const fn of programme.controls.functions)
        if (isTiming(state, fn)) {
          const after = step(programme, state, { kind: 'ends', functionId: fn.id })?.state;
          if (after !== undefined) now.push(after);
        }
      for (const event of happenings(programme)) {
        const after = event.kind === 'ends' ? null : step(programme, state, event);
        if (after === null || event.kind === 'ends') continue;
        (free(event) ? now : next).push(after.state);
      }
    }
    now = next;
  }
  return least;
}

test('a fault planted where a random walk leads is found, by a way that leads there and is no longer', () => {
  const programme = compileProgram(car);
  const events = happenings(programme);
  fc.assert(
    fc.property(
      fc.array(fc.nat(events.length - 1), { minLength: 4, maxLength: 14 }),
      fc.nat(),
      (picks, seed) => {
        let state = initialControlState(programme);
        let happened = 0;
        for (const pick of picks) {
          const event = events[pick];
          const next = event === undefined ? undefined : step(programme, state, event)?.state;
          if (next === undefined) continue;
          state = next;
          happened++;
        }
        // What is so of three inputs where the walk ends, and of a function that is on.
        const inputs = [...state.values].filter(([id]) => programme.inputs.some((input) => input.id === id));
        const asked = Array.from({ length: 3 }, (_, i) => inputs[(seed + i * 7) % inputs.length]).flatMap(
          (pair) => (pair === undefined ? [] : [is(pair[0], pair[1])]),
        );
        const [first] = state.on;
        const when = all(
          ...asked,
          ...(first === undefined ? [] : [{ kind: 'on', functionId: first } as const]),
        );
        const planted = addRequirement(
          addFunction(
            car,
            newFunction('fault', 'Fault', 'load', during(when), [], { withoutMaster: true, mayStay: true }),
          ),
          {
            kind: 'behaviour',
            id: 'never-fault',
            severity: 'blocks',
            says: 'never',
            when: { kind: 'any', of: [is('ignition', 'on'), { kind: 'not', of: is('ignition', 'on') }] },
            unless: null,
            subject: { kind: 'function', functionId: 'fault' },
            is: 'on',
            atLeast: 1,
            patternId: null,
            mostLevel: null,
            withinS: null,
          } satisfies BehaviourRequirement,
        );
        const subject = new VerificationSubject(planted);
        const never = subject.behaviours.find(({ id }) => id === 'never-fault');
        const where = never === undefined ? null : outcomeOfBehaviour(subject, never).found?.where;
        if (where === null || where === undefined) throw new Error('the fault was not found');
        const { steps } = subject.stepsTo(where);
        expect(steps.filter(({ kind }) => kind === 'event').length).toBeLessThanOrEqual(happened);
        const trial = { id: 't', name: 'T', steps, on: ['fault'] };
        expect(runTest(compileProgram(planted), trial).missing).toEqual([]);
      },
    ),
    { numRuns: 8, seed: 12 },
  );
});

test('the fewest actions of an operator: as many as a plain walk needs, with the vehicle free', () => {
  fc.assert(
    fc.property(randomProgram, (programme) => {
      const reached = new ReachableSet(programme);
      const { program, states, atRest: rest } = reached;
      const d = program.diagrams;
      const byHand = new Set(programme.inputs.filter((i) => i.byHand).map((i) => i.id));
      const free = (event: InputEvent): boolean => event.kind === 'arrives' && !byHand.has(event.input);
      const least = plainActions(programme, free);
      const fewest = (goal: Diagram, cost: Cost): number => {
        let actions = 0;
        for (const layer of towards(reached, goal, cost)) {
          if (d.and(layer, rest) !== NONE) return actions;
          actions++;
        }
        return -1;
      };
      for (const fn of programme.ranked) {
        const isOn = d.and(states, program.present.isOn(program.wired.rankOf(fn.id) ?? -1));
        const plain = [...least.values()].flatMap(({ actions, on }) => (on.has(fn.id) ? [actions] : []));
        const mine = isOn === NONE ? -1 : fewest(isOn, withVehicle);
        expect(mine).toBe(plain.length === 0 ? -1 : Math.min(...plain));
        // By operators alone: never fewer than with the vehicle's help.
        const alone = isOn === NONE ? -1 : fewest(isOn, byOperator);
        if (alone >= 0) expect(alone).toBeGreaterThanOrEqual(mine);
      }
    }),
    { numRuns: 60, seed: 44 },
  );
});
