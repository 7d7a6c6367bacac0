import { z } from 'zod';
import { MountStyle } from '../fixture/types.ts';
import { MAX_TRIANGLES } from '../geometry/mesh.ts';
import { isConvex } from '../geometry/polygon.ts';
import { Id, Name } from '../words/names.ts';
import { numberBetween } from '../words/numbers.ts';
import { BODY_TYPES, findBodyType } from './bodies/bodyTypes.ts';
import { DIMENSIONS, dimensionsFault } from './body/dimension.ts';
import {
  BOX,
  degrees,
  FACINGS,
  FLAT,
  hasRoom,
  LEAST_M,
  metres,
  Point,
  share,
  size,
  VehicleFacing,
} from './measures.ts';
import { rangesOf } from './options/options.ts';
import { EMPTY_SURVEY, Survey } from './survey.ts';
import { FIXINGS, KEEP_OUT_KINDS } from './types.ts';

/** A zone drawn by the user, on the body or on a moving part. */
export const OwnZone = z.strictObject({
  id: Id,
  name: Name,
  /** Where it belongs: a face, the top, underneath, or inside, where a shut part covers it. */
  face: z.enum([...FACINGS, 'inside'], { error: `must be one of ${FACINGS.join(', ')}, inside` }),
  /** The way it looks, before it is turned and tilted. */
  facing: VehicleFacing,
  /** Turned to the right as one looks out along it, and raised, degrees. */
  panDeg: degrees(90),
  tiltDeg: degrees(90),
  /** The moving part that carries it; null on the body. */
  partId: Id.nullable(),
  mount: MountStyle,
  /** What it bears, the usual way first. */
  fixings: z
    .array(z.enum(FIXINGS, { error: `must be one of ${FIXINGS.join(', ')}` }))
    .min(1, 'must name at least one fixing')
    .max(FIXINGS.length),
  centre: Point,
  widthM: size,
  heightM: size,
  singleWall: z.boolean(),
  behind: Name,
  /** Free depth behind it, and how far a lamp may stand out of it, m; null when nobody measured. */
  behindM: numberBetween(0, 3).nullable(),
  outM: numberBetween(0, 3).nullable(),
});
export type OwnZone = z.infer<typeof OwnZone>;

/** An area of retroreflective sheeting: in no sum of lamps, seen by the head lamps of others. */
export const Reflector = z.strictObject({
  id: Id,
  name: Name,
  face: VehicleFacing,
  centre: Point,
  widthM: size,
  heightM: size,
  colour: z.enum(['red', 'yellow', 'white', 'blue', 'green', 'orange'], {
    error: 'must be red, yellow, white, blue, green or orange',
  }),
  /** Coefficient of retroreflection R_A, cd·lx⁻¹·m⁻². */
  cdPerLxM2: numberBetween(0, 2000),
});
export type Reflector = z.infer<typeof Reflector>;

/** Something of the vehicle that hides light: a box, or a convex side profile drawn out across. */
export const OwnSolid = z.discriminatedUnion(
  'kind',
  [
    z
      .strictObject({
        kind: z.literal('box'),
        id: Id,
        name: Name,
        ...BOX,
        transmission: share,
      })
      .refine(hasRoom, FLAT),
    z
      .strictObject({
        kind: z.literal('profile'),
        id: Id,
        name: Name,
        /** Corners in x and z, in order. */
        points: z
          .array(z.tuple([metres, metres]))
          .min(3, 'needs three corners')
          .max(24),
        fromY: metres,
        toY: metres,
        transmission: share,
      })
      .refine(({ fromY, toY }) => Math.abs(toY - fromY) >= LEAST_M, FLAT)
      .refine(({ points }) => isConvex(points), 'the profile must be convex: draw it as several'),
  ],
  { error: "must be a 'box' or a 'profile'" },
);
export type OwnSolid = z.infer<typeof OwnSolid>;

export const OwnKeepOut = z
  .strictObject({
    id: Id,
    name: Name,
    kind: z.enum(KEEP_OUT_KINDS),
    ...BOX,
  })
  .refine(hasRoom, FLAT);
export type OwnKeepOut = z.infer<typeof OwnKeepOut>;

/** A body read from a mesh file, in body axes, that hides light. */
export const MeshSpec = z
  .strictObject({
    name: Name,
    /** x, y, z of each corner in turn, m. */
    verticesM: z.array(metres).max(9 * MAX_TRIANGLES),
    /** Three corners for each triangle. */
    triangles: z.array(z.int().min(0)).max(3 * MAX_TRIANGLES, `must be at most ${MAX_TRIANGLES} triangles`),
    /** Whether it stands in for the body's own solids; moving parts stay. */
    replacesBody: z.boolean(),
  })
  .refine((m) => m.verticesM.length % 3 === 0 && m.triangles.length % 3 === 0, 'must be made of threes')
  .refine((m) => m.triangles.every((i) => i * 3 < m.verticesM.length), 'a triangle names a missing corner');
