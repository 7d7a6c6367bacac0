import { describe, expect, test } from 'vitest';
import { documentsOf } from '../../../test/reference/older.ts';
import { put } from '../../../test/reference/places.ts';
import { compileProgram } from '../../controls/program.ts';
import { readScript } from '../../controls/script.ts';
import { play } from '../../controls/controlTest.ts';
import { addFunction, controlsFailure, withControls } from '../../design/controlEdits.ts';
import { functionAt } from '../../design/controls.ts';
import { lightCue, newFunction } from '../../design/functions.ts';
import type { Build } from '../../design/schema.ts';
import { conflictingControls } from '../../rules/controls/leads.ts';
import { LayoutSubject } from '../../rules/layout/subject.ts';
import { readBuild } from '../../rules/document.ts';
import { drivenIn } from '../../state/driven.ts';
import { stateIn } from '../../state/running.ts';
import { CONTROL_TEMPLATES } from '../controlTemplates.ts';
import { setColour } from '../lamps.ts';
import { forUse, shining, withRuledSet } from '../lampSets.ts';
import { FACES } from '../../words/face.ts';
import { membersOf } from '../../resolve/setMembers.ts';
import { candidatesOf } from '../../resolve/candidates.ts';
import { sweepStepMs } from './arrow.ts';
import { all, any, is, isOn, applyTemplate, ofSet, press } from './kit.ts';
import { FUNCTION_TEMPLATES } from './functionTemplates.ts';

/** The patrol car as it was before it had a programme. */
const car = (): Build => readBuild(documentsOf('schema-4')['ks-12']);
const command = (): Build => readBuild(documentsOf('schema-4')['incident-command']);

function laid(build: Build, ...ids: string[]): Build {
  const on = ids.reduce((b, id) => {
    const found = [...FUNCTION_TEMPLATES.filter((f) => f.misfit(b) === null), ...CONTROL_TEMPLATES].find(
      (f) => f.id === id,
    );
    if (found === undefined) throw new Error(`${id} cannot be laid here`);
    return found.applyTemplate(b);
  }, build);
  expect(controlsFailure(on)).toBeNull();
  return on;
}

/** Operates a build from rest; what is then on. */
function after(build: Build, script: string) {
  const programme = compileProgram(build);
  const played = play(programme, readScript(programme, script, 'script'));
  const last = played.at(-1);
  if (last === undefined || played.some((p) => p.refused)) throw new Error(`${script} does not happen`);
  return { running: last.running, state: stateIn(programme, last.running) };
}
const on = (build: Build, script: string): readonly string[] => after(build, script).state.on;

/** What every lit module shows, by module. */
const lit = (build: Build, script: string): ReadonlyMap<string, string> =>
  new Map(
    drivenIn(build, after(build, script).state)
      .filter((d) => d.spans.length > 0)
      .map((d) => [`${d.placementId}/${d.moduleId}`, `${d.colour} ${d.steady ? 'steady' : d.patternId}`]),
  );
const modulesOf = (build: Build, ...setIds: string[]): string[] => [
  ...new Set(setIds.flatMap((setId) => [...membersOf(build, { kind: 'set', setId })])),
];
const ALL_ROUND = FACES.map((face) => `scene-${face}`);
const sirenIn = (build: Build, script: string): boolean =>
  on(build, script).some((key) => key.startsWith('siren'));

/** A bar with white to all sides, as roof bars for such work have. */
function whiteAllRound(): Build {
  const build = car();
  const bar = build.placements.find((p) => p.modules.length > 8);
  if (bar === undefined) throw new Error('the car has a bar');
  const modules = bar.modules.map(({ id }) => ({ placementId: bar.id, moduleId: id }));
  return setColour(build, modules, 2, 'white');
}

