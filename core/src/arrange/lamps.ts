import { keepControls } from '../design/controlEdits.ts';
import type { ModuleSetup, Placement } from '../design/placement.ts';
import { changeModules } from '../design/moduleEdits.ts';
import type { Build, ModuleRef } from '../design/schema.ts';
import { apartDeg } from '../geometry/direction.ts';
import { coloursOffered } from '../fixture/catalogue/catalogue.ts';
import { isWarning } from '../resolve/channels.ts';
import { lookupOf } from '../resolve/lookup.ts';
import { keepOnZone } from '../resolve/place.ts';
import { PHASES, type Phase } from '../timing/pattern.ts';
import { zoneOf } from '../vehicle/vehicle.ts';
import type { Colour } from '../words/colour.ts';
import { tidy } from '../words/numbers.ts';
import { relabel } from './labels.ts';
import { followSweep, sweepOrders } from './sweepOrder.ts';

/*
 * Every edit takes a build and gives a new one; what it does not touch is shared, so that the build before it
 * is its exact inverse and undo never computes anything.
 */

/** Other placements, named by where they now stand. */
const withPlacements = (build: Build, placements: Placement[]): Build => relabel({ ...build, placements });

/** The same place mirrored across the centre plane. */
export function mirrored(
  build: Build,
  p: Placement,
): Pick<Placement, 'zoneId' | 'uM' | 'vM' | 'panDeg' | 'tiltDeg' | 'rollDeg'> {
  return {
    zoneId: zoneOf(lookupOf(build).vehicle, p.zoneId).mirrorId,
    uM: tidy(-p.uM),
    vM: p.vM,
    panDeg: tidy(-p.panDeg),
    tiltDeg: p.tiltDeg,
    rollDeg: tidy(-p.rollDeg),
  };
}

/** The setups of a lamp's modules seen in a mirror: what shone at the left end shines at the right. */
function mirroredModules(build: Build, p: Placement): ModuleSetup[] {
  const made = lookupOf(build).fixture(p.fixtureId).modules;
  return p.modules.map((m, i) => {
    const own = made[i];
    const twin = made.findIndex(
      ({ at, panDeg }) =>
        own !== undefined &&
        Math.abs(at[0] - own.at[0]) < MIRROR_M &&
        Math.abs(at[1] + own.at[1]) < MIRROR_M &&
        Math.abs(at[2] - own.at[2]) < MIRROR_M &&
        apartDeg(panDeg, -own.panDeg) < 0.5,
    );
    return { ...(p.modules[twin] ?? m), id: m.id };
  });
}

/** Modules that agree to this are mirror images of each other within their fixture, m. */
const MIRROR_M = 0.002;

export interface NewPlacement {
  readonly id: string;
  readonly fixtureId: string;
  readonly zoneId: string;
  readonly uM: number;
  readonly vM: number;
  /** A quarter turn for a lamp that fits upright alone; 0 when not said. */
  readonly rollDeg?: number;
}

/** Puts a fixture on a zone, kept within it, in its first colours and in no group. */
export function addPlacement(
  build: Build,
  { id, fixtureId, zoneId, uM, vM, rollDeg = 0 }: NewPlacement,
): Build {
  const lookup = lookupOf(build);
  const fixture = lookup.fixture(fixtureId);
  const zone = zoneOf(lookup.vehicle, zoneId);
  const at = keepOnZone(fixture, zone, uM, vM, rollDeg);
  const offered = coloursOffered(fixture.outputs);
  // Light to see by is white where it can be.
  const first = isWarning(fixture) || !offered.includes('white') ? (offered[0] ?? 'white') : 'white';
  const placement: Placement = {
    id,
    fixtureId,
    zoneId,
    label: zone.name,
    named: false,
    uM: tidy(at.uM),
    vM: tidy(at.vM),
    panDeg: 0,
    tiltDeg: 0,
    rollDeg,
    lensTransmission: 1,
    lensByColour: {},
    finish: 'black',
    partnerId: null,
    status: 'new',
    fixing: null,
    poleM: 0,
    aims: [],
    heights: [],
    notes: '',
    text: '',
    stopsFor:
      fixture.kind === 'factory'
        ? build.controls.functions.filter((fn) => fn.kind === 'signal').map((fn) => fn.id)
        : [],
    modules: fixture.modules.map((m, i): ModuleSetup => ({
      id: m.id,
      colours: [first],
      groupId: null,
      phase: 'A',
      order: i + 1,
      offsetMs: 0,
      insert: 'warning',
      lens: null,
      disabled: [],
    })),
  };
  const orders = sweepOrders(lookup, placement);
  const modules = placement.modules.map((m, i) => ({ ...m, order: orders[i] ?? m.order }));
  return withPlacements(build, [...build.placements, { ...placement, modules }]);
}

/** Gives a placement its mirrored partner on the other side, in phase B; nothing changes when it has one. */
export function addPartner(build: Build, placementId: string, partnerId: string): Build {
  const p = build.placements.find((candidate) => candidate.id === placementId);
  if (p?.partnerId !== null) return build;
  const there = mirrored(build, p);
  const partner: Placement = {
    ...p,
    ...there,
    id: partnerId,
    named: false,
    partnerId: p.id,
    modules: mirroredModules(build, p).map((m) => ({ ...m, phase: answering(m.phase) })),
  };
  const linked = build.placements.map((q) => (q.id === p.id ? { ...q, partnerId } : q));
  return withPlacements(build, [...linked, partner]);
}

