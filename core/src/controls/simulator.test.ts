import { describe, expect, test } from 'vitest';
import { demoBuild } from '../../test/reference/demo.ts';
import { emptyBuild } from '../../test/reference/places.ts';
import { newFunction, shown, type ControlFunction, type When } from '../design/functions.ts';
import type { InputEvent } from '../design/condition.ts';
import { addFunction, withControls } from '../design/controlEdits.ts';
import type { Build } from '../design/schema.ts';
import { defaultControls } from '../design/usualControls.ts';
import { loadsIn, onsIn, ControlProgram, compileProgram } from './program.ts';
import { readScript, stepText } from './script.ts';
import { play, runTest } from './controlTest.ts';

const arrives = (input: string, value: string): InputEvent => ({ kind: 'arrives', input, value });
const gear = (value: string): When => ({
  way: 'while',
  condition: { kind: 'is', input: 'gear', values: [value] },
  afterMs: 0,
  staysMs: 0,
});
const fn = (id: string, when: When, more: Partial<ControlFunction> = {}): ControlFunction =>
  newFunction(id, id, 'warning', when, [], more);
const withFunctions = (...functions: ControlFunction[]): Build =>
  functions.reduceRight((b, f) => addFunction(b, f, 0), emptyBuild());

/** What is on after each step; "✕" where the step does not happen. Off, which the slide brings, is left out. */
function run(build: Build, script: string): string[] {
  const programme = compileProgram(build);
  return play(programme, readScript(programme, script, 'script')).map(({ running, refused }) =>
    refused
      ? '✕'
      : onsIn(programme, running.state)
          .filter((on) => on !== 'off')
          .join('+'),
  );
}

describe('timers', () => {
  test('begins after, stays longer, and what comes back while it stays keeps it on', () => {
    const build = withFunctions(
      fn('f', { ...gear('drive'), way: 'while', afterMs: 1000, staysMs: 2000 } as When),
    );
    expect(
      run(build, 'gear=drive, wait=999, wait=1, gear=park, wait=1999, gear=drive, gear=park, wait=2000'),
    ).toEqual(['', '', 'f', 'f', 'f', 'f', 'f', '']);
  });
  test('a wait that ends early is no wait', () => {
    const build = withFunctions(
      fn('f', { ...gear('drive'), way: 'while', afterMs: 1000, staysMs: 0 } as When),
    );
    expect(run(build, 'gear=drive, wait=500, gear=park, gear=drive, wait=999, wait=1')).toEqual([
      '',
      '',
      '',
      '',
      '',
      'f',
    ]);
  });
  test('a timeout begins anew with each event that sets, and runs on while the function is disabled', () => {
    const when: When = {
      way: 'latched',
      sets: [arrives('brake', 'down')],
      clears: [],
      toggles: [],
      timeoutMs: 1000,
    };
    const build = withFunctions(
      fn('f', when, { enabledBy: { kind: 'not', of: { kind: 'is', input: 'gear', values: ['reverse'] } } }),
    );
    expect(run(build, 'brake=down, wait=900, brake=up, brake=down, wait=900, wait=100')).toEqual([
      'f',
      'f',
      'f',
      'f',
      'f',
      '',
    ]);
    expect(run(build, 'brake=down, gear=reverse, wait=1000, gear=park')).toEqual(['f', '', '', '']);
  });
});

