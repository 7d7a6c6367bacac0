import { groupTarget, lightCue, newFunction, type Cue } from '../../design/functions.ts';
import { addFunction, changeEffect, putSet, setCue } from '../../design/controlEdits.ts';
import { fixedSet } from '../../design/lampSets.ts';
import { REQUIREMENT_KINDS, describeRequirement, type Requirement } from './requirements.ts';
import { subjectSentence, type BehaviourRequirement } from './requirements/behaviour.ts';
import { keepHead } from './requirements/keepHead.ts';
import { addGroup } from '../../design/timingEdits.ts';
import { changeModules } from '../../design/moduleEdits.ts';
import { readBuild } from '../document.ts';
import { describe, expect, test } from 'vitest';
import {
  addRequirement,
  changeBrief,
  changeRequirement,
  removeRequirement,
} from '../../design/briefEdits.ts';
import { countsOf } from '../../resolve/counts.ts';
import { changePlacement, setColour } from '../../arrange/lamps.ts';
import { lookupOf } from '../../resolve/lookup.ts';
import type { Build } from '../../design/schema.ts';
import { checkBuild } from '../check.ts';
import { emptyBuild, put } from '../../../test/reference/places.ts';

const base = { id: 'w', severity: 'blocks' as const };
const wish = (build: Build, c: Requirement): string[] =>
  checkBuild(addRequirement(build, c))
    .findings.filter((f) => f.packId === 'brief')
    .map((f) => f.sentence);

/** A rear head that shows a colour steadily in stage 2. */
function rearLamp(colour: 'blue' | 'red'): Build {
  const refs = [{ placementId: 'a', moduleId: 'm1' }];
  const lamp = setColour(put(emptyBuild(), 'a', { zone: 'rear-bumper', uM: 0.3 }), refs, 1, colour);
  const grouped = changeModules(addGroup(lamp, { id: 'g', name: 'G' }), refs, { groupId: 'g' });
  return setCue(grouped, 'stage-2', groupTarget('g'), 1, lightCue(groupTarget('g'), 1, 'steady'));
}

