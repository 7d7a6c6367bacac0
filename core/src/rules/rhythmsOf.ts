import { rhythmOf, type Drive } from '../resolve/channels.ts';

/** Channels that flash one pattern at one speed. */
export interface Rhythm {
  readonly first: Drive;
  readonly drives: readonly Drive[];
  /** Names it without a figure: the pattern, and the group that shows it. */
  readonly about: string;
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
      : [{ first, drives: mine, about: `${first.patternId}/${first.groupId ?? 'free'}` }];
  });
}