describe('scene light borrows modules of the bar while the rest goes on flashing', () => {
  const build = laid(whiteAllRound(), 'slide-eight', 'scene-round');
  const flashing = lit(build, 'ignition=on, slide=3');
  test.each([
    ['front', 'key-white', ['white-ahead']],
    ['left', 'key-alley-left', ['alley-left']],
    ['right', 'key-alley-right', ['alley-right']],
    ['all round', 'key-scene-round', ALL_ROUND],
  ])('%s', (_, key, setIds) => {
    const borrowed = new Set(modulesOf(build, ...setIds));
    const shown = lit(build, `ignition=on, slide=3, ${key}=press`);
    const bar = build.placements.find((p) => p.modules.length > 8)?.id ?? '';
    const ofBar = [...flashing.keys()].filter((id) => id.startsWith(`${bar}/`));
    expect(ofBar.some((id) => borrowed.has(id))).toBe(true);
    expect(ofBar.some((id) => !borrowed.has(id))).toBe(true);
    for (const id of borrowed) expect(shown.get(id)).toBe('white steady');
    for (const [id, what] of flashing) if (!borrowed.has(id)) expect(shown.get(id)).toBe(what);
    expect(lit(build, `ignition=on, slide=3, ${key}=press, ${key}=press`)).toEqual(flashing);
    // And by itself, with no warning on.
    expect(new Set(lit(build, `ignition=on, ${key}=press`).keys())).toEqual(borrowed);
  });
  test('all round is light to four sides, and goes at speed', () => {
    const sides = new Set(modulesOf(build, ...ALL_ROUND).map((id) => id.split('/')[1]));
    expect(sides.size).toBeGreaterThanOrEqual(4);
    const fast = 'ignition=on, engine=running, gear=drive, key-scene-round=press, speed=slow, speed=fast';
    expect(on(build, fast)).not.toContain('scene-round');
  });
});

test('cruise burns below every stage, parade in place of it, at any position of the slide', () => {
  const build = laid(car(), 'slide-eight', 'cruise', 'parade');
  const cruise = lit(build, 'ignition=on, key-cruise=press');
  expect(cruise.size).toBeGreaterThan(0);
  for (const what of cruise.values()) expect(what).toMatch(/ steady$/);
  for (const position of ['1', '2', '3']) {
    const stage = lit(build, `ignition=on, slide=${position}`);
    const both = lit(build, `ignition=on, key-cruise=press, slide=${position}`);
    for (const [id, what] of stage) expect(both.get(id)).toBe(what);
    const parade = lit(build, `ignition=on, slide=${position}, key-parade=press`);
    const shown = new Set(modulesOf(build, 'all-warning').map((id) => parade.get(id)));
    expect(
      [...shown].every((what) => what?.endsWith(' slow-alternate') === true && !what.startsWith('white')),
    ).toBe(true);
  }
});

test('in park each stage is slow, lamp by lamp in its own colours, and quick again in drive', () => {
  const build = laid(car(), 'slide-eight', 'park-slow');
  for (const position of ['1', '2', '3']) {
    const quick = lit(build, `ignition=on, engine=running, gear=drive, slide=${position}`);
    const slow = lit(build, `ignition=on, slide=${position}`);
    expect(quick.size).toBeGreaterThan(0);
    expect(new Set(slow.keys())).toEqual(new Set(quick.keys()));
    for (const what of slow.values()) expect(what).toMatch(/ (slow-alternate|steady)$/);
    expect([...quick.values()].some((what) => !/ (slow-alternate|steady)$/.test(what))).toBe(true);
    const [mode] = on(build, `ignition=on, slide=${position}`)
      .map((id) => functionAt(build, id))
      .filter(({ mode: m }) => m !== null);
    expect(mode?.mode).toBe(Number(position));
  }
});

test.each([3, 8, 12, 24])('an arrow over %i columns runs 60 times a minute or faster', (columns) => {
  expect(columns * sweepStepMs(columns) + 240 + 250).toBeLessThanOrEqual(1000);
});
test('an arrow over as many columns as a row may have is still a pattern', () => {
  expect(sweepStepMs(64)).toBeGreaterThanOrEqual(10);
  expect(sweepStepMs(3)).toBe(140);
});

test('what is laid follows later lamps: fog cancel takes white of heads that come after it', () => {
  const build = laid(car(), 'slide-eight');
  const head = [{ placementId: 'late', moduleId: 'm1' }];
  const late = setColour(
    put(build, 'late', { zone: 'grille', fixture: 'perimeter-head-3' }),
    head,
    1,
    'white',
  );
  const flashing = addFunction(
    late,
    newFunction('late', 'Late', 'warning', { way: 'always' }, [
      lightCue({ kind: 'ungrouped' }, 'white', 'double'),
    ]),
  );
  expect(lit(flashing, 'ignition=on').get('late/m1')).toBe('white double');
  expect(lit(flashing, 'ignition=on, key-fog-cancel=press').has('late/m1')).toBe(false);
});

