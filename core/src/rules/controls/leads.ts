import { leavesOf, type Condition } from '../../design/condition.ts';
import { originalOf } from '../../design/inputs.ts';
import type { Control, Panel } from '../../design/panel.ts';
import type { IssueDraft } from '../judgement.ts';
import type { LayoutSubject } from '../layout/subject.ts';
import { about } from '../subject.ts';

/** A control that stays where it is put, and the panel it is on. */
interface Held {
  readonly panel: Panel;
  readonly control: Control;
}

const stays = (control: Control): boolean =>
  'values' in control && control.twinOf === null && !(control.kind === 'rocker' && control.springs);

/**
 * Functions that two controls of different panels bring on, each as it stands: where one is put back the other still holds
 * it on, and no condition says which leads.
 */
export function conflictingControls({ build: { controls } }: LayoutSubject): IssueDraft[] {
  const held = new Map(
    controls.panels.flatMap((panel) =>
      panel.controls.filter(stays).map((control): [string, Held] => [control.id, { panel, control }]),
    ),
  );
  const heldIn = (c: Condition): Held[] =>
    [...leavesOf(c)].flatMap((leaf) =>
      leaf.kind === 'is' ? (held.get(originalOf(controls, leaf.input)) ?? []) : [],
    );
  return controls.functions.flatMap(({ id, name, when }): IssueDraft[] => {
    if (when.way !== 'while') return [];
    for (const ways of eitherOf(when.condition)) {
      const ofWays = ways.map(heldIn).filter((of) => of.length > 0);
      for (const [i, one] of ofWays.entries()) {
        const other = ofWays
          .slice(i + 1)
          .find((of) => of.every((b) => one.every((a) => a.panel !== b.panel)));
        const [a, b] = [one[0], other?.[0]];
        if (a === undefined || b === undefined) continue;
        return [
          {
            subjects: [about('function', id)],
            sentence: `${textOf(a)} and ${textOf(b)} each keep ${name} on. Neither overrides the other. Make one the twin of the other, or define which has priority.`,
          },
        ];
      }
    }
    return [];
  });
}

const textOf = ({ panel, control }: Held): string =>
  `“${control.label.trim() === '' ? control.kind : control.label}” of ${panel.name}`;

/** Every place in a condition where one of several is enough. */
function eitherOf(c: Condition): (readonly Condition[])[] {
  switch (c.kind) {
    case 'any':
      return [c.of, ...c.of.flatMap(eitherOf)];
    case 'all':
      return c.of.flatMap(eitherOf);
    case 'not':
    case 'is':
    case 'on':
      return [];
  }
}
