/** Runs a sum that could be given up to its end. */
export function finished<R>(sum: Generator<unknown, R>): R {
  for (;;) {
    const step = sum.next();
    if (step.done === true) return step.value;
  }
}
