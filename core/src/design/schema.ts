import { z } from 'zod';
import { InputError, parseInput } from '../words/errors.ts';
import { Fixture } from '../fixture/types.ts';
import { InsertId } from '../fixture/inserts.ts';
import { Colour } from '../words/colour.ts';
import { Id, Name, Remark } from '../words/names.ts';
import { RulePack } from '../rules/pack.ts';
import { PATTERNS } from '../timing/library.ts';
import { Pattern, Phase, slotsOf } from '../timing/pattern.ts';
import { bookOf } from '../timing/book.ts';
import { timeOf, mayFollow } from '../timing/clock.ts';
import { atSpeed, SPEED_PERCENT } from '../timing/recipes/speed.ts';
import { Slot } from '../timing/span.ts';
import { Clock } from '../timing/step.ts';
import { VehicleSpec } from '../vehicle/spec.ts';
import { FIXINGS } from '../vehicle/types.ts';
import { Brief } from './brief.ts';
import { lookupOf, type Lookup } from '../resolve/lookup.ts';
import { migrate } from './migrate.ts';
import { PhotometryFile } from '../fixture/photometry/file.ts';
import { SceneVehicle } from './scene.ts';
import { Service } from '../words/service.ts';

export const BUILD_FORMAT = 'flarik-build';
export const SCHEMA_VERSION = 3;

const finite = (min: number, max: number) =>
  z
    .number({ error: 'must be a number' })
    .min(min, `must be at least ${min}`)
    .max(max, `must be at most ${max}`);

const OffsetMs = z
  .int('must be whole milliseconds')
  .min(0, 'must be at least 0')
  .max(60_000, 'must be at most 60000');

/** How one module of a placement is coloured and timed. */
export const ModuleSetup = z.strictObject({
  id: Id,
  /** Its colours, slot 1 first. */
  colours: z.array(Colour).min(1, 'must name at least one colour').max(3),
  /** Sync group; null free-runs on a clock of its own. */
  groupId: Id.nullable(),
  phase: Phase,
  /** Place in a sweep, from 1. */
  order: z.int().min(1).max(64),
  /** It shows its line of the pattern so much later than its group, ms. */
  offsetMs: OffsetMs,
  /** What its slot is built with, on a bar of slots; a warning module elsewhere. */
  insert: InsertId,
});
export type ModuleSetup = z.infer<typeof ModuleSetup>;

/** Where a lamp comes from, or goes: bought, left where it is, moved here, or taken out. */
export const LampStatus = z.enum(['new', 'kept', 'reused', 'removed'], {
  error: 'must be new, kept, reused or removed',
});
export type LampStatus = z.infer<typeof LampStatus>;

/** A fixture on a mount zone. */
export const Placement = z.strictObject({
  id: Id,
  fixtureId: Id,
  zoneId: Id,
  label: Name,
  /** Whether a person named it; else its label follows the layout. */
  named: z.boolean(),
  uM: finite(-6, 6),
  vM: finite(-6, 6),
  panDeg: finite(-180, 180),
  tiltDeg: finite(-90, 90),
  rollDeg: finite(-180, 180),
  /** Share of light its lens or cover passes. */
  lensTransmission: finite(0, 1),
  /** Its mirrored partner on the other side. */
  partnerId: Id.nullable(),
  status: LampStatus,
  /** How it is held; null takes the zone's usual way. */
  fixing: z.enum(FIXINGS, { error: `must be one of ${FIXINGS.join(', ')}` }).nullable(),
  /** How far its pole is raised, m. */
  poleM: finite(0, 8),
  /** What it says, if it shows a text. */
  text: z
    .string()
    .max(40)
    .regex(/^[^<>]*$/, 'must not contain < or >'),
  modules: z.array(ModuleSetup).min(1).max(64),
});
export type Placement = z.infer<typeof Placement>;

/** Modules that share one clock. */
export const Group = z.strictObject({
  id: Id,
  name: Name,
  /** The group whose clock it runs on; null has one of its own. */
  followsId: Id.nullable(),
  /** Its speed against that group's, or against the patterns as they are made, %. */
  speedPercent: z
    .int('must be a whole percentage')
    .min(SPEED_PERCENT.min, `must be at least ${SPEED_PERCENT.min}`)
    .max(SPEED_PERCENT.max, `must be at most ${SPEED_PERCENT.max}`),
  /** It begins so much later, ms. */
  offsetMs: OffsetMs,
  /** What its clock reaches: heads that cannot follow it run free. */
  clock: Clock,
  /** A head that runs free in it is a fault, not a remark. */
  mustKeepStep: z.boolean(),
});
export type Group = z.infer<typeof Group>;

/** In a stage: what a group shows. `groupId` null speaks to all modules in no group. */
export const Cue = z.strictObject({
  groupId: Id.nullable(),
  patternId: Id,
  /** Shown instead at night; null shows the same. */
  nightPatternId: Id.nullable(),
  slot: Slot,
  level: finite(0.05, 1),
});
export type Cue = z.infer<typeof Cue>;

