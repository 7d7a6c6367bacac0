import type { Build } from './schema.ts';

/**
 * How one document becomes another: what is new in it, by place, and nothing of what both share. Plain data that can be
 * sent to a worker.
 */
export type Delta =
  /** Nothing changed. */
  | { readonly kind: 'same' }
  /** This takes its place. */
  | { readonly kind: 'put'; readonly value: unknown }
  /** An object of which these keys changed, and these are gone. */
  | {
      readonly kind: 'object';
      readonly keys: Readonly<Record<string, Delta>>;
      readonly gone: readonly string[];
    }
  /** A list by where each of its items was before, changed or not; null for one that was not there. */
  | {
      readonly kind: 'list';
      readonly items: readonly { readonly from: number | null; readonly delta: Delta }[];
    };

const SAME: Delta = { kind: 'same' };

type Plain = Readonly<Record<string, unknown>>;
const isPlain = (v: unknown): v is Plain => typeof v === 'object' && v !== null && !Array.isArray(v);
const isList = (v: unknown): v is readonly unknown[] => Array.isArray(v);
const idOf = (v: unknown): unknown => (isPlain(v) ? v.id : undefined);

/** What a document has that another does not share with it: objects both hold by identity are passed over. */
export const deltaOf = (before: Build, after: Build): Delta => between(before, after);

function between(before: unknown, after: unknown): Delta {
  if (Object.is(before, after)) return SAME;
  if (isList(before) && isList(after)) return betweenLists(before, after);
  if (!isPlain(before) || !isPlain(after)) return { kind: 'put', value: after };
  const changed = Object.keys(after).flatMap((key): [string, Delta][] => {
    const delta =
      key in before ? between(before[key], after[key]) : ({ kind: 'put', value: after[key] } as const);
    return delta.kind === 'same' ? [] : [[key, delta]];
  });
  return {
    kind: 'object',
    keys: Object.fromEntries(changed),
    gone: Object.keys(before).filter((key) => !(key in after)),
  };
}

/** Items with ids are followed by them; others by their place. */
function betweenLists(before: readonly unknown[], after: readonly unknown[]): Delta {
  const places = new Map(before.map((item, i) => [idOf(item), i]));
  const items = after.map((item, i) => {
    const id = idOf(item);
    const from = id === undefined ? i : (places.get(id) ?? null);
    return from === null || from >= before.length
      ? { from: null, delta: { kind: 'put', value: item } as const }
      : { from, delta: between(before[from], item) };
  });
  const still =
    items.length === before.length && items.every((m, i) => m.from === i && m.delta.kind === 'same');
  return still ? SAME : { kind: 'list', items };
}

/**
 * The document after an edit. What the edit leaves alone is the same object as before.
 * @throws {RangeError} the edit was made to another document
 */
export const applyDelta = (before: Build, delta: Delta): Build => {
  const after = apply(before, delta);
  if (!isBuild(after)) throw new RangeError('an edit was made to something that is not a build');
  return after;
};

const isBuild = (v: unknown): v is Build =>
  isPlain(v) && 'placements' in v && 'timing' in v && 'vehicle' in v;

function apply(before: unknown, delta: Delta): unknown {
  switch (delta.kind) {
    case 'same':
      return before;
    case 'put':
      return delta.value;
    case 'object': {
      if (!isPlain(before)) throw new RangeError('an edit was made to another document');
      const kept = Object.entries(before).filter(([key]) => !delta.gone.includes(key));
      const changed = Object.entries(delta.keys).map(([key, d]) => [key, apply(before[key], d)] as const);
      return { ...Object.fromEntries(kept), ...Object.fromEntries(changed) };
    }
    case 'list': {
      if (!isList(before)) throw new RangeError('an edit was made to another document');
      return delta.items.map(({ from, delta: d }) => apply(from === null ? undefined : before[from], d));
    }
  }
}
