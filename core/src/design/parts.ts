import { z } from 'zod';
import { PhotometryFile } from '../fixture/photometry/file.ts';
import { Fixture } from '../fixture/types.ts';
import { VehicleSpec } from '../vehicle/spec.ts';
import { Name, FreeText } from '../words/names.ts';
import { Service } from '../words/service.ts';
import { Acceptance, MOST_ACCEPTED } from './acceptance.ts';
import { Brief } from './brief.ts';
import { Controls } from './controls.ts';
import { Approach } from './approach.ts';
import { Placement } from './placement.ts';
import { uniqueList, RulePack } from './rulePack.ts';
import { SceneVehicle } from './scene.ts';
import { EyePlace, Finish, MOST_OWN, TrafficSide, WorkPlace } from './site.ts';
import { Timing } from './timing.ts';

export const BUILD_FORMAT = 'flarik-build';
export const SCHEMA_VERSION = 15;

/** How long the lists of a build may be. */
export const MOST = { fixtures: 200, photometry: 40, placements: 200, scene: 8, rulePacks: 12 } as const;

/** What the lists of a build are called. */
const LIST_NAMES: Record<keyof typeof MOST, string> = {
  fixtures: 'custom fixtures',
  photometry: 'photometric files',
  placements: 'lamps',
  scene: 'other vehicles',
  rulePacks: 'rule packs',
};

const LISTS = ['fixtures', 'photometry', 'placements', 'scene', 'rulePacks'] as const;

/** Why an edit cannot be kept: it lets a list grow beyond its limit. Null when none does. */
export function overfull(before: BuildParts, after: BuildParts): string | null {
  const list = LISTS.find(
    (name) => after[name].length > MOST[name] && after[name].length > before[name].length,
  );
  return list === undefined
    ? null
    : `A build can have at most ${MOST[list]} ${LIST_NAMES[list]}; this would make ${after[list].length}.`;
}

const listOf = <T extends z.ZodType>(list: keyof typeof MOST, item: T) =>
  z.array(item).max(MOST[list], `must be at most ${MOST[list]} ${LIST_NAMES[list]}`);

/** The parts of a build; what they say of each other is checked besides. */
export const BuildParts = z.strictObject({
  format: z.literal(BUILD_FORMAT, { error: `must be '${BUILD_FORMAT}'` }),
  schemaVersion: z.literal(SCHEMA_VERSION),
  id: z.uuid('must be a UUID'),
  name: Name,
  service: Service,
  notes: FreeText,
  brief: Brief,
  vehicle: VehicleSpec,
  /** The shop's own fixtures that this build may use. */
  fixtures: listOf('fixtures', Fixture),
  photometry: listOf('photometry', PhotometryFile),
  placements: listOf('placements', Placement),
  timing: Timing,
  /** What switches what, and what then shows. */
  controls: Controls,
  /** Other vehicles that are looked at together with this one. */
  scene: listOf('scene', SceneVehicle),
  /** Ways to come upon the vehicle that are looked at besides the usual ones. */
  approaches: z
    .array(Approach)
    .max(MOST_OWN, `must be at most ${MOST_OWN} approaches`)
    .superRefine(uniqueList),
  traffic: TrafficSide,
  /** Planes on which somebody works, besides the ground around. */
  workPlaces: z
    .array(WorkPlace)
    .max(MOST_OWN, `must be at most ${MOST_OWN} work places`)
    .superRefine(uniqueList),
  /** Eyes near the vehicle, besides the usual ones. */
  eyes: z.array(EyePlace).max(MOST_OWN, `must be at most ${MOST_OWN} eyes`).superRefine(uniqueList),
  /** Surfaces that throw back more or less light than is usual. */
  finishes: z
    .array(Finish)
    .max(MOST_OWN, `must be at most ${MOST_OWN} finishes`)
    .refine(
      (finishes) => new Set(finishes.map(({ surface }) => surface)).size === finishes.length,
      'must name each surface once',
    ),
  rulePacks: listOf('rulePacks', RulePack),
  /** Findings that somebody lets stand. */
  accepted: z.array(Acceptance).max(MOST_ACCEPTED, `must be at most ${MOST_ACCEPTED} accepted findings`),
});
export type BuildParts = z.infer<typeof BuildParts>;
