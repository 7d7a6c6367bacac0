import { keepControls } from '../design/controlEdits.ts';
import type { ModuleSetup, Placement } from '../design/placement.ts';
import type { Build } from '../design/schema.ts';
import { coloursOffered } from '../fixture/catalogue/catalogue.ts';
import type { Fixture } from '../fixture/types.ts';
import { countsOf } from '../resolve/counts.ts';
import { lookupOf, type Lookup } from '../resolve/lookup.ts';
import { keepOnZone, rollToFit } from '../resolve/place.ts';
import type { MountZone } from '../vehicle/types.ts';
import { zoneOf } from '../vehicle/vehicle.ts';
import { freeSpot } from './freeSpot.ts';
import { changePlacement } from './lamps.ts';
import { sweepOrders } from './sweepOrder.ts';

/** Where a lamp goes, and what it becomes. */
export interface Exchange {
  readonly fixtureId: string;
  readonly zoneId: string;
  /** Where it is wanted on the zone; the middle of it, or of its half, when not said. */
  readonly at?: { readonly uM: number; readonly vM: number };
}

/** Why a lamp cannot be exchanged so; null when it can. */
export function exchangeMisfit(build: Build, placementId: string, to: Exchange): string | null {
  const lookup = lookupOf(build);
  const p = build.placements.find(({ id }) => id === placementId);
  if (p === undefined) return 'the lamp no longer exists';
  if (p.status === 'kept' && (to.fixtureId !== p.fixtureId || to.zoneId !== p.zoneId))
    return 'it is kept in place; change where it comes from first';
  const fixture = lookup.fixtures.find(({ id }) => id === to.fixtureId);
  if (fixture === undefined) return 'the fixture no longer exists';
  const zone = lookup.vehicle.zones.find(({ id }) => id === to.zoneId);
  if (zone === undefined) return 'the zone no longer exists';
  const partner = p.partnerId === null ? null : zoneOf(lookup.vehicle, zone.mirrorId);
  for (const on of partner === null ? [zone] : [zone, partner])
    if (rollToFit(fixture, on) === null) return `${fixture.name} does not fit on ${on.name}`;
  return null;
}

/**
 * Puts another fixture in a lamp's place, or the lamp on another zone, or both; its mirrored partner follows. Its name, groups,
 * phases and delays, the sets that it is in and the functions that address it stay, and of its colours those that the fixture offers.
 * The build itself where it does not fit.
 */
export function exchanged(build: Build, placementId: string, to: Exchange): Build {
  const before = build.placements.find(({ id }) => id === placementId);
  if (before === undefined || exchangeMisfit(build, placementId, to) !== null) return build;
  const lookup = lookupOf(build);
  const zone = zoneOf(lookup.vehicle, to.zoneId);
  const fixture = lookup.fixture(to.fixtureId);
  const rollDeg =
    to.fixtureId === before.fixtureId && to.zoneId === before.zoneId
      ? before.rollDeg
      : (rollToFit(fixture, zone) ?? 0);
  const wanted = to.at ?? (to.zoneId === before.zoneId ? before : middleOf(zone, before.partnerId !== null));
  const others = {
    ...build,
    placements: build.placements.filter(({ id }) => id !== placementId && id !== before.partnerId),
  };
  const lamp = {
    id: before.id,
    fixtureId: to.fixtureId,
    zoneId: to.zoneId,
    uM: wanted.uM,
    vM: wanted.vM,
    rollDeg,
  };
  const spot =
    freeSpot(others, lamp, before.partnerId !== null) ??
    keepOnZone(fixture, zone, wanted.uM, wanted.vM, rollDeg);
  const signals = build.controls.functions.filter(({ kind }) => kind === 'signal').map(({ id }) => id);
  const refitted = {
    ...build,
    placements: build.placements.map((p) =>
      p.id === placementId || p.id === before.partnerId ? refittedAs(lookup, p, fixture, signals) : p,
    ),
  };
  const moved = changePlacement(refitted, placementId, {
    zoneId: to.zoneId,
    uM: spot.uM,
    vM: spot.vM,
    rollDeg,
    ...(before.fixing !== null && zone.fixings.includes(before.fixing) ? {} : { fixing: null }),
  });
  const numbered = {
    ...moved,
    placements: moved.placements.map((p) =>
      (p.id === placementId || p.id === before.partnerId) && p.modules.length !== before.modules.length
        ? inSweepOrder(lookup, p)
        : p,
    ),
  };
  return keepControls(numbered);
}

