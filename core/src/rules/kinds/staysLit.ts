import { z } from 'zod';
import type { LitChannel } from '../../coverage/ring.ts';
import { mostToward } from '../../coverage/sectors.ts';
import { RULE_HEAD } from '../../design/rulePack.ts';
import { channelOf, highestCd, type Drive } from '../../resolve/channels.ts';
import { openText } from '../../state/state.ts';
import { FACES, faceText, type Face } from '../../words/face.ts';
import { positive } from '../../words/numbers.ts';
import { defineRule } from '../define.ts';
import { fails, holds } from '../judgement.ts';
import { figure } from '../piece.ts';
import { about, subjectsKey } from '../subject.ts';

/** Nothing that opens leaves a side without warning light that has it with everything shut. */
export const staysLit = defineRule({
  kind: 'stays-lit',
  title: 'Sides that an open door darkens',
  blank: { aboveCd: 10 },
  home: 'layout',
  sees: 'light',
  schema: z.strictObject({
    kind: z.literal('stays-lit'),
    ...RULE_HEAD,
    /** A lamp lights a side to which it sends more than this at some bearing, cd. */
    aboveCd: positive,
  }),
  sentenceParts: (rule) => [
    'No open door or hatch leaves a side without warning light above ',
    figure('aboveCd', rule.aboveCd, 'Light counts above, cd'),
    ' cd that has it with everything closed',
  ],
  monotonicity: () => 'helps',
  limits: ({ aboveCd }) =>
    FACES.map((face) => ({
      subjects: [about('face', face)],
      face,
      leastCd: aboveCd,
      lamps: 'warning' as const,
    })),
  // By face and elevation: the fewest lamps that light it with everything shut are the first to leave it dark.
  partitions: (drive, at, rule) =>
    rule.elevationsDeg.flatMap((deg) =>
      FACES.filter((face) => lights(drive, at.shareOf(drive, deg), face, rule.aboveCd)).map(
        (face) => `${subjectsKey([about('face', face)])}@${deg}`,
      ),
    ),
  check: (at, rule) => {
    if (at.state.open.length === 0) return [];
    const isLit = (face: Face) => (channel: LitChannel) =>
      lights(channel.drive, channel.share, face, rule.aboveCd);
    return FACES.map((face) => {
      if (at.lit('warning').some(isLit(face))) return holds();
      const before = at.shut().lit('warning').filter(isLit(face));
      if (before.length === 0) return holds();
      return fails({
        subjects: [about('face', face)],
        sentence: `no warning light ${faceText[face]} with ${openText(at.build, at.state.open)}.`,
        channels: before.map(({ drive }) => channelOf(drive)),
      });
    });
  },
});

const lights = (drive: Drive, share: Float64Array, face: Face, aboveCd: number): boolean =>
  highestCd(drive) * mostToward(share, face) > aboveCd;
