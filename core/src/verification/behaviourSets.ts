import { settled } from '../controls/step.ts';
import { onsIn, type ControlState, type Phase } from '../controls/program.ts';
import { onsOf, readOn, effectsOf } from '../design/controls.ts';
import type { Drive } from '../resolve/channels.ts';
import type { Ambient } from '../words/ambient.ts';
import type { Behaviour } from './behaviour.ts';
import { EVERY, NONE, type Diagram } from './diagrams.ts';
import { comesWithin } from './inTime.ts';
import { PHASES } from './parts.ts';
import type { VerificationSubject } from './subject.ts';

/** More states that are due are not followed one by one. */
const MOST_FOLLOWED = 5_000;

/** Sets of functions that are on together, told by their variables, in which a behaviour is as it says. */
export function whereSo(subject: VerificationSubject, behaviour: Behaviour, ambient: Ambient): Diagram {
  const { diagrams: d, program, build } = subject;
  const { subject: of, is } = behaviour;
  switch (of.kind) {
    case 'function': {
      const fn = subject.functions.find(({ id }) => id === of.functionId);
      const on = d.any(fn === undefined ? [] : onsOf(fn).map((one) => program.onVariable(one)));
      return is === 'on' ? on : d.not(on);
    }
    case 'load': {
      const off = build.controls.loads.find(({ id }) => id === of.loadId)?.values[0];
      let runs = NONE;
      // The strongest function that speaks of it wins, so the weakest is asked first.
      for (const on of subject.showing.ons.toReversed()) {
        const set = effectsOf(build, on).loads.find(({ loadId }) => loadId === of.loadId);
        if (set !== undefined) runs = d.ite(program.onVariable(on), set.value === off ? NONE : EVERY, runs);
      }
      return is === 'on' ? runs : d.not(runs);
    }
    case 'lamps':
      return lampsSo(subject, behaviour, ambient);
  }
}

/** The same of lamps: module by module what lights, and how many. */
function lampsSo(subject: VerificationSubject, behaviour: Behaviour, ambient: Ambient): Diagram {
  const { diagrams: d, judge, showing } = subject;
  const { is, atLeast } = behaviour;
  const counted: (readonly { readonly when: Diagram; readonly drives: readonly Drive[] }[])[] = [];
  for (const cell of subject.cells) {
    if (cell.ambient !== ambient) continue;
    for (const [i, index] of cell.modules.entries()) {
      const module = showing.modules[index];
      if (module === undefined || !judge.concerns(behaviour, module)) continue;
      counted.push(
        cell.answers.map(({ when, drives }) => ({
          when,
          drives: (drives[i] ?? []).filter((drive) => judge.counts(behaviour, drive)),
        })),
      );
    }
  }
  /** By module: where it shows what is asked about. */
  const where = (asked: (drives: readonly Drive[]) => boolean): Diagram[] =>
    counted.map((cases) => d.any(cases.flatMap(({ when, drives }) => (asked(drives) ? [when] : []))));
  const some = (drives: readonly Drive[]): boolean => drives.length > 0;
  const all = (asked: (drive: Drive) => boolean): Diagram =>
    d.not(d.any(where((drives) => !drives.every(asked))));
  switch (is) {
    case 'dark':
      return d.not(d.any(where(some)));
    case 'flashing':
      return atLeastOf(
        subject,
        where((drives) => drives.some(({ steady }) => !steady)),
        atLeast,
      );
    case 'steady':
      return atLeastOf(
        subject,
        where((drives) => drives.some(({ steady }) => steady)),
        atLeast,
      );
    case 'in pattern':
      return d.and(
        atLeastOf(subject, where(some), atLeast),
        all(({ patternId }) => patternId === behaviour.patternId),
      );
    case 'at most':
      return all((drive) => judge.isDimmedTo(behaviour, drive));
    case 'in two colours':
      return atLeastOf(
        subject,
        where((drives) => new Set(drives.map(({ colour }) => colour)).size > 1),
        atLeast,
      );
    case 'lit':
    case 'on':
    case 'off':
      return atLeastOf(subject, where(some), atLeast);
  }
}

/** Where at least so many of some sets are so: a counter that goes no farther. */
function atLeastOf({ diagrams: d }: VerificationSubject, sets: readonly Diagram[], least: number): Diagram {
  let counts: Diagram[] = [EVERY, ...Array.from({ length: least }, () => NONE)];
  for (const set of sets)
    counts = counts.map((met, n) => (n === 0 ? EVERY : d.ite(set, counts[n - 1] ?? NONE, met)));
  return counts[least] ?? NONE;
}

