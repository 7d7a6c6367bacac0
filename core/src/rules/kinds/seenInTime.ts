import { z } from 'zod';
import { RULE_HEAD } from '../../design/rulePack.ts';
import { channelOf } from '../../resolve/channels.ts';
import type { Approach } from '../../design/approach.ts';
import { Approaches, neededFor } from '../../sight/approach.ts';
import { OBSERVERS } from '../../sight/observer.ts';
import { detectionText, timeMarginText } from '../../sight/words.ts';
import { Colour, COLOURS } from '../../words/colour.ts';
import { numberBetween } from '../../words/numbers.ts';
import { AmbientLevel, Weather, WEATHERS } from '../../words/weather.ts';
import { defineRule } from '../define.ts';
import { ambientAt, aroundField } from '../fields.ts';
import { atLeast } from '../finding.ts';
import { fails, holds } from '../judgement.ts';
import { figure, oneOf } from '../piece.ts';
import { about } from '../subject.ts';

const PeakTowardFace = z.union([z.literal('any'), Colour], { error: `must be any, ${COLOURS.join(', ')}` });
const EYES = ['normal', 'every'] as const;
const OBSERVER = {
  normal: 'normal vision',
  protan: 'protan (red-deficient) driver',
  deutan: 'deutan (green-deficient) driver',
} as const;

/** Whoever drives toward the vehicle sees it in time to stop, with so much to spare. */
export const seenInTime = defineRule({
  kind: 'seen-in-time',
  title: 'Sight distance',
  blank: {
    fromDeg: 180,
    speedKmh: 110,
    eyeM: 1.08,
    gradePercent: 0,
    weather: 'rain',
    around: 'day',
    shown: 'any',
    noticing: 1,
    eyes: 'normal',
    spareS: 0,
  },
  home: 'visibility',
  sees: 'light',
  fromEyes: true,
  schema: z.strictObject({
    kind: z.literal('seen-in-time'),
    ...RULE_HEAD,
    /** Where the eye comes from, clockwise from straight ahead. */
    fromDeg: numberBetween(0, 359.9),
    speedKmh: numberBetween(5, 250),
    eyeM: numberBetween(0.3, 4),
    gradePercent: numberBetween(-15, 15),
    weather: Weather,
    around: AmbientLevel,
    /** Light of this colour alone. */
    shown: PeakTowardFace,
    /** So many times what is just visible. */
    noticing: numberBetween(1, 1000),
    eyes: z.enum(EYES, { error: 'must be normal or every' }),
    spareS: numberBetween(-60, 600),
  }),
  sentenceParts: (rule) => [
    'A driver at ',
    figure('speedKmh', rule.speedKmh, 'Speed, km/h', { min: 5, max: 250 }),
    ' km/h from ',
    figure('fromDeg', rule.fromDeg, 'Bearing, degrees clockwise from straight ahead', { min: 0, max: 359.9 }),
    '°, eye at ',
    figure('eyeM', rule.eyeM, 'Height of the eye, m', { min: 0.3, max: 4 }),
    ' m, gradient ',
    figure('gradePercent', rule.gradePercent, 'Gradient, %, uphill positive', { min: -15, max: 15 }),
    ' %, in ',
    oneOf(
      'weather',
      rule.weather,
      'Weather',
      WEATHERS.map((value) => ({ value, text: value === 'clear' ? 'clear air' : value })),
    ),
    ' ',
    aroundField(rule.around),
    ', detects ',
    oneOf('shown', rule.shown, 'Part detected', [
      { value: 'any', text: 'any light' },
      ...COLOURS.map((value) => ({ value, text: value })),
    ]),
    ' at ',
    figure('noticing', rule.noticing, 'Multiple of the detection threshold', { min: 1, max: 1000 }),
    ' times the threshold, with ',
    oneOf('eyes', rule.eyes, 'Observer', [
      { value: 'normal', text: 'normal vision' },
      { value: 'every', text: 'normal and colour-deficient observers' },
    ]),
    ', at least ',
    figure('spareS', rule.spareS, 'Margin, s', { min: -60, max: 600 }),
    ' s before braking is required',
  ],
  ambients: (rule) => ambientAt(rule.around),
  countsChannel: (drive, rule) => rule.shown === 'any' || drive.colour === rule.shown,
  monotonicity: () => 'helps',
  check: (at, rule) => {
    const { fromDeg, speedKmh, eyeM, gradePercent, weather, around, shown, noticing } = rule;
    const approach: Approach = {
      id: rule.id,
      name: rule.clause,
      bearingDeg: fromDeg,
      speedKmh,
      eyeM,
      gradePercent,
      crest: null,
      weather,
      around,
      colour: shown === 'any' ? null : shown,
      level: 'any',
      noticing,
    };
    const neededM = neededFor(approach);
    return new Approaches(at.build, at.state)
      .sightings(approach, rule.eyes === 'every' ? OBSERVERS : ['normal'])
      .map((sighting) => {
        const margin = Number.isFinite(sighting.marginS)
          ? (sighting.marginS - rule.spareS) / Math.max(1, Math.abs(rule.spareS))
          : null;
        if (sighting.marginS >= rule.spareS) return holds(margin);
        const what = shown === 'any' ? 'the vehicle' : `${shown} light`;
        return fails({
          subjects: [about('observer', sighting.observer)],
          margin,
          sentence: `${what}, ${OBSERVER[sighting.observer]}: ${detectionText(sighting)}, stopping distance ${Math.round(neededM)} m, ${timeMarginText(sighting)} (minimum ${rule.spareS} s).`,
          figure: Number.isFinite(sighting.marginS) ? { value: sighting.marginS, unit: 's' } : null,
          limits: [atLeast(rule.spareS, 's')],
          channels: at
            .drives()
            .filter((drive) => shown === 'any' || drive.colour === shown)
            .map(channelOf),
          sectors: [{ fromDeg: Math.round(fromDeg) % 360, toDeg: Math.round(fromDeg) % 360 }],
        });
      });
  },
});
