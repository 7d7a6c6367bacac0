import type { Options, Result } from 'autocannon';

declare module 'autocannon' {
  /** Sums up runs made with `skipAggregateResult`; missing in the published types. */
  function aggregateResult(results: readonly Result[], options: Options): Result;
}