/** States that are due, of which it is asked whether what is due comes about in time. */
export interface Late {
  /** Those in which it comes too late. */
  readonly states: Diagram;
  /** Whether all could be followed to their end. */
  readonly whole: boolean;
}

/**
 * Of some states those from which a behaviour does not come about within its time, with no other event than timers that end.
 * @param due - states in which it is due and not so
 */
export function lateOf(subject: VerificationSubject, behaviour: Behaviour, due: Diagram): Late {
  const { diagrams: d, program, programme, showing, judge } = subject;
  const { withinS } = behaviour;
  if (withinS === null || due === NONE) return { states: due, whole: true };
  const cone = programme.about(idsOf(subject, behaviour));
  const ranks = cone.ranked.flatMap(({ id }) => program.wired.rankOf(id) ?? []);
  const { inputs, functions } = program.wired.through(ranks);
  const variables = program.parts
    .flatMap((part) => part.variables)
    .filter((v) =>
      v.kind === 'input' ? inputs.has(v.at) || isAmbient(programme, v.at) : functions.has(v.at),
    );
  const levels = variables.flatMap((v) => program.bitsOf(v).levels);
  const others = d.support(due).filter((level) => !levels.includes(level));
  const comes = comesWithin(cone, withinS * 1000, (state) => {
    const on = onsIn(cone, state);
    const ambient = state.values.get('ambient') === 'night' ? 'night' : 'day';
    return judge.isSo(
      behaviour,
      on,
      showing.driven(on, ambient).filter((one) => judge.counts(behaviour, one)),
    );
  });
  let [left, late, whole, followed] = [d.exists(due, d.cube(others)), NONE, true, 0];
  while (left !== NONE) {
    const bits = d.pick(left);
    const point = d.point(levels, bits);
    left = d.without(left, point);
    const how = ++followed > MOST_FOLLOWED ? 'unknown' : comes(stateOf(subject, cone, variables, bits));
    if (how === 'late') late = d.or(late, point);
    if (how === 'unknown') whole = false;
    if (followed > MOST_FOLLOWED) break;
  }
  return { states: d.and(due, late), whole };
}

const isAmbient = ({ inputs }: VerificationSubject['programme'], at: number): boolean =>
  inputs[at]?.id === 'ambient';

/** The functions by which it is decided whether a behaviour is so. */
function idsOf({ functions, showing, judge, build }: VerificationSubject, behaviour: Behaviour): string[] {
  const { subject: of } = behaviour;
  switch (of.kind) {
    case 'function':
      return [of.functionId];
    case 'load':
      return functions
        .filter(({ shows }) => shows.some(({ loads }) => loads.some(({ loadId }) => loadId === of.loadId)))
        .map(({ id }) => id);
    case 'lamps': {
      const places = new Set<number>();
      for (const ambient of ['day', 'night'] as const)
        for (const [i, heeds] of showing.heeds(ambient).entries()) {
          const module = showing.modules[i];
          if (module !== undefined && judge.concerns(behaviour, module))
            for (const place of heeds) places.add(place);
        }
      const ids = new Set([...places].map((place) => readOn(showing.ons[place] ?? '').id));
      return build.controls.functions.flatMap(({ id }) => (ids.has(id) ? [id] : []));
    }
  }
}

/** A state of some functions, by the bits of their variables; all else at rest. */
function stateOf(
  { program, programme }: VerificationSubject,
  cone: VerificationSubject['programme'],
  variables: VerificationSubject['program']['parts'][number]['variables'],
  bits: ReadonlySet<number>,
): ControlState {
  const values = new Map(programme.inputs.map(({ id, values: [rest = ''] }) => [id, rest]));
  const memory = new Map<string, number>();
  const phases = new Map<string, Phase>();
  for (const variable of variables) {
    const value = program
      .bitsOf(variable)
      .levels.reduce((sum, level, bit) => sum + (bits.has(level) ? 1 << bit : 0), 0);
    if (variable.kind === 'input') {
      const input = programme.inputs[variable.at];
      if (input !== undefined) values.set(input.id, input.values[value] ?? '');
      continue;
    }
    const id = programme.ranked[variable.at]?.id ?? '';
    if (variable.kind === 'memory') memory.set(id, value);
    else phases.set(id, PHASES[variable.phases[value] ?? 0] ?? 'off');
  }
  return settled(cone, values, memory, phases);
}
