/** Widths of the stretch of time that can be looked at, ms. */
export const WIDTHS_MS = [10, 20, 50, 100, 200, 500, 1000, 2500, 5000, 10_000] as const;

/** The stretch of time on the screen: from 10 ms to 10 s, begun anywhere. */
export class TimeWindow {
  fromMs = $state(0);
  widthMs = $state<number>(2500);

  get toMs(): number {
    return this.fromMs + this.widthMs;
  }

  /** Bars snap to this, ms. */
  get snapMs(): number {
    return this.widthMs <= 200 ? 1 : 10;
  }

  /** A wider (+1) or a narrower (−1) stretch about a time. */
  zoom(step: 1 | -1, aboutMs: number): void {
    const at = WIDTHS_MS.findIndex((ms) => ms >= this.widthMs);
    const width = WIDTHS_MS[Math.min(WIDTHS_MS.length - 1, Math.max(0, at + step))] ?? this.widthMs;
    const share = Math.min(1, Math.max(0, (aboutMs - this.fromMs) / this.widthMs));
    this.widthMs = width;
    this.move(aboutMs - share * width);
  }

  move(fromMs: number): void {
    this.fromMs = Math.max(0, Math.round(fromMs));
  }

  /** Turns to the stretch that holds a time, when it is not on the screen. */
  follow(timeMs: number): void {
    if (timeMs < this.fromMs || timeMs >= this.toMs)
      this.fromMs = Math.floor(timeMs / this.widthMs) * this.widthMs;
  }

  /** Places for lines across the stretch, at round times, ms. */
  get ticks(): number[] {
    const step = [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000].find((ms) => this.widthMs / ms <= 12) ?? 1000;
    const first = Math.ceil(this.fromMs / step);
    return Array.from({ length: Math.floor(this.toMs / step) - first + 1 }, (_, i) => (first + i) * step);
  }
}
