import type { Lookup } from './lookup.ts';
import type { Colour } from '../words/colour.ts';
import { relativeIntensity } from '../fixture/distribution.ts';
import { tableCd } from '../fixture/photometry/table.ts';
import type { Fixture, FixtureModule } from '../fixture/types.ts';

/** Intensities around a module in one plane through its axis, from −180° to 180°, cd. */
export type Curve = readonly { readonly deg: number; readonly cd: number }[];

export interface Polar {
  /** Level, to the right positive. */
  readonly level: Curve;
  /** Upright, upward positive. */
  readonly upright: Curve;
  readonly peakCd: number;
  /** Whether a measured file is behind it. */
  readonly measured: boolean;
}

const STEP_DEG = 2;
const DEG = Math.PI / 180;

/** What a module shines in one of its colours, in the level and the upright plane through its axis. */
export function polarOf(lookup: Lookup, fixture: Fixture, module: FixtureModule, colour: Colour): Polar {
  const setup = {
    id: module.id,
    colours: [colour],
    groupId: null,
    phase: 'A' as const,
    offsetMs: 0,
    order: 1,
    insert: 'warning' as const,
    lens: null,
    disabled: [],
  };
  const peakCd = lookup.outputs(fixture, setup)[colour]?.peakCd ?? 0;
  const file = lookup.attached(fixture.id, module.id);
  const share = (hDeg: number, vDeg: number): number => {
    if (file === null) return relativeIntensity(module.distribution, hDeg, vDeg);
    const aim = Math.cos(vDeg * DEG) * Math.cos(hDeg * DEG);
    const right = Math.cos(vDeg * DEG) * Math.sin(hDeg * DEG);
    return tableCd(file.table, file.axis, aim, right, Math.sin(vDeg * DEG)) / file.peakCd;
  };
  const degrees = Array.from({ length: 360 / STEP_DEG + 1 }, (_, i) => i * STEP_DEG - 180);
  return {
    level: degrees.map((deg) => ({ deg, cd: peakCd * share(deg, 0) })),
    upright: degrees.map((deg) => {
      // Beyond straight up or down the plane goes on behind the module.
      const over = Math.abs(deg) > 90;
      const v = over ? Math.sign(deg) * (180 - Math.abs(deg)) : deg;
      return { deg, cd: peakCd * share(over ? 180 : 0, v) };
    }),
    peakCd,
    measured: file !== null,
  };
}
