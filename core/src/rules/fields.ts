import { z } from 'zod';
import { listOf } from '../design/rulePack.ts';
import { AMBIENTS, type Ambient } from '../words/ambient.ts';
import type { Drive } from '../resolve/channels.ts';
import { Colour, COLOURS } from '../words/colour.ts';
import { Face, FACES } from '../words/face.ts';
import { LIGHTS_AROUND, type AmbientLevel } from '../words/weather.ts';
import { oneOf, someOf, type Field } from './piece.ts';

/* Fields that several kinds of rules and wishes share. */

export const faces = listOf(Face, 'face');
export const colours = listOf(Colour, 'colour');

/** By day, at night, or both. */
export const When = z.enum(['day', 'night', 'any'], { error: 'must be day, night or any' });
export const ambientsOf = (when: z.infer<typeof When>): readonly Ambient[] =>
  when === 'any' ? AMBIENTS : [when];

/** Lamps above the pack's height, at or below it, or both. */
export const Level = z.enum(['upper', 'lower', 'any'], { error: 'must be upper, lower or any' });

/** Light that flashes, that stays, or both. */
export const Light = z.enum(['steady', 'flashing', 'any'], { error: 'must be steady, flashing or any' });

/** Whether an eye that sees several lamps together is asked, or each lamp by itself. */
export const PhotometricBasis = z.enum(['sum', 'lamp'], { error: "must be 'sum' or 'lamp'" });
export type PhotometricBasis = z.infer<typeof PhotometricBasis>;
export const ofText = (of: PhotometricBasis): string => (of === 'sum' ? 'combined' : 'single lamp');

/** Whose light counts: that of lamps made to warn, or of scene, work and cabin lights too. */
export const Lamps = z.enum(['warning', 'all'], { error: "must be 'warning' or 'all'" });
export type LampsCounted = z.infer<typeof Lamps>;
export const countsLamp = ({ warns }: Drive, lamps: LampsCounted): boolean => lamps === 'all' || warns;
export const lampsText = (lamps: LampsCounted): string =>
  lamps === 'all' ? 'lamps of any kind' : 'warning lamps';

/* The same fields where they stand in a sentence. */

export const facesField = (faces: readonly Face[]): Field => someOf('faces', faces, 'Sides', FACES);
export const coloursField = (colours: readonly Colour[]): Field =>
  someOf('colours', colours, 'Colours', COLOURS);
/** " by day", " by night" or nothing. */
export const whenField = (field: string, when: z.infer<typeof When>): Field =>
  oneOf(field, when, 'By day or night', [
    { value: 'any', text: 'by day and night', said: '' },
    { value: 'day', text: 'by day', said: ' by day' },
    { value: 'night', text: 'by night', said: ' by night' },
  ]);
/** "by day", "at dusk" or "at night", where an eye on the road looks. */
export const aroundField = (around: AmbientLevel): Field =>
  oneOf(
    'around',
    around,
    'Light around',
    LIGHTS_AROUND.map((value) => ({ value, text: value === 'day' ? 'by day' : `at ${value}` })),
  );
/** What the lamps do then: at dusk they burn as by day. */
export const ambientAt = (around: AmbientLevel): readonly Ambient[] => [around === 'night' ? 'night' : 'day'];
export const lightField = (light: z.infer<typeof Light>): Field =>
  oneOf('light', light, 'Steady or flashing', [
    { value: 'any', text: 'light of any kind', said: 'light' },
    { value: 'steady', text: 'steady light' },
    { value: 'flashing', text: 'flashing light' },
  ]);
export const ofField = (of: PhotometricBasis): Field =>
  oneOf(
    'of',
    of,
    'Combined or single lamp',
    PhotometricBasis.options.map((value) => ({ value, text: ofText(value), said: `(${ofText(value)})` })),
  );
export const lampsField = (lamps: LampsCounted): Field =>
  oneOf(
    'lamps',
    lamps,
    'Lamps that count',
    Lamps.options.map((value) => ({ value, text: lampsText(value) })),
  );
/** "upper ", "lower " or nothing. */
export const levelField = (level: z.infer<typeof Level>): Field =>
  oneOf('level', level, 'Upper or lower', [
    { value: 'any', text: 'upper and lower', said: '' },
    { value: 'upper', text: 'upper', said: 'upper ' },
    { value: 'lower', text: 'lower', said: 'lower ' },
  ]);

/** "1 pulse", "2 pulses". */
export const countText = (count: number, one: string, more = `${one}s`): string =>
  `${count} ${count === 1 ? one : more}`;

export const textOf = (items: readonly (string | number)[]): string => items.join(', ');
