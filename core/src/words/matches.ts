/** Whether a text has every word that was typed, in any order and as parts of words; nothing typed matches all. */
export function matchesWords(text: string, typed: string): boolean {
  const has = text.toLowerCase();
  return typed
    .toLowerCase()
    .split(/\s+/u)
    .every((word) => has.includes(word));
}
