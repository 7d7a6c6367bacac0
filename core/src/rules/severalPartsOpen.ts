import type { PoseSearch } from '../coverage/lampPoses.ts';
import { poseAbove } from '../coverage/poseAbove.ts';
import { poseDark } from '../coverage/poseDark.ts';
import { FACE_BEARINGS } from '../coverage/sectors.ts';
import type { Drive } from '../resolve/channels.ts';
import { elevationText } from '../words/elevations.ts';
import { faceText } from '../words/face.ts';
import { atMost } from './finding.ts';
import { fails, roomBelow, type Issue } from './judgement.ts';
import type { LightFloor, LightLimit, PoseIndependentLimit } from './shown.ts';
import { LEVEL_DEG, type Situation } from './situation.ts';
import { formatQuantity } from '../words/quantity.ts';

/** What came of looking through all that may stand open together. */
export interface OpenTogether {
  /** Poses in which a limit is passed, to be judged like any other. */
  readonly poses: readonly (readonly string[])[];
  /** Limits of which it could not be told. */
  readonly inconclusive: readonly Issue[];
}

/**
 * Looks for combinations of open parts in which a limit is passed, or too little light is left.
 * @param at - any pose; stage and ambient count
 */
export const severalPartsOpen = (
  at: Situation,
  limit: PoseIndependentLimit,
  search: PoseSearch = {},
): OpenTogether => ('leastCd' in limit ? darkTogether(at, limit, search) : aboveTogether(at, limit, search));

function darkTogether(at: Situation, floor: LightFloor, search: PoseSearch): OpenTogether {
  const { subjects, face, leastCd, elevationDeg = LEVEL_DEG } = floor;
  const dark = poseDark(at.build, at.drives(floor.lamps), face, leastCd, elevationDeg, search);
  switch (dark.found) {
    case 'none':
      return { poses: [], inconclusive: [] };
    case 'pose':
      return { poses: [dark.open], inconclusive: [] };
    case 'unknown': {
      const sentence = `light ${faceText[face]} with several open parts: not all positions could be checked.${elevationText(elevationDeg)}`;
      return {
        poses: [],
        inconclusive: [fails({ outcome: 'cannot tell', subjects, sentence, state: at.state })],
      };
    }
  }
}

function aboveTogether(at: Situation, limit: LightLimit, search: PoseSearch): OpenTogether {
  const drives = at.drives(limit.lamps).filter((d) => d.colour === limit.colour && limit.counts(d));
  const each = limit.of === 'sum' ? [drives] : byLamp(drives);
  const found = each.map((of) =>
    poseAbove(
      at.build,
      of,
      FACE_BEARINGS[limit.face],
      limit.aboveCd,
      limit.elevationDeg ?? LEVEL_DEG,
      search,
    ),
  );
  return {
    poses: found.flatMap((f) => (f.found === 'pose' ? [f.open] : [])),
    inconclusive: found.flatMap((f) =>
      f.found === 'unknown' ? [inconclusive(at, limit, f.mostCd, f.bearing)] : [],
    ),
  };
}

/** Channels by the lamp they are of. */
function byLamp(drives: readonly Drive[]): Drive[][] {
  const lamps = new Map<string, Drive[]>();
  for (const drive of drives) lamps.set(drive.placementId, [...(lamps.get(drive.placementId) ?? []), drive]);
  return [...lamps.values()];
}

const inconclusive = (at: Situation, limit: LightLimit, mostCd: number, bearing: number): Issue =>
  fails({
    outcome: 'cannot tell',
    subjects: limit.subjects,
    margin: roomBelow(mostCd, limit.aboveCd),
    sentence: `${limit.colour} ${faceText[limit.face]} with several open parts: at most ${formatQuantity(mostCd, 'cd', 'up')} at ${bearing}° (limit ${formatQuantity(limit.aboveCd, 'cd')}). Not all positions could be checked.${elevationText(limit.elevationDeg ?? LEVEL_DEG)}`,
    figure: { value: mostCd, unit: 'cd' },
    limits: [atMost(limit.aboveCd, 'cd')],
    state: at.state,
  });
