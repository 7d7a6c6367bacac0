import { NONE, type Diagram, type Diagrams } from './diagrams.ts';

/** Channels as bits, by their numbers. */
export type Channels = bigint;

/** Channels that light in one state, or that bound what lights in several. */
export interface Light {
  readonly channels: Channels;
  readonly isBound: boolean;
}

/** What some modules show, as far as somebody regards it: sets of functions that are on, and the channels that light then. */
export interface Answer {
  readonly when: Diagram;
  readonly channels: Channels;
}

/** Modules that heed the same functions, as the answers they can give. */
export type Answers = readonly Answer[];

/** Some output states, with what lights in all of them and in any of them. */
export interface Node {
  readonly when: Diagram;
  readonly cells: readonly Answers[];
  readonly every: Channels;
  readonly any: Channels;
}

/** Where the worst is looked for first: with most light or with least, by how much each channel weighs. */
export interface Heading {
  readonly seek: 'most' | 'least';
  readonly weightOf: (channel: number) => number;
}

/** Some output states, over cells whose answers they can give. */
export function nodeOf(d: Diagrams, cells: readonly Answers[], when: Diagram): Node {
  let [every, any] = [0n, 0n];
  const met = cells.map((answers) => {
    const mine = answers.length === 1 ? answers : answers.filter((one) => d.and(when, one.when) !== NONE);
    every |= inEvery(mine);
    any |= inAny(mine);
    return mine;
  });
  return { when, cells: met, every, any };
}

/**
 * Parts a node by an answer of the cell whose unsettled channels weigh most: the states in which it is given, and the others.
 * @param among - channels to settle first; others are only when none of these is unsettled
 * @returns those first among which the worst is expected; null where nothing is unsettled
 */
export function parted(d: Diagrams, node: Node, among: Channels, heading: Heading): readonly Node[] | null {
  const open = node.cells.map((answers) => inAny(answers) & ~inEvery(answers));
  const first = open.map((channels) => channels & among);
  const weights = (first.some((channels) => channels !== 0n) ? first : open).map((channels) =>
    weigh(channels, heading),
  );
  const heaviest = weights.indexOf(Math.max(...weights));
  if ((weights[heaviest] ?? 0) === 0) return null;
  const best = worstOf(node.cells[heaviest] ?? [], open[heaviest] ?? 0n, heading);
  return best === null
    ? null
    : [d.and(node.when, best.when), d.without(node.when, best.when)]
        .filter((when) => when !== NONE)
        .map((when) => nodeOf(d, node.cells, when));
}

/** What is worst in a node, where one more channel always helps or always hurts: no state of it is worse. */
export const worstIn = ({ every, any }: Node, { seek }: Heading): Light => ({
  channels: seek === 'least' ? every : any,
  isBound: every !== any,
});

const inAny = (answers: Answers): Channels => answers.reduce((both, { channels }) => both | channels, 0n);

const inEvery = (answers: Answers): Channels =>
  answers.reduce((both, { channels }) => both & channels, answers[0]?.channels ?? 0n);

/** The answer with most light of some channels, or with least. */
function worstOf(answers: Answers, among: Channels, heading: Heading): Answer | null {
  const sign = heading.seek === 'most' ? 1 : -1;
  let best: Answer | null = null;
  let most = -Infinity;
  for (const answer of answers) {
    const weight = sign * weigh(answer.channels & among, heading);
    if (weight > most) [best, most] = [answer, weight];
  }
  return best;
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

const weigh = (channels: Channels, { weightOf }: Heading): number =>
  channels === 0n ? 0 : numbersIn(channels).reduce((sum, channel) => sum + weightOf(channel), 0);