test('dark takes all light but signals: in reverse the reversing light still burns', () => {
  const build = laid(car(), 'slide-eight', 'all-dark');
  const dark = 'ignition=on, slide=3, key-white=press, key-all-dark=press';
  expect(lit(build, dark).size).toBe(0);
  const reverse = lit(build, `${dark}, engine=running, gear=reverse`);
  expect(new Set(reverse.keys())).toEqual(new Set(modulesOf(build, 'white-back')));
  expect(lit(build, `${dark}, key-all-dark=press`)).toEqual(
    lit(build, 'ignition=on, slide=3, key-white=press'),
  );
});

test('a door’s lamp is its own door’s alone: white when parked, its other colour in warning', () => {
  const marked = ['left', 'right'].reduce(
    (b, side) => put(b, `edge-${side}`, { fixture: 'perimeter-head-2', zone: `door-edge-front-${side}` }),
    car(),
  );
  const modules = ['left', 'right'].flatMap((side) =>
    (marked.placements.find((p) => p.id === `edge-${side}`)?.modules ?? []).map(({ id }) => ({
      placementId: `edge-${side}`,
      moduleId: id,
    })),
  );
  const coloured = setColour(setColour(marked, modules, 1, 'red'), modules, 2, 'white');
  const build = laid(coloured, 'slide-eight', 'door-lamps');
  const edge = (script: string) =>
    [...lit(build, script)]
      .filter(([id]) => id.startsWith('edge-'))
      .map(([id, what]) => `${id.split('/')[0]} ${what}`);
  expect(new Set(edge('part.door-front-left=door-front-left'))).toEqual(new Set(['edge-left white steady']));
  expect(new Set(edge('part.door-front-right=door-front-right'))).toEqual(
    new Set(['edge-right white steady']),
  );
  expect(new Set(edge('ignition=on, slide=2, part.door-front-left=door-front-left'))).toEqual(
    new Set(['edge-left red blink']),
  );
  expect(edge('ignition=on, slide=2')).toEqual([]);
});

test('the supplement is there only while the hatch is open, and goes by closing, by a key, or by a timer', () => {
  const { build: withSet } = withRuledSet(car(), 'under', 'Under', [shining('rear')]);
  const keyed = laid(withSet, 'slide-eight', 'all-dark');
  const key = 'key-all-dark';
  const returning = addFunction(
    keyed,
    newFunction(
      'held',
      'Hatch light, held',
      'warning',
      {
        way: 'latched',
        sets: [{ kind: 'arrives', input: 'part.hatch', value: 'hatch' }],
        clears: [{ kind: 'arrives', input: 'part.hatch', value: 'shut' }, press(key)],
        toggles: [],
        timeoutMs: 60_000,
      },
      [lightCue(ofSet('under'), 1, 'double')],
    ),
    0,
  );
  expect(controlsFailure(returning)).toBeNull();
  const isHeld = (script: string) => on(returning, `ignition=on, slide=2, ${script}`).includes('held');
  expect(isHeld('brake=down')).toBe(false);
  expect(isHeld('part.hatch=hatch, wait=59999')).toBe(true);
  expect(isHeld('part.hatch=hatch, wait=60000')).toBe(false);
  expect(isHeld(`part.hatch=hatch, ${key}=press`)).toBe(false);
  expect(isHeld('part.hatch=hatch, part.hatch=shut')).toBe(false);
  expect(isHeld(`part.hatch=hatch, ${key}=press, part.hatch=shut, part.hatch=hatch`)).toBe(true);
});

