import { RateLimiterMemory, RateLimiterRes } from 'rate-limiter-flexible';

/** Over so long a sender's requests are counted, so that a page that opens may ask for much at once, s. */
const COUNTED_S = 10;

/** Holds a sender to a pace. */
export class RateLimiter {
  readonly #limiter: RateLimiterMemory;

  /** @param mostASecond - requests, on the average over ten seconds */
  constructor(mostASecond: number) {
    this.#limiter = new RateLimiterMemory({ points: mostASecond * COUNTED_S, duration: COUNTED_S });
  }

  /** Counts a request. @returns how long its sender must wait, s; null when it may come in */
  async waitS(sender: string): Promise<number | null> {
    try {
      await this.#limiter.consume(sender);
      return null;
    } catch (refused) {
      if (refused instanceof RateLimiterRes) return Math.max(1, Math.ceil(refused.msBeforeNext / 1000));
      throw refused;
    }
  }
}