describe('memory', () => {
  const toggled = (input: string, clears: InputEvent[] = []): When => ({
    way: 'latched',
    sets: [],
    clears,
    toggles: [arrives(input, 'down'), arrives(input, 'on')],
    timeoutMs: 0,
  });
  test('a function that is not enabled comes back as it was, or has forgotten', () => {
    const inDrive = { kind: 'is', input: 'gear', values: ['drive'] } as const;
    const keeps = withFunctions(fn('f', toggled('brake'), { enabledBy: inDrive }));
    const forgets = withFunctions(fn('f', toggled('brake'), { enabledBy: inDrive, forgets: true }));
    const script = 'gear=drive, brake=down, gear=park, gear=drive';
    expect(run(keeps, script)).toEqual(['', 'f', '', 'f']);
    expect(run(forgets, script)).toEqual(['', 'f', '', '']);
    // Disabled it ignores the event.
    expect(run(keeps, 'brake=down, gear=drive')).toEqual(['', '']);
  });
  test('clears win over sets, sets over toggles', () => {
    const event = arrives('fog', 'on');
    const when: When = { way: 'latched', sets: [event], clears: [event], toggles: [event], timeoutMs: 0 };
    expect(run(withFunctions(fn('f', when)), 'fog=on')).toEqual(['']);
    expect(run(withFunctions(fn('f', { ...when, clears: [] })), 'fog=on, fog=off, fog=on')).toEqual([
      'f',
      'f',
      'f',
    ]);
  });
  test('one of a choice puts the others out; of several at once the strongest stays', () => {
    const build = withFunctions(
      fn('a', toggled('brake'), { choiceId: 'c' }),
      fn('b', toggled('fog'), { choiceId: 'c' }),
    );
    expect(run(build, 'brake=down, fog=on')).toEqual(['a', 'b']);
    const both = withFunctions(
      fn('a', toggled('fog'), { choiceId: 'c' }),
      fn('b', toggled('fog'), { choiceId: 'c' }),
    );
    expect(run(both, 'fog=on')).toEqual(['a']);
    // Two choices that one event settles are settled each by itself.
    const twice = withFunctions(
      ...(['a', 'b'] as const).map((id) => fn(id, toggled('fog'), { choiceId: 'c' })),
      ...(['x', 'y'] as const).map((id) => fn(id, toggled('fog'), { choiceId: 'd' })),
    );
    expect(run(twice, 'fog=on')).toEqual(['a+x']);
  });
  test('a cycle goes through its numbers, then off or round again', () => {
    const when: When = {
      way: 'cycle',
      sets: [],
      steps: [arrives('brake', 'down')],
      clears: [arrives('fog', 'on')],
      wraps: 'off',
      timeoutMs: 0,
    };
    const two = { shows: [shown([]), shown([])] };
    const script = 'brake=down, brake=up, brake=down, brake=up, brake=down';
    expect(run(withFunctions(fn('f', when, two)), script)).toEqual(['f', 'f', 'f:2', 'f:2', '']);
    expect(run(withFunctions(fn('f', { ...when, wraps: 'first' }, two)), script).at(-1)).toBe('f');
    expect(run(withFunctions(fn('f', when, two)), 'brake=down, fog=on').at(-1)).toBe('');
  });
});

describe('inputs', () => {
  test('what cannot happen together does not happen, and what follows comes before that is asked', () => {
    const shore = { kind: 'is', input: 'shore', values: ['no'] } as const;
    const running = { kind: 'is', input: 'engine', values: ['running'] } as const;
    const never = withControls(withFunctions(fn('f', gear('drive'))), {
      never: [{ when: running, then: shore }],
    });
    expect(run(never, 'shore=yes, engine=running')).toEqual(['', '✕']);
    const ejects = withControls(never, {
      follows: [{ input: 'engine', values: ['running'], follower: 'shore', takes: 'no' }],
    });
    expect(run(ejects, 'shore=yes, engine=running')).toEqual(['', '']);
  });
  test('of what follows one move, each is moved once, and by the first that says so', () => {
    const follows = (takes: string) => ({ input: 'engine', values: ['running'], follower: 'shore', takes });
    const shown = withControls(
      withFunctions(
        fn('f', {
          way: 'while',
          condition: { kind: 'is', input: 'shore', values: ['yes'] },
          afterMs: 0,
          staysMs: 0,
        }),
      ),
      {
        follows: [follows('yes'), follows('no')],
      },
    );
    expect(run(shown, 'engine=running')).toEqual(['f']);
  });
  test('an input that stands there already does not move', () =>
    expect(run(withFunctions(fn('f', gear('park'))), 'gear=park, gear=drive')).toEqual(['✕', '']));
  test('a master switch speaks for all but those that go without it', () => {
    const build = withControls(
      withFunctions(fn('a', { way: 'always' }), fn('b', { way: 'always' }, { withoutMaster: true })),
      { enabledBy: { kind: 'is', input: 'ignition', values: ['on'] } },
    );
    expect(run(build, 'gear=drive, ignition=on')).toEqual(['b', 'a+b']);
  });
  test('the strongest function sets a load', () => {
    const tone = (value: string) => ({ shows: [shown([], { loads: [{ loadId: 'siren', value }] })] });
    const build = withControls(
      withFunctions(fn('a', gear('drive'), tone('yelp')), fn('b', { way: 'always' }, tone('wail'))),
      { loads: [{ id: 'siren', name: 'Siren', values: ['off', 'wail', 'yelp'] }] },
    );
    const programme = compileProgram(build);
    const after = (script: string) => {
      const last = play(programme, readScript(programme, script, 's')).at(-1);
      return last === undefined ? null : loadsIn(programme, last.running.state).get('siren');
    };
    expect(after('brake=down')).toBe('wail');
    expect(after('gear=drive')).toBe('yelp');
  });
});

