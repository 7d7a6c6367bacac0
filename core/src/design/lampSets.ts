import { z } from 'zod';
import { Colour } from '../words/colour.ts';
import { FactoryFunction } from '../words/factoryFunction.ts';
import { Face } from '../words/face.ts';
import { Id, Name } from '../words/names.ts';

/** A build has no more sets. */
export const MOST_SETS = 64;

/** What a lamp is fitted for: to warn, to see by, or by the vehicle's manufacturer. */
export const LAMP_USES = ['warning', 'light', 'factory'] as const;
export const LampUse = z.enum(LAMP_USES, { error: `must be one of ${LAMP_USES.join(', ')}` });
export type LampUse = z.infer<typeof LampUse>;

/** On which side of the centre plane a module is. */
export const SIDES = ['left', 'middle', 'right'] as const;
export const Side = z.enum(SIDES, { error: `must be one of ${SIDES.join(', ')}` });
export type Side = z.infer<typeof Side>;

const several = <T extends z.ZodType>(item: T) =>
  z.array(item).min(1, 'must name at least one').max(16, 'must name at most 16');
const clause = <About extends string, Shape extends z.ZodRawShape>(about: About, shape: Shape) =>
  z.strictObject({
    about: z.literal(about),
    /** It leaves out what it names. */
    not: z.boolean(),
    ...shape,
  });

/** One condition on a module. It applies where any of what it names does. */
export const SetClause = z.discriminatedUnion(
  'about',
  [
    clause('use', { of: several(LampUse) }),
    clause('colour', { of: several(Colour) }),
    /** It shines along that axis of the vehicle, with all parts closed, or with one of these stops open. */
    clause('shines', { of: several(Face), closed: z.boolean(), stops: z.array(Id).max(16) }),
    clause('side', { of: several(Side) }),
    /** It is in that sync group; null for none. */
    clause('group', { of: several(Id.nullable()) }),
    clause('zone', { of: several(Id) }),
    /** A moving part carries it; `covered`: and hides it while closed. */
    clause('part', { of: several(Id), covered: z.boolean() }),
    /** It is tied into a factory lamp with that function. */
    clause('tied', { of: several(FactoryFunction) }),
    /** It is beside a factory lamp with that function, on its side. */
    clause('beside', { of: several(FactoryFunction) }),
  ],
  { error: 'must be about use, colour, shines, side, group, zone, part, tied or beside' },
);
export type SetClause = z.infer<typeof SetClause>;

/** Which of the modules that meet every condition a set takes. */
export const SET_PICKS = ['all', 'highest', 'inner', 'foremost', 'stop', 'reverse'] as const;
export const SetPick = z.enum(SET_PICKS, { error: `must be one of ${SET_PICKS.join(', ')}` });
export type SetPick = z.infer<typeof SetPick>;

/** A set in words instead of a list: later lamps that meet it join by themselves. */
export const SetRule = z.strictObject({
  /** All must apply. */
  clauses: z.array(SetClause).max(8, 'must be at most 8 conditions'),
  /**
   * `highest`: the highest of them; `inner`: of these the half nearest to the centre plane; `foremost`: of the highest the
   * foremost lamp; `stop`, `reverse`: those beside such a factory lamp, or else the lowest.
   */
  pick: SetPick,
});
export type SetRule = z.infer<typeof SetRule>;

const Member = z.strictObject({ placementId: Id, moduleId: Id });
const Members = z.array(Member).max(400, 'must be at most 400 modules');

/** Modules that functions address together; a module may be in any number of sets. */
export const LampSet = z.strictObject({
  id: Id,
  name: Name,
  /** What chooses its modules; null for a fixed list. */
  rule: SetRule.nullable(),
  /** In it whatever the rule says. */
  modules: Members,
  /** Not in it whatever the rule says. */
  without: Members,
});
export type LampSet = z.infer<typeof LampSet>;

/** A set that is a fixed list. */
export const fixedSet = (id: string, name: string, modules: LampSet['modules']): LampSet => ({
  id,
  name,
  rule: null,
  modules,
  without: [],
});

/** A set that a rule chooses. */
export const ruledSet = (id: string, name: string, clauses: SetClause[], pick: SetPick = 'all'): LampSet => ({
  id,
  name,
  rule: { clauses, pick },
  modules: [],
  without: [],
});
