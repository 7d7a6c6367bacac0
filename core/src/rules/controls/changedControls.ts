import { controlChanges } from '../../controls/controlChanges.ts';
import type { IssueDraft } from '../judgement.ts';
import type { LayoutSubject } from '../layout/subject.ts';
import { about } from '../subject.ts';

/** Old controls whose new counterpart has another place, name or kind, or that have none. */
export const changedControls = ({ build }: LayoutSubject): IssueDraft[] =>
  controlChanges(build)
    .filter(({ changes }) => changes.length > 0)
    .map(({ old, changes }) => ({
      subjects: [about('previous control', old.id)],
      sentence: `“${old.label === '' ? old.kind : old.label}” differs from the old panel: ${changes.join('; ')}.`,
    }));
