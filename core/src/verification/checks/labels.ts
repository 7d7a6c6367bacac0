import { LONGEST_LABEL } from '../../design/functions.ts';
import type { VerificationCheck } from '../found.ts';
import { about } from '../../rules/subject.ts';

/** Labels that stand twice on what is operated, and controls on two panels of one label that are no twins. */
export const labels: VerificationCheck = {
  kind: 'labels',
  severity: 'notes',
  clause: 'Every label once',
  alone: true,
  find: ({ build: { controls } }) => {
    const all = controls.panels.flatMap((panel) =>
      panel.controls
        .filter((c) => c.kind !== 'spare' && c.label.trim() !== '')
        .map((control) => ({ panel, control, label: control.label.trim().toLowerCase() })),
    );
    return [...new Set(all.map(({ label }) => label))].flatMap((label) => {
      const alike = all.filter((one) => one.label === label);
      const inputs = new Set(alike.map(({ control }) => control.twinOf ?? control.id));
      const [first] = alike;
      if (inputs.size < 2 || first === undefined) return [];
      const panels = [...new Set(alike.map(({ panel }) => panel.name))];
      return [
        {
          subjects: [about('label', label)],
          severity: panels.length > 1 ? ('warns' as const) : ('notes' as const),
          sentence:
            panels.length > 1
              ? `“${first.control.label}” is on ${panels.join(' and ')} but is not the same control. Neither has priority.`
              : `“${first.control.label}” appears twice on ${panels.join()}. Use different labels of at most ${LONGEST_LABEL} characters.`,
        },
      ];
    });
  },
};