describe('what the agency asks for', () => {
  const lamp = put(emptyBuild(), 'a', { zone: 'rear-bumper', uM: 0.3 });

  test('nothing below a height: the housing’s lowest edge against the limit', () => {
    const lowest = (heightM: number) => wish(lamp, { kind: 'lowest-lamp', ...base, heightM });
    const [said] = lowest(0.9);
    const mm = Number(/edge at (\d+) mm/.exec(said ?? '')?.[1]);
    expect(lowest(mm / 1000)).toEqual([]);
    expect(lowest((mm + 2) / 1000)).toHaveLength(1);
    expect(lowest(1)).toEqual([`Rear bumper R: lower edge at ${mm} mm (minimum 1000 mm).`]);
  });

  test('no holes, there or at all; a bracket makes none', () => {
    expect(wish(lamp, { kind: 'no-holes', ...base, zoneIds: [] })).toEqual([
      'Rear bumper R: 3 holes in Rear bumper (mounting: drill).',
    ]);
    expect(wish(lamp, { kind: 'no-holes', ...base, zoneIds: ['grille'] })).toEqual([]);
    const held = changePlacement(lamp, 'a', { fixing: 'bracket' });
    expect(wish(held, { kind: 'no-holes', ...base, zoneIds: [] })).toEqual([]);
  });

  test('only these colours, never that colour, by side', () => {
    const never: Requirement = { kind: 'never-colours', ...base, colours: ['blue'], faces: ['rear'] };
    const only: Requirement = { kind: 'only-colours', ...base, colours: ['red'], faces: ['rear'] };
    expect(wish(rearLamp('blue'), never)[0]).toMatch(
      /^Blue to the rear: 1,270 cd combined at 180° \(limit 5 cd\), from Rear bumper R\./,
    );
    expect(wish(rearLamp('blue'), only)).toHaveLength(1);
    expect(wish(rearLamp('red'), never)).toEqual([]);
    expect(wish(rearLamp('red'), only)).toEqual([]);
    expect(wish(rearLamp('blue'), { ...never, faces: ['front'] })).toEqual([]);
  });

  test('unseen when off: a smoked lens or a place inside', () => {
    const unseen: Requirement = { kind: 'unseen-when-off', ...base, atMost: 0 };
    expect(wish(lamp, unseen)).toEqual(['Lamps visible when off: Rear bumper R.']);
    expect(wish(changePlacement(lamp, 'a', { lensTransmission: 0.5 }), unseen)).toEqual([]);
    expect(wish(put(emptyBuild(), 'a', { zone: 'hatch-lip', fixture: 'hatch-lip-head' }), unseen)).toEqual(
      [],
    );
    expect(wish(lamp, { ...unseen, atMost: 1 })).toEqual([]);
  });

  test('money: what is new counts, what is kept does not', () => {
    const cost = countsOf(lamp).costMinor;
    const most = (minor: number): Requirement => ({ kind: 'spend-at-most', ...base, minor });
    expect(wish(lamp, most(cost))).toEqual([]);
    expect(wish(lamp, most(cost - 100))[0]).toMatch(/^Fixture cost: 98 EUR \(limit 97 EUR\)\./);
    expect(wish(changePlacement(lamp, 'a', { status: 'kept' }), most(0))).toEqual([]);
  });

  test('keep a head, leave a factory lamp', () => {
    const keep: Requirement = { kind: 'keep-head', ...base, placementId: 'a' };
    expect(wish(lamp, keep)[0]).toMatch(/^Lamp to be kept, Rear bumper R: status is new, required: kept\./);
    expect(wish(changePlacement(lamp, 'a', { status: 'kept' }), keep)).toEqual([]);
    expect(wish(emptyBuild(), keep)[0]).toMatch(/^Lamp to be kept, deleted lamp: no longer exists\./);
    const [factory] = lookupOf(lamp).vehicle.factoryLamps;
    const leave: Requirement = { kind: 'leave-factory-lamp', ...base, lampId: factory?.id ?? '' };
    expect(wish(lamp, leave)).toEqual([]);
    expect(wish(lamp, { ...leave, lampId: 'no-such' })[0]).toMatch(
      /^The factory lamp of this requirement no longer exists\./,
    );
  });

  test('spare outputs: channels lit alike share one; of what nothing lights yet each colour has its own', () => {
    const ref = (id: string) => [{ placementId: id, moduleId: 'm1' }];
    const used = (build: Build): number => {
      const [text = '0'] = wish(build, { kind: 'spare-outputs', ...base, outputs: 1, spare: 1 });
      return Number.parseInt(text, 10);
    };
    const four = ['grille', 'front-bumper', 'hatch-panel-left', 'hatch-panel-right'].reduce(
      (b, zone) => put(b, zone, { zone }),
      addGroup(emptyBuild(), { id: 'g', name: 'G' }),
    );
    expect(used(four)).toBe(4);
    const all = four.placements.flatMap((p) => ref(p.id));
    const flashing = (cues: Cue[]): Build =>
      changeEffect(changeModules(four, all, { groupId: 'g' }), 'stage-2', { cues });
    const lit = flashing([lightCue(groupTarget('g'), 1, 'double')]);
    expect(used(lit)).toBe(1);
    expect(used(changeModules(lit, ref('grille'), { phase: 'B' }))).toBe(2);
    expect(used(changeModules(lit, ref('grille'), { groupId: null }))).toBe(2);
    const keyed = addFunction(
      putSet(lit, fixedSet('s', 'S', ref('grille'))),
      newFunction('k', 'K', 'light', { way: 'always' }, [lightCue({ kind: 'set', setId: 's' }, 1, 'steady')]),
    );
    expect(used(keyed)).toBe(2);
    const white = setColour(lit, ref('grille'), 2, 'white');
    expect(used(white)).toBe(1);
    expect(used(changePlacement(white, 'grille', { status: 'planned' }))).toBe(1 + 2);
    const two = setColour(lamp, [{ placementId: 'a', moduleId: 'm1' }], 2, 'white');
    const spare = (outputs: number): Requirement => ({ kind: 'spare-outputs', ...base, outputs, spare: 4 });
    expect(wish(two, spare(6))).toEqual([]);
    expect(wish(two, spare(5))).toEqual(['2 of 5 outputs used, 3 spare (minimum 4).']);
  });

  test('stay visible with the hatch up: the bumper does, the hatch does not', () => {
    const stay = (zone: string): Requirement => ({
      kind: 'stay-visible',
      ...base,
      zoneIds: [zone],
      open: ['hatch'],
    });
    expect(wish(lamp, stay('rear-bumper'))).toEqual([]);
    expect(wish(put(emptyBuild(), 'a', { zone: 'hatch-panel-left' }), stay('hatch-panel-left'))[0]).toMatch(
      /^Hatch panel left: 0 % of its light to the rear remains at 175°–184° with hatch open \(minimum 50 %\)\./,
    );
    expect(wish(lamp, stay('grille'))[0]).toMatch(/^Grille: no lamp stays visible with hatch open\./);
    expect(wish(lamp, stay('moon'))[0]).toMatch(/^The zone of this requirement no longer exists\./);
  });
});

