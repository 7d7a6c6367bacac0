import { stagesOf } from '@flarik/core/design/controls';
import type { Build } from '@flarik/core/design/schema';
import { iesOfState } from '@flarik/core/coverage/iesOfState';
import { InputError } from '@flarik/core/words/errors';
import { vehicleOf } from '@flarik/core/vehicle/vehicle';
import { ambientOf, openOf, onOf, type Args } from './args.ts';
import type { Output } from './output.ts';
import { writeOut } from './writeOut.ts';

/** Writes the vehicle, or one lamp on it, in a state as an IES file. */
export function exportIes(build: Build, args: Args): Output {
  if (args.ies === undefined) throw new InputError('export', 'give the output file: --ies OUT');
  const lampId = args.lamp ?? null;
  if (lampId !== null && !build.placements.some((p) => p.id === lampId))
    throw new InputError('--lamp', `no lamp '${lampId}' in this build`);
  const state = {
    on: args.stage === undefined && args.on === undefined ? lastStage(build) : onOf(args, build),
    open: openOf(args, vehicleOf(build.vehicle)),
    ambient: ambientOf(args),
  };
  writeOut(args.ies, iesOfState(build, state, lampId), 'latin1', args.file);
  return { exitCode: 0, text: `Wrote ${args.ies}` };
}

const lastStage = (build: Build): string[] =>
  stagesOf(build)
    .slice(-1)
    .map(({ id }) => id);
