import { vehicleOf } from '../vehicle/vehicle.ts';
import { leavesOf, type Condition, type InputEvent } from './condition.ts';
import type { Controls } from './controls.ts';
import { HOME, lampMoves } from './lampMoves.ts';
import type { BuildParts } from './parts.ts';
import type { Control } from './panel.ts';

export type InputSource = 'panel' | 'vehicle' | 'around' | 'supply' | 'own';

/** Something that stands at one of a few values. */
export interface Input {
  readonly id: string;
  readonly name: string;
  /** The first is its value at rest. */
  readonly values: readonly string[];
  readonly source: InputSource;
  /** A person works it. */
  readonly byHand: boolean;
}

const given = (
  source: InputSource,
  id: string,
  name: string,
  values: readonly string[],
  byHand = false,
): Input => ({ id, name, values, source, byHand });

/** What every vehicle tells, the first value at rest. */
const OF_EVERY_VEHICLE: readonly Input[] = [
  given('vehicle', 'ignition', 'Ignition', ['off', 'accessory', 'on'], true),
  given('vehicle', 'engine', 'Engine', ['stopped', 'running']),
  given('vehicle', 'gear', 'Gear', ['park', 'reverse', 'neutral', 'drive']),
  given('vehicle', 'brake', 'Brake', ['up', 'down']),
  given('vehicle', 'turn', 'Turn signal', ['none', 'left', 'right', 'hazard'], true),
  given('vehicle', 'headlamps', 'Head lamps', ['off', 'side', 'dipped', 'main'], true),
  given('vehicle', 'parking-brake', 'Parking brake', ['off', 'on']),
  given('vehicle', 'speed', 'Speed', ['standing', 'slow', 'fast']),
  given('vehicle', 'fog', 'Fog lamps', ['off', 'on'], true),
  given('vehicle', 'locks', 'Doors', ['unlocked', 'locked']),
];
const AROUND: readonly Input[] = [given('around', 'ambient', 'Light around', ['day', 'dusk', 'night'])];
const SUPPLY: readonly Input[] = [
  given('supply', 'shore', 'Shore power', ['no', 'yes']),
  given('supply', 'battery', 'Battery', ['good', 'low']),
  given('supply', 'generator', 'Generator', ['off', 'on']),
];

/** The value of a moving part that stands shut. */
export const SHUT = 'shut';
/** The input that a moving part is. */
export const partInput = (partId: string): string => `part.${partId}`;

/** The input that says where the vehicle is. */
export const REGION = 'region';

/** What inputs are made of. */
type Wired = Pick<BuildParts, 'controls' | 'vehicle' | 'brief' | 'placements'>;

/** Every input of a build that has values: of panels, the vehicle, what is around, the supply, and its own. */
export function inputsOf({ controls, vehicle, brief, placements }: Wired): Input[] {
  const held = heldButtons(controls);
  const panels = controls.panels.flatMap((panel) =>
    panel.controls.flatMap((control): Input[] => {
      const values = control.twinOf === null ? valuesOf(control, held) : null;
      const name = control.label === '' ? `${panel.name}, ${control.kind}` : control.label;
      return values === null ? [] : [given('panel', control.id, name, values, true)];
    }),
  );
  const parts = vehicleOf(vehicle).parts.map((part) =>
    given('vehicle', partInput(part.id), part.name, [SHUT, ...part.stops.map((stop) => stop.id)]),
  );
  const lamps = lampMoves({ placements }).map((move) =>
    given('vehicle', move.input, move.name, [HOME, ...move.stops.map((stop) => stop.id)], true),
  );
  const regions =
    brief.jurisdictions.length < 2 ? [] : [given('around', REGION, 'Region', brief.jurisdictions)];
  const own = controls.inputs.map((i) => given('own', i.id, i.name, i.values, i.byHand));
  return [...panels, ...OF_EVERY_VEHICLE, ...parts, ...lamps, ...AROUND, ...regions, ...SUPPLY, ...own];
}

/** The values of a control; null for one that only gives presses, or does nothing. */
function valuesOf(control: Control, held: ReadonlySet<string>): readonly string[] | null {
  switch (control.kind) {
    case 'slide':
    case 'rotary':
    case 'rocker':
    case 'pull':
      return control.values;
    case 'horn ring':
      return ['up', 'down'];
    case 'button':
      return held.has(control.id) ? ['up', 'down'] : null;
    case 'spare':
      return null;
  }
}

/** Buttons of which some condition or event asks whether they are held. */
function heldButtons(controls: Controls): ReadonlySet<string> {
  const asked = new Set<string>();
  for (const condition of conditionsOf(controls))
    for (const leaf of leavesOf(condition)) if (leaf.kind === 'is') asked.add(leaf.input);
  for (const event of eventsOf(controls)) if (event.kind === 'arrives') asked.add(event.input);
  return asked;
}

/** Every condition that the controls hold. */
export function conditionsOf({ functions, never, enabledBy }: Controls): Condition[] {
  return [
    ...functions.flatMap((fn) => [
      ...(fn.when.way === 'while' ? [fn.when.condition] : []),
      ...(fn.enabledBy === null ? [] : [fn.enabledBy]),
    ]),
    ...never.flatMap(({ when, then }) => [when, then]),
    ...(enabledBy === null ? [] : [enabledBy]),
  ];
}

/** Every event that a function listens to. */
export const eventsOf = ({ functions }: Controls): InputEvent[] =>
  functions.flatMap(({ when }) => {
    switch (when.way) {
      case 'always':
      case 'while':
        return [];
      case 'latched':
        return [...when.sets, ...when.clears, ...when.toggles];
      case 'cycle':
        return [...when.sets, ...when.steps, ...when.clears];
    }
  });

/** The control that a twin stands for; itself when it is no twin. */
export function originalOf(controls: Controls, controlId: string): string {
  const all = controls.panels.flatMap((panel) => panel.controls);
  return all.find(({ id }) => id === controlId)?.twinOf ?? controlId;
}