export type MeshSpec = z.infer<typeof MeshSpec>;

/** What equipment that is no lamp can be. */
export const EQUIPMENT_KINDS = [
  'siren speaker',
  'microphone',
  'console',
  'radio',
  'computer',
  'outlet',
  'extinguisher',
  'bracket',
  'other',
] as const;

/** Something that is fitted besides lamps: it takes up room, hides light, and may draw current. */
export const Equipment = z
  .strictObject({
    id: Id,
    name: Name,
    kind: z.enum(EQUIPMENT_KINDS, { error: `must be one of ${EQUIPMENT_KINDS.join(', ')}` }),
    ...BOX,
    /** What it draws at work, A. */
    loadA: numberBetween(0, 200),
    transmission: share,
  })
  .refine(hasRoom, FLAT);
export type Equipment = z.infer<typeof Equipment>;

/** The vehicle as a build stores it: a body type, what the tape measure said, options, and the user's own parts. */
export const VehicleSpec = z
  .strictObject({
    bodyType: z.enum(
      BODY_TYPES.map((b) => b.id),
      { error: `must be a body type Flarik knows: ${BODY_TYPES.map((b) => b.id).join(', ')}` },
    ),
    /** What people call this vehicle; empty takes the body type's name. */
    name: z
      .string()
      .max(80)
      .regex(/^[^<>]*$/, 'must not contain < or >'),
    dimensions: z.record(z.string(), z.number({ error: 'must be a number' })),
    options: z.array(Id).max(20),
    zones: z.array(OwnZone).max(60, 'must be at most 60 custom zones'),
    solids: z.array(OwnSolid).max(60, 'must be at most 60 own solids'),
    keepOuts: z.array(OwnKeepOut).max(60, 'must be at most 60 own keep-outs'),
    reflectors: z.array(Reflector).max(60, 'must be at most 60 reflective areas'),
    equipment: z.array(Equipment).max(60, 'must be at most 60 things of equipment'),
    mesh: MeshSpec.nullable(),
    survey: Survey,
  })
  .superRefine((spec, ctx) => {
    const issue = (path: PropertyKey[], message: string) => ctx.addIssue({ code: 'custom', path, message });
    const body = findBodyType(spec.bodyType);
    if (body === undefined) return;
    const ranges = rangesOf(body, spec.options);
    for (const [key, range] of Object.entries(ranges)) {
      const value = spec.dimensions[key];
      const [min, max] = range;
      if (value === undefined) issue(['dimensions', key], 'is missing');
      else if (value < min) issue(['dimensions', key], `must be at least ${min}`);
      else if (value > max) issue(['dimensions', key], `must be at most ${max}`);
    }
    for (const key of Object.keys(spec.dimensions))
      if (!(key in ranges))
        issue(
          ['dimensions', key],
          key in DIMENSIONS ? `is not measured on a ${body.name}` : `unknown dimension`,
        );
    const measured = Object.entries(ranges).every(([key, [min, max]]) => {
      const value = spec.dimensions[key];
      return value !== undefined && value >= min && value <= max;
    });
    const fault = measured ? dimensionsFault(body, spec.dimensions) : null;
    if (fault !== null) issue(['dimensions'], `do not go together: ${fault}`);
    for (const [i, option] of spec.options.entries()) {
      if (!body.options.includes(option))
        issue(['options', i], `a ${body.name} takes no '${option}'; it takes ${body.options.join(', ')}`);
      if (spec.options.indexOf(option) !== i) issue(['options', i], `'${option}' is named twice`);
    }
  });
export type VehicleSpec = z.infer<typeof VehicleSpec>;

/** A body type as the maker builds it, with some options fitted and nothing of one's own. */
export function defaultSpec(bodyType: string, options: readonly string[] = []): VehicleSpec {
  const body = findBodyType(bodyType);
  if (body === undefined) throw new RangeError(`no body type '${bodyType}'`);
  return {
    bodyType,
    name: '',
    dimensions: Object.fromEntries(
      Object.entries(rangesOf(body, options)).map(([key, [, , usual]]) => [key, usual]),
    ),
    options: [...options],
    zones: [],
    solids: [],
    keepOuts: [],
    reflectors: [],
    equipment: [],
    mesh: null,
    survey: EMPTY_SURVEY,
  };
}