test('a rear switch that leads: what it stands at goes before the slide, and nobody asks who leads', () => {
  const build = laid(command(), 'slide-eight', 'leading-panel');
  const stages = (script: string) =>
    on(build, `ignition=on, ${script}`).filter((id) => id.startsWith('stage') || id === 'off');
  expect(stages('slide=2')).toEqual(['stage-2']);
  expect(stages('slide=2, rear-lead=3')).toEqual(['stage-3']);
  expect(stages('slide=2, rear-lead=off')).toEqual(['off']);
  expect(stages('slide=2, rear-lead=3, slide=1')).toEqual(['stage-3']);
  expect(stages('slide=2, rear-lead=3, slide=1, rear-lead=front')).toEqual(['stage-1']);
  expect(conflictingControls(new LayoutSubject(build))).toEqual([]);
});

test('emergency lights are the last stage’s, without the siren, and bring what joins that stage', () => {
  const build = laid(car(), 'slide-eight', 'emergency-lights');
  const emergency = lit(build, 'ignition=on, key-emergency=press');
  expect(emergency).toEqual(lit(build, 'ignition=on, slide=3'));
  expect(sirenIn(build, 'ignition=on, key-emergency=press, key-siren=press')).toBe(false);
  expect(sirenIn(build, 'ignition=on, slide=3, key-siren=press')).toBe(true);
  expect(on(build, 'ignition=on, key-emergency=press, part.hatch=hatch')).toContain('hatch-supplement');
  expect(on(build, 'ignition=on, key-emergency=press, key-emergency=press')).toEqual(['off']);
});

test('the siren steps by presses and stops when its key is held, from any tone', () => {
  const build = laid(car(), 'slide-eight');
  const siren = (script: string) =>
    on(build, `ignition=on, slide=3, ${script}`).filter((key) => key.startsWith('siren'));
  expect(siren('key-siren=press')).toEqual(['siren']);
  expect(siren('key-siren=press, key-siren=press')).toEqual(['siren:2']);
  expect(siren('key-siren=press, key-siren=long')).toEqual([]);
  expect(siren('key-siren=press, key-siren=press, key-siren=long')).toEqual([]);
});

test('a pattern key shows one pattern after another, then the stage’s own; held, its own at once', () => {
  const build = laid(car(), 'slide-eight', 'pattern-key');
  const ahead = modulesOf(build, 'ahead-warning');
  const patterns = (script: string) => {
    const shown = lit(build, `ignition=on, slide=3${script}`);
    return new Set(ahead.map((id) => shown.get(id)?.split(' ')[1]));
  };
  const press = ', key-pattern-key=press';
  expect(patterns(press)).toEqual(new Set(['double']));
  expect(patterns(press.repeat(2))).toEqual(new Set(['triple']));
  expect(patterns(press.repeat(3))).toEqual(patterns(''));
  expect(patterns(`${press}, key-pattern-key=long`)).toEqual(patterns(''));
});

test('a key for each way of the arrow, both together from the middle out, one at a time', () => {
  const build = laid(command(), 'slide-eight', 'arrow-keys');
  const arrows = (script: string) =>
    on(build, `ignition=on, ${script}`).filter((id) => id.startsWith('arrow'));
  expect(arrows('key-arrow-left=press')).toEqual(['arrow-left']);
  expect(arrows('key-arrow-left=press, key-arrow-right=press')).toEqual(['arrow-right']);
  expect(arrows('key-arrow-left=press, key-arrow-left+key-arrow-right=chord')).toEqual(['arrow-both']);
  expect(arrows('key-arrow-left+key-arrow-right=chord, key-arrow-left+key-arrow-right=chord')).toEqual([]);
  // Onsets move as they are called, from the left as seen from behind: y falls.
  const onsets = (script: string) =>
    drivenIn(build, after(build, `ignition=on, ${script}`).state)
      .filter((d) => modulesOf(build, 'arrow-row').includes(`${d.placementId}/${d.moduleId}`))
      .map((d) => ({ y: yOf(build, d.placementId, d.moduleId), ms: d.spans[0]?.fromMs ?? 0 }))
      .toSorted((a, b) => b.y - a.y)
      .map(({ ms }) => ms);
  const right = onsets('key-arrow-right=press');
  expect(right.length).toBeGreaterThanOrEqual(3);
  expect(right).toEqual(right.toSorted((a, b) => a - b));
  expect(new Set(right).size).toBe(right.length);
  expect(onsets('key-arrow-left=press')).toEqual(right.toReversed());
  const both = onsets('key-arrow-left+key-arrow-right=chord');
  expect(both).toEqual(both.toReversed());
  expect(Math.max(...both)).toBe(both[0]);
});

