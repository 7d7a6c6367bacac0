import { describe, expect, test } from 'vitest';
import { TimeWindow } from './window.svelte';

describe('the stretch of time on the screen', () => {
  test('zooms about a time, which stays where it is, from 10 ms to 10 s', () => {
    const time = new TimeWindow();
    time.fromMs = 1000;
    time.zoom(-1, 2250);
    expect([time.fromMs, time.widthMs]).toEqual([1750, 1000]);
    for (let i = 0; i < 20; i++) time.zoom(-1, 2250);
    expect(time.widthMs).toBe(10);
    expect(time.snapMs).toBe(1);
    for (let i = 0; i < 20; i++) time.zoom(1, 0);
    expect([time.fromMs, time.widthMs, time.snapMs]).toEqual([0, 10_000, 10]);
  });

  test('turns the page for a time that is not on it, and has round ticks', () => {
    const time = new TimeWindow();
    time.follow(2400);
    expect(time.fromMs).toBe(0);
    time.follow(2600);
    expect(time.fromMs).toBe(2500);
    expect(time.ticks[0]).toBe(2500);
    expect(time.ticks.length).toBeLessThanOrEqual(13);
  });
});
