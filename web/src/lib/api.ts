import { STAGE_PRESETS } from '@flarik/core/arrange/startingStages';
import { RulePack } from '@flarik/core/design/rulePack';
import { Build } from '@flarik/core/design/schema';
import { Severity } from '@flarik/core/words/severity';
import { Service } from '@flarik/core/words/service';
import { Id, Name } from '@flarik/core/words/names';
import { BODY_TYPES } from '@flarik/core/vehicle/bodies/bodyTypes';
import { z } from 'zod';
import { VehicleSpec } from '@flarik/core/vehicle/spec';
import { Colour } from '@flarik/core/words/colour';

/** The left side of a build, small, as the list of builds shows it. */
export const BuildPicture = z.strictObject({
  vehicle: VehicleSpec,
  /** Each lens as a path in the view's metres, and its first colour. */
  lenses: z.array(z.strictObject({ path: z.string(), colour: Colour })),
});
export type BuildPicture = z.infer<typeof BuildPicture>;

/** What travels between the browser and the server; also the source of the OpenAPI document. */

export const BuildSummary = z.strictObject({
  id: z.string(),
  name: z.string(),
  service: z.string(),
  bodyType: z.string(),
  jurisdictions: z.array(z.string()),
  version: z.int(),
  /** By severity; null while they are counted, or when that was given up. */
  findings: z.record(Severity, z.int()).nullable(),
  /** They are being counted. */
  counting: z.boolean(),
  /** Names the picture as it is now; null until it is made, together with the count. */
  pictureKey: z.string().nullable(),
  /** Put away: in the list only when asked for. */
  archived: z.boolean(),
  updatedAt: z.string(),
});
export type BuildSummary = z.infer<typeof BuildSummary>;

/** A rule pack as it was once put on the shelf. */
export const PackVersion = z.strictObject({ version: z.int(), savedAt: z.string(), pack: RulePack });
export type PackVersion = z.infer<typeof PackVersion>;

/** What of a build is changed without a save. */
export const BuildPatch = z.strictObject({ archived: z.boolean() });

/** One save of a build. */
export const Revision = z.strictObject({
  version: z.int(),
  savedAt: z.string(),
  /** Size of the document. */
  bytes: z.int(),
  /** What changed, in one line; empty when that is not known. */
  changed: z.string(),
  /** A named revision is kept for ever; the others thin out with age. */
  name: z.string().nullable(),
});
export type Revision = z.infer<typeof Revision>;

export const RevisionPatch = z.strictObject({ name: Name.nullable() });

export const SavedBuild = z.strictObject({ build: Build, version: z.int(), savedAt: z.string() });
export type SavedBuild = z.infer<typeof SavedBuild>;

export const NewBuildRequest = z.strictObject({
  name: Name,
  service: Service,
  bodyType: z.enum(BODY_TYPES.map((b) => b.id)),
  /** Packs of the shelf that the build is to be checked by. */
  rulePackIds: z.array(Id).max(12),
  /** What its stages begin with. */
  start: z.enum(STAGE_PRESETS).default('none'),
  /** Where it drives. */
  jurisdictions: z.array(Name).max(12).default([]),
});

/** A build document that is not parsed yet: the reader of builds does that, with its own errors. */
const Unread = z.unknown();

export const SaveRequest = z.strictObject({
  build: Unread,
  /** The version this save was based on. */
  basedOn: z.int().min(1),
  /** Names this save, so that a repeated one does nothing twice. */
  saveId: z.uuid(),
  /** What changed since, in one line. */
  changed: z.string().max(200).default(''),
});

export const SaveAnswer = z.strictObject({ version: z.int(), savedAt: z.string() });
export type SaveAnswer = z.infer<typeof SaveAnswer>;

export const Created = z.strictObject({ id: z.string() });

/** RFC 9457 problem details, with the path in the document at fault where there is one. */
export const Problem = z.looseObject({
  type: z.string(),
  title: z.string(),
  status: z.int(),
  detail: z.string(),
  path: z.string().optional(),
  current: z.unknown().optional(),
});
export type Problem = z.infer<typeof Problem>;
