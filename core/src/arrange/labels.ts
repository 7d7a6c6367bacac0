import type { Placement } from '../design/placement.ts';
import type { Build } from '../design/schema.ts';
import { lookupOf } from '../resolve/lookup.ts';
import { placeFixture } from '../resolve/place.ts';

/** Nearer to the centreline than this a lamp is in the middle, m. */
const MIDDLE_M = 0.03;

const SHUT: ReadonlySet<string> = new Set();

interface Named {
  readonly p: Placement;
  readonly stem: string;
  readonly side: 'L' | 'R' | '';
  /** Places in order: from the middle outward, then from the front back, then from the top down. */
  readonly rank: readonly [number, number, number];
}

/**
 * Names the lamps that no person named by where they stand: zone, side, and number from the middle outward, or from
 * the front back along a flank: "Rear bumper L2".
 */
export function relabel(build: Build): Build {
  const lookup = lookupOf(build);
  const named = build.placements.map((p): Named => {
    const { base, zone } = placeFixture(lookup, p, SHUT);
    const side = Math.abs(base[1]) < MIDDLE_M ? '' : base[1] > 0 ? 'L' : 'R';
    const stem = zone.name
      .replace(/\b(left|right)\b ?/i, '')
      .replace(/ ,/, ',')
      .trim();
    const round = (m: number) => Math.round(m * 100);
    const flank = zone.face === 'left' || zone.face === 'right';
    return {
      p,
      stem: stem.charAt(0).toUpperCase() + stem.slice(1),
      side,
      rank: flank
        ? [-round(base[0]), -round(base[2]), 0]
        : [round(Math.abs(base[1])), -round(base[2]), -round(base[0])],
    };
  });
  const places = new Map<string, Named[]>();
  for (const n of named) {
    const key = `${n.stem}|${n.side}`;
    places.set(key, [...(places.get(key) ?? []), n]);
  }
  const labels = new Map<string, string>();
  for (const group of places.values()) {
    const inOrder = group.toSorted(
      (a, b) => a.rank[0] - b.rank[0] || a.rank[1] - b.rank[1] || a.rank[2] - b.rank[2],
    );
    for (const [i, { p, stem, side }] of inOrder.entries()) {
      const number = inOrder.length === 1 ? '' : String(i + 1);
      const mark = `${side}${number}`;
      labels.set(p.id, mark === '' ? stem : `${stem} ${mark}`);
    }
  }
  return {
    ...build,
    placements: build.placements.map((p) => {
      const label = labels.get(p.id) ?? p.label;
      return p.named || p.label === label ? p : { ...p, label };
    }),
  };
}
