/** An id that leads nowhere, or a name used twice: where, and what is wrong with it. */
export interface DanglingReference {
  readonly path: PropertyKey[];
  readonly reason: string;
}

/** Items of a list that have the id of one before them. */
export function* duplicateIds(
  items: readonly { readonly id: string }[],
  path: readonly PropertyKey[],
): Generator<DanglingReference> {
  const seen = new Set<string>();
  for (const [i, { id }] of items.entries()) {
    if (seen.has(id)) yield { path: [...path, i, 'id'], reason: `'${id}' is used twice` };
    seen.add(id);
  }
}
