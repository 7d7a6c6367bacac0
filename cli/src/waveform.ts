import { activeFunctionNames } from '@flarik/core/design/controls';
import type { Build } from '@flarik/core/design/schema';
import { seenFrom } from '@flarik/core/coverage/seen';
import { InputError } from '@flarik/core/words/errors';
import type { Signal } from '@flarik/core/timing/signal';
import type { OverAlignments } from '@flarik/core/timing/worst';
import { vehicleOf } from '@flarik/core/vehicle/vehicle';
import { decimal } from './decimal.ts';
import { ambientOf, colourOf, elevationOf, openOf, onOf, type Args } from './args.ts';
import type { Output } from './output.ts';

/** Below this a direction counts as dark unless another figure is given, cd. */
const USUAL_THRESHOLD_CD = 40;

/** What is seen from one direction over time: spans, figures, and the worst over clocks that drift. */
export function waveform(build: Build, args: Args): Output {
  const state = {
    on: onOf(args, build),
    open: openOf(args, vehicleOf(build.vehicle)),
    ambient: ambientOf(args),
  };
  const direction = { bearingDeg: bearingOf(args), elevationDeg: elevationOf(args) };
  const thresholdCd = thresholdOf(args);
  const colour = colourOf(args);
  const seen = seenFrom(build, state, direction, thresholdCd, colour);
  const { worst, together } = seen;
  const answer = {
    build: build.name,
    state,
    ...direction,
    colour,
    thresholdCd,
    steadyCd: seen.steadyCd,
    clocks: seen.clocks.map(({ clockId, waveform: w }) => ({
      clockId,
      cycleMs: w.cycleMs,
      spans: spansOf(w),
    })),
    powerCdsPerMin: seen.powerCdsPerMin,
    repeats: seen.clocks.length < 2,
    together:
      together === null
        ? null
        : {
            cycleMs: together.waveform.cycleMs,
            spans: spansOf(together.waveform),
            effectiveCd: together.effectiveCd,
            longestDarkMs: orNull(together.longestDarkMs),
          },
    worst: {
      highestCd: worst.highestCd.value,
      highestExact: worst.highestCd.exact,
      longestDarkMs: orNull(worst.dark.value),
      longestDarkExact: worst.dark.exact,
      effectiveCd: worst.effective.value,
      effectiveExact: worst.effective.exact,
    },
  };
  if (args.json) return { exitCode: 0, text: JSON.stringify(answer, null, 2) };
  const lines = [
    `${String(direction.bearingDeg)}°, ${String(direction.elevationDeg)}° up, ${activeFunctionNames(build, state.on)}: ${seen.clocks.length} clock${seen.clocks.length === 1 ? '' : 's'}${seen.clocks.length > 1 ? ' that drift: it never repeats' : ''}`,
    `optical power       ${seen.powerCdsPerMin.toFixed(0)} cd·s/min`,
    together === null
      ? 'common start        common cycle longer than two minutes'
      : `common start        cycle ${together.waveform.cycleMs} ms, effective ${together.effectiveCd.toFixed(1)} cd, dark at most ${msText(together.longestDarkMs)}`,
    `worst alignment     effective ${worst.effective.value.toFixed(1)} cd${exactly(worst.effective)}, dark at most ${msText(worst.dark.value)}${exactly(worst.dark)}, highest ${worst.highestCd.value.toFixed(1)} cd${exactly(worst.highestCd)}`,
  ];
  return { exitCode: 0, text: lines.join('\n') };
}

const exactly = ({ exact }: OverAlignments): string => (exact ? '' : ' (a bound)');
const msText = (ms: number): string => (Number.isFinite(ms) ? `${ms.toFixed(0)} ms` : 'unlimited');
const orNull = (ms: number): number | null => (Number.isFinite(ms) ? ms : null);

/** The pieces of a light, like neighbours joined; `toCd` differs from `cd` in a ramp. */
function spansOf(w: Signal): { fromMs: number; toMs: number; cd: number; toCd: number }[] {
  const spans: { fromMs: number; toMs: number; cd: number; toCd: number }[] = [];
  let t = 0;
  for (const [i, ms] of w.durationsMs.entries()) {
    const cd = w.start[i] ?? 0;
    const toCd = w.end[i] ?? 0;
    const last = spans.at(-1);
    if (last !== undefined && last.cd === last.toCd && cd === toCd && last.cd === cd) last.toMs = t + ms;
    else spans.push({ fromMs: t, toMs: t + ms, cd, toCd });
    t += ms;
  }
  return spans;
}

function bearingOf({ bearing }: Args): number {
  const deg = decimal(bearing ?? '');
  if (!(deg >= 0 && deg < 360))
    throw new InputError('--bearing', `must be 0 to below 360 degrees, not '${bearing ?? ''}'`);
  return deg;
}

function thresholdOf({ threshold }: Args): number {
  if (threshold === undefined) return USUAL_THRESHOLD_CD;
  const cd = decimal(threshold);
  if (!(cd > 0 && cd <= 1e9))
    throw new InputError('--threshold', `must be more than 0 cd, not '${threshold}'`);
  return cd;
}
