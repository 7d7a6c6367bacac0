import { isTimed, type ProgramEvent } from '../../controls/program.ts';
import { BEARINGS } from '../../coverage/field.ts';
import { FACE_BEARINGS } from '../../coverage/sectors.ts';
import { onsOf, type ActiveFunction } from '../../design/controls.ts';
import type { ControlFunction } from '../../design/functions.ts';
import { highestCd } from '../../resolve/channels.ts';
import type { RuleOf } from '../../rules/registry.ts';
import { Situation } from '../../rules/situation.ts';
import { poseKey, stateWith, type State } from '../../state/state.ts';
import { sideOfPart } from '../../vehicle/opening.ts';
import { vehicleOf } from '../../vehicle/vehicle.ts';
import type { Ambient } from '../../words/ambient.ts';
import { FACES, type Face } from '../../words/face.ts';
import { isByItself } from '../actions.ts';
import type { Diagram } from '../diagrams.ts';
import { doorsOf, isAnyOpen, namedBy, type Door } from '../doors.ts';
import type { VerificationFinding } from '../found.ts';
import type { TowardSides } from '../memory.ts';
import { image, preImage } from '../relations.ts';
import type { RepresentativeState } from '../representative.ts';
import type { VerificationSubject } from '../subject.ts';
import type { StateClass } from '../symbolic.ts';
import { isAnyOn } from './stuck.ts';
import { about } from '../../rules/subject.ts';
import { formatQuantity } from '../../words/quantity.ts';

/** What grows by less is too little to tell, cd. */
const LITTLE_CD = 10;

/** More ways in which what comes on together and doors stand are not told apart. */
const MOST_CLASSES = 2_000;

/** What is on, how far some doors stand open, and the light around. */
interface DoorState {
  readonly on: readonly ActiveFunction[];
  readonly open: readonly string[];
  readonly ambient: Ambient;
}

/** Warning light that grew toward the side of a door that stands open. */
interface Grown {
  readonly door: Door;
  readonly side: Face;
  readonly beforeCd: number;
  readonly nowCd: number;
}

/**
 * Functions that come on by themselves and raise the warning light to a side where a door or hatch stands open, and people
 * at it: at those doors that it comes on by; at any one where there are none.
 */
export function lightAtOpenDoors(
  subject: VerificationSubject,
  { times }: RuleOf<'light-at-doors'>,
): VerificationFinding[] {
  const doors = doorsOf(subject);
  return subject.programme.ranked.flatMap((fn, rank): VerificationFinding[] => {
    const lights = subject.wantsOf(fn).some((want) => want?.claims.some(({ drive }) => drive.warns));
    if (fn.kind === 'signal' || !lights) return [];
    const named = namedBy(subject, rank, doors);
    const growth = new Growth(subject, times, named.length > 0 ? named : doors);
    const found = nearestGrowth(subject, fn, rank, growth);
    if (found !== null) return [found];
    const { within } = subject.reached.of([fn.id]);
    return within === null
      ? []
      : [
          {
            subjects: [about('function', fn.id)],
            sentence: `${fn.name} does not start automatically within ${within} events. Longer sequences were not checked.`,
            outcome: 'cannot tell',
          },
        ];
  });
}

/** Where a function comes on by itself and light grows, as near to rest as anywhere; null where none does. */
function nearestGrowth(
  subject: VerificationSubject,
  fn: ControlFunction,
  rank: number,
  growth: Growth,
): VerificationFinding | null {
  const reached = subject.reached.of([fn.id]);
  const { program } = reached;
  const d = program.diagrams;
  const isOn = isAnyOn(program, [fn.id]);
  const along = alongWith(subject, rank);
  // Doors by which none of them comes on or off stand as they like.
  const doors = doorsOf(subject).filter((door) =>
    [fn, ...along].some((one) => namedBy(subject, subject.programme.ranked.indexOf(one), [door]).length > 0),
  );
  const inputs = [...doors.map(({ at }) => at), program.wired.placeOf('ambient') ?? -1];
  const ons = [fn, ...along].flatMap(onsOf);
  const standing = ({ on, values }: StateClass): DoorState => ({
    on,
    open: doors.flatMap(({ part: { stops } }, i) => stops[(values[i] ?? 0) - 1]?.id ?? []),
    ambient:
      program.programme.inputs[inputs.at(-1) ?? -1]?.values[values.at(-1) ?? 0] === 'night' ? 'night' : 'day',
  });
  let nearest: VerificationFinding | null = null;
  const note = (grown: Grown, from: Diagram, to: Diagram, event: ProgramEvent): void => {
    const { door } = grown;
    const opened = doors.some(({ at }) => at === door.at) ? from : d.and(from, isAnyOpen(program, [door]));
    const known = nearest?.where?.events.length ?? Infinity;
    const way = reached.nearest(known === Infinity ? opened : reached.nearerThan(opened, known - 1));
    if (way !== null) nearest = foundIn(fn, grown, subject.played([...way.events, event], to, reached));
  };
  for (const { relations } of reached.parts)
    for (const relation of relations) {
      if (!isByItself(relation.event)) continue;
      const starts = d.all([reached.states, d.not(isOn), preImage(program, relation, isOn)]);
      for (const before of program.classesOf(starts, ons, inputs, MOST_CLASSES)) {
        const next = d.and(image(program, relation, before.states), isOn);
        for (const after of program.classesOf(next, ons, inputs, MOST_CLASSES)) {
          const grown = growth.of(standing(before), standing(after), doors);
          if (grown === null) continue;
          const from = d.and(before.states, preImage(program, relation, after.states));
          note(grown, from, after.states, relation.event.event);
        }
      }
    }
  return nearest;
}

