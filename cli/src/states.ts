import { programmeOf } from '@flarik/core/controls/programme';
import type { Build } from '@flarik/core/design/schema';
import { Machine } from '@flarik/core/proof/machine';
import { momentsOf } from '@flarik/core/proof/moments';
import { reach } from '@flarik/core/proof/reach';
import { countsText } from './check.ts';
import type { Output } from './output.ts';

/** How many states the controls of a build have and reach, and by what they move. */
export function states(build: Build, json: boolean): Output {
  const machine = new Machine(programmeOf(build));
  const reached = reach(machine);
  const { pictures, whole } = momentsOf(reached);
  const counts = { raw: String(reached.raw), reachable: String(reached.count), pictures, whole };
  const events = machine.parts.reduce((sum, part) => sum + part.events.length, 0);
  const inputs = Object.fromEntries(machine.programme.inputs.map(({ id, values }) => [id, values]));
  if (json)
    return { exitCode: 0, text: JSON.stringify({ build: build.name, ...counts, events, inputs }, null, 2) };
  const lines = Object.entries(inputs).map(([id, values]) => `  ${id.padEnd(22)} ${values.join(', ')}`);
  return {
    exitCode: 0,
    text: [countsText(counts), `${events} events. Inputs, each with its value at rest first:`, ...lines].join(
      '\n',
    ),
  };
}
