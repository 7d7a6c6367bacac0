import { habitsOf } from '../../controls/habits.ts';
import type { Said } from '../judgement.ts';
import type { LayoutSubject } from '../layout/subject.ts';
import { about } from '../subject.ts';

/** Old controls whose new counterpart has another place, name or kind, or that have none. */
export const movedHabits = ({ build }: LayoutSubject): Said[] =>
  habitsOf(build)
    .filter(({ changes }) => changes.length > 0)
    .map(({ old, changes }) => ({
      subjects: [about('previous control', old.id)],
      sentence: `“${old.label === '' ? old.kind : old.label}” differs from the old panel: ${changes.join('; ')}.`,
    }));
