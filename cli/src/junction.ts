import type { Build } from '@flarik/core/design/schema';
import { atJunction, Junction, USUAL_JUNCTION } from '@flarik/core/sight/junction';
import { firstSeenText } from '@flarik/core/sight/words';
import { InputError } from '@flarik/core/words/errors';
import { decimal } from './decimal.ts';
import { stateOf, type Args } from './args.ts';
import type { Output } from './output.ts';

/** When one who crosses first sees the vehicle past a blind corner, all lamps together and lamp by lamp. */
export function junction(build: Build, args: Args): Output {
  const state = stateOf(args, build);
  const corner = cornerOf(args);
  const found = atJunction(build, state, corner);
  if (args.json)
    return {
      exitCode: 0,
      text: JSON.stringify({ build: build.name, on: state.on, open: state.open, corner, ...found }, null, 2),
    };
  const labelOf = (id: string): string => build.placements.find((p) => p.id === id)?.label ?? 'deleted lamp';
  return {
    exitCode: 0,
    text: [
      `From the ${corner.from}, ${corner.eyeAlongM} m from the crossing: ${firstSeenText(found)}.`,
      ...found.byLamp.map((lamp) => `${labelOf(lamp.placementId)}: ${firstSeenText(lamp)}`),
    ].join('\n'),
  };
}

/**
 * The corner asked for, as "from=left,cornerBackM=4": what is not said is as usual.
 * @throws {InputError} something that a corner does not have, beyond its bounds, or said twice
 */
function cornerOf({ corner = '' }: Args): Junction {
  const said: Record<string, string | number> = {};
  for (const part of corner.split(',').filter((text) => text.trim() !== '')) {
    const [key = '', value = ''] = part.split('=').map((word) => word.trim());
    if (Object.hasOwn(said, key)) throw new InputError('--corner', `'${key}' is given twice`);
    const figure = decimal(value);
    said[key] = Number.isFinite(figure) ? figure : value;
  }
  const read = Junction.safeParse({ ...USUAL_JUNCTION, ...said });
  if (read.success) return read.data;
  const [issue] = read.error.issues;
  const where = issue?.path.join('.') ?? '';
  throw new InputError('--corner', `${where === '' ? '' : `${where} `}${issue?.message ?? 'is wrong'}`);
}
