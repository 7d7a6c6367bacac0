import { addPattern } from '../../design/patternEdits.ts';
import type { InputEvent } from '../../design/condition.ts';
import { lightCue, newFunction } from '../../design/functions.ts';
import type { Build } from '../../design/schema.ts';
import type { RowMove } from '../../timing/pattern.ts';
import { bindKey } from '../panelEdits.ts';
import { putSet } from '../../design/controlEdits.ts';
import { fixedSet } from '../../design/lampSets.ts';
import type { Candidate } from '../../resolve/candidates.ts';
import { chosenBy } from '../../resolve/setMembers.ts';
import { forUse, shining } from '../lampSets.ts';
import { first, applyTemplate, ofSet, press, there, type FunctionTemplate } from './kit.ts';

/** Fewer places across point no way. */
const FEWEST_COLUMNS = 3;
/** A sweep of any width lasts so long at most, 60 a minute: what usual limits on flash rates begin at. */
const CYCLE_MS = 1000;
const HOLD_MS = 240;
const REST_MS = 250;
/** No eye follows a faster step. */
const SHORTEST_STEP_MS = 20;
const LONGEST_STEP_MS = 140;

/** How long a sweep stays on each place of a row, ms. */
export const sweepStepMs = (columns: number): number =>
  Math.min(LONGEST_STEP_MS, Math.max(SHORTEST_STEP_MS, Math.floor((CYCLE_MS - HOLD_MS - REST_MS) / columns)));
/** Modules nearer to each other than this across the vehicle stand above each other, m. */
const ABOVE_M = 0.02;

const WAYS = [
  { way: 'left', name: 'Arrow left', move: 'last-to-first', direction: 'left' },
  { way: 'right', name: 'Arrow right', move: 'first-to-last', direction: 'right' },
  { way: 'both', name: 'Arrow both ways', move: 'middle-out', direction: 'from the middle' },
] as const satisfies readonly { way: string; name: string; move: RowMove; direction: string }[];

/** Directs traffic behind the vehicle. */
export const READY_ARROWS: readonly FunctionTemplate[] = [
  {
    id: 'arrow-keys',
    name: 'Arrow keys',
    what: 'One key per direction runs the widest rear row to that side; both keys together run centre-out. Each key switches the other off.',
    misfit: (b) =>
      first(
        WAYS.map(({ way }) => there(b, `arrow-${way}`)).find((why) => why !== null) ?? null,
        widestRow(b) === null ? `there is no row of ${FEWEST_COLUMNS} or more to the rear` : null,
      ),
    applyTemplate: (b) => {
      const row = widestRow(b);
      if (row === null) return b;
      const left = bindKey(
        putSet(
          b,
          fixedSet(
            'arrow-row',
            'Arrow',
            row.modules.map(({ placementId, moduleId }) => ({ placementId, moduleId })),
          ),
        ),
        'arrow-left',
        'Left',
        'arrow-left',
      );
      const right = bindKey(left.build, 'arrow-right', 'Right', 'arrow-right');
      const phases = row.modules.map(({ placementId, moduleId }, i) => ({
        placementId,
        moduleId,
        phase: 'A' as const,
        order: row.orders[i] ?? 1,
      }));
      const toggles: Readonly<Record<(typeof WAYS)[number]['way'], InputEvent>> = {
        left: press(left.controlId),
        right: press(right.controlId),
        both: { kind: 'chord', controls: [left.controlId, right.controlId] },
      };
      return WAYS.toReversed().reduce((build, { way, name, move, direction }) => {
        const pattern = `arrow-${way}-${row.columns}`;
        const known = build.timing.patterns.some((p) => p.id === pattern);
        const drawn = known
          ? build
          : addPattern(build, {
              kind: 'row',
              id: pattern,
              name: `${name}, ${row.columns} columns`,
              direction,
              move,
              heads: row.columns,
              stepMs: sweepStepMs(row.columns),
              show: 'hold',
              holdMs: HOLD_MS,
              restMs: REST_MS,
            });
        return applyTemplate(
          drawn,
          newFunction(
            `arrow-${way}`,
            name,
            'warning',
            { way: 'latched', sets: [], clears: [], toggles: [toggles[way]], timeoutMs: 0 },
            [lightCue(ofSet('arrow-row'), 1, pattern, { phases })],
            { choiceId: 'arrow' },
          ),
        );
      }, right.build);
    },
  },
];

interface Row {
  readonly modules: readonly Candidate[];
  /** The place of each from the left as seen from behind, from 1. */
  readonly orders: readonly number[];
  readonly columns: number;
}

/** Of the lamps that shine to the rear the one with most places across, the higher of two alike. */
function widestRow(build: Build): Row | null {
  const back = chosenBy(build, { clauses: [forUse('warning'), shining('rear')], pick: 'all' });
  const rows = [...new Set(back.map((m) => m.placementId))].map((id) => {
    const modules = back.filter((m) => m.placementId === id);
    const lefts = modules
      .map(({ module }) => module.centre[1])
      .toSorted((p, q) => q - p)
      .filter((y, i, all) => i === 0 || (all[i - 1] ?? y) - y > ABOVE_M);
    const orders = modules.map(({ module }) => lefts.filter((y) => y > module.centre[1] - 1e-9).length);
    const heightM = Math.max(...modules.map(({ module }) => module.centre[2]));
    return { modules, orders, columns: lefts.length, heightM };
  });
  const [widest] = rows.toSorted((p, q) => q.columns - p.columns || q.heightM - p.heightM);
  return widest === undefined || widest.columns < FEWEST_COLUMNS ? null : widest;
}
