import { leavesOf, type Condition } from '../../src/design/condition.ts';
import { onsOf, type ActiveFunction } from '../../src/design/controls.ts';
import { conditionsOf } from '../../src/design/inputs.ts';
import { NONE } from '../../src/verification/diagrams.ts';
import { movesOf, Poses } from '../../src/verification/poses.ts';
import type { VerificationSubject } from '../../src/verification/subject.ts';
import { checkedFunctionSets, modeOf } from '../../src/state/state.ts';
import { AMBIENTS, type Ambient } from '../../src/words/ambient.ts';

/** What is on at once, with the light around and what stands open; of states alike in that one. */
export interface Picture {
  readonly on: readonly ActiveFunction[];
  readonly ambient: Ambient;
  readonly mode: number;
  /** The stops of parts that something asks about. */
  readonly open: readonly string[];
  /** Which of some conditions hold. */
  readonly holds: readonly boolean[];
  /** How many events it takes to the nearest. */
  readonly depth: () => number;
}

/** Every picture, one by one: nothing bounded, nothing taken together but states in which all of this is the same. */
export function everyOutputState(
  subject: VerificationSubject,
  conditions: readonly Condition[],
): { readonly pictures: readonly Picture[]; readonly poses: Poses } {
  const { build, program, diagrams: d, whole, showing } = subject;
  const said = [...conditionsOf(build.controls), ...conditions];
  const moves = movesOf(build).filter(({ input }) =>
    said.some((c) => [...leavesOf(c)].some((leaf) => leaf.kind === 'is' && leaf.input === input)),
  );
  const inputs = [...new Set(moves.map(({ input }) => program.wired.placeOf(input) ?? -1))];
  const lights = new Set(
    checkedFunctionSets(build).filter((on) => AMBIENTS.some((a) => showing.driven([on], a).length > 0)),
  );
  const ons = build.controls.functions
    .filter(
      ({ mode, shows }) => mode !== null || shows.some(({ cues, dims }) => cues.length + dims.length > 0),
    )
    .flatMap(onsOf);
  const pictures = AMBIENTS.flatMap((ambient) =>
    [...program.classesOf(subject.statesIn(ambient), ons, inputs, 500_000)].flatMap(
      ({ on, values, states }): Picture[] => {
        const open = moves.flatMap(({ input, value, stop }) => {
          const i = inputs.indexOf(program.wired.placeOf(input) ?? -1);
          return program.programme.inputs[inputs[i] ?? -1]?.values[values[i] ?? 0] === value ? [stop] : [];
        });
        const mode = on.some((one) => lights.has(one)) ? modeOf(build, on) : 0;
        const split = conditions.reduce(
          (all, condition) => {
            const is = program.holds(condition);
            return all.flatMap(({ states: of, holds }) => [
              { states: d.and(of, is), holds: [...holds, true] },
              { states: d.without(of, is), holds: [...holds, false] },
            ]);
          },
          [{ states, holds: [] as readonly boolean[] }],
        );
        return split
          .filter((one) => one.states !== NONE)
          .map((one) => ({
            on,
            ambient,
            mode,
            open,
            holds: one.holds,
            depth: () => whole.nearest(one.states)?.depth ?? NaN,
          }));
      },
    ),
  );
  return { pictures, poses: new Poses(build, conditions) };
}
