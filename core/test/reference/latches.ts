import { ControlProgram } from '../../src/controls/program.ts';
import { newFunction } from '../../src/design/functions.ts';
import { defaultControls } from '../../src/design/usualControls.ts';

/** Latched functions under one key, each with a button of its own: `2 ** (count + 1)` raw states that hang together. */
export function latches(count: number): ControlProgram {
  const functions = Array.from({ length: count }, (_, i) =>
    newFunction(
      `f${i}`,
      `F${i}`,
      'warning',
      {
        way: 'latched',
        sets: [],
        clears: [],
        toggles: [{ kind: 'press', control: `k${i}`, press: 'short' }],
        timeoutMs: 0,
      },
      [],
    ),
  );
  const ignition = {
    id: 'ignition',
    name: 'Ignition',
    values: ['off', 'on'],
    source: 'vehicle',
    byHand: true,
  } as const;
  return new ControlProgram([ignition], {
    ...defaultControls(),
    panels: [],
    functions,
    enabledBy: { kind: 'is', input: 'ignition', values: ['on'] },
  });
}
