import type { Condition } from '../design/condition.ts';
import type { Registers } from './machine.ts';
import { isResting } from './parts.ts';
import type { Reach } from './reach.ts';

/** What moments are told apart by besides what is on: a condition, or what is asked of memories and phases. */
export type Question = Condition | ((r: Registers) => boolean);

export const NIGHT: Condition = { kind: 'is', input: 'ambient', values: ['night'] };
/** Holds nowhere: it stands where a question has its place and nobody asks it. */
export const NEVER: Condition = { kind: 'any', of: [] };

/** Whether no timer of a programme runs. */
export const isQuiet =
  ({ programme: { ranked } }: Reach['machine']) =>
  ({ memory, phases }: Pick<Registers, 'memory' | 'phases'>): boolean =>
    ranked.every(({ when }, rank) =>
      when.way === 'latched' || when.way === 'cycle'
        ? when.timeoutMs === 0 || memory[rank] === 0
        : isResting(phases[rank] ?? 0),
    );
