import { stepText } from '@flarik/core/controls/script';
import type { Build } from '@flarik/core/design/schema';
import { checkWhole } from '@flarik/core/verification/checkWhole';
import { outcomeText } from '@flarik/core/verification/outcomeText';
import type { Counts } from '@flarik/core/verification/prove';
import { CONTROLS_PACK } from '@flarik/core/rules/practice';
import { acceptanceStatusOf } from '@flarik/core/rules/acceptances';
import { causesOf, alsoAffectedText } from '@flarik/core/rules/causes';
import { stateText } from '@flarik/core/rules/findingsTable';
import { SEVERITY_NAMES } from '@flarik/core/words/severity';
import { blocking, type Finding, type RuleOutcome } from '@flarik/core/rules/finding';
import type { Output } from './output.ts';

/** What is wrong with a build, cause by cause: exit 1 when something blocks that nobody let stand. */
export function check(build: Build, json: boolean): Output {
  const { findings, outcomes, counts } = checkWhole(build);
  const { open, accepted, outgrown } = acceptanceStatusOf(build, findings);
  const exitCode = blocking(open).length > 0 ? 1 : 0;
  if (json)
    return {
      exitCode,
      text: JSON.stringify(
        {
          build: build.name,
          findings: open.map(withWay),
          accepted: accepted.map(({ finding, acceptance: { reason, by, on } }) => ({
            ...withWay(finding),
            accepted: { reason, by, on },
          })),
          outcomes,
          counts,
        },
        null,
        2,
      ),
    };
  const causes = causesOf(build, open);
  const lines = causes.flatMap((cause) => [
    lineOf(build, cause.first),
    ...under(alsoAffectedText(build, cause)),
    ...under(wayOf(cause.first), 'sequence: '),
    ...cause.findings.flatMap(({ id }) => {
      const once = outgrown.get(id);
      return once === undefined
        ? []
        : under(`accepted by ${once.by} on ${once.on}, changed since: open again`);
    }),
  ]);
  const letStand = accepted.flatMap(({ finding, acceptance: { by, on, reason } }) => [
    lineOf(build, finding),
    ...under(`accepted by ${by} on ${on}: ${reason}`),
  ]);
  return {
    exitCode,
    text: [
      ...lines,
      ...letStand,
      ...untoldLines(build, outcomes),
      summary(build, outcomes, open.length, causes.length),
      countsText(counts),
    ].join('\n'),
  };
}

const lineOf = (build: Build, f: Finding): string =>
  `${SEVERITY_NAMES[f.severity].padEnd(9)} ${f.outcome === 'cannot tell' ? 'Inconclusive: ' : ''}${f.sentence} [${stateText(build, f)}] (${f.packName}, ${f.clause})`;

const grouped = (count: string): string => BigInt(count).toLocaleString('en-GB');

const under = (text: string, lead = ''): string[] => (text === '' ? [] : [`${' '.repeat(12)}${lead}${text}`]);

const wayOf = ({ evidence }: Finding): string => evidence.steps.map(stepText).join(', ');

/** A finding with the way to it as `simulate` reads it. */
const withWay = (f: Finding) => (f.evidence.steps.length === 0 ? f : { ...f, events: wayOf(f) });

/** What could not be told, of rules, wishes and checks of the controls: each with why. */
const untoldLines = (build: Build, outcomes: readonly RuleOutcome[]): string[] =>
  outcomes.flatMap((outcome) => {
    if (outcome.verdict !== 'cannot tell') return [];
    const asked = outcomeText(build, outcome)?.sentence ?? outcome.ruleId;
    return [`Inconclusive: ${asked}`, ...under(outcome.why ?? 'see its findings', 'reason: ')];
  });

export const countsText = ({ raw, reachable, pictures, whole }: Counts): string =>
  whole
    ? `Controls: all ${grouped(reachable)} reachable states checked (of ${grouped(raw)} possible), ${grouped(pictures)} output states.`
    : `Controls: incomplete. ${grouped(reachable)} states nearest to the initial state were checked (of ${grouped(raw)} possible), ${grouped(pictures)} output states.`;

function summary(build: Build, outcomes: readonly RuleOutcome[], findings: number, causes: number): string {
  const found = `${findings} findings${causes === findings ? '' : ` with ${causes} causes`}`;
  if (build.rulePacks.length === 0)
    return `${build.name}: ${found}. No rule pack is selected. No rule was checked.`;
  const rules = outcomes.filter((o) => o.packId !== CONTROLS_PACK);
  const count = (verdict: RuleOutcome['verdict']): number =>
    rules.filter((o) => o.verdict === verdict).length;
  const unsure = count('cannot tell');
  const controls = outcomes.length - rules.length;
  const open = outcomes.filter((o) => o.packId === CONTROLS_PACK && o.verdict === 'cannot tell').length;
  const told = unsure === 0 ? '' : `, ${unsure} inconclusive`;
  const ofControls = open === 0 ? '' : `; ${open} of ${controls} control checks inconclusive`;
  return `${build.name}: ${rules.length - count('silent')} rules and requirements checked, ${count('holds')} pass, ${count('broken')} fail${told}${ofControls}; ${found}.`;
}