describe('what is left with parts open is judged by direction', () => {
  const stay = (zoneIds: string[], open = ['hatch']): Requirement => ({
    kind: 'stay-visible',
    ...base,
    zoneIds,
    open,
  });
  test('a roof bar behind a raised hatch is told where it goes dark, though it shines on to the front', () => {
    const [said] = wish(put(emptyBuild(), 'bar', { zone: 'roof', fixture: 'roof-bar-1200' }), stay(['roof']));
    expect(said).toMatch(
      /^Roof: 0 % of its light to the rear remains at 175°–184° with hatch open \(minimum 50 %\)\./,
    );
  });
  test.each([
    [
      'mirror-left',
      'door-front-left',
      'Mirror left: 0 % of its light to the left',
      '285°–294° with front left door open',
    ],
    [
      'mirror-right',
      'door-front-right',
      'Mirror right: 0 % of its light to the right',
      '55°–64° with front right door open',
    ],
    ['spoiler', 'hatch', 'Spoiler: 0 % of its light to the rear', '175°–184° with hatch open'],
  ])('the side that goes dark is named: %s', (zone, open, what, where) =>
    expect(wish(put(emptyBuild(), 'a', { zone }), stay([zone], [open]))).toEqual([
      `${what} remains at ${where} (minimum 50 %).`,
    ]),
  );
  test('a lamp planned for later does not light its zone', () => {
    const planned = put(emptyBuild(), 'a', { zone: 'rear-bumper', uM: 0.3, status: 'planned' });
    expect(wish(planned, stay(['rear-bumper']))[0]).toMatch(
      /^Rear bumper: no lamp stays visible with hatch open\./,
    );
  });
  test('what does not open is named', () => {
    expect(wish(put(emptyBuild(), 'a', { zone: 'grille' }), stay(['grille'], ['moon-roof']))[0]).toMatch(
      /^A moving part of this requirement no longer exists\./,
    );
  });
});

describe('wishes by face and by what becomes of a head', () => {
  const lamp = put(emptyBuild(), 'a', { zone: 'rear-bumper', uM: 0.3 });
  test('nothing below a height to the front leaves the rear alone', () => {
    const low = (faces: ('front' | 'rear')[]): Requirement => ({
      kind: 'lowest-lamp',
      ...base,
      heightM: 3,
      faces,
    });
    expect(wish(lamp, low(['front']))).toEqual([]);
    expect(wish(lamp, low(['front', 'rear']))).toHaveLength(1);
    const round = put(emptyBuild(), 'b', { zone: 'roof', fixture: 'legacy-rotator' });
    expect(wish(round, low(['front']))).toHaveLength(1);
  });
  test('a head kept anywhere may be reused elsewhere, but not taken out', () => {
    const keep = (where: 'where it is' | 'anywhere'): Requirement => ({
      kind: 'keep-head',
      ...base,
      placementId: 'a',
      where,
    });
    const as = (status: 'kept' | 'reused' | 'removed') => changePlacement(lamp, 'a', { status });
    expect(wish(as('kept'), keep('anywhere'))).toEqual([]);
    expect(wish(as('reused'), keep('anywhere'))).toEqual([]);
    expect(wish(as('reused'), keep('where it is'))[0]).toMatch(
      /^Lamp to be kept, Rear bumper R: status is reused, required: kept\./,
    );
    expect(wish(as('removed'), keep('anywhere'))[0]).toMatch(
      /^Lamp to be kept, Rear bumper R: status is removed, required: kept or reused\./,
    );
  });
});

