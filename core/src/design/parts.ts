import { z } from 'zod';
import { PhotometryFile } from '../fixture/photometry/file.ts';
import { Fixture } from '../fixture/types.ts';
import { VehicleSpec } from '../vehicle/spec.ts';
import { Name, Remark } from '../words/names.ts';
import { Service } from '../words/service.ts';
import { Acceptance, MOST_ACCEPTED } from './acceptance.ts';
import { Brief } from './brief.ts';
import { Controls } from './controls.ts';
import { Approach } from './approach.ts';
import { Placement } from './placement.ts';
import { namedOnce, RulePack } from './rulePack.ts';
import { SceneVehicle } from './scene.ts';
import { EyePlace, Finish, MOST_OWN, TrafficSide, WorkPlace } from './site.ts';
import { Timing } from './timing.ts';

export const BUILD_FORMAT = 'flarik-build';
export const SCHEMA_VERSION = 14;

/** The parts of a build; what they say of each other is checked besides. */
export const BuildParts = z.strictObject({
  format: z.literal(BUILD_FORMAT, { error: `must be '${BUILD_FORMAT}'` }),
  schemaVersion: z.literal(SCHEMA_VERSION),
  id: z.uuid('must be a UUID'),
  name: Name,
  service: Service,
  notes: Remark,
  brief: Brief,
  vehicle: VehicleSpec,
  /** The shop's own fixtures that this build may use. */
  fixtures: z.array(Fixture).max(200, 'must be at most 200 own fixtures'),
  photometry: z.array(PhotometryFile).max(40, 'must be at most 40 photometric files'),
  placements: z.array(Placement).max(200, 'must be at most 200 placements'),
  timing: Timing,
  /** What switches what, and what then shows. */
  controls: Controls,
  /** Other vehicles that are looked at together with this one. */
  scene: z.array(SceneVehicle).max(8, 'must be at most 8 other vehicles'),
  /** Ways to come upon the vehicle that are looked at besides the usual ones. */
  approaches: z
    .array(Approach)
    .max(MOST_OWN, `must be at most ${MOST_OWN} approaches`)
    .superRefine(namedOnce),
  traffic: TrafficSide,
  /** Planes on which somebody works, besides the ground around. */
  workPlaces: z
    .array(WorkPlace)
    .max(MOST_OWN, `must be at most ${MOST_OWN} work places`)
    .superRefine(namedOnce),
  /** Eyes near the vehicle, besides the usual ones. */
  eyes: z.array(EyePlace).max(MOST_OWN, `must be at most ${MOST_OWN} eyes`).superRefine(namedOnce),
  /** Surfaces that throw back more or less light than is usual. */
  finishes: z
    .array(Finish)
    .max(MOST_OWN, `must be at most ${MOST_OWN} finishes`)
    .refine(
      (finishes) => new Set(finishes.map(({ surface }) => surface)).size === finishes.length,
      'must name each surface once',
    ),
  rulePacks: z.array(RulePack).max(12, 'must be at most 12 rule packs'),
  /** Findings that somebody lets stand. */
  accepted: z.array(Acceptance).max(MOST_ACCEPTED, `must be at most ${MOST_ACCEPTED} accepted findings`),
});
export type BuildParts = z.infer<typeof BuildParts>;