const yOf = (build: Build, placementId: string, moduleId: string): number =>
  candidatesOf(build).find((m) => m.placementId === placementId && m.moduleId === moduleId)?.module
    .centre[1] ?? 0;

test('main power cuts all that was built in, also what goes without the master; the ignition counts besides', () => {
  const bare = laid(car(), 'slide-eight', 'siren-pedestal');
  const stays = applyTemplate(
    withRuledSet(bare, 'one', 'One', [forUse('warning', 'factory')]).build,
    newFunction(
      'stays',
      'Stays',
      'light',
      { way: 'while', condition: is('locks', 'unlocked'), afterMs: 0, staysMs: 0 },
      [lightCue(ofSet('one'), 1, 'steady')],
      { withoutMaster: true, mayStay: true },
    ),
  );
  const always = newFunction('always', 'Always', 'load', { way: 'always' }, [], { withoutMaster: true });
  const fed = laid(withControls(stays, { functions: [...stays.controls.functions, always] }), 'main-power');
  expect(on(fed, 'brake=down')).toContain('always');
  expect(on(fed, 'main-power=off')).toEqual([]);
  const build = laid(stays, 'main-power');
  expect(lit(build, 'brake=down').size).toBeGreaterThan(0);
  const alive = 'ignition=on, slide=siren, key-white=press';
  expect(on(build, alive)).toEqual(on(stays, alive));
  expect(on(build, `${alive}, main-power=off`)).toEqual([]);
  expect(on(build, `${alive}, main-power=off, main-power=on`)).toEqual(on(stays, alive));
  expect(on(build, 'slide=2')).toEqual(['stays']);
  expect(readBuild(JSON.parse(JSON.stringify(build)))).toEqual(build);
});

test('what counts as a stage does so in conditions of any shape, but for outputs', () => {
  const build = laid(car(), 'slide-eight');
  const light = (id: string, condition: ReturnType<typeof is>, kind: 'warning' | 'load' = 'warning') =>
    newFunction(id, id, kind, { way: 'while', condition, afterMs: 0, staysMs: 0 }, []);
  const asked = [
    light('by-itself', isOn('stage-3')),
    light('by-any', any(isOn('stage-2'), isOn('stage-3'))),
    light('by-not', { kind: 'not', of: isOn('stage-3') }),
    light('by-all', all(isOn('stage-3'), is('gear', 'park'))),
    light('output', isOn('stage-3'), 'load'),
  ].reduce((b, fn) => withControls(b, { functions: [...b.controls.functions, fn] }), build);
  const emergency = laid(asked, 'emergency-lights');
  const mine = (script: string) =>
    on(emergency, script).filter((id) => id.startsWith('by-') || id === 'output');
  expect(mine('ignition=on, key-emergency=press').toSorted()).toEqual(['by-all', 'by-any', 'by-itself']);
  expect(mine('ignition=on, slide=3').toSorted()).toEqual(['by-all', 'by-any', 'by-itself', 'output']);
  expect(mine('ignition=on')).toEqual(['by-not']);
});

test('conditions at their longest: what is added goes beside them, and the build can still be stored', () => {
  const base = laid(car(), 'slide-eight');
  const longest = Array.from({ length: 12 }, (_, i) =>
    is('speed', ...(i % 2 === 0 ? ['standing', 'slow'] : ['standing'])),
  );
  const asked = withControls(base, {
    enabledBy: { kind: 'all', of: longest },
    functions: base.controls.functions.map((fn) =>
      fn.id === 'hatch-supplement'
        ? {
            ...fn,
            when: {
              way: 'while' as const,
              condition: any(...longest.slice(1), isOn('stage-3')),
              afterMs: 0,
              staysMs: 0,
            },
          }
        : fn,
    ),
  });
  const build = laid(asked, 'main-power', 'emergency-lights', 'leading-panel');
  expect(readBuild(JSON.parse(JSON.stringify(build)))).toEqual(build);
  expect(on(build, 'key-emergency=press, main-power=off')).toEqual([]);
});
