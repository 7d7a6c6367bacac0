import { onsIn, type ControlProgram } from '../controls/program.ts';
import type { Simulation } from '../controls/simulator.ts';
import { isLampInput, lampStop } from '../design/lampMoves.ts';
import { partInput, SHUT } from '../design/inputs.ts';
import type { State } from './state.ts';

/** The state in which a programme stands: what is on, what stands open, day or night; dusk counts as day. */
export function stateIn(programme: ControlProgram, { state }: Simulation): State {
  const open = programme.inputs.flatMap(({ id }) => {
    const value = state.values.get(id) ?? SHUT;
    if (isLampInput(id)) return lampStop(id, value) ?? [];
    return id.startsWith(partInput('')) && value !== SHUT ? [value] : [];
  });
  return {
    on: onsIn(programme, state),
    open,
    ambient: state.values.get('ambient') === 'night' ? 'night' : 'day',
  };
}
