import type { Placement } from './placement.ts';

/** The value of a lamp that stands as it was put: its aim, or the height of its pole. */
export const HOME = 'home';

/** A way in which a lamp moves on the spot, as an input: home, or one of its stops. */
export interface LampMove {
  /** The id of the input that it is. */
  readonly input: string;
  readonly placementId: string;
  readonly name: string;
  readonly stops: readonly LampStop[];
}

export interface LampStop {
  /** The value of the input. */
  readonly id: string;
  readonly name: string;
  /** How a state names it among what stands open. */
  readonly stop: string;
  readonly moved: Partial<Pick<Placement, 'panDeg' | 'tiltDeg' | 'poleM'>>;
}

const AIM = 'aim.';
const HEIGHT = 'height.';

/** Whether an input is the aim or the height of a lamp. */
export const isLampInput = (input: string): boolean => input.startsWith(AIM) || input.startsWith(HEIGHT);

const stopKey = (input: string, value: string): string => `${input}=${value}`;

/** The stop at which an input of a lamp stands; null at home. */
export const lampStop = (input: string, value: string): string | null =>
  value === HOME ? null : stopKey(input, value);

function movesOf(p: Placement): LampMove[] {
  const move = (
    prefix: string,
    name: string,
    stops: readonly Pick<LampStop, 'id' | 'name' | 'moved'>[],
  ): LampMove => {
    const input = `${prefix}${p.id}`;
    return {
      input,
      placementId: p.id,
      name: `${p.label}, ${name}`,
      stops: stops.map((s) => ({ ...s, stop: stopKey(input, s.id) })),
    };
  };
  return [
    move(
      AIM,
      'aim',
      p.aims.map(({ id, name, panDeg, tiltDeg }) => ({ id, name, moved: { panDeg, tiltDeg } })),
    ),
    move(
      HEIGHT,
      'height',
      p.heights.map(({ id, name, poleM }) => ({ id, name, moved: { poleM } })),
    ),
  ].filter(({ stops }) => stops.length > 0);
}

/** Every way in which lamps of a build move on the spot. */
export const lampMoves = ({ placements }: { readonly placements: readonly Placement[] }): LampMove[] =>
  placements
    .filter(({ status }) => status !== 'removed' && status !== 'planned')
    .flatMap((p) => (p.aims.length + p.heights.length === 0 ? [] : movesOf(p)));

/** A placement never changes, so where it stands with its stops is made once. */
const known = new WeakMap<Placement, Map<string, Placement>>();

/** A placement as it stands while some stops do: turned and raised, with nothing left to move. */
export function posed(p: Placement, open: ReadonlySet<string>): Placement {
  if (p.aims.length + p.heights.length === 0) return p;
  const stops = movesOf(p).flatMap((move) => move.stops.filter(({ stop }) => open.has(stop)).slice(0, 1));
  const key = stops.map(({ stop }) => stop).join('+');
  const ofOne = known.get(p) ?? new Map<string, Placement>();
  known.set(p, ofOne);
  const there =
    ofOne.get(key) ??
    stops.reduce<Placement>((now, { moved }) => ({ ...now, ...moved }), { ...p, aims: [], heights: [] });
  ofOne.set(key, there);
  return there;
}
