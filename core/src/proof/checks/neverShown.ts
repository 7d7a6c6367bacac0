import { namedOns, shownBy, type On } from '../../design/controls.ts';
import type { Found, ProofCheck } from '../found.ts';
import type { Moments } from '../moments.ts';
import type { Moment } from '../momentTable.ts';

/** Functions that are on in some states and in all of them have every lamp they want taken by others. */
export const neverShown: ProofCheck = {
  kind: 'never-shown',
  severity: 'warns',
  clause: 'Every function that lights something is seen to',
  find: (subject) => {
    const { build, moments, showing } = subject;
    const shown = new Set([...subject.everyCase()].flatMap(({ drives }) => drives.map((d) => d.on)));
    return namedOns(build).flatMap(({ on, name }): Found[] => {
      if (shown.has(on) || !shownBy(build, on).cues.some((cue) => cue.show === 'light')) return [];
      const wants = (['day', 'night'] as const).some((ambient) =>
        showing.wants(on, ambient).some((want) => (want?.claims.length ?? 0) > 0),
      );
      if (!wants) return [];
      const moment = nearestWith(moments, on);
      if (moment === null) return [];
      const sentence = `${name} never lights anything: whenever it is on, stronger functions have taken every lamp it wants.`;
      return [{ about: on, sentence, moment, ...(moments.whole ? {} : { outcome: 'cannot tell' as const }) }];
    });
  },
};

function nearestWith({ rows, onWords, at }: Moments, on: On): Moment | null {
  const isOn = onWords.asks(on);
  for (let place = 0; place < rows.count; place++) if (isOn(rows.words, place * rows.width)) return at(place);
  return null;
}
