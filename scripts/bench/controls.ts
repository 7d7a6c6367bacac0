import { compileProgram } from '@flarik/core/controls/program';
import { initialControlState, step } from '@flarik/core/controls/step';
import type { InputEvent } from '@flarik/core/design/condition';
import { drivenIn } from '@flarik/core/state/driven';
import { bruteShown } from '@flarik/core/test/reference/bruteShown';
import { demoBuild } from '@flarik/core/test/reference/demo';
import { timed } from './kit.ts';

/** Controls of the largest demo build: one event, and what then shows, against walking the functions module by module. */
export function controlsBench() {
  const pumper = demoBuild('tunnel-pumper-3');
  const programme = compileProgram(pumper);
  const events = programme.inputs.flatMap(({ id, values }) =>
    values.map((value): InputEvent => ({ kind: 'arrives', input: id, value })),
  );
  const start = initialControlState(programme);
  const rounds = 40;
  const steps = timed(() => {
    let state = start;
    for (let i = 0; i < rounds * events.length; i++) {
      const event = events[(i * 7) % events.length];
      if (event !== undefined) state = step(programme, state, event)?.state ?? state;
    }
    return state;
  });
  const ids = pumper.controls.functions.map((fn) => fn.id);
  const pictures = Array.from({ length: 400 }, (_, n) =>
    ids.filter((_id, i) => ((n * 2654435761) >>> (i + 3)) % 2 === 1),
  );
  const cold = timed(() => drivenIn(pumper, { on: ids, ambient: 'day' }));
  const shown = timed(() => pictures.map((on) => drivenIn(pumper, { on, ambient: 'day' }).length));
  const plain = timed(() =>
    pictures
      .slice(0, 20)
      .map((on) =>
        pumper.placements.map((p) => p.modules.map((m) => bruteShown(pumper, p, m, on, 'day', 0).size)),
      ),
  );
  const shownMs = shown.ms / pictures.length;
  return {
    what: 'one event of the pumper’s controls; what its modules show then; the same walked module by module, at one instant',
    stepMs: steps.ms / (rounds * events.length),
    everyFunctionFirstMs: cold.ms,
    shownMs,
    plainMs: plain.ms / 20,
    timesFaster: plain.ms / 20 / shownMs,
  };
}