/** Functions that light or dim something by the same inputs as another, and remember nothing: they change with it. */
function alongWith({ program: { wired }, programme }: VerificationSubject, rank: number): ControlFunction[] {
  const { inputs } = wired.dependsOn(rank);
  const remembers = (at: number): boolean => {
    const when = programme.ranked[at]?.when;
    return when === undefined || when.way === 'latched' || when.way === 'cycle' || isTimed(when);
  };
  return programme.ranked.filter(({ shows }, other) => {
    const cone = wired.dependsOn(other);
    return (
      other !== rank &&
      shows.some(({ cues, dims }) => cues.length + dims.length > 0) &&
      [...cone.inputs].every((at) => inputs.has(at)) &&
      ![...cone.functions].some((at) => remembers(at))
    );
  });
}

function foundIn(
  { id, name }: ControlFunction,
  { door, side, beforeCd, nowCd }: Grown,
  where: RepresentativeState,
): VerificationFinding {
  return {
    subjects: [about('function', id), about('part', door.part.id)],
    sentence: `${name} starts automatically and raises the light to the ${side} from ${formatQuantity(beforeCd, 'cd')} to ${formatQuantity(nowCd, 'cd')} while the ${door.part.name.toLowerCase()} is open.`,
    where,
  };
}

/** Whether light grows from one standing to another; each two are looked at once. */
class Growth {
  readonly #subject: VerificationSubject;
  readonly #times: number;
  readonly #doors: readonly { readonly door: Door; readonly side: Face | null }[];
  readonly #lit = new Map<string, TowardSides>();
  readonly #known = new Map<string, Grown | null>();

  /** @param times - light has grown where it is more than so many times as much */
  constructor(subject: VerificationSubject, times: number, doors: readonly Door[]) {
    this.#subject = subject;
    this.#times = times;
    const vehicle = vehicleOf(subject.build.vehicle);
    this.#doors = doors.map((door) => ({ door, side: sideOfPart(vehicle, door.part.id) }));
  }

  /**
   * Light that grows toward a side at which a door stands open; null where none does.
   * @param tied - doors that stand as they are said to; the others may stand open
   */
  of(before: DoorState, now: DoorState, tied: readonly Door[]): Grown | null {
    const key = [before, now]
      .map(({ on, open, ambient }) => [on.join(), open.join(), ambient].join('|'))
      .join();
    const known = this.#known.get(key);
    const grown = known === undefined ? this.#grown(before, now, tied) : known;
    this.#known.set(key, grown);
    return grown;
  }

  #grown(before: DoorState, now: DoorState, tied: readonly Door[]): Grown | null {
    const { ambient } = now;
    for (const { door, side } of this.#doors) {
      if (side === null) continue;
      const isTied = tied.some(({ at }) => at === door.at);
      for (const { id } of door.part.stops) {
        if (isTied && !now.open.includes(id)) continue;
        const besides = isTied ? [] : [id];
        const beforeCd = this.#toward(before, besides, ambient, side);
        const nowCd = this.#toward(now, besides, ambient, side);
        if (nowCd > beforeCd * this.#times + LITTLE_CD) return { door, side, beforeCd, nowCd };
      }
    }
    return null;
  }

  #toward({ on, open }: DoorState, besides: readonly string[], ambient: Ambient, side: Face): number {
    const state = stateWith({ on: [...on], open: [...open, ...besides], ambient });
    const key = `${on.join()}|${state.open.join()}|${ambient}`;
    const known = this.#lit.get(key) ?? towardSides(this.#subject, state);
    this.#lit.set(key, known);
    return known.get(side) ?? 0;
  }
}

/** Toward each side the most warning light at some bearing, all lamps at their highest, level, cd. */
function towardSides({ build, memory, showing }: VerificationSubject, state: State): TowardSides {
  const warning = showing.driven(state.on, state.ambient).filter(({ warns }) => warns);
  const key = `${warning.map(memory.numberOf).join()}|${poseKey(state.open)}`;
  const known = memory.towards.get(key);
  if (known !== undefined) return known;
  const lit = new Situation(build, state, 0).lit('warning');
  const cd = new Float64Array(BEARINGS);
  for (const { drive, share } of lit) {
    const highest = highestCd(drive);
    for (let b = 0; b < BEARINGS; b++) cd[b] = (cd[b] ?? 0) + highest * (share[b] ?? 0);
  }
  const found = new Map(
    FACES.map((face) => [face, Math.max(...FACE_BEARINGS[face].map((bearing) => cd[bearing] ?? 0))]),
  );
  memory.towards.set(key, found);
  return found;
}
