import { expect, test } from 'vitest';
import { emptyBuild, put } from '../../test/reference/places.ts';
import { seenFrom } from '../coverage/seen.ts';
import { compileProgram } from '../controls/program.ts';
import { readScript } from '../controls/script.ts';
import { Wording } from '../controls/sentence.ts';
import { initialSimulation } from '../controls/simulator.ts';
import { play } from '../controls/controlTest.ts';
import { lookupOf } from '../resolve/lookup.ts';
import { placeFixture, placeModules } from '../resolve/place.ts';
import { readBuild } from '../rules/document.ts';
import { ofKind } from '../../test/reference/places.ts';
import { stateIn } from '../state/running.ts';
import { openText, statesOf, stateWith } from '../state/state.ts';
import { addFunction } from './controlEdits.ts';
import { lightCue, newFunction } from './functions.ts';
import { inputsOf } from './inputs.ts';
import { lampMoves, posed } from './lampMoves.ts';
import type { Build } from './schema.ts';

/** A head on the grille that can be turned 60° to the right, lit while nothing else is asked. */
const turning = (): Build =>
  addFunction(
    put(emptyBuild(), 'spot', {
      zone: 'grille',
      aims: [{ id: 'right', name: 'to the right', panDeg: 60, tiltDeg: 0 }],
      heights: [{ id: 'up', name: 'raised', poleM: 0.3 }],
    }),
    newFunction('lit', 'Lit', 'light', { way: 'always' }, [lightCue({ kind: 'ungrouped' }, 1, 'steady')]),
    0,
  );
const stop = 'aim.spot=right';

test('a lamp that turns is an input that rests at home; it and its stops are named', () => {
  const build = turning();
  const ids = inputsOf(build).filter(({ id }) => id.endsWith('.spot'));
  expect(ids.map(({ id, values, byHand }) => [id, values, byHand])).toEqual([
    ['aim.spot', ['home', 'right'], true],
    ['height.spot', ['home', 'up'], true],
  ]);
  const wording = new Wording(build);
  expect(wording.value('aim.spot', 'right')).toBe('to the right');
  expect(wording.value('aim.spot', 'home')).toBe('home');
  expect(openText(build, [stop])).toMatch(/, aim to the right$/);
  expect(statesOf(build).filter(({ open }) => open.includes(stop))).toHaveLength(8);
});

test('turned, its light goes where it aims; raised, it stands higher', () => {
  const build = turning();
  const cd = (bearingDeg: number, open: string[]): number => {
    const seen = seenFrom(build, stateWith({ on: ['lit'], open }), { bearingDeg, elevationDeg: 0 }, 1);
    return seen.steadyCd;
  };
  expect(cd(60, [stop])).toBeGreaterThan(3 * cd(60, []));
  expect(cd(0, [])).toBeGreaterThan(3 * cd(0, [stop]));
  const lookup = lookupOf(build);
  const [lamp] = build.placements;
  if (lamp === undefined) throw new Error('there is a lamp');
  const base = (open: string[]) => placeFixture(lookup, lamp, new Set(open)).base;
  const [down, up] = [base([]), base(['height.spot=up'])];
  expect(Math.hypot(up[0] - down[0], up[1] - down[1], up[2] - down[2])).toBeCloseTo(0.3, 9);
  expect(placeModules(lookup, lamp, new Set([stop]))[0]?.frame.aim[1]).toBeLessThan(-0.8);
});

test('operated by the controls, it moves; a lamp of which nothing moves is itself', () => {
  const build = turning();
  const programme = compileProgram(build);
  const played = play(programme, readScript(programme, 'aim.spot=right', 'script'));
  const running = played.at(-1)?.running ?? initialSimulation(programme);
  expect(stateIn(programme, running).open).toEqual([stop]);
  const still = put(emptyBuild(), 'a', { zone: 'grille' }).placements[0];
  if (still === undefined) throw new Error('there is a lamp');
  expect(posed(still, new Set([stop]))).toBe(still);
  expect(lampMoves({ placements: [still] })).toEqual([]);
});

test('its mirrored partner turns the other way; an aim beyond its reach is found; two of one id are refused', () => {
  const build = put(emptyBuild(), 'a', {
    fixture: 'door-spotlight',
    zone: 'grille',
    aims: [{ id: 'far', name: 'far', panDeg: 179, tiltDeg: 0 }],
  });
  expect(ofKind(build, 'aim-range').map((f) => f.sentence)).toEqual([
    expect.stringMatching(/^Grille: panned 179° \(range ±120°\)\./),
  ]);
  const [lamp] = build.placements;
  const twice = (id: string): Build => ({
    ...build,
    placements: build.placements.map((p) => ({
      ...p,
      aims: [...p.aims, { ...p.aims[0], id, name: 'x', panDeg: 0, tiltDeg: 0 }],
    })),
  });
  expect(lamp?.aims).toHaveLength(1);
  expect(() => readBuild(twice('far'))).toThrow(/placements\[0\]\.aims\[1\]\.id: 'far' is used twice/);
  expect(() => readBuild(twice('home'))).toThrow(/aims\[1\]\.id: 'home' is how the lamp was put/);
});