/** The phase that answers one: A and B, C and D, … */
function answering(phase: Phase): Phase {
  const i = PHASES.indexOf(phase);
  return PHASES[i % 2 === 0 ? i + 1 : i - 1] ?? phase;
}

export type PlacementPatch = Partial<Omit<Placement, 'id' | 'partnerId' | 'modules' | 'fixtureId'>>;

/**
 * Changes one placement; its mirrored partner follows in all but its name. Stays within its zone. A label typed
 * makes it named; an empty one lets it follow the layout again.
 */
export function changePlacement(build: Build, placementId: string, patch: PlacementPatch): Build {
  const before = build.placements.find((p) => p.id === placementId);
  if (before === undefined) return build;
  const lookup = lookupOf(build);
  const wanted = { ...before, ...patch };
  const at = keepOnZone(
    lookup.fixture(wanted.fixtureId),
    zoneOf(lookup.vehicle, wanted.zoneId),
    wanted.uM,
    wanted.vM,
    wanted.rollDeg,
  );
  const after = followSweep(lookup, before, { ...wanted, uM: tidy(at.uM), vM: tidy(at.vM) });
  const there = mirrored(build, after);
  const { lensTransmission, lensByColour, finish, status, fixing, poleM, text, heights } = after;
  const aims = after.aims.map((aim) => ({ ...aim, panDeg: tidy(-aim.panDeg) }));
  return withPlacements(
    build,
    build.placements.map((p) => {
      if (p.id === placementId) return after;
      if (p.id === before.partnerId)
        return followSweep(lookup, p, {
          ...p,
          ...there,
          lensTransmission,
          lensByColour,
          finish,
          status,
          fixing,
          poleM,
          text,
          aims,
          heights,
        });
      return p;
    }),
  );
}

/** Names a lamp by hand; an empty name lets it follow the layout again. */
export const nameLamp = (build: Build, placementId: string, label: string): Build =>
  changePlacement(build, placementId, label === '' ? { named: false } : { label, named: true });

/** A lamp alone at its mirror image, without a tie between the two; its settings are copied. */
export function copyAcross(build: Build, placementId: string, newId: string): Build {
  const p = build.placements.find((candidate) => candidate.id === placementId);
  if (p === undefined) return build;
  return withPlacements(build, [
    ...build.placements,
    {
      ...p,
      ...mirrored(build, p),
      modules: mirroredModules(build, p),
      id: newId,
      named: false,
      partnerId: null,
    },
  ]);
}

/** Takes placements out; partners left behind stand alone. */
export function removePlacements(build: Build, ids: ReadonlySet<string>): Build {
  const left = build.placements.filter((p) => !ids.has(p.id));
  return keepControls(
    withPlacements(
      build,
      left.map((p) => (p.partnerId !== null && ids.has(p.partnerId) ? { ...p, partnerId: null } : p)),
    ),
  );
}

/** Sets one colour slot (1-based) of the named modules; null takes the slot and those after it away, never slot 1. */
export function setColour(
  build: Build,
  refs: readonly ModuleRef[],
  slot: number,
  colour: Colour | null,
): Build {
  return refs.reduce((b, ref) => {
    const p = b.placements.find((candidate) => candidate.id === ref.placementId);
    const m = p?.modules.find((candidate) => candidate.id === ref.moduleId);
    if (p === undefined || m === undefined) return b;
    const lookup = lookupOf(b);
    const fixture = lookup.fixture(p.fixtureId);
    if (slot > fixture.colourSlots || slot > m.colours.length + 1) return b;
    if (colour === null) {
      return slot === 1 ? b : changeModules(b, [ref], { colours: m.colours.slice(0, slot - 1) });
    }
    if (lookup.outputs(fixture, m)[colour] === undefined) return b;
    return changeModules(b, [ref], {
      colours: [...m.colours.slice(0, slot - 1), colour, ...m.colours.slice(slot)],
    });
  }, build);
}

/** Builds the slots of a bar with other inserts; a colour the insert is not made in gives way to its first. */
export function setInsert(build: Build, refs: readonly ModuleRef[], insert: ModuleSetup['insert']): Build {
  return refs.reduce((b, ref) => {
    const p = b.placements.find((candidate) => candidate.id === ref.placementId);
    const m = p?.modules.find((candidate) => candidate.id === ref.moduleId);
    if (p === undefined || m === undefined) return b;
    const lookup = lookupOf(b);
    const fixture = lookup.fixture(p.fixtureId);
    if (!fixture.slotted) return b;
    const offered = coloursOffered(lookup.outputs(fixture, { ...m, insert }));
    const kept = m.colours.filter((c) => offered.includes(c));
    const colours: Colour[] = kept.length > 0 ? kept : offered.slice(0, 1);
    return changeModules(b, [ref], { insert, colours: colours.length > 0 ? colours : m.colours });
  }, build);
}

/** The build seen in a mirror: every placement on the other side. */
export function mirrorBuild(build: Build): Build {
  return withPlacements(
    build,
    build.placements.map((p) => ({ ...p, ...mirrored(build, p), modules: mirroredModules(build, p) })),
  );
}
