import { z } from 'zod';
import { RULE_HEAD } from '../../design/rulePack.ts';
import { onsOf, type ActiveFunction } from '../../design/controls.ts';
import { channelOf } from '../../resolve/channels.ts';
import { Approaches, FROM_M, TO_M } from '../../sight/approach.ts';
import { drivenIn } from '../../state/driven.ts';
import { stateWith } from '../../state/state.ts';
import { numberBetween } from '../../words/numbers.ts';
import { defineRule } from '../define.ts';
import { atMost } from '../finding.ts';
import type { LayoutSubject } from '../layout/subject.ts';
import { figure } from '../piece.ts';
import { about } from '../subject.ts';

/** Looked at from every so many degrees round the vehicle. */
const EVERY_DEG = 10;

/** Light inside that is switched on by itself does not give the vehicle away at night. */
export const unnoticed = defineRule({
  kind: 'unnoticed',
  title: 'Unnoticed with light inside',
  blank: { eyeM: 1.6, farthestM: 100 },
  home: 'visibility',
  sees: 'document',
  schema: z.strictObject({
    kind: z.literal('unnoticed'),
    ...RULE_HEAD,
    eyeM: numberBetween(0.3, 4),
    farthestM: numberBetween(TO_M, FROM_M),
  }),
  sentenceParts: (rule) => [
    'At night, with all interior lights on and everything closed, from a height of ',
    figure('eyeM', rule.eyeM, 'Height of the eye, m', { min: 0.3, max: 4 }),
    ' m the detection distance of interior light is at most ',
    figure('farthestM', rule.farthestM, 'Farthest, m', { min: TO_M, max: FROM_M }),
    ' m',
  ],
  findIssues: (subject, rule) => {
    const inside = insideLamps(subject);
    const state = stateWith({ on: insideOns(subject, inside), ambient: 'night' });
    const { build } = subject;
    const channels = drivenIn(build, state).filter(({ placementId }) => inside.has(placementId));
    if (channels.length === 0) return [];
    const others = new Set(build.placements.flatMap(({ id }) => (inside.has(id) ? [] : [id])));
    const approaches = new Approaches(build, state);
    let worst = { bearingDeg: 0, seenM: 0 };
    for (let bearingDeg = 0; bearingDeg < 360; bearingDeg += EVERY_DEG) {
      const { seenM } = approaches.result(
        {
          id: rule.id,
          name: rule.clause,
          bearingDeg,
          eyeM: rule.eyeM,
          speedKmh: 50,
          gradePercent: 0,
          crest: null,
          weather: 'clear',
          around: 'night',
          colour: null,
          level: 'any',
          noticing: 1,
        },
        others,
      ).sightings[0];
      if (seenM > worst.seenM) worst = { bearingDeg, seenM };
    }
    if (worst.seenM <= rule.farthestM) return [];
    const from = worst.seenM >= FROM_M ? `${FROM_M} m or farther` : `${Math.ceil(worst.seenM)} m`;
    return [
      {
        subjects: [about('topic', 'light inside')],
        sentence: `interior light: detection distance ${from} at ${worst.bearingDeg}° (limit ${rule.farthestM} m).`,
        figure: { value: worst.seenM, unit: 'm' },
        limits: [atMost(rule.farthestM, 'm')],
        channels: channels.map(channelOf),
        sectors: [{ fromDeg: worst.bearingDeg, toDeg: worst.bearingDeg }],
        state,
      },
    ];
  },
});

/** Lamps that stand inside or are made for it. */
const insideLamps = ({ lookup, lamps }: LayoutSubject): ReadonlySet<string> =>
  new Set(lamps.filter((p) => lookup.fixture(p.fixtureId).kind === 'cabin').map(({ id }) => id));

/** The lights to work by that light one of them. */
const insideOns = ({ build }: LayoutSubject, inside: ReadonlySet<string>): ActiveFunction[] =>
  build.controls.functions
    .filter(({ kind }) => kind === 'light')
    .flatMap(onsOf)
    .filter((on) =>
      drivenIn(build, stateWith({ on: [on], ambient: 'night' })).some(({ placementId }) =>
        inside.has(placementId),
      ),
    );
