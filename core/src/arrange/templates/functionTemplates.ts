import type { FunctionTemplate } from './kit.ts';
import { FACTORY_LAMP_TEMPLATES } from './factoryLamps.ts';
import { READY_SIGNALS } from './signals.ts';
import { READY_CUTS } from './cuts.ts';
import { READY_LIGHTS } from './lights.ts';
import { READY_WARNINGS } from './warnings.ts';
import { READY_LOADS } from './loads.ts';
import { READY_ARROWS } from './arrow.ts';
import { READY_DOORS } from './doors.ts';
import { READY_MODES } from './modes.ts';
import { READY_POWER } from './power.ts';

/** Every function that is ready to be laid. */
export const FUNCTION_TEMPLATES: readonly FunctionTemplate[] = [
  ...FACTORY_LAMP_TEMPLATES,
  ...READY_SIGNALS,
  ...READY_CUTS,
  ...READY_LIGHTS,
  ...READY_DOORS,
  ...READY_WARNINGS,
  ...READY_ARROWS,
  ...READY_MODES,
  ...READY_LOADS,
  ...READY_POWER,
];
