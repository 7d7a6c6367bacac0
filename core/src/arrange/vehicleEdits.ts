import { keepControls } from '../design/controlEdits.ts';
import { findBodyType } from '../vehicle/bodies/bodyTypes.ts';
import { rangesOf } from '../vehicle/options/options.ts';
import { dropMissingParts } from '../vehicle/looseParts.ts';
import { defaultSpec, type VehicleSpec } from '../vehicle/spec.ts';
import { vehicleOf } from '../vehicle/vehicle.ts';
import { relabel } from './labels.ts';
import type { Build } from '../design/schema.ts';

/**
 * Another vehicle under the lamps; those whose zone it does not have are taken off, and own zones on a moving part
 * that it does not have lie on the body.
 */
export function withVehicle(build: Build, wanted: VehicleSpec): Build {
  const vehicle = dropMissingParts(wanted);
  const zones = new Set(vehicleOf(vehicle).zones.map((z) => z.id));
  const stay = build.placements.filter((p) => zones.has(p.zoneId));
  const left = new Set(stay.map((p) => p.id));
  return relabel(
    keepControls({
      ...build,
      vehicle,
      placements: stay.map((p) =>
        p.partnerId !== null && !left.has(p.partnerId) ? { ...p, partnerId: null } : p,
      ),
    }),
  );
}

/** Lamps that a vehicle has no zone for. */
export const lampsWithoutZone = (build: Build, vehicle: VehicleSpec): number =>
  build.placements.length - withVehicle(build, vehicle).placements.length;

/** Another body type of usual measures; dimensions both know are kept within its ranges, as are own parts. */
export function changeBodyType(build: Build, bodyType: string): Build {
  const body = findBodyType(bodyType);
  if (body === undefined || bodyType === build.vehicle.bodyType) return build;
  const usual = defaultSpec(bodyType);
  const options = build.vehicle.options.filter((o) => body.options.includes(o));
  return withVehicle(build, {
    ...usual,
    options,
    dimensions: dimensionsFor(bodyType, options, usual.dimensions),
    zones: build.vehicle.zones,
    solids: build.vehicle.solids,
    keepOuts: build.vehicle.keepOuts,
    reflectors: build.vehicle.reflectors,
    equipment: build.vehicle.equipment,
  });
}

/** Types a dimension in; lamps keep to their zones, which move along. */
export const changeDimensions = (build: Build, patch: Readonly<Record<string, number>>): Build =>
  relabel({
    ...build,
    vehicle: { ...build.vehicle, dimensions: { ...build.vehicle.dimensions, ...patch } },
  });

/** Fits an option or takes it off, with the lamps on its zones; what is measured on it begins as usual. */
export function toggleOption(build: Build, option: string): Build {
  const before = build.vehicle.options;
  const options = before.includes(option) ? before.filter((o) => o !== option) : [...before, option];
  return withVehicle(build, {
    ...build.vehicle,
    options,
    dimensions: dimensionsFor(build.vehicle.bodyType, options, build.vehicle.dimensions),
  });
}

/** The dimensions that a body with these options asks for: those known, and the usual ones. */
function dimensionsFor(
  bodyType: string,
  options: readonly string[],
  known: Readonly<Record<string, number>>,
): Record<string, number> {
  const body = findBodyType(bodyType);
  if (body === undefined) return { ...known };
  return Object.fromEntries(
    Object.entries(rangesOf(body, options)).map(([key, [, , usual]]) => [key, known[key] ?? usual]),
  );
}

type OwnList = 'zones' | 'solids' | 'keepOuts' | 'reflectors' | 'equipment';

/** Adds parts of one's own to the vehicle. */
export const addOwn = <K extends OwnList>(build: Build, list: K, items: VehicleSpec[K]): Build =>
  withVehicle(build, { ...build.vehicle, [list]: [...build.vehicle[list], ...items] });

/** Changes one of the vehicle's own parts. */
export const changeOwn = <K extends OwnList>(
  build: Build,
  list: K,
  id: string,
  patch: Partial<VehicleSpec[K][number]>,
): Build =>
  withVehicle(build, {
    ...build.vehicle,
    [list]: build.vehicle[list].map((item) => (item.id === id ? { ...item, ...patch } : item)),
  });

/** Takes an own part away, with the lamps on it. */
export const removeOwn = (build: Build, list: OwnList, id: string): Build =>
  withVehicle(build, {
    ...build.vehicle,
    [list]: build.vehicle[list].filter((item: { readonly id: string }) => item.id !== id),
  });

/** Notes what the survey found. */
export const changeSurvey = (build: Build, patch: Partial<VehicleSpec['survey']>): Build =>
  withVehicle(build, { ...build.vehicle, survey: { ...build.vehicle.survey, ...patch } });
