import { compileProgram } from '@flarik/core/controls/program';
import type { Build } from '@flarik/core/design/schema';
import { countsOf } from '@flarik/core/verification/prove';
import { ReachableSet } from '@flarik/core/verification/reachable';
import { countsText } from './check.ts';
import type { Output } from './output.ts';

/** How many states the controls of a build have and reach, and by what they move. */
export function states(build: Build, json: boolean): Output {
  const programme = compileProgram(build);
  const reached = new ReachableSet(programme);
  const counts = countsOf(reached);
  const events = reached.program.parts.reduce((sum, part) => sum + part.events.length, 0);
  const inputs = Object.fromEntries(programme.inputs.map(({ id, values }) => [id, values]));
  if (json)
    return { exitCode: 0, text: JSON.stringify({ build: build.name, ...counts, events, inputs }, null, 2) };
  const lines = Object.entries(inputs).map(([id, values]) => `  ${id.padEnd(22)} ${values.join(', ')}`);
  return {
    exitCode: 0,
    text: [countsText(counts), `${events} events. Inputs, default value first:`, ...lines].join('\n'),
  };
}
