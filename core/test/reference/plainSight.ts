import { channelsNear } from '../../src/coverage/near.ts';
import { thresholdLx } from '../../src/coverage/range.ts';
import type { Approach } from '../../src/design/approach.ts';
import type { Build } from '../../src/design/schema.ts';
import type { Vec3 } from '../../src/geometry/vec.ts';
import type { Observer } from '../../src/sight/observer.ts';
import { CHROMATICITY, relativeLuminance } from '../../src/sight/observer.ts';
import type { Source } from '../../src/sight/source.ts';
import { overCrestM } from '../../src/sight/stopping.ts';
import type { State } from '../../src/state/state.ts';
import { effective, raised } from '../../src/timing/signal.ts';
import { clockSignal, timelinesOf } from '../../src/timing/timeline.ts';

const RANGE = { clear: 20_000, rain: 2000, haze: 1000, fog: 80 };
const AROUND = { day: 10_000, dusk: 100, night: 1 };

/** From where on an approach sees the light: metre by metre outward, each lamp by itself, nothing left out. */
export function plainSeenM(build: Build, state: State, a: Approach, observer: Observer): number {
  const need = a.noticing * thresholdLx(AROUND[a.around]);
  const there = (d: number): boolean => {
    const bearing = (a.bearingDeg * Math.PI) / 180;
    const eye: Vec3 = [d * Math.cos(bearing), -d * Math.sin(bearing), a.eyeM];
    const seen = channelsNear(build, { ...state, ambient: a.around === 'night' ? 'night' : 'day' }, eye)
      .filter(({ drive }) => a.colour === null || drive.colour === a.colour)
      .filter(({ centre }) => a.level === 'any' || centre[2] > 1.5 === (a.level === 'upper'))
      .filter(
        ({ centre }) =>
          a.crest === null || d <= overCrestM(a.crest.lengthM, a.crest.changePercent, a.eyeM, centre[2]),
      )
      .map(({ drive, cd, distanceM }) => ({
        drive,
        lx:
          (cd *
            relativeLuminance(observer, CHROMATICITY[drive.colour]) *
            0.05 ** (distanceM / RANGE[a.weather])) /
          distanceM ** 2,
      }));
    const background = seen.filter(({ drive }) => drive.steady).reduce((sum, { lx }) => sum + lx, 0);
    const flashing = seen.filter(({ drive, lx }) => !drive.steady && drive.spans.length > 0 && lx > 0);
    const lxOf = new Map(flashing.map(({ drive, lx }) => [drive.channelId, lx]));
    const best = timelinesOf(flashing.map(({ drive }) => drive))
      .flatMap((t) => clockSignal(t, lxOf) ?? [])
      .reduce((most, w) => Math.max(most, effective(raised(w, background))), background);
    return best >= need;
  };
  if (!there(20)) return 0;
  for (let d = 20; d < 3000; d++) {
    if (there(d + 1)) continue;
    let [near, far] = [d, d + 1];
    while (far - near > 0.1) {
      const middle = (near + far) / 2;
      if (there(middle)) near = middle;
      else far = middle;
    }
    return near;
  }
  return 3000;
}

const lobe = (g: number, cos: number): number =>
  (1 - g * g) / (4 * Math.PI * Math.pow(1 + g * g - 2 * g * cos, 1.5));

/** What a lamp throws back along a view, summed in steps of a centimetre. */
export function plainThrownBack(lamp: Source, eye: Vec3, view: Vec3, opticalRangeM: number): number {
  const sigma = Math.log(20) / opticalRangeM;
  const STEP = 0.01;
  let sum = 0;
  for (let t = STEP / 2; t < 5 * opticalRangeM; t += STEP) {
    const away = [0, 1, 2].map((i) => (eye[i] ?? 0) + t * (view[i] ?? 0) - (lamp.centre[i] ?? 0));
    const r = Math.max(Math.hypot(...away), 0.1);
    const d: Vec3 = [(away[0] ?? 0) / r, (away[1] ?? 0) / r, (away[2] ?? 0) / r];
    const cos = -(d[0] * view[0] + d[1] * view[1] + d[2] * view[2]);
    const p = 0.935 * lobe(0.85, cos) + 0.065 * lobe(-0.6, cos);
    sum += (lamp.cdToward(d, r) / (r * r)) * Math.exp(-sigma * (r + t)) * sigma * p * STEP;
  }
  return sum;
}
