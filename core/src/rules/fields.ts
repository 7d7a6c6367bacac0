import { z } from 'zod';
import { listOf } from '../design/rulePack.ts';
import { AMBIENTS, type Ambient } from '../words/ambient.ts';
import { Colour } from '../words/colour.ts';
import { Face } from '../words/face.ts';

/* Fields that several kinds of rules and wishes share. */

export const faces = listOf(Face, 'face');
export const colours = listOf(Colour, 'colour');

/** By day, at night, or both. */
export const When = z.enum(['day', 'night', 'any'], { error: 'must be day, night or any' });
export const ambientsOf = (when: z.infer<typeof When>): readonly Ambient[] =>
  when === 'any' ? AMBIENTS : [when];

/** Light that flashes, that stays, or both. */
export const Light = z.enum(['steady', 'flashing', 'any'], { error: 'must be steady, flashing or any' });

/** Whether an eye that sees several lamps together is asked, or each lamp by itself. */
export const Of = z.enum(['sum', 'lamp'], { error: "must be 'sum' or 'lamp'" });
export type Of = z.infer<typeof Of>;
export const ofText = (of: Of): string => (of === 'sum' ? 'in all' : 'from one lamp');

/** Whose light counts: that of lamps made to warn, or of scene, work and cabin lights too. */
export const Lamps = z.enum(['warning', 'all'], { error: "must be 'warning' or 'all'" });
export type LampsCounted = z.infer<typeof Lamps>;
export const lampsText = (lamps: LampsCounted): string =>
  lamps === 'all' ? 'lamps of any kind' : 'warning lamps';

/** "1 pulse", "2 pulses". */
export const countText = (count: number, one: string, more = `${one}s`): string =>
  `${count} ${count === 1 ? one : more}`;
export const isOrAre = (count: number): string => (count === 1 ? 'is' : 'are');

export const textOf = (items: readonly (string | number)[]): string => items.join(', ');
