import type { Args } from './args.ts';
import type { Output } from './output.ts';

/** A command: how it is called, what it answers, and what it does. */
export interface Command {
  readonly name: string;
  /** What stands behind its name. */
  readonly call: string;
  readonly what: string;
  readonly run: (args: Args) => Output;
}
