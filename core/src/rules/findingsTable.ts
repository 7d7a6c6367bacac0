import { Wording } from '../controls/sentence.ts';
import { onText } from '../design/controls.ts';
import type { Build } from '../design/schema.ts';
import { openText } from '../state/state.ts';
import { reachText, type Cause } from './causes.ts';
import type { Finding, Quantity } from './finding.ts';

type Rounding = (value: number) => number;

/** A figure below a hundred has one place behind the point. */
const text = (value: number, rounding: Rounding): string =>
  String(Math.abs(value) < 100 ? rounding(value * 10) / 10 : rounding(value));

const quantityText = ({ brief }: Build, { value, unit }: Quantity, rounding: Rounding = Math.round): string =>
  `${text(value, rounding)} ${unit === 'money' ? brief.currency : unit}`;

/** Rounded as in the sentence: away from the limit that it breaks, never to it. */
const roundingOf = ({ limits: [limit] }: Finding): Rounding => {
  switch (limit?.sense) {
    case 'at most':
      return (v) => Math.ceil(v - 1e-9);
    case 'at least':
      return (v) => Math.floor(v + 1e-9);
    case undefined:
      return Math.round;
  }
};

/** "17820 cd"; empty where nothing was measured. */
export const figureText = (build: Build, finding: Finding): string =>
  finding.figure === null ? '' : quantityText(build, finding.figure, roundingOf(finding));

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
