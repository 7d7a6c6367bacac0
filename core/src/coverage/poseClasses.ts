import type { Placement } from '../design/placement.ts';
import type { Build } from '../design/schema.ts';
import { poseKey } from '../state/state.ts';
import { fieldsOf, type ModuleField } from './lampFields.ts';

/** Poses of a build told apart by the light that goes out in them: many a part that opens neither carries nor hides any. */
export class PoseClasses {
  readonly #build: Build;
  readonly #lamps: readonly Placement[];
  readonly #elevationsDeg: readonly number[];
  readonly #known = new Map<string, string>();
  /** By the sum of all: only where that is equal the whole is compared. */
  readonly #bySum = new Map<number, { readonly first: string; readonly fields: readonly ModuleField[] }[]>();

  /**
   * @param lamps - those whose light counts, by placement
   * @param elevationsDeg - where it is looked from, degrees up
   */
  constructor(build: Build, lamps: ReadonlySet<string>, elevationsDeg: readonly number[]) {
    this.#build = build;
    this.#lamps = build.placements.filter(({ id }) => lamps.has(id));
    this.#elevationsDeg = elevationsDeg;
  }

  /**
   * Equal for poses in which each of the lamps, wherever it stands then, sends the same light around and is as high: the key
   * of the first of them that was asked about. So it means the same where other lamps are told apart, too.
   */
  of(open: readonly string[]): string {
    const key = poseKey(open);
    const known = this.#known.get(key);
    if (known !== undefined) return known;
    const fields = fieldsOf(this.#build);
    const mine = this.#elevationsDeg.flatMap((deg) => this.#lamps.flatMap((p) => fields.of(p, open, deg)));
    const sum = mine.reduce(
      (total, { heightM, share }) => share.reduce((s, of) => s + of, total + heightM),
      0,
    );
    const alike = this.#bySum.get(sum) ?? [];
    this.#bySum.set(sum, alike);
    const found = alike.find(({ fields: those }) => those.every((field, i) => same(field, mine[i])));
    if (found === undefined) alike.push({ first: key, fields: mine });
    const first = found?.first ?? key;
    this.#known.set(key, first);
    return first;
  }
}

const same = (a: ModuleField, b: ModuleField | undefined): boolean =>
  b !== undefined && a.heightM === b.heightM && a.share.every((of, bearing) => of === b.share[bearing]);
