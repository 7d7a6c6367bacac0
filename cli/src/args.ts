import { StageIndex } from '@flarik/core/design/timing';
import { parseArgs } from 'node:util';
import { InputError } from '@flarik/core/words/errors';
import { Colour } from '@flarik/core/words/colour';
import type { Vehicle } from '@flarik/core/vehicle/types';
import { stopsOf } from '@flarik/core/vehicle/vehicle';

export const USAGE = `flarik: checks and figures of a build file, without a browser

  flarik check FILE [--json]
      The findings of all chosen rule packs. Exit 0: nothing blocks; 1: something blocks.
  flarik coverage FILE --stage N [--open PART,PART] [--ambient day|night] [--elevation DEG] [--colour COLOUR] [--json]
      Effective intensity (cd) and optical power (cd·s/min) for each bearing 0 to 359.
  flarik waveform FILE --stage N --bearing DEG [--elevation DEG] [--colour COLOUR] [--open PART,PART] [--ambient day|night] [--threshold CD] [--json]
      The light seen from one direction over time: spans of each clock (ms, cd), optical power, effective intensity, longest dark gap below the threshold (40 cd unless said), and the worst over clocks that drift.
  flarik geometry FILE [--open PART,PART] --json
      Solids as corners and faces, and every channel with place, aim and beam, in body axes (m; x forward, y left, z up).
  flarik list bodies|fixtures|zones|patterns [FILE] [--json]
      The body types with their measures and options; the fixtures, with the build's own; the vehicle's zones; the flash patterns.
  flarik photometry FILE.ies|FILE.ldt [--at H,V] [--upright] [--json]
      What a photometric file says; intensity toward H (right) and V (up) of the module's aim, degrees.
  flarik export FILE --ies OUT [--stage N] [--open PART,PART] [--ambient day|night] [--lamp ID]
      The whole vehicle, or one lamp on it, in that state (stage 3 unless said) as an IES LM-63 file: time mean, far away.

Bad input of any kind: one sentence, exit 2.`;

export interface Args {
  readonly command: string;
  /** The first word after the command: a file, or what to list. */
  readonly file: string;
  readonly second: string | undefined;
  readonly json: boolean;
  readonly stage: string | undefined;
  readonly open: string | undefined;
  readonly ambient: string | undefined;
  readonly elevation: string | undefined;
  readonly colour: string | undefined;
  readonly at: string | undefined;
  readonly upright: boolean;
  readonly ies: string | undefined;
  readonly lamp: string | undefined;
  readonly bearing: string | undefined;
  readonly threshold: string | undefined;
}

/**
 * Reads the command line.
 * @throws {InputError} an unknown option, or no file
 */
export function readArgs(argv: readonly string[]): Args {
  const { values, positionals } = parse(argv);
  const [command, file, ...more] = positionals;
  if (command === undefined || file === undefined) throw new InputError('', USAGE);
  const second = command === 'list' ? more.shift() : undefined;
  const [extra] = more;
  if (extra !== undefined) throw new InputError('', `one file at a time; '${extra}' is too many`);
  return {
    command,
    file,
    second,
    json: values.json,
    stage: values.stage,
    open: values.open,
    ambient: values.ambient,
    elevation: values.elevation,
    colour: values.colour,
    at: values.at,
    upright: values.upright,
    ies: values.ies,
    lamp: values.lamp,
    bearing: values.bearing,
    threshold: values.threshold,
  };
}

function parse(argv: readonly string[]) {
  try {
    return parseArgs({
      args: joined(argv),
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
        lamp: { type: 'string' },
        bearing: { type: 'string' },
        threshold: { type: 'string' },
      },
    });
  } catch (error) {
    throw new InputError('', error instanceof Error ? error.message : String(error));
  }
}

/** Figures that may begin with a minus sign are joined to their option, so that they are not taken for one. */
function joined(argv: readonly string[]): string[] {
  return argv.reduce<string[]>((args, word) => {
    const before = args.at(-1);
    const signed = before === '--at' || before === '--elevation' || before === '--bearing';
    return signed ? [...args.slice(0, -1), `${before}=${word}`] : [...args, word];
  }, []);
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
  const known = stopsOf(vehicle).map((stop) => stop.id);
  const unknown = parts.find((part) => !known.includes(part));
  if (unknown !== undefined)
    throw new InputError('--open', `nothing opens as '${unknown}'; this vehicle has ${known.join(', ')}`);
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
