import { isTimed } from '../../controls/programme.ts';
import { FACE_BEARINGS } from '../../coverage/sectors.ts';
import { onKey, type On } from '../../design/controls.ts';
import type { ControlFunction } from '../../design/functions.ts';
import { highestCd } from '../../resolve/channels.ts';
import type { RuleOf } from '../../rules/registry.ts';
import { Situation } from '../../rules/situation.ts';
import { poseKey, stateWith, type State } from '../../state/state.ts';
import { sideOfPart } from '../../vehicle/opening.ts';
import { vehicleOf } from '../../vehicle/vehicle.ts';
import { AMBIENTS, type Ambient } from '../../words/ambient.ts';
import { FACES, type Face } from '../../words/face.ts';
import type { About, Place } from '../about.ts';
import { doorsOf, namedBy, tiedTo, type Door } from '../doors.ts';
import type { Found } from '../found.ts';
import type { TowardSides } from '../memory.ts';
import { byItself } from '../moves.ts';
import type { ProofSubject } from '../subject.ts';

/** What grows by less is too little to tell, cd. */
const LITTLE_CD = 10;

/** What is on, how far some doors stand open, and the light around. */
interface Standing {
  readonly on: readonly On[];
  readonly open: readonly string[];
  readonly ambients: readonly Ambient[];
}

/** Warning light that grew toward the side of a door that stands open. */
interface Grown {
  readonly door: Door;
  readonly side: Face;
  readonly ambient: Ambient;
  readonly beforeCd: number;
  readonly nowCd: number;
}

/**
 * Functions that come on by themselves and raise the warning light to a side where a door or hatch stands open, and people
 * at it: at those doors that it comes on by; at any one where there are none.
 */
export function lightAtOpenDoors(subject: ProofSubject, { times }: RuleOf<'light-at-doors'>): Found[] {
  const doors = doorsOf(subject);
  return subject.reach.machine.programme.ranked.flatMap((fn, rank): Found[] => {
    const lights = subject.wantsOf(fn).some((want) => want?.claims.some(({ drive }) => drive.warns));
    if (fn.kind === 'signal' || !lights) return [];
    const tied = tiedTo(subject, rank, doors);
    const about = subject.about(
      [fn.id, ...alongWith(subject, rank)],
      tied.map(({ at }) => at),
    );
    if (about === null)
      return [
        {
          about: fn.id,
          sentence: `too many states to tell whether ${fn.name} comes on by itself.`,
          outcome: 'cannot tell',
        },
      ];
    const isOn = about.space.isOn(about.ranks[0] ?? 0);
    const standing = standingsOf(about, tied);
    const named = namedBy(subject, rank, doors);
    const growth = new Growth(subject, times, named.length > 0 ? named : doors);
    const met: Grown[] = [];
    const after = about.space.firstMove((from, to) => {
      if (isOn[from] === 1 || isOn[to] !== 1) return false;
      const [before, now] = [standing[from], standing[to]];
      const grown = before === undefined || now === undefined ? null : growth.of(before, now, tied);
      if (grown !== null) met.push(grown);
      return grown !== null;
    }, byItself);
    const [grown] = met;
    if (after === null || grown === undefined) return [];
    const place = tied.includes(grown.door) ? null : withDoorOpen(subject, fn.id, grown.door);
    return [foundIn(fn, grown, place ?? subject.placeIn(about, after))];
  });
}

/** Functions that are on or off by the same inputs as another, and remember nothing: they change with it. */
function alongWith({ reach: { machine } }: ProofSubject, rank: number): string[] {
  const { wired, programme } = machine;
  const { inputs } = wired.dependsOn(rank);
  const remembers = (at: number): boolean => {
    const when = programme.ranked[at]?.when;
    return when === undefined || when.way === 'latched' || when.way === 'cycle' || isTimed(when);
  };
  return programme.ranked.flatMap(({ id }, other) => {
    const cone = wired.dependsOn(other);
    const isAlong =
      other !== rank &&
      [...cone.inputs].every((at) => inputs.has(at)) &&
      ![...cone.functions].some((at) => remembers(at));
    return isAlong ? [id] : [];
  });
}

/** Where it is so by a way on which a door is opened that nothing asks about; null where that is too much to walk. */
function withDoorOpen(subject: ProofSubject, id: string, { at }: Door): Place | null {
  const about = subject.about([id], [at]);
  if (about === null) return null;
  const isOn = about.space.isOn(about.ranks[0] ?? 0);
  const isOpen = about.space.where([], (values) => (values[at] ?? 0) > 0);
  const after = about.space.firstMove(
    (from, to) => isOn[from] !== 1 && isOn[to] === 1 && isOpen[to] === 1,
    byItself,
  );
  return after === null ? null : subject.placeIn(about, after);
}

