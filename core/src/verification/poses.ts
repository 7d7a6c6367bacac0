import { fieldsOf } from '../coverage/lampFields.ts';
import type { StopsOf } from '../coverage/lampPoses.ts';
import type { PoseClasses } from '../coverage/poseClasses.ts';
import { leavesOf, type Condition } from '../design/condition.ts';
import { conditionsOf, partInput } from '../design/inputs.ts';
import { lampMoves } from '../design/lampMoves.ts';
import type { Build } from '../design/schema.ts';
import { stopsWithShut, vehicleOf } from '../vehicle/vehicle.ts';

/** A stop of something that moves, as an input has it and as a state does. */
export interface Move {
  readonly input: string;
  readonly value: string;
  readonly stop: string;
}

/** A way in which something stands open, or a lamp is aimed or raised; all else is shut. */
export type Pose = readonly string[];

/** Ways in which parts that something asks about stand, in which a rule sees the same, and what it sees there. */
export interface PoseGroup {
  /** One of these conditions holds. */
  readonly stands: readonly (readonly Condition[])[];
  /** The poses to look at, those parts among them. */
  readonly poses: readonly Pose[];
}

/** More ways in which parts that carry lamps can stand are not looked through one by one. */
const MOST_CARRIED = 128;
/** More ways in which parts that something asks about can stand are not told apart. */
const MOST_STANDS = 512;

const asks = (c: Condition, input: string): boolean =>
  [...leavesOf(c)].some((leaf) => leaf.kind === 'is' && leaf.input === input);

/** Every stop of every part of the vehicle, and of every lamp that can be aimed or raised. */
export const movesOf = (build: Build): readonly Move[] => [
  ...vehicleOf(build.vehicle).parts.flatMap(({ id, stops }) =>
    stops.map((stop) => ({ input: partInput(id), value: stop.id, stop: stop.id })),
  ),
  ...lampMoves(build).flatMap(({ input, stops }) =>
    stops.map(({ id, stop }) => ({ input, value: id, stop })),
  ),
];

/** The poses of a build: parts that something asks about stand as states have them, the others may stand open at any time. */
export class Poses {
  readonly #build: Build;
  readonly #asked: readonly Move[];
  readonly #free: readonly string[];

  /** @param conditions - that something asks besides the controls */
  constructor(build: Build, conditions: readonly Condition[]) {
    this.#build = build;
    const said = [...conditionsOf(build.controls), ...conditions];
    const moves = movesOf(build);
    this.#asked = moves.filter(({ input }) => said.some((c) => asks(c, input)));
    this.#free = moves.filter((move) => !this.#asked.includes(move)).map(({ stop }) => stop);
  }

  /** Of what stands open those parts that something asks about. */
  askedOf(open: Pose): Pose {
    return this.#asked.flatMap(({ stop }) => (open.includes(stop) ? [stop] : []));
  }

  /**
   * The poses that go with parts that stand as they are asked about.
   * @param named - only these, as far as they can be; null for the parts as they stand, and each part besides that nothing asks about
   * @param carried - what may stand open together besides
   */
  posesWith(asked: Pose, named: readonly Pose[] | null, carried: readonly Pose[]): Pose[] {
    if (named !== null)
      return named.filter((pose) => this.askedOf(pose).join() === this.askedOf(asked).join());
    return [
      asked,
      ...this.#free.map((stop) => [...asked, stop]),
      ...carried.map((pose) => [...asked, ...pose]),
    ];
  }

  /**
   * All ways in which parts that something asks about can stand, those together in which a rule sees the same.
   * @param alike - tells poses apart by what the rule sees; null tells all apart
   * @returns null when there are too many
   */
  groups(
    named: readonly Pose[] | null,
    carried: readonly Pose[],
    alike: PoseClasses | null,
  ): PoseGroup[] | null {
    const inputs = [...new Set(this.#asked.map(({ input }) => input))];
    const standing = (pose: Pose): Condition[] => inputs.map((input) => this.#stands(input, pose));
    if (named !== null) return named.map((pose) => ({ stands: [standing(pose)], poses: [pose] }));
    const told = alike === null ? inputs : inputs.filter((input) => this.#matters(input, alike));
    const ways = told.map((input) => [null, ...this.#asked.filter((move) => move.input === input)]);
    if (ways.reduce((product, of) => product * of.length, 1) > MOST_STANDS) return null;
    const all = ways.reduce<(Move | null)[][]>(
      (so, of) => so.flatMap((pose) => of.map((move) => [...pose, move])),
      [[]],
    );
    const groups = new Map<string, { stands: (readonly Condition[])[]; poses: readonly Pose[] }>();
    for (const moves of all) {
      const open = moves.flatMap((move) => (move === null ? [] : [move.stop]));
      const poses = this.posesWith(open, null, carried);
      const key = poses.map((pose) => (alike === null ? pose.join('+') : alike.of(pose))).join('|');
      const group = groups.get(key) ?? { stands: [], poses };
      group.stands.push(told.map((input) => this.#stands(input, open)));
      groups.set(key, group);
    }
    return [...groups.values()];
  }

  #stands(input: string, open: Pose): Condition {
    const moves = this.#asked.filter((move) => move.input === input);
    const at = moves.find(({ stop }) => open.includes(stop));
    return at === undefined
      ? { kind: 'not', of: { kind: 'is', input, values: moves.map(({ value }) => value) } }
      : { kind: 'is', input, values: [at.value] };
  }

  /** Whether a part that something asks about changes what a rule sees: what each part hides is a factor of its own. */
  #matters(input: string, alike: PoseClasses): boolean {
    const others = movesOf(this.#build).flatMap((move) => (move.input === input ? [] : [[move.stop]]));
    return this.#asked.some(
      (move) =>
        move.input === input &&
        [[], ...others].some((open) => alike.of([...open, move.stop]) !== alike.of(open)),
    );
  }

  /**
   * Ways in which several parts can stand open together that nothing asks about and that carry some lamps: what carries none
   * only hides. Eyes, which look from where they are, see the lamps of all of them at once.
   * @returns null when there are too many
   */
  carriedTogether(lamps: ReadonlySet<string>): readonly Pose[] | null {
    const fields = fieldsOf(this.#build);
    const carriers = new Set(
      this.#build.placements.flatMap((p) => (lamps.has(p.id) ? (fields.carrierOf(p) ?? []) : [])),
    );
    const stops = [...carriers]
      .map((part) => part.stops.map(({ id }) => id).filter((id) => this.#free.includes(id)))
      .filter((ofPart) => ofPart.length > 0);
    if (stops.reduce((product, ofPart) => product * (ofPart.length + 1), 1) > MOST_CARRIED) return null;
    const poses = stops.reduce<string[][]>(
      (all, ofPart) => all.flatMap((pose) => [pose, ...ofPart.map((stop) => [...pose, stop])]),
      [[]],
    );
    return poses.filter((pose) => pose.length > 1);
  }

  /** Where a part may stand: as something that asks about it has it, or anywhere. */
  stopsOf =
    (open: Pose): StopsOf =>
    (part) =>
      this.#asked.some(({ input }) => input === partInput(part.id))
        ? [part.stops.find(({ id }) => open.includes(id)) ?? null]
        : stopsWithShut(part);

  /** Equal where parts may stand in the same ways. */
  standsText = (open: Pose): string =>
    `${this.#asked.map(({ stop }) => stop).join()}|${this.askedOf(open).join()}`;
}
