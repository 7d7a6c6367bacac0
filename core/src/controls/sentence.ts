import type { Condition, InputEvent } from '../design/condition.ts';
import type { TestStep } from '../design/controls.ts';
import type { ControlFunction, Cue, Target } from '../design/functions.ts';
import { inputsOf, originalOf, SHUT, type Input } from '../design/inputs.ts';
import { isLampInput, lampMoves } from '../design/lampMoves.ts';
import { listed } from '../words/listed.ts';
import { targetName } from '../design/names.ts';
import { controlName } from '../design/panel.ts';
import type { Build } from '../design/schema.ts';
import { bookOf } from '../timing/book.ts';
import { stopsOf, vehicleOf } from '../vehicle/vehicle.ts';

/** What a function, a condition or an event is, said as a sentence. */
export class Wording {
  readonly #build: Build;
  readonly #inputs: ReadonlyMap<string, Input>;

  constructor(build: Build) {
    this.#build = build;
    this.#inputs = new Map(inputsOf(build).map((input) => [input.id, input]));
  }

  input(id: string): string {
    return this.#inputs.get(id)?.name ?? this.control(id);
  }

  /** A control by its label; by its panel and kind where it has none. */
  control(id: string): string {
    for (const panel of this.#build.controls.panels)
      for (const control of panel.controls)
        if (control.id === id)
          return control.label === '' ? `${panel.name}, ${controlName(control)}` : `“${control.label}”`;
    return id;
  }

  /** The value of an input as people say it: a stop of a moving part by its name. */
  value(inputId: string, value: string): string {
    if (isLampInput(inputId))
      return (
        lampMoves(this.#build)
          .find(({ input }) => input === inputId)
          ?.stops.find(({ id }) => id === value)?.name ?? value
      );
    if (!inputId.startsWith('part.')) return value;
    if (value === SHUT) return 'closed';
    return stopsOf(vehicleOf(this.#build.vehicle)).find(({ id }) => id === value)?.name ?? value;
  }

  functionName(id: string): string {
    return this.#build.controls.functions.find((fn) => fn.id === id)?.name ?? 'deleted function';
  }

  /** "the hatch is open and (Stage 2 or Stage 3 is on)". */
  condition(c: Condition, inner = false): string {
    switch (c.kind) {
      case 'is':
        return `${this.input(c.input)} is ${listed(
          c.values.map((value) => this.value(c.input, value)),
          'or',
        )}`;
      case 'on':
        return `${this.functionName(c.functionId)} is on`;
      case 'not':
        if (c.of.kind === 'on') return `${this.functionName(c.of.functionId)} is not on`;
        if (c.of.kind === 'is')
          return `${this.input(c.of.input)} is not ${listed(
            c.of.values.map((value) => this.value(inputOf(c.of), value)),
            'or',
          )}`;
        return `not (${this.condition(c.of)})`;
      case 'all':
      case 'any': {
        const word = c.kind === 'all' ? 'and' : 'or';
        const text = c.of.map((part) => this.condition(part, true)).join(` ${word} `);
        return inner && c.of.length > 1 ? `(${text})` : text;
      }
    }
  }

  /** "“Fog” is pressed", "Gear goes to drive". */
  event(event: InputEvent): string {
    switch (event.kind) {
      case 'press':
        return `${this.control(event.control)} is ${event.press === 'long' ? 'held' : 'pressed'}`;
      case 'chord':
        return `${event.controls.map((id) => this.control(id)).join(' and ')} are pressed together`;
      case 'arrives':
        return `${this.input(originalOf(this.#build.controls, event.input))} goes to ${this.value(event.input, event.value)}`;
    }
  }

  /** Steps one after the other: "Ignition goes to on → Warning goes to 2 → 5 s pass". */
  way(steps: readonly TestStep[]): string {
    return steps
      .map((step) => (step.kind === 'wait' ? `${timeText(step.ms)} pass` : this.event(step.event)))
      .join(' → ');
  }

  /** When a function is on, as a sentence without its name: "while the hatch is open; stays 5 s longer". */
  when(fn: ControlFunction): string {
    const parts = [this.#way(fn)];
    if (fn.enabledBy !== null)
      parts.push(`only while ${this.condition(fn.enabledBy)}${fn.forgets ? ', then it resets' : ''}`);
    if (fn.withoutMaster && this.#build.controls.enabledBy !== null)
      parts.push('regardless of the master switch');
    return parts.join('; ');
  }

  #way({ when, shows }: ControlFunction): string {
    const any = (events: readonly InputEvent[]) =>
      events.map((event) => this.event(event)).join(' or ') || 'nothing does';
    const timeout = (ms: number) => (ms > 0 ? [`it switches off automatically after ${timeText(ms)}`] : []);
    switch (when.way) {
      case 'always':
        return 'always';
      case 'while':
        return [
          `while ${this.condition(when.condition)}`,
          ...(when.afterMs > 0 ? [`starts after ${timeText(when.afterMs)}`] : []),
          ...(when.staysMs > 0 ? [`stays ${timeText(when.staysMs)} longer`] : []),
        ].join('; ');
      case 'latched':
        return [
          ...(when.sets.length > 0 ? [`on when ${any(when.sets)}`] : []),
          ...(when.clears.length > 0 ? [`off when ${any(when.clears)}`] : []),
          ...(when.toggles.length > 0 ? [`on and off when ${any(when.toggles)}`] : []),
          ...timeout(when.timeoutMs),
        ].join('; ');
      case 'cycle':
        return [
          ...(when.sets.length > 0 ? [`to the first when ${any(when.sets)}`] : []),
          `the next of ${shows.length} when ${any(when.steps)}${when.wraps === 'first' ? ', round and round' : ', then off'}`,
          ...(when.clears.length > 0 ? [`off when ${any(when.clears)}`] : []),
          ...timeout(when.timeoutMs),
        ].join('; ');
    }
  }

  target(target: Target): string {
    return target.kind === 'ungrouped' ? 'lamps in no group' : targetName(this.#build, target);
  }

  /** "Double flash in colour 1, 60 % at night". */
  cue(cue: Cue): string {
    if (cue.show === 'dark') return cue.colours.length === 0 ? 'dark' : `no ${listed(cue.colours, 'or')}`;
    const book = bookOf(this.#build);
    const name = (id: string) => book.find(id)?.name ?? 'deleted pattern';
    const percent = (share: number) => `${Math.round(share * 100)} %`;
    return [
      `${name(cue.patternId)} in ${typeof cue.ink === 'number' ? `colour ${cue.ink}` : cue.ink}`,
      ...(cue.nightPatternId === null ? [] : [`${name(cue.nightPatternId)} at night`]),
      ...(cue.level < 1 ? [`at ${percent(cue.level)}`] : []),
      ...(cue.nightLevel < 1 ? [`${percent(cue.nightLevel)} at night`] : []),
      ...(cue.adds ? ['leaves the rest to others'] : []),
    ].join(', ');
  }

  /** What it takes or adds, in short: "lights 3, takes 1, dims 2". */
  takes({ shows }: ControlFunction): string {
    const cues = shows.flatMap((shown) => shown.cues);
    const names = (list: readonly Cue[]) =>
      listed([...new Set(list.map((c) => this.target(c.target)))], 'and');
    const lit = cues.filter((c) => c.show === 'light');
    const dark = cues.filter((c) => c.show === 'dark');
    const dims = shows.flatMap((shown) => shown.dims);
    const loads = shows.flatMap((shown) => shown.loads);
    const parts = [
      ...(lit.length > 0 ? [`lights ${names(lit)}`] : []),
      ...dark.map(
        (c) =>
          `${c.colours.length === 0 ? 'takes all from' : `takes ${listed(c.colours, 'and')} from`} ${this.target(c.target)}`,
      ),
      ...dims.map(
        (d) =>
          `dims ${listed(
            d.targets.map((t) => this.target(t)),
            'and',
          )} to ${Math.round(d.factor * 100)} %`,
      ),
      ...loads.map(
        ({ loadId, value }) =>
          `${this.#build.controls.loads.find((l) => l.id === loadId)?.name ?? 'deleted output'}: ${value}`,
      ),
    ];
    return parts.join('; ') || 'shows nothing yet';
  }
}

const inputOf = (c: Condition): string => (c.kind === 'is' ? c.input : '');

/** "800 ms", "5 s", "10 min". */
export function timeText(ms: number): string {
  if (ms < 1000 || ms % 100 !== 0) return `${ms} ms`;
  if (ms < 120_000) return `${ms / 1000} s`;
  return `${Math.round(ms / 6000) / 10} min`;
}
