import { parseArgs } from 'node:util';
import { StageIndex } from '@flarik/core/build/schema';
import { InputError } from '@flarik/core/errors';
import { Colour } from '@flarik/core/fixture/colour';
import type { Vehicle } from '@flarik/core/vehicle/types';

export const USAGE = `flarik: checks and figures of a build file, without a browser

  flarik check FILE [--json]
      The findings of all chosen rule packs. Exit 0: nothing blocks; 1: something blocks.
  flarik coverage FILE --stage N [--open PART,PART] [--ambient day|night] [--elevation DEG] [--colour COLOUR] [--json]
      Effective intensity (cd) and optical power (cd·s/min) for each bearing 0 to 359.
  flarik geometry FILE [--open PART,PART] --json
      Solids as corners and faces, and every channel with place, aim and beam, in body axes (m; x forward, y left, z up).
  flarik photometry FILE.ies|FILE.ldt [--at=H,V] [--upright] [--json]
      What a photometric file says; intensity toward H (right) and V (up) of the module's aim, degrees.
  flarik export FILE --stage N [--open PART,PART] [--ambient day|night] --ies OUT
      The whole vehicle in that state as an IES LM-63 file, time mean, far away.

Bad input of any kind: one sentence, exit 2.`;

export interface Args {
  readonly command: string;
  readonly file: string;
  readonly json: boolean;
  readonly stage: string | undefined;
  readonly open: string | undefined;
  readonly ambient: string | undefined;
  readonly elevation: string | undefined;
  readonly colour: string | undefined;
  readonly at: string | undefined;
  readonly upright: boolean;
  readonly ies: string | undefined;
}

/**
 * Reads the command line.
 * @throws {InputError} an unknown option, or no file
 */
export function readArgs(argv: readonly string[]): Args {
  const { values, positionals } = parse(argv);
  const [command, file, extra] = positionals;
  if (command === undefined || file === undefined) throw new InputError('', USAGE);
  if (extra !== undefined) throw new InputError('', `one file at a time; '${extra}' is too many`);
  return {
    command,
    file,
    json: values.json,
    stage: values.stage,
    open: values.open,
    ambient: values.ambient,
    elevation: values.elevation,
    colour: values.colour,
    at: values.at,
    upright: values.upright,
    ies: values.ies,
  };
}

function parse(argv: readonly string[]) {
  try {
    return parseArgs({
      args: [...argv],
      allowPositionals: true,
      options: {
        json: { type: 'boolean', default: false },
        stage: { type: 'string' },
        open: { type: 'string' },
        ambient: { type: 'string' },
        elevation: { type: 'string' },
        colour: { type: 'string' },
        at: { type: 'string' },
        upright: { type: 'boolean', default: false },
        ies: { type: 'string' },
      },
    });
  } catch (error) {
    throw new InputError('', error instanceof Error ? error.message : String(error));
  }
}

/** @throws {InputError} not a stage */
export function stageOf({ stage }: Args): StageIndex {
  const parsed = StageIndex.safeParse(Number(stage ?? Number.NaN));
  if (!parsed.success) throw new InputError('--stage', `must be 0 (off), 1, 2 or 3, not '${stage ?? ''}'`);
  return parsed.data;
}

/** @throws {InputError} the vehicle has no such part */
export function openOf({ open }: Args, vehicle: Vehicle): string[] {
  const parts = (open ?? '').split(',').filter((part) => part !== '');
  const known = vehicle.parts.map((part) => part.id);
  const unknown = parts.find((part) => !known.includes(part));
  if (unknown !== undefined)
    throw new InputError('--open', `no moving part '${unknown}'; this vehicle has ${known.join(', ')}`);
  return parts;
}

/** @throws {InputError} not day or night */
export function ambientOf({ ambient = 'day' }: Args): 'day' | 'night' {
  if (ambient !== 'day' && ambient !== 'night')
    throw new InputError('--ambient', `must be day or night, not '${ambient}'`);
  return ambient;
}

/** @throws {InputError} not an elevation */
export function elevationOf({ elevation = '0' }: Args): number {
  const deg = Number(elevation);
  if (elevation.trim() === '' || !(Math.abs(deg) <= 90))
    throw new InputError('--elevation', `must be −90 to 90 degrees, not '${elevation}'`);
  return deg;
}

/** @throws {InputError} not a colour */
export function colourOf({ colour }: Args): Colour | null {
  if (colour === undefined) return null;
  const parsed = Colour.safeParse(colour);
  if (!parsed.success)
    throw new InputError('--colour', `must be one of ${Colour.options.join(', ')}, not '${colour}'`);
  return parsed.data;
}
