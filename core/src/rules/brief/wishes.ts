import { z } from 'zod';
import type { WishData } from '../../design/brief.ts';
import type { Build } from '../../design/schema.ts';
import { behaviour } from './wishes/behaviour.ts';
import { keepHead } from './wishes/keepHead.ts';
import { leaveFactoryLamp } from './wishes/leaveFactoryLamp.ts';
import { lowestLamp } from './wishes/lowestLamp.ts';
import { neverColours } from './wishes/neverColours.ts';
import { noHoles } from './wishes/noHoles.ts';
import { onlyColours } from './wishes/onlyColours.ts';
import { spareOutputs } from './wishes/spareOutputs.ts';
import { spendAtMost } from './wishes/spendAtMost.ts';
import { stayVisible } from './wishes/stayVisible.ts';
import { unseenWhenOff } from './wishes/unseenWhenOff.ts';

/** Every kind of wish there is. */
export const WISH_KINDS = [
  lowestLamp,
  noHoles,
  onlyColours,
  neverColours,
  unseenWhenOff,
  spendAtMost,
  keepHead,
  leaveFactoryLamp,
  spareOutputs,
  stayVisible,
  behaviour,
] as const;
type AnyKind = (typeof WISH_KINDS)[number];

/** A wish of any kind, with all that its kind wants of it. */
export const Wish = z.union(WISH_KINDS.map(({ schema }) => schema));
export type Wish = z.input<AnyKind['schema']>;
/** A wish with what it leaves unsaid filled in. */
export type WholeWish = z.output<AnyKind['schema']>;
export type WishOf<K extends WholeWish['kind']> = Extract<WholeWish, { kind: K }>;

const KNOWN = WISH_KINDS.map(({ kind }) => kind).join(', ');

/**
 * The kind of a wish.
 * @throws {RangeError} there is no such kind
 */
export function wishKindOf({ kind }: Pick<WishData, 'kind'>): AnyKind {
  const known = WISH_KINDS.find((k) => k.kind === kind);
  if (known === undefined) throw new RangeError(`unknown kind of requirement '${kind}'; known are ${KNOWN}`);
  return known;
}

/** Reads a wish as a document holds it. */
export const readWish = (data: WishData): WholeWish => wishKindOf(data).schema.parse(data);

/** A wish as a plain sentence. */
export const wishSentence = (build: Build, wish: WishData): string => wishKindOf(wish).sentence(build, wish);
