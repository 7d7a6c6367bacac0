import type { Drive } from '@flarik/core/resolve/channels';
import { calmSlowdown, loopMs } from '@flarik/core/timing/calm';

/** The time cursor of timing, and whether it runs. Calm unless the user chose true speed in this session. */
export class Preview {
  /** Pattern time, ms. */
  timeMs = $state(0);
  playing = $state(false);
  /** The user has read the notice about flashing lights. */
  noticeRead = $state(false);
  trueSpeed = $state(false);
  #frame = 0;
  #last: number | null = null;
  readonly #drives: () => readonly Drive[];

  constructor(drives: () => readonly Drive[]) {
    this.#drives = drives;
  }

  play(): void {
    if (this.playing || !this.noticeRead) return;
    this.playing = true;
    this.#last = null;
    this.#frame = requestAnimationFrame(this.#tick);
  }

  stop(): void {
    this.playing = false;
    cancelAnimationFrame(this.#frame);
  }

  scrub(timeMs: number): void {
    this.timeMs = timeMs;
  }

  readonly #tick = (now: number): void => {
    const drives = this.#drives();
    const slower = this.trueSpeed ? 1 : calmSlowdown(drives);
    if (this.#last !== null) this.timeMs = (this.timeMs + (now - this.#last) / slower) % loopMs(drives);
    this.#last = now;
    if (this.playing) this.#frame = requestAnimationFrame(this.#tick);
  };
}
