import type { Ambient } from '../words/ambient.ts';
import { effectsOf, type ActiveFunction } from './controls.ts';
import { cuesFailure } from './cues.ts';
import {
  lightCue,
  patternShown,
  sameTarget,
  type CueColour,
  type LightCue,
  type Target,
} from './functions.ts';
import { targetName } from './names.ts';
import { parseJson } from '../words/json.ts';
import { nightLevelOf, setCue } from './controlEdits.ts';
import { z } from 'zod';
import { InputError, parseInput } from '../words/errors.ts';
import { bookOf, type PatternBook } from '../timing/book.ts';
import type { Drawn } from '../timing/draw.ts';
import { Pattern, type Cycle } from '../timing/pattern.ts';
import { atSpeed, percentSpeed } from '../timing/recipes/speed.ts';
import type { Build } from './schema.ts';

const withPatterns = (build: Build, patterns: Pattern[]): Build => ({
  ...build,
  timing: { ...build.timing, patterns },
});

export const addPattern = (build: Build, pattern: Pattern): Build =>
  withPatterns(build, [...build.timing.patterns, pattern]);

/**
 * Puts an own pattern in place of the one of the same id. What cannot be worked out, or would leave the limits at the
 * speed of a group that shows it, changes nothing.
 */
export function changePattern(build: Build, pattern: Pattern): Build {
  const changed = withPatterns(
    build,
    build.timing.patterns.map((p) => (p.id === pattern.id ? pattern : p)),
  );
  return patternsFailure(changed) === null ? changed : build;
}

/** Why the build's own patterns, or what is shown of them, cannot be worked out; null when all can. */
export function patternsFailure(build: Build): string | null {
  try {
    const book = bookOf(build);
    for (const p of book.own) {
      const read = Pattern.safeParse(p);
      if (!read.success) return read.error.issues[0]?.message ?? 'not a pattern';
      book.cycleOf(p);
    }
    return cuesFailure(build);
  } catch (error) {
    if (error instanceof RangeError) return error.message;
    throw error;
  }
}

/** Where a pattern is shown or made part of another, in words: "Stage 2: Front", "in Slow, then quick". */
export function usesOf(build: Build, patternId: string): string[] {
  const { patterns } = build.timing;
  const shown = build.controls.functions.flatMap((fn) =>
    fn.shows
      .flatMap(({ cues }) => cues)
      .filter((cue) => cue.show === 'light')
      .filter((c) => c.patternId === patternId || c.nightPatternId === patternId)
      .map(
        (c) => `${fn.name}: ${targetName(build, c.target)}${c.patternId === patternId ? '' : ', at night'}`,
      ),
  );
  const parts = patterns
    .filter((p) => p.kind === 'sequence' && p.parts.some((part) => part.patternId === patternId))
    .map((p) => `in ${p.name}`);
  return [...shown, ...parts];
}

/** Takes an own pattern away; one that is in use stays. */
export const removePattern = (build: Build, patternId: string): Build =>
  usesOf(build, patternId).length > 0
    ? build
    : withPatterns(
        build,
        build.timing.patterns.filter((p) => p.id !== patternId),
      );

/** A pattern of two empty phases, to be drawn. */
export const emptyPattern = (id: string, name: string, lines = 2): Drawn => ({
  kind: 'drawn',
  id,
  name,
  by: 'phase',
  cycleMs: 1000,
  lines: Array.from({ length: lines }, () => []),
});

/** A cycle as bars that can be drawn on. */
export const drawnOf = ({ by, cycleMs, lines }: Cycle, id: string, name: string): Drawn => ({
  kind: 'drawn',
  id,
  name,
  by,
  cycleMs,
  lines: lines.map((spans) => spans.map((s) => ({ ...s }))),
});

/** A name like this one that no pattern has yet, with a number from `from` on. */
export function freshName(book: PatternBook, name: string, from = 2): string {
  const taken = new Set(book.own.map((p) => p.name));
  const stem = name.slice(0, 70);
  for (let n = from; ; n++) {
    const next = `${stem} ${n}`;
    if (!taken.has(next)) return next;
  }
}

/**
 * A variant of a pattern at another speed, as bars of its own.
 * @param percent - 25 is a quarter as fast
 * @throws {RangeError} it would leave its limits
 */
export function variantAtSpeed(book: PatternBook, patternId: string, percent: number, id: string): Drawn {
  const { name } = book.pattern(patternId);
  return drawnOf(
    atSpeed(book.cycle(patternId), percentSpeed(percent)),
    id,
    freshName(book, `${name}, ${percent} % speed`),
  );
}

