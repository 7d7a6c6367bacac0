import type { PoseClasses } from '../coverage/poseClasses.ts';
import { checkedFunctionSets, modeSteps } from '../state/state.ts';
import { AMBIENTS, type Ambient } from '../words/ambient.ts';
import type { Asked } from './asked.ts';
import { OverBudget } from './cannotTell.ts';
import { EVERY, NONE, type Diagram } from './diagrams.ts';
import type { Pose, PoseGroup, Poses } from './poses.ts';
import type { RegardedCells, RegardedChannels } from './regarded.ts';
import type { VerificationSubject } from './subject.ts';

/** States in which a rule speaks, in one light, with parts standing so that it sees the same. */
export interface Region extends RegardedCells {
  readonly ambient: Ambient;
  readonly poses: readonly Pose[];
  /** Whether several functions are on; null where the rule does not ask. */
  readonly several: boolean | null;
  readonly states: Diagram;
  /** The same, mode by mode. */
  readonly modes: readonly { readonly mode: number; readonly states: Diagram }[];
}

/** How a rule sees parts that open. */
export interface Sight {
  /** Tells poses apart by what it sees; null where each is its own. */
  readonly alike: PoseClasses | null;
  /** What may stand open together besides. */
  readonly carried: readonly Pose[];
}

/**
 * All states in which a rule speaks.
 * @throws {OverBudget} parts that functions ask about can stand in too many ways
 */
export function regionsOf(
  subject: VerificationSubject,
  asked: Asked,
  regarded: RegardedChannels,
  poses: Poses,
  sight: Sight,
): Region[] {
  const { diagrams: d, program } = subject;
  const speaks = asked.when === null ? EVERY : program.holds(asked.when);
  // With no warning on, only what speaks whatever is on has something to say.
  const modes = modesOf(subject).filter(({ mode }) =>
    asked.modes === null ? true : mode !== 0 && asked.modes.includes(mode),
  );
  const several = asked.asksAlone ? severalOn(subject) : EVERY;
  const groups = groupsOf(asked, poses, sight).map(({ stands, poses: those }) => ({
    poses: those,
    stand: d.any(stands.map((all) => d.all(all.map((c) => program.holds(c))))),
  }));
  return AMBIENTS.filter((ambient) => asked.ambients.includes(ambient)).flatMap((ambient) => {
    const there = d.and(subject.statesIn(ambient), speaks);
    return groups.flatMap(({ poses: those, stand }) =>
      (asked.asksAlone ? [false, true] : [null]).flatMap((isSeveral): Region[] => {
        const posed = d.all([there, stand, isSeveral === false ? d.not(several) : several]);
        const inModes = modes
          .map(({ mode, states }) => ({ mode, states: d.and(posed, states) }))
          .filter(({ states }) => states !== NONE);
        if (inModes.length === 0) return [];
        const states = d.any(inModes.map((one) => one.states));
        return [
          { ambient, poses: those, several: isSeveral, states, modes: inModes, ...regarded.in(ambient) },
        ];
      }),
    );
  });
}

/** How parts that something asks about may stand; one group where the rule sees no light. */
function groupsOf(
  { sees, poses: named }: Asked,
  poses: Poses,
  { carried, alike }: Sight,
): readonly PoseGroup[] {
  if (sees === 'driven') return [{ stands: [[]], poses: [[]] }];
  const groups = poses.groups(named, carried, alike);
  if (groups === null) throw new OverBudget('too many combinations of open parts that functions read');
  return groups;
}

/** By mode: the states whose warning has it; 0 where no stage or warning lights anything. */
function modesOf({ build, diagrams: d, program, showing }: VerificationSubject): Region['modes'] {
  const lighting = checkedFunctionSets(build).filter((on) =>
    AMBIENTS.some((ambient) => showing.driven([on], ambient).length > 0),
  );
  const isLit = d.any(lighting.map((on) => program.isOn(on)));
  const modes = new Map<number, Diagram>([[0, d.not(isLit)]]);
  const add = (mode: number, states: Diagram): void => {
    modes.set(mode, d.or(modes.get(mode) ?? NONE, states));
  };
  let left = isLit;
  for (const { ons, mode } of modeSteps(build)) {
    const isOn = d.any(ons.map((on) => program.isOn(on)));
    add(mode, d.and(left, isOn));
    left = d.without(left, isOn);
  }
  add(0, left);
  return Array.from(modes, ([mode, states]) => ({ mode, states })).toSorted((a, b) => a.mode - b.mode);
}

/** The states in which two functions are on or more. */
function severalOn({ diagrams: d, program, programme }: VerificationSubject): Diagram {
  let [one, two] = [NONE, NONE];
  for (const rank of programme.ranked.keys()) {
    const is = program.present.isOn(rank);
    two = d.or(two, d.and(one, is));
    one = d.or(one, is);
  }
  return two;
}
