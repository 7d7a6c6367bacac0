import type { ModuleSetup } from '../design/placement.ts';
import type { Build } from '../design/schema.ts';
import { moduleWith } from '../fixture/inserts.ts';
import { tableOf, type PhotometryFile } from '../fixture/photometry/file.ts';
import { peakOf, type PhotometricTable, type TableAxis } from '../fixture/photometry/table.ts';
import { madeIn, Shelf } from '../fixture/shelf.ts';
import type { Fixture, FixtureModule, Output, Outputs } from '../fixture/types.ts';
import type { Vehicle } from '../vehicle/types.ts';
import { vehicleOf } from '../vehicle/vehicle.ts';
import type { Colour } from '../words/colour.ts';

/** A measured distribution attached to a module. */
export interface Attached {
  readonly table: PhotometricTable;
  readonly axis: TableAxis;
  readonly peakCd: number;
  /** The colour whose peak the file gives; null takes its shape alone. */
  readonly peakFor: Colour | null;
}

/** What a build's ids name: its vehicle worked out, every fixture it may use, the files attached to them. */
export class Lookup {
  readonly vehicle: Vehicle;
  readonly #shelf: Shelf;
  readonly #files: readonly PhotometryFile[];
  readonly #attached = new Map<string, Attached | null>();

  constructor({ vehicle, fixtures, photometry }: Pick<Build, 'vehicle' | 'fixtures' | 'photometry'>) {
    this.vehicle = vehicleOf(vehicle);
    this.#shelf = new Shelf(fixtures);
    this.#files = photometry;
  }

  /** The build's own fixtures first, then the catalogue. */
  get fixtures(): readonly Fixture[] {
    return this.#shelf.all;
  }

  /**
   * The fixture of that id.
   * @throws {RangeError} neither the build nor the catalogue has one
   */
  fixture(id: string): Fixture {
    const fixture = this.#shelf.find(id);
    if (fixture === undefined) throw new RangeError(`no fixture '${id}' in the catalogue`);
    return fixture;
  }

  /** The measured distribution of a module; null when none is attached. A file for the module comes before one for all. */
  attached(fixtureId: string, moduleId: string): Attached | null {
    const key = `${fixtureId}/${moduleId}`;
    const known = this.#attached.get(key);
    if (known !== undefined) return known;
    const mine = this.#files.filter((f) => f.fixtureId === fixtureId);
    const file = mine.find((f) => f.moduleId === moduleId) ?? mine.find((f) => f.moduleId === null);
    const table = file === undefined ? null : tableOf(file);
    const found =
      file === undefined || table === null
        ? null
        : { table, axis: file.axis, peakCd: peakOf(table), peakFor: file.peakFor };
    this.#attached.set(key, found);
    return found;
  }

  /** The module as it is built into its slot. */
  module(fixture: Fixture, module: FixtureModule, setup: ModuleSetup): FixtureModule {
    return fixture.slotted ? moduleWith(module, setup.insert) : module;
  }

  /** What a module can be lit in, and what each colour gives and takes. */
  outputs(fixture: Fixture, setup: ModuleSetup): Outputs {
    const made = madeIn(fixture, setup.insert);
    const file = this.attached(fixture.id, setup.id);
    if (file?.peakFor === undefined || file.peakFor === null) return made;
    const known: Output | undefined = made[file.peakFor];
    return known === undefined
      ? made
      : { ...made, [file.peakFor]: { peakCd: file.peakCd, currentA: known.currentA } };
  }
}

/** Lookups already made, by the parts of the document they read. */
const known = new WeakMap<
  Build['vehicle'],
  { fixtures: Build['fixtures']; photometry: Build['photometry']; lookup: Lookup }
>();

/** What a build's ids name. Builds that share those parts of the document share one lookup. */
export function lookupOf(build: Pick<Build, 'vehicle' | 'fixtures' | 'photometry'>): Lookup {
  const { vehicle, fixtures, photometry } = build;
  const before = known.get(vehicle);
  if (before?.fixtures === fixtures && before.photometry === photometry) return before.lookup;
  const lookup = new Lookup(build);
  known.set(vehicle, { fixtures, photometry, lookup });
  return lookup;
}
