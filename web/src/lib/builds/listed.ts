import { SEVERITIES } from '@flarik/core/words/severity';
import type { BuildSummary } from '$lib/api';

/** By what the list of builds is sorted. */
export const SORTS = ['saved', 'name', 'findings'] as const;
export type Sort = (typeof SORTS)[number];

/** What is to be seen of the list. */
export interface Wanted {
  /** Words that the name, the service or a jurisdiction must hold, each of them. */
  readonly words: string;
  /** Empty takes all. */
  readonly service: string;
  readonly archived: boolean;
  readonly sort: Sort;
}

/** The gravest first; builds that are not counted come last. */
const byFindings = (a: BuildSummary, b: BuildSummary): number => {
  if (a.findings === null || b.findings === null)
    return Number(a.findings === null) - Number(b.findings === null);
  for (const severity of SEVERITIES) {
    const more = b.findings[severity] - a.findings[severity];
    if (more !== 0) return more;
  }
  return 0;
};

const ORDER: Readonly<Record<Sort, (a: BuildSummary, b: BuildSummary) => number>> = {
  saved: (a, b) => b.updatedAt.localeCompare(a.updatedAt),
  name: (a, b) => a.name.localeCompare(b.name, undefined, { numeric: true }),
  findings: byFindings,
};

/** The builds to be seen, sorted; equals by name. */
export function listed(
  builds: readonly BuildSummary[],
  { words, service, archived, sort }: Wanted,
  serviceText: (service: string) => string,
): BuildSummary[] {
  const each = words
    .toLowerCase()
    .split(/\s+/)
    .filter((word) => word !== '');
  return builds
    .filter((b) => b.archived === archived && (service === '' || b.service === service))
    .filter((b) => {
      const text = [b.name, serviceText(b.service), ...b.jurisdictions].join(' ').toLowerCase();
      return each.every((word) => text.includes(word));
    })
    .toSorted((a, b) => ORDER[sort](a, b) || ORDER.name(a, b));
}
