import { loadsIn, compileProgram, type ControlProgram } from '@flarik/core/controls/program';
import { readScript, stepText } from '@flarik/core/controls/script';
import { initialSimulation, type Simulation } from '@flarik/core/controls/simulator';
import { play } from '@flarik/core/controls/controlTest';
import { activeFunctionNames, type TestStep } from '@flarik/core/design/controls';
import type { Build } from '@flarik/core/design/schema';
import { highestCd } from '@flarik/core/resolve/channels';
import { drivenIn } from '@flarik/core/state/driven';
import { stateIn } from '@flarik/core/state/running';
import { InputError } from '@flarik/core/words/errors';
import type { Args } from './args.ts';
import type { Output } from './output.ts';

/** Operates the controls of a build from rest, and tells after each event what is on and what lights. */
export function simulate(build: Build, args: Args): Output {
  const programme = compileProgram(build);
  const steps = stepsOf(build, programme, args);
  const pictures = [
    { event: null, refused: false, ...pictureOf(build, programme, initialSimulation(programme)) },
    ...play(programme, steps).map(({ step, running, refused }) => ({
      event: stepText(step),
      refused,
      ...pictureOf(build, programme, running),
    })),
  ];
  if (args.json)
    return { exitCode: 0, text: JSON.stringify({ build: build.name, steps: pictures }, null, 2) };
  const lines = pictures.map(({ event, refused, atMs, on, loads, lit }) => {
    const what = refused ? `${event ?? ''} (no effect)` : (event ?? 'initial state');
    const set = Object.entries(loads).map(([id, value]) => `${id}: ${value}`);
    return `${`${String(atMs)} ms`.padStart(10)}  ${what.padEnd(28)} ${[activeFunctionNames(build, on), ...set].join(', ')}; ${String(lit.length)} channels lit`;
  });
  return { exitCode: 0, text: lines.join('\n') };
}

function stepsOf(build: Build, programme: ControlProgram, { events, test }: Args): readonly TestStep[] {
  if (events !== undefined) return readScript(programme, events, '--events');
  const { trials } = build.controls;
  const found = trials.find(({ id }) => id === test);
  if (found !== undefined) return found.steps;
  throw test === undefined
    ? new InputError('simulate', 'give events: --events "slide=2, wait=1000", or --test ID')
    : new InputError('--test', `no test '${test}'; known are ${trials.map(({ id }) => id).join(', ')}`);
}

/** What is on, strongest first, and every module that is lit, with the function that drives it. */
function pictureOf(build: Build, programme: ControlProgram, running: Simulation) {
  const state = stateIn(programme, running);
  return {
    atMs: running.nowMs,
    on: state.on,
    open: state.open,
    ambient: state.ambient,
    loads: Object.fromEntries(loadsIn(programme, running.state)),
    lit: drivenIn(build, state)
      .filter((d) => d.spans.length > 0)
      .map((d) => ({
        lamp: d.placementId,
        module: d.moduleId,
        colour: d.colour,
        pattern: d.patternId,
        // At its brightest: colours that share power have so much less.
        levelCd: Math.round(highestCd(d) * 1000) / 1000,
        by: d.on,
        ...(d.text === '' ? {} : { text: d.text }),
      })),
  };
}
