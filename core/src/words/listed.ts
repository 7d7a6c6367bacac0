/** Words in a list: "a, b or c". */
export function listed(words: readonly string[], last: 'and' | 'or'): string {
  const head = words.slice(0, -1);
  const tail = words.at(-1) ?? '';
  return head.length === 0 ? tail : `${head.join(', ')} ${last} ${tail}`;
}