/** The middle of a zone; of its left half for a pair on a zone across the centreline. */
const middleOf = (zone: MountZone, pair: boolean): { uM: number; vM: number } => ({
  uM: pair && zone.mirrorId === zone.id ? ((zone.u[1] > 0 ? 1 : -1) * zone.widthM) / 4 : 0,
  vM: 0,
});

function refittedAs(lookup: Lookup, p: Placement, fixture: Fixture, signals: string[]): Placement {
  const same = fixture.id === p.fixtureId;
  const wasFactory = lookup.fixture(p.fixtureId).kind === 'factory';
  return {
    ...p,
    fixtureId: fixture.id,
    // What was there already is not what is put in its place.
    status: same || p.status === 'planned' ? p.status : 'new',
    poleM: Math.min(p.poleM, fixture.poleM),
    text: fixture.showsText ? p.text : '',
    stopsFor: fixture.kind !== 'factory' ? [] : wasFactory ? p.stopsFor : signals,
    aims: same ? p.aims : [],
    heights: same ? p.heights : [],
    modules: same ? p.modules : fixture.modules.map((made, i) => setupFor(lookup, p, fixture, made.id, i)),
  };
}

/** The setup of a module: that of the one of its id, or at its place, or else of the last, in the colours that the fixture offers. */
function setupFor(lookup: Lookup, p: Placement, fixture: Fixture, id: string, place: number): ModuleSetup {
  const like = p.modules.find((m) => m.id === id) ?? p.modules[place] ?? p.modules.at(-1);
  const setup: ModuleSetup = {
    colours: [],
    disabled: [],
    groupId: null,
    phase: 'A',
    order: place + 1,
    offsetMs: 0,
    lens: null,
    ...like,
    id,
    insert: fixture.slotted ? (like?.insert ?? 'warning') : 'warning',
  };
  const offered = coloursOffered(lookup.outputs(fixture, setup));
  const kept = setup.colours.filter((c) => offered.includes(c)).slice(0, fixture.colourSlots);
  const colours = kept.length > 0 ? kept : [offered[0] ?? ('white' as const)];
  return { ...setup, colours, disabled: setup.disabled.filter((c) => colours.includes(c)) };
}

function inSweepOrder(lookup: Lookup, p: Placement): Placement {
  const orders = sweepOrders(lookup, p);
  return { ...p, modules: p.modules.map((m, i) => ({ ...m, order: orders[i] ?? m.order })) };
}

/** What an exchange changes in money, work and time, and what it loses. */
export interface ExchangeEffect {
  /** More to buy, minor units. */
  readonly costMinor: number;
  readonly installMinutes: number;
  readonly holes: number;
  /** The wait for the last part, days, before and after. */
  readonly leadDays: readonly [before: number, after: number];
  /** Modules, colours and list entries that do not fit any more, in words. */
  readonly lost: readonly string[];
}

/** Tells an exchange before it is made. @param after - the build with it */
export function effectOf(before: Build, after: Build, placementId: string): ExchangeEffect {
  const [a, b] = [countsOf(before), countsOf(after)];
  const lamp = (build: Build): Placement | undefined => build.placements.find(({ id }) => id === placementId);
  const [old, now] = [lamp(before), lamp(after)];
  const had = new Set(old?.modules.flatMap((m) => m.colours));
  const has = new Set(now?.modules.flatMap((m) => m.colours));
  const gone = [...had].filter((c) => !has.has(c));
  const fewer = (old?.modules.length ?? 0) - (now?.modules.length ?? 0);
  const listed = (build: Build): number =>
    build.controls.sets.reduce((n, set) => n + set.modules.length + set.without.length, 0);
  const entries = listed(before) - listed(after);
  return {
    costMinor: b.costMinor - a.costMinor,
    installMinutes: b.installMinutes - a.installMinutes,
    holes: b.holes - a.holes,
    leadDays: [a.leadDays, b.leadDays],
    lost: [
      ...gone.map((c) => `${c} light`),
      ...(fewer > 0 ? [`${fewer} of its modules`] : []),
      ...(entries > 0 ? [`${entries} entries in lamp sets`] : []),
      ...((old?.aims.length ?? 0) > (now?.aims.length ?? 0) ? ['its other aims'] : []),
      ...((old?.heights.length ?? 0) > (now?.heights.length ?? 0) ? ['its other heights'] : []),
      ...((old?.text ?? '') !== (now?.text ?? '') ? ['its text'] : []),
    ],
  };
}
