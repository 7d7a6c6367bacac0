import type { Build } from '@flarik/core/design/schema';
import { modesOf, variantOf } from '@flarik/core/sight/variant';
import { FACES } from '@flarik/core/words/face';
import { InputError } from '@flarik/core/words/errors';
import { ambientOf, figureOf, type Args } from './args.ts';
import type { Output } from './output.ts';

/** What a build comes to in a stage: light by face, current, holes, money; to be held against another's. */
export function variant(build: Build, args: Args): Output {
  const modes = modesOf(build);
  const mode = figureOf(args.stage, '--stage', modes.at(-1) ?? 1, [1, 3]);
  const found = variantOf(build, mode, ambientOf(args));
  if (found === null)
    throw new InputError('--stage', `this build has no such stage; it has ${modes.join(', ') || 'none'}`);
  if (args.json) return { exitCode: 0, text: JSON.stringify({ build: build.name, mode, ...found }, null, 2) };
  const { light, current, meanW, counts, perHundred } = found;
  const { currency } = build.brief;
  return {
    exitCode: 0,
    text: [
      ...FACES.map(
        (face) =>
          `${face.padEnd(6)} least ${light[face].least.toFixed(0).padStart(8)}, mean ${light[face].mean.toFixed(0).padStart(8)} cd·s/min`,
      ),
      `current mean ${current.meanA.toFixed(1)} A, highest ${current.worstA.value.toFixed(1)} A; mean ${meanW.toFixed(0)} W`,
      `${counts.heads} lamps, ${counts.holes} holes, ${(counts.installMinutes / 60).toFixed(1)} h to fit`,
      `${(counts.costMinor / 100).toFixed(2)} ${currency} for fixtures`,
      ...(perHundred === null
        ? []
        : [`${perHundred.toFixed(0)} cd·s/min average over all bearings per 100 ${currency}`]),
    ].join('\n'),
  };
}
