import { z } from 'zod';
import { InsertId } from '../fixture/inserts.ts';
import { Phase } from '../timing/pattern.ts';
import { FIXINGS } from '../vehicle/types.ts';
import { BoardText } from '../words/boardText.ts';
import { Colour } from '../words/colour.ts';
import { Id, Name, FreeText } from '../words/names.ts';
import { numberBetween } from '../words/numbers.ts';
import { OffsetMs } from './timing.ts';

/** By colour: the share of its light that a lens passes; all of it where none is said. */
export const LensByColour = z.partialRecord(Colour, numberBetween(0, 1));
export type LensByColour = z.infer<typeof LensByColour>;

/** How one module of a placement is coloured and timed. */
export const ModuleSetup = z.strictObject({
  id: Id,
  /** Its colours, slot 1 first. */
  colours: z.array(Colour).min(1, 'must name at least one colour').max(3),
  /** Colours it holds and may not show here. */
  disabled: z.array(Colour).max(3),
  /** Sync group; null free-runs on a clock of its own. */
  groupId: Id.nullable(),
  phase: Phase,
  /** Place in a sweep, from 1. */
  order: z.int().min(1).max(64),
  /** It shows its line of the pattern so much later than its group, ms. */
  offsetMs: OffsetMs,
  /** What its own lens passes of a colour; null takes the lamp's lens. */
  lens: LensByColour.nullable(),
  /** What its slot is built with, on a bar of slots; a warning module elsewhere. */
  insert: InsertId,
});
export type ModuleSetup = z.infer<typeof ModuleSetup>;

/** Where a lamp comes from, or goes: bought, left where it is, moved here, left for later, or taken out. */
export const LampStatus = z.enum(['new', 'kept', 'reused', 'planned', 'removed'], {
  error: 'must be new, kept, reused, planned or removed',
});
export type LampStatus = z.infer<typeof LampStatus>;

/** How a flange can be finished. */
export const FINISHES = ['black', 'chrome', 'white', 'grey', 'body colour'] as const;

const MOST_AIMS = 7;

/** A way a lamp can be turned besides the one it stands in. */
const Aim = z.strictObject({
  id: Id,
  name: Name,
  panDeg: numberBetween(-180, 180),
  tiltDeg: numberBetween(-90, 90),
});
/** A height a lamp's pole can be raised to besides the one it stands at. */
const Height = z.strictObject({ id: Id, name: Name, poleM: numberBetween(0, 8) });

/** A fixture on a mount zone. */
export const Placement = z.strictObject({
  id: Id,
  fixtureId: Id,
  zoneId: Id,
  label: Name,
  /** Whether a person named it; else its label follows the layout. */
  named: z.boolean(),
  uM: numberBetween(-6, 6),
  vM: numberBetween(-6, 6),
  panDeg: numberBetween(-180, 180),
  tiltDeg: numberBetween(-90, 90),
  rollDeg: numberBetween(-180, 180),
  /** Share of light its lens or cover passes. */
  lensTransmission: numberBetween(0, 1),
  /** What its lens passes of a colour besides, where a coloured or smoked cover treats colours unlike. */
  lensByColour: LensByColour,
  /** How its flange is finished. */
  finish: z.enum(FINISHES, { error: `must be one of ${FINISHES.join(', ')}` }),
  /** Its mirrored partner on the other side. */
  partnerId: Id.nullable(),
  status: LampStatus,
  /** How it is held; null takes the zone's usual way. */
  fixing: z.enum(FIXINGS, { error: `must be one of ${FIXINGS.join(', ')}` }).nullable(),
  /** How far it stands off its zone, on a pole or a spacer, m. */
  poleM: numberBetween(0, 8),
  /** On a tied-in lamp of the maker's: the signals for which its flasher stops. */
  stopsFor: z.array(Id).max(16),
  /** What it says, if it shows a text. */
  text: BoardText,
  /** Other aims it can be turned to on the spot. */
  aims: z.array(Aim).max(MOST_AIMS, `must be at most ${MOST_AIMS} aims`),
  /** Other heights its pole can be raised to. */
  heights: z.array(Height).max(MOST_AIMS, `must be at most ${MOST_AIMS} heights`),
  modules: z.array(ModuleSetup).min(1).max(64),
  /** For whoever fits it: chosen because, mind the wiring behind. */
  notes: FreeText,
});
export type Placement = z.infer<typeof Placement>;

/** The share of a colour's light that the lens before a module passes. */
export const lensPasses = (p: Placement, m: ModuleSetup, colour: Colour): number =>
  (m.lens ?? p.lensByColour)[colour] ?? 1;
