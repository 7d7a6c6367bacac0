import { rhythmOf, type Drive } from '../resolve/channels.ts';
import { about, type Subject } from './subject.ts';

/** Channels that flash one pattern at one speed. */
export interface Rhythm {
  readonly first: Drive;
  readonly drives: readonly Drive[];
  /** The pattern, and the group that shows it. */
  readonly subjects: readonly Subject[];
}

export const flashes = ({ steady, spans }: Drive): boolean => !steady && spans.length > 0;

/** The rhythms among channels; steady and dark ones have none. */
export function rhythmsOf(drives: readonly Drive[]): Rhythm[] {
  const flashing = drives.filter(flashes);
  return [...new Set(flashing.map(rhythmOf))].flatMap((rhythm): Rhythm[] => {
    const mine = flashing.filter((d) => rhythmOf(d) === rhythm);
    const [first] = mine;
    return first === undefined
      ? []
      : [
          {
            first,
            drives: mine,
            subjects: [about('pattern', first.patternId), about('group', first.groupId ?? 'free')],
          },
        ];
  });
}
