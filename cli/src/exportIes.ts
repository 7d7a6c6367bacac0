import { writeFileSync } from 'node:fs';
import type { Build } from '@flarik/core/build/schema';
import { iesOfState } from '@flarik/core/coverage/iesOfState';
import { InputError } from '@flarik/core/errors';
import { vehicleOf } from '@flarik/core/vehicle/vehicle';
import { ambientOf, openOf, stageOf, type Args } from './args.ts';
import type { Output } from './output.ts';

/** Writes the vehicle, or one lamp on it, in a state as an IES file. */
export function exportIes(build: Build, args: Args): Output {
  if (args.ies === undefined) throw new InputError('export', 'say where to write: --ies OUT');
  const shown =
    args.lamp === undefined
      ? build
      : { ...build, placements: build.placements.filter((p) => p.id === args.lamp) };
  if (args.lamp !== undefined && shown.placements.length === 0)
    throw new InputError('--lamp', `no lamp '${args.lamp}' in this build`);
  const state = {
    stage: stageOf({ ...args, stage: args.stage ?? '3' }),
    open: openOf(args, vehicleOf(build.vehicle)),
    ambient: ambientOf(args),
  };
  try {
    writeFileSync(args.ies, iesOfState(shown, state), 'latin1');
  } catch (error) {
    throw new InputError(args.ies, error instanceof Error ? error.message : String(error));
  }
  return { exitCode: 0, text: `Wrote ${args.ies}` };
}
