/** A revision as thinning sees it. */
export interface Aged {
  readonly version: number;
  readonly savedAt: Date;
  /** Named ones are kept for ever. */
  readonly named: boolean;
}

const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;
/** All of the last day stay; then the last of each hour, for so long; then the last of each day. */
const HOURLY_MS = 30 * DAY_MS;

/**
 * Which revisions of one build are let go: of those of an hour, or of a day when they are old, only the last stays.
 * The newest of all, the first, and the named always stay.
 * @returns their versions
 */
export function revisionsToDelete(revisions: readonly Aged[], now: Date): number[] {
  const versions = revisions.map((r) => r.version);
  const ends = new Set([
    versions.reduce((a, b) => Math.min(a, b), Infinity),
    versions.reduce((a, b) => Math.max(a, b), 0),
  ]);
  const lastOf = new Map<string, Aged>();
  for (const r of revisions) {
    const known = lastOf.get(spanOf(r, now));
    if (known === undefined || r.version > known.version) lastOf.set(spanOf(r, now), r);
  }
  return revisions
    .filter((r) => !r.named && !ends.has(r.version) && lastOf.get(spanOf(r, now)) !== r)
    .map((r) => r.version);
}

/** The time within which only the last revision is kept. */
function spanOf({ version, savedAt }: Aged, now: Date): string {
  const age = now.getTime() - savedAt.getTime();
  if (age <= DAY_MS) return `revision ${version}`;
  const unit = age <= HOURLY_MS ? HOUR_MS : DAY_MS;
  return `${unit} ${Math.floor(savedAt.getTime() / unit)}`;
}