export const Stage = z.strictObject({
  name: Name,
  cues: z.array(Cue).max(64),
  /** Everything is dimmed to this share when ambient is night. */
  nightLevel: finite(0.05, 1),
});
export type Stage = z.infer<typeof Stage>;

/** Off and the three stages, by their place in the list. */
export const StageIndex = z.union([z.literal(0), z.literal(1), z.literal(2), z.literal(3)], {
  error: 'must be stage 0 (off), 1, 2 or 3',
});
export type StageIndex = z.infer<typeof StageIndex>;
export const STAGES: readonly StageIndex[] = [0, 1, 2, 3];

const Timing = z.strictObject({
  /** The build's own patterns, beside the library. */
  patterns: z.array(Pattern).max(100, 'must be at most 100 own patterns'),
  groups: z.array(Group).max(32),
  stages: z.tuple([Stage, Stage, Stage, Stage], { error: 'must hold Off and three stages' }),
});

/** One vehicle being designed: the whole document, as it is saved, exported and imported. */
export const Build = z
  .strictObject({
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
    /** Other vehicles that are looked at together with this one. */
    scene: z.array(SceneVehicle).max(8, 'must be at most 8 other vehicles'),
    rulePacks: z.array(RulePack).max(12),
  })
  .superRefine((build, ctx) => {
    // Pointers into parts that cannot be read lead nowhere; those parts are named first.
    if (ctx.issues.length > 0) return;
    for (const { path, reason } of loosePointers(build))
      ctx.addIssue({ code: 'custom', path, message: reason });
  });
export type Build = z.infer<typeof Build>;
export type { PhotometryFile };

type BuildShape = Omit<Build, 'format' | 'schemaVersion'>;
interface Loose {
  path: PropertyKey[];
  reason: string;
}

/** Every id in the document that names nothing, or names something twice. */
function* loosePointers(build: BuildShape): Generator<Loose> {
  const groups = new Set(build.timing.groups.map((g) => g.id));
  const lookup = lookupOf(build);
  const zones = new Set(lookup.vehicle.zones.map((zone) => zone.id));
  yield* doubles(lookup.vehicle.zones, ['vehicle', 'zones']);
  yield* doubles(build.placements, ['placements']);
  yield* doubles(build.fixtures, ['fixtures']);
  yield* doubles(build.photometry, ['photometry']);
  yield* doubles(build.brief.constraints, ['brief', 'constraints']);
  for (const [i, f] of build.fixtures.entries()) yield* doubles(f.modules, ['fixtures', i, 'modules']);
  yield* doubles(build.timing.groups, ['timing', 'groups']);
  yield* doubles(build.rulePacks, ['rulePacks']);
  for (const [i, p] of build.placements.entries()) {
    const path = ['placements', i];
    if (!zones.has(p.zoneId))
      yield { path: [...path, 'zoneId'], reason: `no mount zone '${p.zoneId}' on this vehicle` };
    yield* looseModules(p, lookup, groups, path);
    if (p.partnerId === null) continue;
    const partner = build.placements.find((other) => other.id === p.partnerId);
    if (partner?.partnerId !== p.id || partner.id === p.id)
      yield {
        path: [...path, 'partnerId'],
        reason: `'${p.partnerId}' is not a placement whose partner is '${p.id}'`,
      };
  }
  yield* looseTiming(build);
  yield* doubles(build.scene, ['scene']);
  for (const [i, v] of build.scene.entries())
    for (const [k, { here }] of v.inStep.entries())
      if (!groups.has(here))
        yield { path: ['scene', i, 'inStep', k, 'here'], reason: `no sync group '${here}'` };
}

function* looseTiming(build: BuildShape): Generator<Loose> {
  const { groups, patterns, stages } = build.timing;
  yield* doubles(patterns, ['timing', 'patterns']);
  const book = bookOf(build);
  for (const [i, p] of patterns.entries()) {
    const path = ['timing', 'patterns', i];
    if (PATTERNS.some(({ id }) => id === p.id))
      yield { path: [...path, 'id'], reason: `'${p.id}' is a pattern of the library` };
    const reason = failure(() => book.cycleOf(p));
    if (reason !== null) yield { path, reason };
  }
  for (const [i, g] of groups.entries()) {
    const path = ['timing', 'groups', i, 'followsId'];
    if (g.followsId === null) continue;
    if (!groups.some(({ id }) => id === g.followsId))
      yield { path, reason: `no sync group '${g.followsId}'` };
    else if (!mayFollow(groups, g.id, g.followsId))
      yield { path, reason: `following '${g.followsId}', '${g.id}' would follow itself` };
  }
  for (const [s, stage] of stages.entries()) {
    const seen = new Set<string>();
    for (const [c, cue] of stage.cues.entries()) {
      const path = ['timing', 'stages', s, 'cues', c];
      if (cue.groupId !== null && !groups.some(({ id }) => id === cue.groupId))
        yield { path: [...path, 'groupId'], reason: `no sync group '${cue.groupId}'` };
      for (const key of ['patternId', 'nightPatternId'] as const) {
        const patternId = cue[key];
        if (patternId === null) continue;
        const reason = cueFailure(build, cue, patternId);
        if (reason !== null) yield { path: [...path, key], reason };
      }
      if (cueFailure(build, cue, cue.patternId) !== null) continue;
      for (const slot of slotsOf(book.cycle(cue.patternId), cue.slot)) {
        const key = `${cue.groupId ?? ''}/${slot}`;
        if (seen.has(key))
          yield { path, reason: `colour slot ${slot} of the same group is cued twice in this stage` };
        seen.add(key);
      }
    }
  }
}

