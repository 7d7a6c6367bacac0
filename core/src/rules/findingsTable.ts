import { Wording } from '../controls/sentence.ts';
import { activeFunctionNames } from '../design/controls.ts';
import type { Build } from '../design/schema.ts';
import { openText } from '../state/state.ts';
import { alsoAffectedText, type Cause } from './causes.ts';
import { SEVERITY_NAMES } from '../words/severity.ts';
import { formatNumber, formatQuantity, type Rounding } from '../words/quantity.ts';
import type { Finding, Quantity } from './finding.ts';

const quantityText = ({ brief }: Build, { value, unit }: Quantity, rounding?: Rounding): string =>
  formatQuantity(value, unit === 'money' ? brief.currency : unit, rounding);

/** Rounded as in the sentence: away from the limit that it breaks, never to it. */
const roundingOf = ({ limits: [limit] }: Finding): Rounding => {
  switch (limit?.sense) {
    case 'at most':
      return 'up';
    case 'at least':
      return 'down';
    case undefined:
      return 'nearest';
  }
};

/** "17,900 cd"; empty where nothing was measured. */
export const figureText = (build: Build, finding: Finding): string =>
  finding.figure === null ? '' : quantityText(build, finding.figure, roundingOf(finding));

/** "limit 40 cd", "minimum 4 lamps", "60 to 120/min". */
export function limitsText(build: Build, { limits }: Finding): string {
  const least = limits.find(({ sense }) => sense === 'at least');
  const most = limits.find(({ sense }) => sense === 'at most');
  if (least !== undefined && most !== undefined)
    return `${formatNumber(least.value, 1)} to ${quantityText(build, most)}`;
  return [
    ...(least === undefined ? [] : [`minimum ${quantityText(build, least)}`]),
    ...(most === undefined ? [] : [`limit ${quantityText(build, most)}`]),
  ].join();
}

/** "Stage 2 · hatch open · night". */
export function stateText(build: Build, { evidence: { state } }: Finding): string {
  if (state === null) return 'Every state';
  return [activeFunctionNames(build, state.on), openText(build, state.open), state.ambient].join(' · ');
}

const HEAD = [
  'Severity',
  'Verdict',
  'Finding',
  'State',
  'Figure',
  'Limit',
  'Rule pack',
  'Clause',
  'Sequence',
] as const;

/** Findings as the rows of a table, its head first. */
export function findingsTable(build: Build, findings: readonly Finding[]): string[][] {
  const wording = new Wording(build);
  return [
    [...HEAD],
    ...findings.map((f) => [
      SEVERITY_NAMES[f.severity],
      f.outcome === 'fails' ? 'Fail' : 'Inconclusive',
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
      const also = alsoAffectedText(build, cause);
      const doubt = first.outcome === 'cannot tell' ? 'Inconclusive: ' : '';
      return `${SEVERITY_NAMES[first.severity]}: ${doubt}${first.sentence} [${stateText(build, first)}] (${first.packName}, ${first.clause})${also === '' ? '' : `; ${also}`}`;
    })
    .join('\n');
