import { z } from 'zod';
import { RULE_HEAD } from '../../design/rulePack.ts';
import { channelOf } from '../../resolve/channels.ts';
import { Glares } from '../../sight/glare.ts';
import { lightsIn } from '../../sight/source.ts';
import { stationsOf } from '../../sight/stations.ts';
import { positive } from '../../words/numbers.ts';
import { defineRule } from '../define.ts';
import { ambientsOf, textOf, When, whenField } from '../fields.ts';
import { atMost } from '../finding.ts';
import { fails, holds, roomBelow } from '../judgement.ts';
import { figure, oneOf } from '../piece.ts';
import { about } from '../subject.ts';
import { formatQuantity } from '../../words/quantity.ts';

const STATIONS = [
  { value: 'driver', text: 'driver' },
  { value: 'rear-loading', text: 'a person at the rear, facing it' },
  { value: 'left-side', text: 'a person at the left side, facing it' },
  { value: 'right-side', text: 'a person at the right side, facing it' },
  { value: 'roadside', text: 'a person at the roadside behind' },
  { value: 'at-the-hatch', text: 'a person reaching in at the rear' },
  { value: 'pump-panel-left', text: 'one at the left pump panel' },
  { value: 'pump-panel-right', text: 'one at the right pump panel' },
  { value: 'inside', text: 'one seated inside, beside a cot' },
] as const;
const WHERE = STATIONS.map(({ value }) => value);
const Where = z.enum(WHERE, { error: `must be one of ${textOf(WHERE)}` });

/** No more than so much light reaches an eye near the vehicle. */
export const eyeLight = defineRule({
  kind: 'eye',
  title: 'Light in the eyes of the crew',
  blank: { station: 'driver', ambient: 'night', maxLx: 5 },
  home: 'visibility',
  sees: 'light',
  fromEyes: true,
  schema: z.strictObject({
    kind: z.literal('eye'),
    ...RULE_HEAD,
    station: Where,
    ambient: When,
    maxLx: positive,
  }),
  sentenceParts: (rule) => [
    'At most ',
    figure('maxLx', rule.maxLx, 'Light at the eye, lx'),
    ' lx at the eye of the ',
    oneOf('station', rule.station, 'Viewpoint', STATIONS),
    whenField('ambient', rule.ambient),
    ', peak',
  ],
  ambients: (rule) => ambientsOf(rule.ambient),
  countsChannel: () => true,
  monotonicity: () => 'hurts',
  check: (at, rule) => {
    const station = stationsOf(at.build).find(({ id }) => id === rule.station);
    // Not every body has a pump panel, or a box to sit in: nobody is there. A driver is in all.
    if (station === undefined)
      return rule.station !== 'driver'
        ? []
        : [
            fails({
              subjects: [about('viewpoint', rule.station)],
              outcome: 'cannot tell',
              sentence: `this body type does not have that viewpoint.`,
            }),
          ];
    const who = STATIONS.find(({ value }) => value === rule.station)?.text ?? station.name;
    const glares = new Glares(lightsIn(at.build, at.state));
    const eyeLx = glares.highestLx(station);
    const margin = roomBelow(eyeLx, rule.maxLx);
    if (eyeLx <= rule.maxLx) return [holds(margin)];
    const channels = at.channelsOfMost(glares.at(station).byLamp);
    return [
      fails({
        subjects: [about('viewpoint', rule.station)],
        margin,
        sentence: `illuminance at the eye, ${who}: ${formatQuantity(eyeLx, 'lx', 'up')} (limit ${rule.maxLx} lx).`,
        figure: { value: eyeLx, unit: 'lx' },
        limits: [atMost(rule.maxLx, 'lx')],
        channels: channels.length > 0 ? channels : at.drives().map(channelOf),
      }),
    ];
  },
});