/** Why a cue cannot show a pattern; null when it can. */
export function cueFailure(
  build: Pick<Build, 'timing'>,
  cue: Pick<Cue, 'groupId'>,
  patternId: string,
): string | null {
  const book = bookOf(build);
  if (book.find(patternId) === undefined)
    return `no pattern '${patternId}'; known are ${[...PATTERNS, ...book.own].map((p) => p.id).join(', ')}`;
  const speed = cue.groupId === null ? 1 : timeOf(build.timing.groups, cue.groupId).speed;
  return failure(() => atSpeed(book.cycle(patternId), speed));
}

function failure(work: () => unknown): string | null {
  try {
    work();
    return null;
  } catch (error) {
    if (error instanceof RangeError) return error.message;
    throw error;
  }
}

function* looseModules(
  p: Placement,
  lookup: Lookup,
  groups: ReadonlySet<string>,
  path: PropertyKey[],
): Generator<Loose> {
  const fixture = lookup.fixtures.find((f) => f.id === p.fixtureId);
  if (fixture === undefined) {
    yield { path: [...path, 'fixtureId'], reason: `no fixture '${p.fixtureId}' in the catalogue` };
    return;
  }
  const expected = fixture.modules.map((m) => m.id).join(', ');
  if (p.modules.map((m) => m.id).join(', ') !== expected)
    yield {
      path: [...path, 'modules'],
      reason: `must be the modules of '${p.fixtureId}' in order: ${expected}`,
    };
  for (const [m, setup] of p.modules.entries()) {
    const at = [...path, 'modules', m];
    if (setup.groupId !== null && !groups.has(setup.groupId))
      yield { path: [...at, 'groupId'], reason: `no sync group '${setup.groupId}'` };
    if (setup.colours.length > fixture.colourSlots)
      yield {
        path: [...at, 'colours'],
        reason: `'${p.fixtureId}' holds at most ${fixture.colourSlots} colours`,
      };
    if (setup.insert !== 'warning' && !fixture.slotted)
      yield { path: [...at, 'insert'], reason: `'${p.fixtureId}' is not built slot by slot` };
    const made = lookup.outputs(fixture, setup);
    for (const [c, colour] of setup.colours.entries()) {
      if (made[colour] === undefined && setup.insert !== 'blank')
        yield { path: [...at, 'colours', c], reason: `'${p.fixtureId}' is not made in ${colour}` };
    }
  }
}

function* doubles(items: readonly { id: string }[], path: PropertyKey[]): Generator<Loose> {
  const seen = new Set<string>();
  for (const [i, { id }] of items.entries()) {
    if (seen.has(id)) yield { path: [...path, i, 'id'], reason: `'${id}' is used twice` };
    seen.add(id);
  }
}

/**
 * Reads a build from outside data of any known schema version.
 * @throws {InputError} what is wrong and where
 */
export function readBuild(data: unknown): Build {
  const head = z.looseObject({ format: z.unknown(), schemaVersion: z.unknown() }).safeParse(data);
  if (!head.success || head.data.format !== BUILD_FORMAT)
    throw new InputError('format', `this is not a Flarik build: 'format' must be '${BUILD_FORMAT}'`);
  const version = head.data.schemaVersion;
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1)
    throw new InputError('schemaVersion', 'must be a whole number from 1');
  if (version > SCHEMA_VERSION)
    throw new InputError(
      'schemaVersion',
      `the build was written by a newer Flarik (schema ${version}); this one reads up to ${SCHEMA_VERSION}`,
    );
  return parseInput(Build, migrate(data, version));
}

/** No build file is larger than this, bytes. */
export const MAX_BUILD_BYTES = 4 * 1024 * 1024;

/**
 * Reads a build file's text.
 * @throws {InputError} too large, not JSON, or not a build
 */
export const readBuildText = (text: string): Build => readBuild(parseJson(text, 'build file'));

/**
 * JSON text as data, with limits.
 * @param what - how to call the text in an error
 * @throws {InputError} too large, or not JSON
 */
export function parseJson(text: string, what: string): unknown {
  if (text.length > MAX_BUILD_BYTES) throw new InputError('', tooLarge(what, text.length));
  try {
    return JSON.parse(text);
  } catch (error) {
    const why = error instanceof Error ? error.message : 'unreadable';
    throw new InputError('', `the ${what} is not valid JSON: ${why}`);
  }
}

export const tooLarge = (what: string, bytes: number): string =>
  `the ${what} is too large: ${(bytes / 1048576).toFixed(1)} MB, at most ${MAX_BUILD_BYTES / 1048576} MB`;
