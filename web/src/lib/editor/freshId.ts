/** A new id, unlike any in the document; `stem` says what it is of. */
export const freshId = (stem = ''): string => `${stem}${crypto.randomUUID().slice(0, 8)}`;
