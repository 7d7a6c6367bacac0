import { Wording } from '../controls/sentence.ts';
import { onText } from '../design/controls.ts';
import type { Build } from '../design/schema.ts';
import { openText } from '../state/state.ts';
import { reachText, type Cause } from './causes.ts';
import type { Finding, Quantity } from './finding.ts';

const round = (v: number): string =>
  Math.abs(v) < 100 ? String(Math.round(v * 10) / 10) : String(Math.round(v));

const quantityText = ({ brief }: Build, { value, unit }: Quantity): string =>
  `${round(value)} ${unit === 'money' ? brief.currency : unit}`;

/** "17820 cd"; empty where nothing was measured. */
export const figureText = (build: Build, { figure }: Finding): string =>
  figure === null ? '' : quantityText(build, figure);

/** "at most 40 cd". */
export const limitsText = (build: Build, { limits }: Finding): string =>
  limits.map((l) => `${l.sense} ${quantityText(build, l)}`).join(', ');

/** "Stage 2 · hatch open · night". */
export function stateText(build: Build, { evidence: { state } }: Finding): string {
  if (state === null) return 'In every state';
  return [onText(build, state.on), openText(build, state.open), state.ambient].join(' · ');
}

const HEAD = [
  'severity',
  'outcome',
  'sentence',
  'state',
  'figure',
  'limit',
  'pack',
  'clause',
  'way',
] as const;

/** Findings as the rows of a table, its head first. */
export function findingsTable(build: Build, findings: readonly Finding[]): string[][] {
  const wording = new Wording(build);
  return [
    [...HEAD],
    ...findings.map((f) => [
      f.severity,
      f.outcome,
      f.sentence,
      stateText(build, f),
      figureText(build, f),
      limitsText(build, f),
      f.packName,
      f.clause,
      f.evidence.steps.length === 0 ? '' : wording.way(f.evidence.steps),
    ]),
  ];
}

/** Causes as lines to be sent to somebody. */
export const findingsText = (build: Build, causes: readonly Cause[]): string =>
  causes
    .map((cause) => {
      const { first } = cause;
      const also = reachText(build, cause);
      const doubt = first.outcome === 'cannot tell' ? 'Cannot tell: ' : '';
      return `${first.severity}: ${doubt}${first.sentence} (${first.packName}, ${first.clause})${also === '' ? '' : ` [${also}]`}`;
    })
    .join('\n');
