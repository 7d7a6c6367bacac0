import type { Severity } from '../words/severity.ts';
import type { Home } from './finding.ts';
import type { IssueDraft } from './judgement.ts';
import type { LayoutSubject } from './layout/subject.ts';
import type { Task } from './run.ts';

/** A check of the document alone that needs no pack: a lamp cannot stand in another, whatever any law says. */
export interface DocumentCheck {
  readonly kind: string;
  readonly severity: Severity;
  readonly clause: string;
  readonly findIssues: (subject: LayoutSubject) => IssueDraft[];
}

/** Such checks as tasks, told under one name. */
export const documentTasks = (
  packId: Home,
  packName: string,
  checks: readonly DocumentCheck[],
  faultsOf = (subject: LayoutSubject, check: DocumentCheck): IssueDraft[] => check.findIssues(subject),
): Task[] =>
  checks.map((check) => ({
    packId,
    packName,
    ruleId: check.kind,
    kind: check.kind,
    home: packId,
    severity: check.severity,
    clause: check.clause,
    listed: false,
    once: true,
    sees: 'document',
    check: (subject) => faultsOf(subject, check),
  }));
