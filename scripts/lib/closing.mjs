// What has been started and must be ended, whenever we are told to stop. Node built-ins only.

/** @type {Set<() => Promise<void>>} */
const open = new Set();
let ending = false;
let onSignals = false;
let told = false;

/**
 * Has something ended when we end; the last begun first.
 * @param {() => Promise<void>} end
 * @returns {() => void} call it once that has been ended otherwise
 */
export function endWithUs(end) {
  open.add(end);
  return () => open.delete(end);
}

/** Whether signals end all that is open: what we start may then run in a group of its own. */
export const endsOnSignals = () => onSignals;

/** Whether we are ending: what is lost then need not be brought back. */
export const isEnding = () => ending;

/** Whether a signal has told us to end: what fails because of that is no failure. */
export const isTold = () => told;

/** Ends all that is open; what fails to end does not keep the rest. */
export async function endAll() {
  ending = true;
  for (const end of [...open].toReversed()) {
    open.delete(end);
    await end().catch(() => undefined);
  }
}

/** How often the process above us is looked for, ms. */
const LOOK_MS = 500;

/** What a shell says of a program that was interrupted. */
const INTERRUPTED = 130;

/**
 * From now on SIGINT, SIGTERM, a closed terminal and the end of the process above us end everything, once.
 * @param {() => void} [done]
 */
export function endOnSignals(done = () => process.exit(INTERRUPTED)) {
  onSignals = true;
  const end = () => {
    if (told) return;
    told = true;
    void endAll().then(done);
  };
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, end);
  // npm may be ended without a word to us; whoever adopts us then is not who started us.
  const above = process.ppid;
  setInterval(() => {
    if (process.ppid !== above) end();
  }, LOOK_MS).unref();
}
