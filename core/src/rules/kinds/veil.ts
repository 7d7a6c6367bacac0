import { z } from 'zod';
import { RULE_HEAD } from '../../design/rulePack.ts';
import { LUMINANCE_AROUND } from '../../sight/approach.ts';
import { aheadOf } from '../../sight/ahead.ts';
import { driverOf } from '../../sight/stations.ts';
import { FogVeil } from '../../sight/veil.ts';
import { positive, numberBetween } from '../../words/numbers.ts';
import { AmbientLevel } from '../../words/weather.ts';
import { defineRule } from '../define.ts';
import { ambientAt, aroundField } from '../fields.ts';
import { atMost } from '../finding.ts';
import { fails, holds, roomBelow } from '../judgement.ts';
import { figure } from '../piece.ts';
import { about } from '../subject.ts';

/** Fog throws no more of the lamps' light back to the driver than a share of its own. */
export const veil = defineRule({
  kind: 'veil',
  title: 'Fog backscatter',
  blank: { opticalRangeM: 80, around: 'night', maxPercent: 1000 },
  home: 'visibility',
  sees: 'light',
  fromEyes: true,
  schema: z.strictObject({
    kind: z.literal('veil'),
    ...RULE_HEAD,
    /** One sees so far through it, m. */
    opticalRangeM: numberBetween(20, 2000),
    around: AmbientLevel,
    maxPercent: positive,
  }),
  sentenceParts: (rule) => [
    'In fog with a visibility of ',
    figure('opticalRangeM', rule.opticalRangeM, 'Meteorological optical range, m', { min: 20, max: 2000 }),
    ' m, ',
    aroundField(rule.around),
    ', backscatter to the driver is at most ',
    figure('maxPercent', rule.maxPercent, 'Share of fog luminance, %'),
    ' % of fog luminance',
  ],
  ambients: (rule) => ambientAt(rule.around),
  countsChannel: () => true,
  monotonicity: () => 'hurts',
  check: (at, rule) => {
    const driver = driverOf(at.lookup.vehicle, at.build.traffic);
    if (driver === null)
      return [
        fails({
          subjects: [about('viewpoint', 'driver')],
          outcome: 'cannot tell',
          sentence: `this body type has no driver’s seat.`,
        }),
      ];
    const { lights, solids } = aheadOf(at.build, at.state, driver.eye);
    const fog = new FogVeil(lights, solids, driver.eye, rule.opticalRangeM);
    const percent = (100 * fog.highest) / LUMINANCE_AROUND[rule.around];
    const margin = roomBelow(percent, rule.maxPercent);
    if (percent <= rule.maxPercent) return [holds(margin)];
    const channels = at.channelsOfMost(fog.result.byLamp);
    return [
      fails({
        subjects: [about('viewpoint', 'driver')],
        margin,
        sentence: `fog backscatter at the driver’s eye: ${Math.ceil(percent)} % of fog luminance (limit ${rule.maxPercent} %). Main source: ${at.lampsText(channels)}.`,
        figure: { value: percent, unit: '%' },
        limits: [atMost(rule.maxPercent, '%')],
        channels,
      }),
    ];
  },
});