function foundIn(
  { id, name }: ControlFunction,
  { door, side, ambient, beforeCd, nowCd }: Grown,
  moment: Place,
): Found {
  return {
    about: `${id}|${door.part.id}`,
    sentence: `${name} comes on by itself and raises the light to the ${side}, where the ${door.part.name.toLowerCase()} stands open, from ${Math.round(beforeCd)} to ${Math.round(nowCd)} cd.`,
    moment,
    ambient,
  };
}

/** By state what stands how; equal ones are one object. */
function standingsOf({ space, reach: { machine } }: About, tied: readonly Door[]): Standing[] {
  const { ranked, inputs } = machine.programme;
  const around = machine.wired.placeOf('ambient') ?? -1;
  const isAsked = ranked.some((_, rank) => machine.wired.dependsOn(rank).inputs.has(around));
  const known = new Map<string, Standing>();
  const all: Standing[] = [];
  space.where([...ranked.keys()], (values, isOn, memory) => {
    const on = ranked.flatMap(({ id, when }, rank) =>
      isOn[rank] === 1 ? [onKey(id, when.way === 'cycle' ? (memory[rank] ?? 1) : 1)] : [],
    );
    const open = tied.flatMap(({ at }) => {
      const value = values[at] ?? 0;
      return value > 0 ? (inputs[at]?.values[value] ?? []) : [];
    });
    const isNight = inputs[around]?.values[values[around] ?? 0] === 'night';
    const ambients = !isAsked ? AMBIENTS : isNight ? NIGHT_ALONE : DAY_ALONE;
    const key = [on.join(), open.join(), ambients.join()].join('|');
    const standing = known.get(key) ?? { on, open, ambients };
    known.set(key, standing);
    all.push(standing);
    return false;
  });
  return all;
}

const NIGHT_ALONE: readonly Ambient[] = ['night'];
const DAY_ALONE: readonly Ambient[] = ['day'];

/** Whether light grows from one standing to another; each two are looked at once. */
class Growth {
  readonly #subject: ProofSubject;
  readonly #times: number;
  readonly #doors: readonly { readonly door: Door; readonly side: Face | null }[];
  readonly #lit = new Map<string, TowardSides>();
  readonly #known = new Map<Standing, Map<Standing, Grown | null>>();

  /** @param times - light has grown where it is more than so many times as much */
  constructor(subject: ProofSubject, times: number, doors: readonly Door[]) {
    this.#subject = subject;
    this.#times = times;
    const vehicle = vehicleOf(subject.build.vehicle);
    this.#doors = doors.map((door) => ({ door, side: sideOfPart(vehicle, door.part.id) }));
  }

  /**
   * Light that grows toward a side at which a door stands open; null where none does.
   * @param tied - doors that stand as they are said to; the others may stand open
   */
  of(before: Standing, now: Standing, tied: readonly Door[]): Grown | null {
    const ofBefore = this.#known.get(before) ?? new Map<Standing, Grown | null>();
    this.#known.set(before, ofBefore);
    const known = ofBefore.get(now);
    const grown = known === undefined ? this.#grown(before, now, tied) : known;
    ofBefore.set(now, grown);
    return grown;
  }

  #grown(before: Standing, now: Standing, tied: readonly Door[]): Grown | null {
    for (const ambient of now.ambients)
      for (const { door, side } of this.#doors) {
        if (side === null) continue;
        const isTied = tied.includes(door);
        for (const { id } of door.part.stops) {
          if (isTied && !now.open.includes(id)) continue;
          const besides = isTied ? [] : [id];
          const beforeCd = this.#toward(before, besides, ambient, side);
          const nowCd = this.#toward(now, besides, ambient, side);
          if (nowCd > beforeCd * this.#times + LITTLE_CD) return { door, side, ambient, beforeCd, nowCd };
        }
      }
    return null;
  }

  #toward({ on, open }: Standing, besides: readonly string[], ambient: Ambient, side: Face): number {
    const state = stateWith({ on: [...on], open: [...open, ...besides], ambient });
    const key = `${on.join()}|${state.open.join()}|${ambient}`;
    const known = this.#lit.get(key) ?? towardSides(this.#subject, state);
    this.#lit.set(key, known);
    return known.get(side) ?? 0;
  }
}

/** Toward each side the most warning light at some bearing, all lamps at their highest, level, cd. */
function towardSides({ build, memory, showing }: ProofSubject, state: State): TowardSides {
  const warning = showing.driven(state.on, state.ambient).filter(({ warns }) => warns);
  const key = `${warning.map(memory.numberOf).join()}|${poseKey(state.open)}`;
  const known = memory.towards.get(key);
  if (known !== undefined) return known;
  const lit = new Situation(build, state, 0).lit('warning');
  const found = new Map(
    FACES.map((face) => [
      face,
      Math.max(
        ...FACE_BEARINGS[face].map((bearing) =>
          lit.reduce((sum, { drive, share }) => sum + highestCd(drive) * (share[bearing] ?? 0), 0),
        ),
      ),
    ]),
  );
  memory.towards.set(key, found);
  return found;
}