/** Which cue of a function is meant: a target's, on a colour, by day or at night. */
export interface CuePlace {
  readonly on: ActiveFunction;
  readonly target: Target;
  readonly ink: CueColour;
  readonly ambient: Ambient;
}

export const cueAt = (build: Build, { on, target, ink }: CuePlace): LightCue | undefined =>
  effectsOf(build, on)
    .cues.filter((c) => c.show === 'light')
    .find((c) => sameTarget(c.target, target) && c.ink === ink);

/** The pattern shown at a place; null where nothing is cued. */
export function patternIdAt(build: Build, place: CuePlace): string | null {
  const cue = cueAt(build, place);
  return cue === undefined ? null : patternShown(cue, place.ambient);
}

/** Lets a cue show another pattern, by day or at night. */
export function showPattern(build: Build, place: CuePlace, patternId: string): Build {
  const cue = cueAt(build, place);
  const { on, target, ink } = place;
  if (cue === undefined) {
    const nightLevel = nightLevelOf(build, on) ?? 1;
    return setCue(build, on, target, ink, lightCue(target, ink, patternId, { nightLevel }));
  }
  const night = place.ambient === 'night' && cue.nightPatternId !== null;
  return setCue(
    build,
    on,
    target,
    ink,
    night ? { ...cue, nightPatternId: patternId } : { ...cue, patternId },
  );
}

/**
 * Draws on the pattern shown at a place. An own drawn pattern is changed wherever it is shown; of any other, a copy is
 * made for this place first.
 *
 * @param newId - the id such a copy gets
 */
export function drawAt(build: Build, place: CuePlace, newId: string, draw: (p: Drawn) => Drawn): Build {
  const patternId = patternIdAt(build, place);
  if (patternId === null) return build;
  const book = bookOf(build);
  const pattern = book.pattern(patternId);
  if (pattern.kind === 'drawn' && book.own.includes(pattern)) {
    const after = draw(pattern);
    return after === pattern ? build : changePattern(build, after);
  }
  const copy = drawnOf(book.cycle(patternId), newId, freshName(book, pattern.name));
  const after = draw(copy);
  return after === copy ? build : showPattern(addPattern(build, after), place, newId);
}

/** A file of patterns, to carry them from build to build. */
export const PATTERNS_FORMAT = 'flarik-patterns';
const PatternsFile = z.strictObject({
  format: z.literal(PATTERNS_FORMAT, { error: `must be '${PATTERNS_FORMAT}'` }),
  schemaVersion: z.literal(1),
  patterns: z.array(Pattern).min(1, 'must contain at least one pattern').max(100),
});

/** Own patterns as a file; a sequence brings the own patterns it is made of. */
export function writePatterns(build: Build, ids: readonly string[]): string {
  const own = build.timing.patterns;
  const wanted = new Set(ids);
  for (const p of own)
    if (wanted.has(p.id) && p.kind === 'sequence') for (const part of p.parts) wanted.add(part.patternId);
  return JSON.stringify(
    { format: PATTERNS_FORMAT, schemaVersion: 1, patterns: own.filter((p) => wanted.has(p.id)) },
    null,
    1,
  );
}

/**
 * Takes the patterns of a file into a build; one whose id is taken there gets a new one.
 * @throws {InputError} what is wrong in the file and where; nothing is taken then
 */
export function importPatterns(build: Build, text: string, freshId: () => string): Build {
  const file = parseInput(PatternsFile, parseJson(text, 'pattern file'));
  const book = bookOf(build);
  const renamed = new Map(file.patterns.map((p) => [p.id, book.find(p.id) === undefined ? p.id : freshId()]));
  const added = file.patterns.map((p): Pattern => {
    const id = renamed.get(p.id) ?? p.id;
    if (p.kind !== 'sequence') return { ...p, id };
    const parts = p.parts.map((part) => ({
      ...part,
      patternId: renamed.get(part.patternId) ?? part.patternId,
    }));
    return { ...p, id, parts };
  });
  const doubled = file.patterns.find((p, i) => file.patterns.findIndex((q) => q.id === p.id) !== i);
  if (doubled !== undefined) throw new InputError('patterns', `'${doubled.id}' is used twice`);
  const after = withPatterns(build, [...build.timing.patterns, ...added]);
  const failure = patternsFailure(after);
  if (failure !== null) throw new InputError('patterns', failure);
  return after;
}
