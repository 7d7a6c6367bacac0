/**
 * The same work, with its latest results kept: asked again for a key among them, it is not done again.
 * @param most - so many results are kept; the one asked for longest ago goes first
 */
export function recent<A, R>(
  most: number,
  keyOf: (given: A) => string,
  work: (given: A) => R,
): (given: A) => R {
  const results = new Map<string, R>();
  return (given) => {
    const key = keyOf(given);
    const result = results.get(key) ?? work(given);
    results.delete(key);
    results.set(key, result);
    const oldest = results.keys().next();
    if (results.size > most && oldest.done !== true) results.delete(oldest.value);
    return result;
  };
}