describe('scripts', () => {
  const programme = compileProgram(withFunctions(fn('f', gear('drive'))));
  test('read back as they were written', () => {
    const text = 'ignition=on, slide=2, wait=5000';
    expect(readScript(programme, text, 's').map(stepText).join(', ')).toBe(text);
  });
  test('a value that has a comma, a quote or a blank at its end stands in quotes', () => {
    const values = ['plain', 'slow, rear', 'say "now"', ' led'];
    const told = new ControlProgram([{ id: 'mode', name: 'Mode', values, source: 'own', byHand: true }], {
      ...defaultControls(),
      panels: [],
      functions: [],
      enabledBy: null,
      never: [],
      follows: [],
    });
    const text = 'mode="slow, rear", mode="say ""now""", mode=" led", wait=5, mode=plain';
    const steps = readScript(told, text, 's');
    expect(steps.map((s) => (s.kind === 'event' && s.event.kind === 'arrives' ? s.event.value : ''))).toEqual(
      ['slow, rear', 'say "now"', ' led', '', 'plain'],
    );
    expect(steps.map(stepText).join(', ')).toBe(text);
    expect(() => readScript(told, 'mode="slow', 's')).toThrow('s[0]');
  });
  test.each([
    ['slide', "s[0]: 'slide' must be written as input=value"],
    ['wait=soon', "s[0]: 'wait=soon' must wait for 1 to 86400000 whole milliseconds"],
    ['slide=2, slide=9', "s[1]: 'slide' is never '9', only off, 1, 2, 3"],
    ['ghost=on', "s[0]: no input 'ghost'; there are slide,"],
    ['a+b=chord', "s[0]: no button 'a'"],
  ])('%s is one error that names its place', (text, message) =>
    expect(() => readScript(programme, text, 's')).toThrow(message),
  );
});

test('a trial tells what is missing and what is on besides', () => {
  const programme = compileProgram(withFunctions(fn('f', gear('drive'))));
  const steps = readScript(programme, 'gear=drive', 's');
  const outcome = runTest(programme, { id: 't', name: 'T', steps, on: ['stage-1', 'off'] });
  expect(outcome.missing).toEqual(['stage-1']);
  expect(outcome.surplus).toEqual(['f']);
});

test('a chord is of two buttons: not of one, nor of one twice', () => {
  const keyed = compileProgram(demoBuild('ks-13'));
  for (const text of ['key-white=chord', 'key-white+=chord'])
    expect(() => readScript(keyed, text, 's')).toThrow("s[0]: no button ''");
  expect(() => readScript(keyed, 'key-white+key-white=chord', 's')).toThrow(
    's[0]: a chord is of two different buttons',
  );
});
