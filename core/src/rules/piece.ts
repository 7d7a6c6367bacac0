/** One of several answers: as it is chosen, and as it stands in the sentence when that is not the same. */
export interface Option {
  readonly value: string;
  readonly text: string;
  readonly said?: string;
}

/** A field of a rule that stands in its sentence and is edited there. */
export type Field = { readonly field: string; readonly label: string } & (
  | {
      readonly type: 'number';
      readonly value: number;
      readonly min: number;
      readonly max: number;
      /** Whole numbers alone. */
      readonly whole: boolean;
    }
  | { readonly type: 'choice'; readonly value: string; readonly options: readonly Option[] }
  | {
      readonly type: 'choices';
      readonly values: readonly string[];
      readonly options: readonly Option[];
      readonly atLeast: number;
    }
  | { readonly type: 'texts'; readonly values: readonly string[] }
);

/** A piece of a rule's sentence: words, or a field. */
export type SentencePart = string | Field;

/** A figure between two bounds, both allowed. */
export const figure = (
  field: string,
  value: number,
  label: string,
  { min = 0.01, max = 1e9, whole = false } = {},
): Field => ({ type: 'number', field, value, label, min, max, whole });

/** One of several, of which each has its words. */
export const oneOf = (field: string, value: string, label: string, options: readonly Option[]): Field => ({
  type: 'choice',
  field,
  value,
  label,
  options,
});

/** Several of a list whose values are their own words, or have others. */
export const someOf = (
  field: string,
  values: readonly string[],
  label: string,
  all: readonly string[],
  nameOf: (value: string) => string = (value) => value,
  atLeast = 1,
): Field => ({
  type: 'choices',
  field,
  values,
  label,
  atLeast,
  options: all.map((value) => ({ value, text: nameOf(value) })),
});

/** Some words of one's own. */
export const textsOf = (field: string, values: readonly string[], label: string): Field => ({
  type: 'texts',
  field,
  values,
  label,
});

/** What a piece reads as within the sentence. */
export function pieceText(piece: SentencePart): string {
  if (typeof piece === 'string') return piece;
  const saidOf = (value: string): string => {
    const options = piece.type === 'choice' || piece.type === 'choices' ? piece.options : [];
    const option = options.find((o) => o.value === value);
    return option?.said ?? option?.text ?? value;
  };
  switch (piece.type) {
    case 'number':
      return String(piece.value);
    case 'choice':
      return saidOf(piece.value);
    case 'choices':
      return piece.values.map(saidOf).join(', ');
    case 'texts':
      return piece.values.join(' or ');
  }
}

/** The sentence that pieces make. */
export const piecesText = (pieces: readonly SentencePart[]): string => pieces.map(pieceText).join('');
