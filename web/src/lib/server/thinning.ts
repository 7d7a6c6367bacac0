/** A revision as thinning sees it. */
export interface Aged {
  readonly version: number;
  readonly savedAt: Date;
  /** Named ones are kept for ever. */
  readonly named: boolean;
}

/** What is known of the time; a clock can be wrong. */
export interface Clock {
  /** By the database. */
  readonly now: Date;
  /** So long this server has run, by a clock that cannot be set, ms. */
  readonly upMs: number;
  /** The last time seen before this server: its last round, or the start of the server before; null when there is none. */
  readonly lastSeen: Date | null;
  /** The third last start of a server; null when there were fewer. */
  readonly thirdLastStart: Date | null;
}

const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;
/** All of the last day stay; then the last of each hour, for so long; then the last of each day. */
const HOURLY_MS = 30 * DAY_MS;
/** So much further on is a leap of the clock, or a long rest: it is believed after a day of running, or at the next start. */
const LEAP_MS = 2 * DAY_MS;

/** Whether the clock has gone on so far that nothing may be thinned out yet. */
export const isLeap = ({ now, upMs, lastSeen }: Clock): boolean =>
  lastSeen !== null && now.getTime() - lastSeen.getTime() > LEAP_MS && upMs < DAY_MS;

/**
 * Which revisions of one build are let go: of those of an hour, or of a day when they are old, only the last stays.
 * The newest of all, the first, and the named always stay. They are as old as the newest shows, and what was saved
 * since the third last start is no older than this server has run.
 * @returns their versions
 */
export function revisionsToDelete(revisions: readonly Aged[], clock: Clock): number[] {
  if (isLeap(clock)) return [];
  const versions = revisions.map((r) => r.version);
  const ends = new Set([
    versions.reduce((a, b) => Math.min(a, b), Infinity),
    versions.reduce((a, b) => Math.max(a, b), 0),
  ]);
  const newest = revisions.reduce((latest, { savedAt }) => Math.max(latest, savedAt.getTime()), 0);
  const asOf = Math.min(clock.now.getTime(), newest);
  const span = (r: Aged): string => spanOf(r, ageOf(r, asOf, clock));
  const lastOf = new Map<string, Aged>();
  for (const r of revisions) {
    const known = lastOf.get(span(r));
    if (known === undefined || r.version > known.version) lastOf.set(span(r), r);
  }
  return revisions
    .filter((r) => !r.named && !ends.has(r.version) && lastOf.get(span(r)) !== r)
    .map((r) => r.version);
}

function ageOf({ savedAt }: Aged, asOf: number, { upMs, thirdLastStart }: Clock): number {
  const ageMs = asOf - savedAt.getTime();
  return thirdLastStart === null || savedAt >= thirdLastStart ? Math.min(ageMs, upMs) : ageMs;
}

/** The time within which only the last revision is kept. */
function spanOf({ version, savedAt }: Aged, ageMs: number): string {
  if (ageMs <= DAY_MS) return `revision ${version}`;
  const unit = ageMs <= HOURLY_MS ? HOUR_MS : DAY_MS;
  return `${unit} ${Math.floor(savedAt.getTime() / unit)}`;
}
