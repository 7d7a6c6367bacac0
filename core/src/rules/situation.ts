import { BEARINGS } from '../coverage/field.ts';
import { fieldsOf } from '../coverage/lampFields.ts';
import { litChannels, type LampHeight, type LitChannel } from '../coverage/ring.ts';
import type { Placement } from '../design/placement.ts';
import type { Build, ChannelRef, ModuleRef } from '../design/schema.ts';
import { channelOf, type Drive } from '../resolve/channels.ts';
import { lookupOf, type Lookup } from '../resolve/lookup.ts';
import type { LampsCounted } from './fields.ts';
import { drivenIn } from '../state/driven.ts';
import { stateKey, stateWith, type State } from '../state/state.ts';

/** Along the horizontal: how a rule looks that does not say otherwise. */
export const LEVEL_DEG = 0;

/** What lights in the states of a build, shared by all packs that ask. */
const litByBuild = new WeakMap<Build, Map<string, readonly LitChannel[]>>();

/** A build in one state under check, with what every kind of rule asks of it. */
export class Situation {
  readonly build: Build;
  readonly lookup: Lookup;
  readonly state: State;
  readonly #upperAboveM: number;
  readonly #elevationDeg: number;

  /**
   * @param upperAboveM - optical centres above this are upper, m
   * @param elevationDeg - where it is looked from, degrees up from the level of the light
   */
  constructor(build: Build, state: State, upperAboveM: number, elevationDeg = LEVEL_DEG) {
    this.build = build;
    this.lookup = lookupOf(build);
    this.state = state;
    this.#upperAboveM = upperAboveM;
    this.#elevationDeg = elevationDeg;
  }

  /** Whether it bounds several states: a figure that is dear to find may then be a bound on the worse side. */
  get isBound(): boolean {
    return this.state.given?.isBound === true;
  }

  /** The same state, looked at from another elevation. */
  seenFrom(elevationDeg: number): Situation {
    return elevationDeg === this.#elevationDeg
      ? this
      : new Situation(this.build, this.state, this.#upperAboveM, elevationDeg);
  }

  /** The same with everything shut. */
  shut(): Situation {
    const state = stateWith({ ...this.state, open: [] });
    return new Situation(this.build, state, this.#upperAboveM, this.#elevationDeg);
  }

  /** Every channel driven in this state. */
  drives(lamps: LampsCounted = 'all'): readonly Drive[] {
    const driven = drivenIn(this.build, this.state);
    return lamps === 'all' ? driven : driven.filter((d) => d.warns);
  }

  /** The channels that light, seen level; worked out once for each state. */
  lit(lamps: LampsCounted, level: LampHeight = 'any'): readonly LitChannel[] {
    const ofBuild = litByBuild.get(this.build) ?? new Map<string, readonly LitChannel[]>();
    litByBuild.set(this.build, ofBuild);
    const border = level === 'any' ? '' : this.#upperAboveM;
    const key = [stateKey(this.state), lamps, level, border, this.#elevationDeg].join('|');
    const known = ofBuild.get(key);
    if (known !== undefined) return known;
    const all = litChannels(this.build, this.state, {
      elevationDeg: this.#elevationDeg,
      colour: null,
      level,
      upperAboveM: this.#upperAboveM,
    });
    const lit = lamps === 'all' ? all : all.filter(({ drive }) => drive.warns);
    ofBuild.set(key, lit);
    return lit;
  }

  /** By bearing the share of a module's peak that arrives in this pose, whether it is lit or not. */
  shareOf({ placementId, moduleId }: ModuleRef, elevationDeg: number): Float64Array {
    const p = this.placement(placementId);
    const fields = p === undefined ? [] : fieldsOf(this.build).of(p, this.state.open, elevationDeg);
    return fields.find((field) => field.moduleId === moduleId)?.share ?? new Float64Array(BEARINGS);
  }

  placement(id: string): Placement | undefined {
    return this.build.placements.find((p) => p.id === id);
  }

  /** The channels of the lamps that do most, named first in a list of shares. */
  channelsOfMost(byLamp: readonly { readonly placementId: string }[], lamps = 4): ChannelRef[] {
    const most = new Set(byLamp.slice(0, lamps).map(({ placementId }) => placementId));
    return this.drives()
      .filter(({ placementId }) => most.has(placementId))
      .map(channelOf);
  }

  /** The lamps behind some channels, in words: one by name, with its module where that is one of several; more by number. */
  lampsText(channels: readonly ModuleRef[]): string {
    const ids = [...new Set(channels.map((c) => c.placementId))];
    const [only] = ids;
    if (ids.length !== 1 || only === undefined) return `${ids.length} lamps`;
    const placement = this.placement(only);
    const label = placement?.label ?? 'deleted lamp';
    const [moduleId, ...others] = new Set(channels.map((c) => c.moduleId));
    if (placement === undefined || placement.modules.length < 2 || others.length > 0) return label;
    const { modules } = this.lookup.fixture(placement.fixtureId);
    const name = modules.find(({ id }) => id === moduleId)?.name.toLowerCase();
    return name === undefined ? label : `${name} of ${label}`;
  }
}