describe('editing the brief', () => {
  const FIRST: readonly (readonly [kind: string, name: string, sentence: string])[] = [
    ['lowest-lamp', 'Nothing below a height', 'Nothing below 400 mm from the ground'],
    ['no-holes', 'No holes', 'No holes at all'],
    ['only-colours', 'Only these colours to a side', 'Only red, amber to the rear'],
    ['never-colours', 'Never these colours to a side', 'No white to the rear'],
    ['unseen-when-off', 'Unseen when off', 'Unseen when off'],
    ['spend-at-most', 'Spend at most', 'Fixtures for at most 5,000 EUR'],
    ['keep-head', 'Keep a head', 'Keep "Rear bumper" where it is'],
    ['leave-factory-lamp', 'Leave a factory lamp alone', 'Leave the left tail lamp untouched'],
    ['spare-outputs', 'Leave outputs spare', 'At least 8 of 64 outputs stay spare'],
    ['stay-visible', 'Stay visible with parts open', 'Spoiler stays visible with hatch open'],
    ['behaviour', 'Control behaviour', 'Never, when Ignition is off: at least one lamp is lit'],
  ];
  test('what something is to be, word for word', () => {
    const build = addGroup(put(emptyBuild(), 'a', { zone: 'rear-bumper' }), { id: 'g', name: 'All behind' });
    const usual = { atLeast: 1, patternId: null, mostLevel: null, withinS: null };
    const says = (
      said: Pick<BehaviourRequirement, 'subject' | 'is'> & Partial<BehaviourRequirement>,
    ): string => subjectSentence(build, { ...usual, ...said });
    const all: BehaviourRequirement['subject'] = { kind: 'lamps', target: null, colours: [], faces: [] };
    const some: BehaviourRequirement['subject'] = {
      ...all,
      colours: ['red', 'white'],
      faces: ['rear', 'left'],
    };
    const group: BehaviourRequirement['subject'] = { ...all, target: groupTarget('g') };
    expect([
      says({ subject: all, is: 'lit' }),
      says({ subject: all, is: 'flashing', atLeast: 2 }),
      says({ subject: all, is: 'dark', withinS: 2.5 }),
      says({ subject: all, is: 'at most', mostLevel: 0.3 }),
      says({ subject: all, is: 'in two colours' }),
      says({ subject: group, is: 'in two colours', atLeast: 3 }),
      says({ subject: all, is: 'in pattern', patternId: 'single' }),
      says({ subject: group, is: 'in pattern', patternId: 'single', atLeast: 4 }),
      says({ subject: some, is: 'lit' }),
      says({ subject: some, is: 'dark', atLeast: 2 }),
      says({ subject: some, is: 'at most', mostLevel: 0.3 }),
      says({ subject: group, is: 'lit' }),
      says({ subject: group, is: 'dark' }),
      says({ subject: { ...group, colours: ['amber'] }, is: 'steady', atLeast: 2 }),
      says({ subject: { kind: 'function', functionId: 'stage-2' }, is: 'on', withinS: 5 }),
      says({ subject: { kind: 'load', loadId: 'gone' }, is: 'off' }),
    ]).toEqual([
      'at least one lamp is lit',
      'at least 2 modules of all lamps are flashing',
      'all lamps are dark within 2.5 s',
      'all lamps are at most at 30 % of their light',
      'a head shows two colours of all lamps',
      'at least 3 heads show two colours of All behind',
      'all lamps: all lit lamps use pattern “Single flash”',
      'All behind: all lit lamps use pattern “Single flash”, at least 4 modules',
      'red, white of at least one lamp to the rear, left is lit',
      'red, white of all lamps to the rear, left is dark',
      'red, white of all lamps to the rear, left is at most at 30 % of its light',
      'All behind is lit',
      'All behind is dark',
      'at least 2 modules of amber of All behind are steady',
      'Stage 2 is on within 5 s',
      'deleted output is off',
    ]);
  });

  test('every kind, word for word; it can be put down and reads back', () => {
    const build = put(emptyBuild(), 'a', { zone: 'rear-bumper' });
    const all = REQUIREMENT_KINDS.map((kind) => {
      const first = kind.first(build, 'w1');
      if (first === null) throw new Error(kind.kind);
      const put1 = addRequirement(build, first);
      expect(readBuild(put1)).toEqual(put1);
      return [kind.kind, kind.name, describeRequirement(put1, first)];
    });
    expect(all).toEqual(FIRST);
    expect(keepHead.first(emptyBuild(), 'w1')).toBeNull();
  });

  test('changed and taken away by id; the answers apart from them', () => {
    const one = addRequirement(emptyBuild(), { kind: 'lowest-lamp', ...base, heightM: 0.3 });
    const changed = changeRequirement(one, { kind: 'lowest-lamp', ...base, heightM: 0.4 });
    expect(changed.brief.constraints).toEqual([{ kind: 'lowest-lamp', ...base, heightM: 0.4 }]);
    expect(removeRequirement(changed, 'w').brief.constraints).toEqual([]);
    expect(changeBrief(one, { agency: 'Kestrel Sound' }).brief.constraints).toEqual(one.brief.constraints);
  });
});
