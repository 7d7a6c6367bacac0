import { z } from 'zod';
import { RULE_HEAD } from '../../design/rulePack.ts';
import { channelOf } from '../../resolve/channels.ts';
import { COLOURS, type Colour } from '../../words/colour.ts';
import { faceText } from '../../words/face.ts';
import { positive } from '../../words/numbers.ts';
import { defineRule } from '../define.ts';
import { colours, faces, Lamps, lampsText, Light, Of, ofText, textOf } from '../fields.ts';
import { atMost } from '../finding.ts';
import { fails, holds, roomBelow, roundUp } from '../judgement.ts';
import { shownToward } from '../shown.ts';

/** Colours permitted or forbidden toward a face, by stage and by steady or flashing, in every state that is checked. */
export const colour = defineRule({
  kind: 'colour',
  home: 'layout',
  sees: 'light',
  schema: z.strictObject({
    kind: z.literal('colour'),
    ...RULE_HEAD,
    /** "only" permits just these colours; "never" forbids them. */
    verdict: z.enum(['only', 'never'], { error: "must be 'only' or 'never'" }),
    colours,
    faces,
    light: Light,
    /** Light counts as shown to a face above this, cd. */
    aboveCd: positive,
    of: Of.default('sum'),
    lamps: Lamps.default('warning'),
  }),
  sentence: (rule) => {
    const light = rule.light === 'any' ? 'light' : `${rule.light} light`;
    const verdict = rule.verdict === 'only' ? 'Only' : 'No';
    return `${verdict} ${textOf(rule.colours)} ${light} above ${rule.aboveCd} cd ${ofText(rule.of)} to the ${textOf(rule.faces)} from ${lampsText(rule.lamps)}, everything shut or one door or other part open`;
  },
  check: (at, rule) => {
    const listed = new Set<Colour>(rule.colours);
    const forbidden = COLOURS.filter((c) => listed.has(c) === (rule.verdict === 'never'));
    const may =
      rule.verdict === 'only'
        ? `only ${rule.colours.join(' and ')} may`
        : `${rule.colours.join(' and ')} may not`;
    const kind = rule.light === 'any' ? '' : `${rule.light} `;
    const lit = at
      .lit(rule.lamps)
      .filter(({ drive }) => rule.light === 'any' || drive.steady === (rule.light === 'steady'));
    return rule.faces.flatMap((face) =>
      forbidden.map((c) => {
        const mine = lit.filter(({ drive }) => drive.colour === c);
        const shown = shownToward(mine, face, rule.aboveCd, rule.of);
        const margin = roomBelow(shown.cd, rule.aboveCd);
        if (shown.cd <= rule.aboveCd) return holds(margin);
        const drives = shown.channels.map(({ drive }) => drive);
        return fails({
          outcome: shown.exact ? 'fails' : 'cannot tell',
          about: `${face}/${c}`,
          margin,
          sentence: `${kind}${c} ${shown.exact ? 'shows' : 'may show'} ${faceText[face]} from ${at.lampsText(drives)} in ${at.text}, up to ${roundUp(shown.cd)} cd ${ofText(rule.of)} at ${shown.bearing}°; ${may}.`,
          figure: { value: shown.cd, unit: 'cd' },
          limits: [atMost(rule.aboveCd, 'cd')],
          channels: drives.map(channelOf),
          sectors: shown.sectors,
          news: shown.adding,
        });
      }),
    );
  },
});
