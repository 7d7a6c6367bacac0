import { namedOns, stagesOf, type ActiveFunction } from '@flarik/core/design/controls';
import type { Build } from '@flarik/core/design/schema';
import { parseArgs } from 'node:util';
import { InputError } from '@flarik/core/words/errors';
import { Colour } from '@flarik/core/words/colour';
import type { Vehicle } from '@flarik/core/vehicle/types';
import type { State } from '@flarik/core/state/state';
import { stopsOf, vehicleOf } from '@flarik/core/vehicle/vehicle';
import { decimal } from './decimal.ts';

export interface Args {
  readonly command: string;
  /** The first word after the command: a file, or what to list. */
  readonly file: string;
  readonly second: string | undefined;
  readonly json: boolean;
  readonly stage: string | undefined;
  readonly on: string | undefined;
  readonly events: string | undefined;
  readonly test: string | undefined;
  readonly program: string | undefined;
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
  readonly csv: boolean;
  readonly grid: string | undefined;
  readonly quantity: string | undefined;
  readonly visibility: string | undefined;
  readonly corner: string | undefined;
  readonly usedTo: string | undefined;
}

/** Whether the command line asks how it is used. */
export const wantsHelp = (argv: readonly string[]): boolean =>
  argv.some((word) => word === '--help' || word === '-h') || argv[0] === 'help';

/**
 * Reads the command line.
 * @param command - how it is called: it takes the options that are named there, and no others
 * @throws {InputError} an option that it does not take, one that is said twice or says nothing, or no file
 */
export function readArgs(
  argv: readonly string[],
  { name, call }: { readonly name: string; readonly call: string },
): Args {
  const { values, positionals, tokens } = parse(argv);
  keepToCall(
    tokens.flatMap((token) => (token.kind === 'option' ? [token] : [])),
    { name, call },
  );
  const [command, file, ...more] = positionals;
  if (command === undefined || file === undefined)
    throw new InputError('', `nothing to work on; it is called as: flarik ${name} ${call}`);
  const second = command === 'list' ? more.shift() : undefined;
  const [extra] = more;
  if (extra !== undefined) throw new InputError('', `one file at a time; '${extra}' is too many`);
  return {
    command,
    file,
    second,
    json: values.json,
    stage: values.stage,
    on: values.on,
    events: values.events,
    test: values.test,
    program: values.program,
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
    csv: values.csv,
    grid: values.grid,
    quantity: values.quantity,
    visibility: values.visibility,
    corner: values.corner,
    usedTo: values.adaptation,
  };
}

/** An option that does nothing would be taken for obeyed. */
function keepToCall(
  given: readonly { readonly name: string; readonly value?: string | undefined }[],
  { name, call }: { readonly name: string; readonly call: string },
): void {
  const taken = [...call.matchAll(/--([a-z][a-z-]*)/gu)].map(([, option = '']) => option);
  const said = new Set<string>();
  for (const { name: option, value } of given) {
    if (!taken.includes(option))
      throw new InputError(
        `--${option}`,
        `'${name}' does not use it; it takes ${taken.map((one) => `--${one}`).join(', ')}`,
      );
    if (said.has(option)) throw new InputError(`--${option}`, 'is given twice');
    if (value?.trim() === '') throw new InputError(`--${option}`, 'is empty');
    said.add(option);
  }
  if (said.has('stage') && said.has('on')) throw new InputError('--stage', 'cannot be combined with --on');
}

function parse(argv: readonly string[]) {
  try {
    return parseArgs({
      args: joined(argv),
      allowPositionals: true,
      tokens: true,
      options: {
        json: { type: 'boolean', default: false },
        stage: { type: 'string' },
        on: { type: 'string' },
        events: { type: 'string' },
        test: { type: 'string' },
        program: { type: 'string' },
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
        csv: { type: 'boolean', default: false },
        grid: { type: 'string' },
        quantity: { type: 'string' },
        visibility: { type: 'string' },
        corner: { type: 'string' },
        adaptation: { type: 'string' },
      },
    });
  } catch (error) {
    // What Node says after its first sentence is advice for other cases.
    throw new InputError('', String(error instanceof Error ? error.message : error).replace(/\.\s[^]*$/, ''));
  }
}

/** Figures that begin with a minus sign are joined to their option, so that they are not taken for one. */
function joined(argv: readonly string[]): string[] {
  return argv.reduce<string[]>((args, word) => {
    const before = args.at(-1) ?? '';
    const signed = /^--[a-z-]+$/.test(before) && /^-[\d.]/.test(word);
    return signed ? [...args.slice(0, -1), `${before}=${word}`] : [...args, word];
  }, []);
}

/**
 * The functions that are on: a stage by its number, or functions by their ids.
 * @throws {InputError} the build has none of these
 */
export function onOf({ stage, on }: Pick<Args, 'stage' | 'on'>, build: Build): ActiveFunction[] {
  if (on !== undefined) {
    const keys = on.split(',').flatMap((key) => key.trim() || []);
    const known = namedOns(build).map((named) => named.on);
    const unknown = keys.find((key) => !known.includes(key));
    if (unknown !== undefined)
      throw new InputError('--on', `no function '${unknown}'; there are ${known.join(', ')}`);
    return keys;
  }
  const stages = stagesOf(build);
  const found = stages.find(({ mode }) => String(mode) === stage);
  if (found !== undefined) return [found.id];
  const names = stages.map(({ mode, name }) => `${String(mode)} (${name})`).join(', ');
  throw new InputError('--stage', `must be one of ${names}, not '${stage ?? ''}'`);
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
  const deg = decimal(elevation);
  if (!(Math.abs(deg) <= 90))
    throw new InputError('--elevation', `must be −90 to 90 degrees, not '${elevation}'`);
  return deg;
}

/**
 * A figure between two bounds, both allowed.
 * @throws {InputError} not a figure, or out of bounds
 */
export function figureOf(
  text: string | undefined,
  option: string,
  usual: number,
  [min, max]: readonly [number, number],
): number {
  const figure = text === undefined ? usual : decimal(text);
  if (!(figure >= min && figure <= max))
    throw new InputError(option, `must be ${min} to ${max}, not '${text ?? ''}'`);
  return figure;
}

/** The state that is asked for. */
export const stateOf = (args: Args, build: Build): State => ({
  on: onOf(args, build),
  open: openOf(args, vehicleOf(build.vehicle)),
  ambient: ambientOf(args),
});

/** @throws {InputError} not a colour */
export function colourOf({ colour }: Args): Colour | null {
  if (colour === undefined) return null;
  const parsed = Colour.safeParse(colour);
  if (!parsed.success)
    throw new InputError('--colour', `must be one of ${Colour.options.join(', ')}, not '${colour}'`);
  return parsed.data;
}
