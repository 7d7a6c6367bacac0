import { beforeRetrofit, isRetrofit } from '@flarik/core/arrange/beforeRetrofit';
import { bySeverity, outcomesOf } from '@flarik/core/verification/checkWhole';
import { provedApart } from './verifiedApart';
import { Verifying } from './verifying.svelte';
import {
  functionAt,
  functionsInOrder,
  namedOns,
  onsOf,
  activeFunctionNames,
  readOn,
  stagesOf,
  type ActiveFunction,
} from '@flarik/core/design/controls';
import type { Build } from '@flarik/core/design/schema';
import { defaultState, poseKey, type State } from '@flarik/core/state/state';
import type { RingOptions } from '@flarik/core/coverage/ring';
import type { Sector } from '@flarik/core/coverage/sectors';
import type { CheckResult, Finding, RuleOutcome } from '@flarik/core/rules/finding';
import { acceptanceStatusOf } from '@flarik/core/rules/acceptances';
import { causesOf } from '@flarik/core/rules/causes';
import { drivenIn } from '@flarik/core/state/driven';
import { lookupOf } from '@flarik/core/resolve/lookup';
import { nextPose, stopsOf } from '@flarik/core/vehicle/vehicle';
import type { SavedBuild } from '$lib/api';
import { startAnalysis } from '$lib/workers/analysis';
import { DesignWorker } from '$lib/workers/designWorker';
import type { RingRequest } from '$lib/workers/analysis.worker';
import { partInput, SHUT } from '@flarik/core/design/inputs';
import type { Ambient } from '@flarik/core/words/ambient';
import { deltaOf } from '@flarik/core/design/delta';
import { overfull } from '@flarik/core/design/parts';
import { Autosave } from './autosave.svelte';
import { ControlSimulator } from './controlSimulator.svelte';
import { History } from './history';
import { LatestRun } from './latestRun.svelte';
import { Preview } from './preview.svelte';

/** A fixture being placed: chosen in the catalogue, and under the pointer while it is dragged. */
export interface Carry {
  readonly fixtureId: string;
  readonly at: { readonly x: number; readonly y: number } | null;
}

/** The open build: the document, what is looked at, and what follows from both. */
export class Editor {
  build: Build;
  state: State;
  /** Selected placements. */
  selection = $state.raw<ReadonlySet<string>>(new Set());
  /** The one module being edited; null edits all modules of the selection. */
  moduleId = $state<string | null>(null);
  carry = $state.raw<Carry | null>(null);
  /** Bearings that a finding points at. */
  marked = $state.raw<readonly Sector[]>([]);
  shownFindingId = $state<string | null>(null);
  /** The bearing pointed at, whole degrees. */
  bearing = $state(0);
  ringOptions = $state.raw<RingOptions>({ elevationDeg: 0, colour: null, level: 'any', upperAboveM: 1.5 });
  /** Goes to a position of the walk round, 1 to 8, while it is looked at. */
  walk: ((position: number) => void) | null = null;
  /** Why the last edit was not made; null when it was. */
  refusal = $state<string | null>(null);
  undoLabel = $state<string | null>(null);
  redoLabel = $state<string | null>(null);

