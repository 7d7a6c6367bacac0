import type { Control, Panel } from '../../design/panel.ts';
import type { IssueDraft } from '../judgement.ts';
import type { LayoutSubject } from '../layout/subject.ts';
import { about } from '../subject.ts';

/** A panel that has twins of at least so much of another is meant to be its equal. */
const MOSTLY = 3 / 4;
const LISTED = 3;

interface Pair {
  readonly original: Control;
  readonly twin: Control;
}

/** A panel of twins beside the one they stand for. */
interface Equals {
  readonly panel: Panel;
  readonly second: Panel;
  /** In the order of the first. */
  readonly pairs: readonly Pair[];
}

const isLive = ({ kind, twinOf }: Control): boolean => kind !== 'spare' && twinOf === null;
const quoted = ({ label, kind }: Control): string => `“${label.trim() === '' ? kind : label}”`;
const inOrder = (a: Control, b: Control): number => a.page - b.page || a.row - b.row || a.column - b.column;

function equalsOf(panels: readonly Panel[]): Equals[] {
  return panels.flatMap((panel) =>
    panels.flatMap((second): Equals[] => {
      const pairs = panel.controls
        .filter(isLive)
        .toSorted(inOrder)
        .flatMap((original): Pair[] => {
          const twin = second.controls.find((c) => c.twinOf === original.id);
          return panel === second || twin === undefined ? [] : [{ original, twin }];
        });
      return pairs.length === 0 ? [] : [{ panel, second, pairs }];
    }),
  );
}

/** Twins that say or show something else than what they stand for, and second panels that are nearly the first, but not quite. */
export const unequalTwins = ({ build }: LayoutSubject): IssueDraft[] =>
  equalsOf(build.controls.panels).flatMap(({ panel, second, pairs }): IssueDraft[] => {
    const told = pairs.flatMap(({ original, twin }): IssueDraft[] => {
      const differs = differences(original, twin);
      return differs.length === 0
        ? []
        : [
            {
              subjects: [about('control', twin.id)],
              sentence: `${quoted(twin)} on ${second.name} is the twin of ${quoted(original)} on ${panel.name}, but ${differs.join(' and ')}.`,
            },
          ];
    });
    const live = panel.controls.filter(isLive);
    if (pairs.length < 2 || pairs.length < MOSTLY * live.length) return told;
    const missing = live.filter((c) => !pairs.some(({ original }) => original === c));
    if (missing.length > 0)
      told.push({
        subjects: [about('panel', second.id), about('topic', 'missing')],
        sentence: `${second.name} repeats most of ${panel.name}. Missing: ${missing.slice(0, LISTED).map(quoted).join(', ')}${missing.length > LISTED ? ` and ${missing.length - LISTED} more` : ''}.`,
      });
    const moved = outOfOrder(pairs);
    if (moved !== null)
      told.push({
        subjects: [about('panel', second.id), about('topic', 'order')],
        sentence: `the key order on ${second.name} differs from ${panel.name}, starting at ${quoted(moved)}. Operators may press the wrong key.`,
      });
    return told;
  });

function differences(original: Control, twin: Control): string[] {
  const [a, b] = [original, twin].map((c) => c.label.trim().toLowerCase());
  const lamps = [original, twin].map((c) => (c.kind === 'button' ? JSON.stringify(c.lamp) : ''));
  return [
    ...(a === b ? [] : ['the labels differ']),
    ...(lamps[0] === lamps[1] ? [] : ['their indicators differ']),
  ];
}

/** Of keys the first that stands elsewhere among its like; null where they are in the same order. */
function outOfOrder(pairs: readonly Pair[]): Control | null {
  const keys = pairs.filter(({ original }) => original.kind === 'button').map(({ twin }) => twin);
  const order = keys.toSorted(inOrder);
  return keys.find((key, i) => order[i] !== key) ?? null;
}
