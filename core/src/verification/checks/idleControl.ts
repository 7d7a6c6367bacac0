import { leavesOf } from '../../design/condition.ts';
import type { Controls } from '../../design/controls.ts';
import { conditionsOf, eventsOf, originalOf } from '../../design/inputs.ts';
import { controlName, type Control } from '../../design/panel.ts';
import type { VerificationCheck } from '../found.ts';
import { about } from '../../rules/subject.ts';

/** Controls, and positions of switches, that change nothing in any state and are not marked spare. */
export const idleControl: VerificationCheck = {
  kind: 'idle-control',
  severity: 'warns',
  clause: 'Every control does something, or is marked spare',
  alone: true,
  find: ({ build: { controls } }) => {
    const named = namesIn(controls);
    const matters = namesIn(withoutIdle(controls));
    const call = (control: Control) => (control.label === '' ? controlName(control) : `“${control.label}”`);
    return controls.panels.flatMap((panel) =>
      panel.controls.flatMap((control) => {
        if (control.kind === 'spare' || control.twinOf !== null) return [];
        const values = new Set(named(control.id));
        if (values.size === 0)
          return [
            {
              subjects: [about('control', control.id)],
              sentence: `${call(control)} on ${panel.name} has no effect. Assign a function or mark it spare.`,
            },
          ];
        if (matters(control.id).length === 0)
          return [
            {
              subjects: [about('control', control.id)],
              sentence: `${call(control)} on ${panel.name} has no effect: its functions are empty. Add an effect or mark it spare.`,
            },
          ];
        if (!('values' in control)) return [];
        // One position may be the one in which nothing is asked for.
        const idle = control.values.filter((value) => !values.has(value));
        return idle.length < 2
          ? []
          : [
              {
                subjects: [about('control', control.id), about('topic', 'positions')],
                sentence: `positions ${idle.join(' and ')} of ${call(control)} on ${panel.name} have the same effect.`,
              },
            ];
      }),
    );
  },
};

/** By control what of it some function, or something that follows it, asks for: its values, and its presses. */
function namesIn(controls: Controls): (id: string) => string[] {
  const leaves = conditionsOf(controls)
    .flatMap((c) => [...leavesOf(c)])
    .filter((leaf) => leaf.kind === 'is');
  const events = eventsOf(controls);
  return (id) => [
    ...leaves.filter((leaf) => leaf.input === id).flatMap((leaf) => leaf.values),
    ...events.flatMap((e) => {
      if (e.kind === 'arrives') return originalOf(controls, e.input) === id ? [e.value] : [];
      const keys = e.kind === 'chord' ? e.controls : [e.control];
      return keys.some((key) => originalOf(controls, key) === id) ? ['press'] : [];
    }),
    ...controls.follows.filter((f) => f.input === id).flatMap((f) => f.values),
  ];
}

/** The controls without functions that show nothing, say nothing of the mode, and that no other asks about or gives way to. */
function withoutIdle(controls: Controls): Controls {
  const asked = new Set(
    conditionsOf(controls).flatMap((c) =>
      [...leavesOf(c)].flatMap((leaf) => (leaf.kind === 'on' ? [leaf.functionId] : [])),
    ),
  );
  return {
    ...controls,
    functions: controls.functions.filter(
      ({ id, mode, choiceId, shows }) =>
        mode !== null ||
        choiceId !== null ||
        asked.has(id) ||
        shows.some(({ cues, dims, loads }) => cues.length + dims.length + loads.length > 0),
    ),
  };
}
