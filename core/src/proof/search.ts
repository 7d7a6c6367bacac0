import { NONE, type Diagram, type Diagrams } from './diagrams.ts';

/** Channels as bits, by their numbers. */
export type Channels = bigint;

/** What some modules show, as far as a rule regards it: sets of functions that are on, and the channels that light then. */
export interface Answer {
  readonly when: Diagram;
  readonly channels: Channels;
}

/** Output states in one region, over all modules that a rule regards. */
export interface SearchSpace {
  readonly diagrams: Diagrams;
  /** Output states of the functions that these modules heed. */
  readonly when: Diagram;
  readonly cells: readonly (readonly Answer[])[];
  /** How much a channel may change. */
  readonly weightOf: (channel: number) => number;
}

/** Some output states, with what lights in all of them and in any of them. */
export interface Node {
  readonly when: Diagram;
  readonly cells: readonly (readonly Answer[])[];
  readonly every: Channels;
  readonly any: Channels;
}

/** The output states of a space that some functions can be in. */
export function nodeOf({ diagrams: d, cells }: Pick<SearchSpace, 'diagrams' | 'cells'>, when: Diagram): Node {
  let [every, any] = [0n, 0n];
  const met = cells.map((answers) => {
    const mine = answers.length === 1 ? answers : answers.filter((one) => d.and(when, one.when) !== NONE);
    every |= mine.reduce((both, { channels }) => both & channels, mine[0]?.channels ?? 0n);
    any |= mine.reduce((both, { channels }) => both | channels, 0n);
    return mine;
  });
  return { when, cells: met, every, any };
}

/**
 * Parts a node by an answer of the cell whose unsettled channels weigh most: the states in which it is shown, and the others.
 * @param among - channels to settle first; others are only when none of these is unsettled
 * @param seek - the answer with most light, or with least, is told apart
 * @returns that side first on which the worst is expected; null where nothing is unsettled
 */
export function parted(
  space: SearchSpace,
  node: Node,
  among: Channels,
  seek: 'most' | 'least',
): readonly [Node, Node] | null {
  const open = node.cells.map((answers) => {
    const any = answers.reduce((both, { channels }) => both | channels, 0n);
    return any & ~answers.reduce((both, { channels }) => both & channels, any);
  });
  const first = open.map((channels) => channels & among);
  const weights = (first.some((channels) => channels !== 0n) ? first : open).map((channels) =>
    weigh(channels, space.weightOf),
  );
  const heaviest = weights.indexOf(Math.max(...weights));
  if ((weights[heaviest] ?? 0) === 0) return null;
  const unsettled = open[heaviest] ?? 0n;
  const sign = seek === 'most' ? 1 : -1;
  let best: Answer | null = null;
  let most = -Infinity;
  for (const answer of node.cells[heaviest] ?? []) {
    const weight = sign * weigh(answer.channels & unsettled, space.weightOf);
    if (weight > most) [best, most] = [answer, weight];
  }
  if (best === null) return null;
  const d = space.diagrams;
  return [
    nodeOf({ diagrams: d, cells: node.cells }, d.and(node.when, best.when)),
    nodeOf({ diagrams: d, cells: node.cells }, d.without(node.when, best.when)),
  ];
}

/** The numbers of channels, rising. */
export function numbersIn(channels: Channels): number[] {
  const out: number[] = [];
  let from = 0;
  for (let rest = channels; rest !== 0n; rest >>= 32n, from += 32) {
    const word = Number(rest & 0xffffffffn);
    for (let bit = 0; bit < 32; bit++) if (((word >>> bit) & 1) === 1) out.push(from + bit);
  }
  return out;
}

const weigh = (channels: Channels, weightOf: (channel: number) => number): number =>
  channels === 0n ? 0 : numbersIn(channels).reduce((sum, channel) => sum + weightOf(channel), 0);