  readonly lookup = $derived.by(() => lookupOf(this.build));
  readonly vehicle = $derived.by(() => this.lookup.vehicle);
  /** The vehicle is looked at as it was before the work, or as it will be. */
  when = $state<'before' | 'after'>('after');
  readonly isBefore = $derived.by(() => this.when === 'before' && isRetrofit(this.build));
  /** The build as it is looked at. */
  readonly seen = $derived.by(() => (this.isBefore ? beforeRetrofit(this.build) : this.build));
  readonly drives = $derived.by(() => drivenIn(this.seen, this.state));
  /** What stands open: the same set until that changes, so that what is drawn from it stays. */
  readonly open = $derived.by(() => this.#openIn(this.state.open));
  #lastOpen: { readonly key: string; readonly set: ReadonlySet<string> } = { key: '', set: new Set() };
  /** The stages there are, Off first. */
  readonly stages = $derived.by(() => stagesOf(this.build));
  /** Every way in which a function can be on, the stages first. */
  readonly named = $derived.by(() => namedOns(this.build));
  /** The strongest stage that is on; null when none is. */
  readonly stageOn = $derived.by((): ActiveFunction | null => {
    const stages = this.build.controls.functions.filter((fn) => fn.kind === 'stage').flatMap(onsOf);
    return stages.find((on) => this.state.on.includes(on)) ?? null;
  });
  /** The function whose timing is looked at: the strongest stage that is on, or what else is. */
  readonly looked = $derived.by((): ActiveFunction => {
    const { on } = this.state;
    return this.stageOn ?? on[0] ?? functionsInOrder(this.build)[0]?.id ?? '';
  });
  readonly selected = $derived.by(() => this.build.placements.filter((p) => this.selection.has(p.id)));

  /** The earlier revision that is looked at in place of the build; nothing can be changed meanwhile. */
  past = $state.raw<{ readonly version: number; readonly savedAt: string } | null>(null);
  /** The build itself while an earlier revision is looked at. */
  #now: Build | null = null;

  readonly autosave: Autosave;
  readonly cockpit = new ControlSimulator(
    () => this.build,
    (state) => (this.state = state),
  );
  readonly preview = new Preview(() => this.drives);
  readonly #analysis = new DesignWorker(startAnalysis);
  readonly check = new LatestRun(async (build: Build) => ({
    build,
    ...(await this.#analysis.ask(build, (api) => api.check())),
  }));
  /** The same check of the vehicle as it was before the work. */
  readonly checkBefore = new LatestRun(async (build: Build) => ({
    build,
    ...(await this.#analysis.ask(beforeRetrofit(build), (api) => api.check())),
  }));
  /** The same check in the state being looked at alone. */
  readonly here = new LatestRun(({ build, state }: { build: Build; state: State }) =>
    this.#analysis.ask(build, (api) => api.checkState(state)),
  );
  /** What is proved of the controls, over every state. */
  readonly proving = new Verifying();
  /** Whether what is proved is proved of the build as it is now. */
  readonly isProved = $derived.by(() => this.proving.answer?.build === this.build);
  /** Whether it will be by itself. */
  readonly isProvedSoon = $derived.by(
    () => !this.isProved && !this.proving.stopped && this.proving.error === null && this.check.error === null,
  );
  /** Why what is known may still change; null once the build as it is now is checked and verified. */
  readonly pending = $derived.by(
    (): 'checking …' | 'verifying …' | 'not verified' | 'check failed' | null => {
      if (this.check.error !== null) return 'check failed';
      if (this.check.running || this.check.answer?.build !== this.build) return 'checking …';
      if (this.isProved) return null;
      return this.isProvedSoon ? 'verifying …' : 'not verified';
    },
  );
  /** All findings there are, the gravest first. */
  readonly findings = $derived.by((): readonly Finding[] =>
    bySeverity(this.check.answer?.findings ?? [], this.proving.answer?.findings ?? []),
  );
  /** How each rule and wish came out, by each function and over all that the controls bring about. */
  readonly outcomes = $derived.by((): readonly RuleOutcome[] =>
    outcomesOf(this.check.answer?.outcomes ?? [], this.proving.answer?.outcomes ?? []),
  );
  /** Which of them are open, and which somebody lets stand. */
  readonly standing = $derived.by(() => acceptanceStatusOf(this.build, this.findings));
  /** The open ones by what causes them. */
  readonly causes = $derived.by(() => causesOf(this.build, this.standing.open));
  readonly ring = new LatestRun(({ build, ...request }: { build: Build } & RingRequest) =>
    this.#analysis.ask(build, (api) => api.ring(request)),
  );
  /** Whether the ring is of the build and the state looked at; while a lamp is dragged it is of before. */
  readonly isRingKnown = $derived.by(
    () => this.ring.answer !== null && !this.ring.running && this.ring.error === null && !this.dragging,
  );
  readonly #history = new History();
  /** The document as before a drag that is not finished. */
  #mark: Build | null = null;
  /** A drag goes on: what takes long waits until it ends. */
  dragging = $state(false);

  constructor(saved: SavedBuild) {
    this.build = $state.raw(saved.build);
    this.state = $state.raw(defaultState(saved.build));
    this.autosave = new Autosave(saved);
    const upper = saved.build.rulePacks[0]?.upperAboveM;
    if (upper !== undefined) this.ringOptions = { ...this.ringOptions, upperAboveM: upper };
  }

  /**
   * Makes an edit: one step of undo, saved automatically. Edits that change nothing leave no step; one that makes a list
   * longer than the server keeps is refused.
   */
  edit(label: string, change: (build: Build) => Build, key: string | null = null): void {
    if (this.past !== null) return;
    const before = this.#mark ?? this.build;
    this.#endDrag();
    const after = change(before);
    this.refusal = overfull(before, after);
    if (after === before || this.refusal !== null) {
      this.build = before;
      return;
    }
    this.#history.record(label, before, after, key);
    this.#moveTo(after, label);
  }

  /** What would be found in a build that is not made yet. */
  tryOut(build: Build): Promise<CheckResult> {
    return this.#analysis.ask(this.build, (api) => api.check(deltaOf(this.build, build)));
  }

  /** The same, and what is found over all that its controls bring about. */
  async tryWhole(build: Build): Promise<CheckResult> {
    const checked = await this.tryOut(build);
    const proof = await provedApart(build, checked);
    return {
      findings: bySeverity(checked.findings, proof.findings),
      outcomes: outcomesOf(checked.outcomes, proof.outcomes),
    };
  }

  /** Shows an edit without making it: a drag that goes on. `cancelDrag` goes back, `edit` makes it. */
  drag(change: (build: Build) => Build): void {
    if (this.past !== null) return;
    this.#mark ??= this.build;
    this.dragging = true;
    this.build = change(this.#mark);
  }

  cancelDrag(): void {
    if (this.#mark !== null) this.build = this.#mark;
    this.#endDrag();
  }

  #endDrag(): void {
    this.#mark = null;
    this.dragging = false;
  }

  undo(): void {
    if (this.past === null) this.#step(this.#history.undo(), `Undo ${this.undoLabel ?? ''}`);
  }

  redo(): void {
    if (this.past === null) this.#step(this.#history.redo(), `Redo ${this.redoLabel ?? ''}`);
  }

  #step(build: Build | null, label: string): void {
    if (build !== null) this.#moveTo(build, label);
  }

  #moveTo(build: Build, label: string): void {
    this.build = build;
    this.undoLabel = this.#history.undoLabel;
    this.redoLabel = this.#history.redoLabel;
    const present = new Set(build.placements.map((p) => p.id));
    const left = [...this.selection].filter((id) => present.has(id));
    // The one module being edited stays chosen while its lamp does.
    if (left.length < this.selection.size) this.select(left);
    this.#keepState();
    this.autosave.changed(build, label);
  }

  /** A part the vehicle no longer has stands nowhere, and a function that is gone is not on. */
  #keepState(): void {
    const stops = new Set(stopsOf(this.vehicle).map((stop) => stop.id));
    if (!this.state.open.every((id) => stops.has(id)))
      this.setState({ open: this.state.open.filter((id) => stops.has(id)) });
    const known = new Set(this.named.map(({ on }) => on));
    if (!this.state.on.every((on) => known.has(on)))
      this.setState({ on: this.state.on.filter((on) => known.has(on)) });
    // The controls are worked anew by the programme as it is now.
    if (this.cockpit.following) this.cockpit.follow();
  }

  /** The build as it is, whatever is looked at. */
  get current(): Build {
    return this.#now ?? this.build;
  }

  /** Looks at an earlier revision, in every step, until `backToNow`. */
  lookAt({ build, version, savedAt }: SavedBuild): void {
    this.cancelDrag();
    this.#now ??= this.build;
    this.past = { version, savedAt };
    this.replace(build);
  }

  backToNow(): void {
    const now = this.#now;
    this.#now = null;
    this.past = null;
    if (now !== null) this.replace(now);
  }

  /** Makes the revision that is looked at the newest one: an edit like others, which can be undone. */
  restorePast(): void {
    const { past, build } = this;
    if (past === null) return;
    this.backToNow();
    this.edit(`Restore revision ${past.version}`, () => build);
  }

  /** Takes another document in place of this one, as when the other side of a conflict is chosen. */
  replace(build: Build): void {
    this.build = build;
    this.#keepState();
    this.select([]);
  }

  select(ids: readonly string[], moduleId: string | null = null): void {
    this.selection = new Set(ids);
    this.moduleId = moduleId;
  }

  nameOf(on: ActiveFunction): string {
    return activeFunctionNames(this.build, [on]);
  }

  /** Looks at what one function shows by itself. */
  lookAtFunction(on: ActiveFunction): void {
    functionAt(this.build, readOn(on).id);
    this.lookAtState({ on: [on] });
  }

  #openIn(open: readonly string[]): ReadonlySet<string> {
    const key = poseKey(open);
    if (key !== this.#lastOpen.key) this.#lastOpen = { key, set: new Set(open) };
    return this.#lastOpen.set;
  }

  /** Looks at a state by itself, wherever the controls stand. */
  lookAtState(patch: Partial<State>): void {
    this.cockpit.following = false;
    this.setState(patch);
  }

  /** The light around; the controls are told where they are followed. */
  setAmbient(ambient: Ambient): void {
    if (this.cockpit.following) this.cockpit.operate({ kind: 'arrives', input: 'ambient', value: ambient });
    else this.setState({ ambient });
  }

  shutEverything(): void {
    if (!this.cockpit.following) this.setState({ open: [] });
    else
      for (const part of this.vehicle.parts)
        if (this.cockpit.valueOf(partInput(part.id)) !== SHUT)
          this.cockpit.operate({ kind: 'arrives', input: partInput(part.id), value: SHUT });
  }

  setState(patch: Partial<State>): void {
    this.state = { ...this.state, ...patch };
  }

  /** Looks at the state with a function besides, or without it; of a cycle's numbers one at a time. */
  toggleOn(on: ActiveFunction): void {
    const now = this.state.on;
    const { id } = readOn(on);
    this.lookAtState({
      on: now.includes(on)
        ? now.filter((other) => other !== on)
        : [...now.filter((other) => readOn(other).id !== id), on],
    });
  }

  /** Moves a part on to its next stop, and from the last back to shut. */
  moveOn(partId: string): void {
    const open = nextPose(this.vehicle, this.state.open, partId);
    if (!this.cockpit.following) {
      this.setState({ open });
      return;
    }
    const part = this.vehicle.parts.find(({ id }) => id === partId);
    const stop = part?.stops.find(({ id }) => open.includes(id));
    this.cockpit.operate({ kind: 'arrives', input: partInput(partId), value: stop?.id ?? SHUT });
  }

  /** Shows a finding: its lamps selected, the state bar at its state, its bearings marked. */
  show(finding: Finding): void {
    const { state, channels, sectors, steps } = finding.evidence;
    // The way to it is operated, so that panels and recorder move along.
    if (steps.length > 0) this.cockpit.replay(steps);
    else if (state !== null) this.lookAtState(state);
    this.select([...new Set(channels.map((c) => c.placementId))]);
    this.marked = sectors;
    const [first] = sectors;
    if (first !== undefined)
      this.bearing = Math.round(first.fromDeg + ((first.toDeg - first.fromDeg + 360) % 360) / 2) % 360;
    this.shownFindingId = finding.id;
  }

  clearShown(): void {
    this.marked = [];
    this.shownFindingId = null;
  }

  close(): void {
    this.preview.stop();
    this.autosave.stop();
    this.#analysis.end();
    this.proving.end();
  }
}
