import type { Drive } from '../resolve/channels.ts';
import { effective, raised, type Signal } from '../timing/signal.ts';
import { clockSignal, timelinesOf, type Timeline } from '../timing/timeline.ts';
import { seenBy, type Observer } from './observer.ts';

/** A channel of what somebody must see. */
interface Counted {
  readonly drive: Drive;
  /** The place of its module among those that are looked at. */
  readonly module: number;
  /** Its timeline among those of all; -1 for steady light. */
  readonly timeline: number;
}

/** The light of some modules at an eye, laid out in time. */
export class LightInTime {
  readonly counted: readonly Counted[];
  readonly timelines: readonly Timeline[];

  /** @param counts - the channels that count; all when not said */
  constructor(
    modules: readonly { readonly drives: readonly Drive[] }[],
    counts: (drive: Drive) => boolean = () => true,
  ) {
    const counted = modules.flatMap(({ drives }, module) =>
      drives.filter(counts).map((drive) => ({ drive, module })),
    );
    this.timelines = timelinesOf(counted.map(({ drive }) => drive));
    const timelineOf = new Map(
      this.timelines.flatMap(({ channels }, t) => channels.map(({ drive }) => [drive.channelId, t])),
    );
    this.counted = counted.map((one) => ({ ...one, timeline: timelineOf.get(one.drive.channelId) ?? -1 }));
  }

  /**
   * What arrives: the steady light, and the signal of each clock.
   * @param per - by module: lx at the eye for each candela
   */
  signals(
    per: Float64Array,
    observer: Observer,
  ): { readonly background: number; readonly clocks: readonly Signal[] } {
    let background = 0;
    const lxOf = new Map<string, number>();
    for (const { drive, module } of this.counted) {
      const lx = drive.peakCd * seenBy(observer, drive.colour) * (per[module] ?? 0);
      if (drive.steady) background += lx;
      else if (lx > 0) lxOf.set(drive.channelId, lx);
    }
    return { background, clocks: this.timelines.flatMap((t) => clockSignal(t, lxOf) ?? []) };
  }

  /** The effective illuminance, lx: of clocks that drift the greatest one, the steady light in it. */
  effectiveLx(per: Float64Array, observer: Observer): number {
    const { background, clocks } = this.signals(per, observer);
    return clocks.reduce((best, w) => Math.max(best, effective(raised(w, background))), background);
  }
}
