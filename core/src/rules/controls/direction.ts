import { namedOns } from '../../design/controls.ts';
import { cycleFor, channelOf, type Drive } from '../../resolve/channels.ts';
import { placeModules } from '../../resolve/place.ts';
import { drivenIn } from '../../state/driven.ts';
import { openText, posesOf } from '../../state/state.ts';
import { bookOf } from '../../timing/book.ts';
import type { Direction } from '../../timing/pattern.ts';
import type { Vec3 } from '../../geometry/vec.ts';
import { AMBIENTS } from '../../words/ambient.ts';
import type { IssueDraft } from '../judgement.ts';
import type { LayoutSubject } from '../layout/subject.ts';
import { about, subjectsKey } from '../subject.ts';

/** Heads nearer to each other than this across the vehicle stand in one place of a row, m. */
const LEVEL_M = 0.02;

/** A head of a row: where it stands, and when in the cycle it is lit first. */
interface Onset {
  readonly at: Vec3;
  readonly ms: number;
}

/**
 * Rows whose pattern declares a direction and that run another way, seen from behind, by day or at night, with
 * everything shut or any one part open or lamp moved. A lamp of several
 * heads is a row by itself, single heads of a group are one together; rows along the vehicle have no left and right.
 */
export function wrongSweepDirections(subject: LayoutSubject): IssueDraft[] {
  const { build } = subject;
  const book = bookOf(build);
  const found = namedOns(build).flatMap(({ on, name }) =>
    AMBIENTS.flatMap((ambient) =>
      rowsOf(drivenIn(build, { on: [on], ambient })).flatMap((row): IssueDraft[] => {
        const [first] = row;
        const pattern = first === undefined ? undefined : book.find(first.patternId);
        if (first === undefined || pattern?.direction === undefined) return [];
        const { direction } = pattern;
        for (const open of posesOf(build)) {
          const wrong = faultOf(direction, onsetsOf(subject, row, new Set(open)));
          if (wrong === null) continue;
          const lamps = [...new Set(row.map((d) => d.placementId))];
          const who =
            lamps.length === 1 ? `"${labelOf(subject, lamps[0] ?? '')}"` : `a row of ${lamps.length} lamps`;
          return [
            {
              subjects: [
                about('function', on),
                about('pattern', pattern.id),
                ...lamps.map((id) => about('lamp', id)),
              ],
              sentence: `${name}: “${pattern.name}” must move ${WORDS[direction]}, seen from behind. On ${who} it ${wrong}${open.length === 0 ? '' : ` with ${openText(build, open)}`}.`,
              channels: row.map(channelOf),
              state: { on: [on], open, ambient },
            },
          ];
        }
        return [];
      }),
    ),
  );
  // What is so by day and at night is said once.
  return found.filter(({ subjects }, i) => {
    const key = subjectsKey(subjects);
    return found.findIndex((one) => subjectsKey(one.subjects) === key) === i;
  });
}

const WORDS: Readonly<Record<Direction, string>> = {
  left: 'to the left',
  right: 'to the right',
  'from the middle': 'centre-out',
};

const labelOf = ({ build }: LayoutSubject, id: string): string =>
  build.placements.find((p) => p.id === id)?.label ?? 'deleted lamp';

/** Drives of one pattern that make a row: of one lamp, or of the single heads of a group. */
function rowsOf(drives: readonly Drive[]): Drive[][] {
  const heads = new Map<string, Set<string>>();
  for (const d of drives)
    heads.set(d.placementId, (heads.get(d.placementId) ?? new Set<string>()).add(d.moduleId));
  const rows = new Map<string, Drive[]>();
  for (const d of drives) {
    const single = heads.get(d.placementId)?.size === 1;
    const key = `${d.patternId} ${single ? `group ${d.groupId ?? ''}` : `lamp ${d.placementId}`}`;
    const row = rows.get(key) ?? [];
    rows.set(key, row);
    row.push(d);
  }
  return [...rows.values()];
}

function onsetsOf(
  { build, lookup }: LayoutSubject,
  row: readonly Drive[],
  open: ReadonlySet<string>,
): Onset[] {
  return row.flatMap((d): Onset[] => {
    const p = build.placements.find(({ id }) => id === d.placementId);
    const placed =
      p === undefined
        ? undefined
        : placeModules(lookup, p, open).find(({ module }) => module.id === d.moduleId);
    const ms = cycleFor(build, d.patternId, d.groupId).lines[d.line]?.[0]?.fromMs;
    return placed === undefined || ms === undefined ? [] : [{ at: placed.centre, ms }];
  });
}

/** What a row does instead of moving as it should; null when it does, or has no left and right. */
function faultOf(direction: Direction, row: readonly Onset[]): string | null {
  const spread = (axis: 0 | 1): number =>
    Math.max(...row.map(({ at }) => at[axis])) - Math.min(...row.map(({ at }) => at[axis]));
  if (row.length < 2 || spread(1) < LEVEL_M || spread(1) < spread(0)) return null;
  const middle = (Math.max(...row.map(({ at }) => at[1])) + Math.min(...row.map(({ at }) => at[1]))) / 2;
  // Left is +y.
  const along = ({ at }: Onset): number => {
    switch (direction) {
      case 'left':
        return at[1];
      case 'right':
        return -at[1];
      case 'from the middle':
        return Math.abs(at[1] - middle);
    }
  };
  const inTime = row.toSorted((a, b) => a.ms - b.ms || along(a) - along(b));
  const last = inTime.at(-1);
  if (last === undefined || last.ms === inTime[0]?.ms) return 'lights everywhere at once';
  let farthest = -Infinity;
  let before = -Infinity;
  let since = -Infinity;
  for (const onset of inTime) {
    if (onset.ms > since) {
      before = farthest;
      since = onset.ms;
    }
    if (along(onset) < before - LEVEL_M) return 'does not';
    farthest = Math.max(farthest, along(onset));
  }
  return null;
}
