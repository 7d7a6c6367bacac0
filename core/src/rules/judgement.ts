import type { Sector } from '../coverage/sectors.ts';
import type { ChannelRef } from '../design/schema.ts';
import type { State } from '../state/state.ts';
import type { Limit, Quantity } from './finding.ts';
import { subjectsKey, type Subject } from './subject.ts';

/** What a check says of one thing in one state, when nothing is wrong with it. */
export interface Pass {
  readonly outcome: 'holds';
  /** Room to the limit as a share of it; null where nothing is measured. */
  readonly margin: number | null;
}

/** What a check says of one thing in one state, when it is wrong or may be. */
export interface Issue {
  readonly outcome: 'fails' | 'cannot tell';
  readonly margin: number | null;
  /** What it is about, without a figure. */
  readonly subjects: readonly Subject[];
  /** The same as a key. */
  readonly about: string;
  readonly sentence: string;
  readonly figure: Quantity | null;
  readonly limits: readonly Limit[];
  readonly channels: readonly ChannelRef[];
  readonly sectors: readonly Sector[];
  /** What a later state must add to be worth saying again; what it is about, when empty. */
  readonly news: readonly (string | number)[];
  /** The state it speaks of where that is not the one under check; null when it is so in every state. */
  readonly state?: State | null;
}

export type Verdict = Pass | Issue;

/** It holds, by so much. */
export const holds = (margin: number | null = null): Pass => ({ outcome: 'holds', margin });

/** A trouble as it is put down; what is left out is none. */
export type IssueDraft = Pick<Issue, 'subjects' | 'sentence'> & Partial<Omit<Issue, 'about'>>;

/** It fails. What is not said is left out: no figure, no limits, nothing to point at. */
export const fails = (said: IssueDraft): Issue => ({
  outcome: 'fails',
  margin: null,
  figure: null,
  limits: [],
  channels: [],
  sectors: [],
  news: [],
  ...said,
  about: subjectsKey(said.subjects),
});

/** Room of a figure below the most allowed, as a share of it. */
export const roomBelow = (figure: number, most: number): number => (most - figure) / Math.abs(most);
/** Room of a figure above the least wanted, as a share of it. */
export const roomAbove = (figure: number, least: number): number => (figure - least) / Math.abs(least);
