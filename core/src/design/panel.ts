import { z } from 'zod';
import { Colour } from '../words/colour.ts';
import { Id, Name } from '../words/names.ts';
import { numberBetween } from '../words/numbers.ts';
import { InputValue } from './condition.ts';
import { Label } from './functions.ts';

/** Where a panel stands. */
export const PANEL_PLACES = [
  'dash',
  'console',
  'overhead',
  'rear desk',
  'hand-held',
  'pedestal',
  'pump panel',
] as const;

/** A panel has no more columns, rows and pages of controls. */
export const MOST_COLUMNS = 12;
export const MOST_ROWS = 8;
export const MOST_PAGES = 8;
const Millimetres = numberBetween(0, 2000);

/** Where a control stands on its panel: columns and rows from 1, from the top left. */
const Position = {
  id: Id,
  label: Label,
  page: z.int().min(1).max(MOST_PAGES),
  column: z.int().min(1).max(MOST_COLUMNS),
  row: z.int().min(1).max(MOST_ROWS),
  /** The control of another panel that is the same input; null stands for itself. */
  twinOf: Id.nullable(),
  /** Lit by night so that it is found. */
  backlit: z.boolean(),
};
const Lamp = {
  /** The function that its own lamp shows, and in which colour; null has none. */
  lamp: z.strictObject({ functionId: Id, colour: Colour }).nullable(),
};
const Positions = z
  .array(InputValue)
  .min(2, 'must have at least two positions')
  .max(8, 'must have at most eight positions');

/** The kinds of control there are. */
export const CONTROL_KINDS = ['button', 'slide', 'rotary', 'rocker', 'horn ring', 'pull', 'spare'] as const;

/** A control on a panel. A spare one is a place kept free. */
export const Control = z.discriminatedUnion(
  'kind',
  [
    z.strictObject({
      kind: z.literal('button'),
      ...Position,
      ...Lamp,
      /** Held so long, a press is a long one, ms. */
      holdMs: z.int().min(200).max(10_000),
    }),
    z.strictObject({ kind: z.literal('slide'), ...Position, values: Positions }),
    z.strictObject({ kind: z.literal('rotary'), ...Position, values: Positions }),
    z.strictObject({
      kind: z.literal('rocker'),
      ...Position,
      values: Positions,
      /** It springs back to its first position. */
      springs: z.boolean(),
    }),
    z.strictObject({ kind: z.literal('horn ring'), ...Position }),
    z.strictObject({ kind: z.literal('pull'), ...Position, values: Positions }),
    z.strictObject({ kind: z.literal('spare'), ...Position }),
  ],
  { error: `must be one of ${CONTROL_KINDS.join(', ')}` },
);
export type Control = z.infer<typeof Control>;

/** Room for a panel in the cab, as it was measured. */
export const CabPlace = z.strictObject({
  id: Id,
  name: Name,
  widthMm: Millimetres,
  heightMm: Millimetres,
  depthMm: Millimetres,
  /** An airbag needs the room. */
  airbag: z.boolean(),
  /** The driver reaches it belted. */
  reached: z.boolean(),
  /** A panel there can be taken out again without taking the cab apart. */
  replaceable: z.boolean(),
});
export type CabPlace = z.infer<typeof CabPlace>;

/** A panel with its controls. */
export const Panel = z.strictObject({
  id: Id,
  name: Name,
  place: z.enum(PANEL_PLACES, { error: `must be one of ${PANEL_PLACES.join(', ')}` }),
  /** Drawn on glass, page by page. */
  touch: z.boolean(),
  /** Which room in the cab it takes; null where that is not settled. */
  cabPlaceId: Id.nullable(),
  widthMm: Millimetres,
  heightMm: Millimetres,
  depthMm: Millimetres,
  controls: z.array(Control).max(96, 'must be at most 96 controls'),
});
export type Panel = z.infer<typeof Panel>;

/** An input of the shop's own: a seat switch, a pump that is engaged. */
export const OwnInput = z.strictObject({
  id: Id,
  name: Name,
  /** The first is its value at rest. */
  values: Positions,
  /** A person works it, though it is no control of a panel. */
  byHand: z.boolean(),
});
export type OwnInput = z.infer<typeof OwnInput>;

/** What a control is called: what stands on it, else what it is. */
export const controlName = ({ label, kind }: Pick<Control, 'label' | 'kind'>): string =>
  label === '' ? (kind === 'spare' ? 'spare' : `${kind} without label`) : label;

/** The columns a control takes up: a switch as many as it has positions, any other one. */
export function columnsOf(control: Control): number[] {
  const most = MOST_COLUMNS - control.column + 1;
  const width = 'values' in control ? Math.min(most, control.values.length) : 1;
  return Array.from({ length: width }, (_, i) => control.column + i);
}

/** Every place on a panel that a control takes up, as keys of page, row and column. */
export const placesOf = (control: Control): string[] =>
  columnsOf(control).map((column) => `${control.page}/${control.row}/${column}`);
