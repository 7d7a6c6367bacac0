/** What kind of thing a finding is about. */
export type SubjectKind =
  | 'cab space'
  | 'colour'
  | 'control'
  | 'face'
  | 'factory lamp'
  | 'fixture'
  | 'function'
  | 'group'
  | 'input'
  | 'keep-out'
  | 'label'
  | 'lamp'
  | 'lane'
  | 'lamp set'
  | 'observer'
  | 'panel'
  | 'part'
  | 'pattern'
  | 'previous control'
  | 'requirement'
  | 'signal'
  | 'test'
  /** A word that tells one message of a check from its others. */
  | 'topic'
  | 'viewpoint'
  | 'work area'
  | 'zone';

/** One thing that a finding is about: a thing of the build by its id, or a word of the model. */
export interface Subject {
  readonly kind: SubjectKind;
  readonly id: string;
}

export const about = (kind: SubjectKind, id: string): Subject => ({ kind, id });

const escape = (id: string): string => id.replaceAll('%', '%25').replaceAll('|', '%7C');

/** Subjects as a key within one rule: equal for equal lists alone. Nothing splits it; who wants the parts has the list. */
export const subjectsKey = (subjects: readonly Subject[]): string =>
  subjects.map(({ id }) => escape(id)).join('|');

/**
 * The id of a finding: the same for the same fault from one check to the next.
 * @param when - the state as a key, or a word for how it was found
 */
export const findingId = (
  { packId, ruleId }: { readonly packId: string; readonly ruleId: string },
  when: string,
  subjects: readonly Subject[],
): string => [packId, ruleId, when, subjectsKey(subjects)].join('|');
