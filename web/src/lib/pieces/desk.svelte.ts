import { drawAt, patternIdAt, type CuePlace } from '@flarik/core/design/patternEdits';
import { bookOf } from '@flarik/core/timing/book';
import type { Drawn } from '@flarik/core/timing/draw';
import type { Cycle, Pattern } from '@flarik/core/timing/pattern';
import type { Span } from '@flarik/core/timing/span';
import { createContext } from 'svelte';
import type { Editor } from '$lib/editor/editor.svelte';
import { freshId } from '$lib/editor/freshId';

/** An id for a pattern, unlike any in the document. */
export const freshPatternId = (): string => freshId('p');

/** What is being drawn on: the pattern of a cue, one of its lines, perhaps one of its bars. */
export class PatternDesk {
  place = $state.raw<CuePlace | null>(null);
  #line = $state(0);
  index = $state<number | null>(null);
  /** Bars copied from a line. */
  clip = $state.raw<readonly Span[] | null>(null);
  readonly #editor: Editor;
  /** The id that a copy gets if this gesture has to make one. */
  #newId = freshPatternId();

  readonly #reveal: () => void;

  /** @param reveal brings the panel that shows the desk into sight */
  constructor(editor: Editor, reveal: () => void) {
    this.#editor = editor;
    this.#reveal = reveal;
  }

  /** The pattern on the desk, with its cycle before any group's speed; null when there is none. */
  readonly pattern: { readonly pattern: Pattern; readonly cycle: Cycle; readonly own: boolean } | null =
    $derived.by(() => {
      const { build } = this.#editor;
      const { here } = this;
      const patternId = here === null ? null : patternIdAt(build, here);
      if (patternId === null) return null;
      const book = bookOf(build);
      const pattern = book.pattern(patternId);
      return { pattern, cycle: book.cycle(patternId), own: book.own.includes(pattern) };
    });

  /** The place with the light around as the state bar has it. */
  get here(): CuePlace | null {
    return this.place === null ? null : { ...this.place, ambient: this.#editor.state.ambient };
  }

  /** The line being drawn on; the last one when the pattern has fewer now. */
  get line(): number {
    return Math.min(this.#line, Math.max(0, (this.pattern?.cycle.lines.length ?? 1) - 1));
  }

  set line(line: number) {
    this.#line = line;
  }

  /** The bar chosen; null when none is. */
  get bar(): Span | null {
    return this.index === null ? null : (this.pattern?.cycle.lines[this.line]?.[this.index] ?? null);
  }

  /** Puts a place on the desk and brings the desk into sight. */
  open(place: CuePlace, line = 0, index: number | null = null): void {
    this.look(place, line, index);
    this.#reveal();
  }

  look(place: CuePlace | null, line = 0, index: number | null = null): void {
    this.place = place;
    this.line = line;
    this.index = index;
  }

  /** One step of drawing. Steps with the same key in a row are undone together. */
  draw(label: string, change: (p: Drawn) => Drawn, key: string | null = null): void {
    const { here } = this;
    if (here === null) return;
    const id = this.#newId;
    this.#editor.edit(label, (b) => drawAt(b, here, id, change), key);
    if (this.pattern?.pattern.id === id) this.#newId = freshPatternId();
  }

  /** Shows a step of drawing while it is dragged. */
  dragging(change: (p: Drawn) => Drawn): void {
    const { here } = this;
    const id = this.#newId;
    if (here !== null) this.#editor.drag((b) => drawAt(b, here, id, change));
  }
}

/** The desk of the timing step, for the components below it. */
export const [getDesk, setDesk] = createContext<() => PatternDesk>();
