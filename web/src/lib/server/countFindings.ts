import { readBuildText } from '@flarik/core/rules/document';
import { checkBuild } from '@flarik/core/rules/check';
import { SEVERITIES, type Severity } from '@flarik/core/words/severity';

/** How many findings a build has, by severity. */
export type FindingCounts = Record<Severity, number>;

/** Counts the findings of a build document: seconds of work, for a thread of its own. */
export default function countFindings(document: string): FindingCounts {
  const { findings } = checkBuild(readBuildText(document));
  const counts: FindingCounts = { blocks: 0, warns: 0, advises: 0, notes: 0 };
  for (const severity of SEVERITIES)
    counts[severity] = findings.filter((f) => f.severity === severity).length;
  return counts;
}
