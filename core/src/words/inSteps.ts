/** Told at shares that differ by so much, or more. */
const TOLD_EVERY = 0.05;

/**
 * Runs a sum that could be given up between two steps to its end.
 * @param told - how far it has come, 0 to 1, now and then
 */
export function runToCompletion<R>(
  sum: Generator<number, R>,
  told: (share: number) => void = () => undefined,
): R {
  let last = 0;
  for (;;) {
    const step = sum.next();
    if (step.done === true) return step.value;
    if (step.value - last < TOLD_EVERY) continue;
    last = step.value;
    told(last);
  }
}
