/** From now on keys are kept for the page that is being opened. */
export function keepEarlyKeys(): void {
  window.earlyKeys = [];
}

/** The keys that were pressed while the page was being opened; from now on it listens itself. */
export function takeEarlyKeys(): readonly KeyboardEvent[] {
  const keys = window.earlyKeys ?? [];
  window.earlyKeys = undefined;
  return keys;
}
