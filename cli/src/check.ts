import { stepText } from '@flarik/core/controls/script';
import type { Build } from '@flarik/core/design/schema';
import { checkWhole } from '@flarik/core/proof/checkWhole';
import { outcomeText } from '@flarik/core/proof/outcomeText';
import type { Counts } from '@flarik/core/proof/prove';
import { CONTROLS_PACK } from '@flarik/core/rules/practice';
import { standingOf } from '@flarik/core/rules/acceptances';
import { causesOf, reachText } from '@flarik/core/rules/causes';
import { blocking, type Finding, type RuleOutcome } from '@flarik/core/rules/finding';
import type { Output } from './output.ts';

/** What is wrong with a build, cause by cause: exit 1 when something blocks that nobody let stand. */
export function check(build: Build, json: boolean): Output {
  const { findings, outcomes, counts } = checkWhole(build);
  const { open, accepted, outgrown } = standingOf(build, findings);
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
    lineOf(cause.first),
    ...under(reachText(build, cause)),
    ...under(wayOf(cause.first), 'by '),
    ...cause.findings.flatMap(({ id }) => {
      const once = outgrown.get(id);
      return once === undefined
        ? []
        : under(`accepted by ${once.by} on ${once.on}, but it has changed since`);
    }),
  ]);
  const letStand = accepted.flatMap(({ finding, acceptance: { by, on, reason } }) => [
    lineOf(finding),
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

const lineOf = (f: Finding): string =>
  `${f.severity.padEnd(8)} ${f.outcome === 'cannot tell' ? 'Cannot tell: ' : ''}${f.sentence} (${f.packName}, ${f.clause})`;

const under = (text: string, lead = ''): string[] => (text === '' ? [] : [`${' '.repeat(11)}${lead}${text}`]);

const wayOf = ({ evidence }: Finding): string => evidence.steps.map(stepText).join(', ');

/** A finding with the way to it as `simulate` reads it. */
const withWay = (f: Finding) => (f.evidence.steps.length === 0 ? f : { ...f, events: wayOf(f) });

/** What could not be told, of rules, wishes and checks of the controls: each with why. */
const untoldLines = (build: Build, outcomes: readonly RuleOutcome[]): string[] =>
  outcomes.flatMap((outcome) => {
    if (outcome.verdict !== 'cannot tell') return [];
    const asked = outcomeText(build, outcome)?.sentence ?? outcome.ruleId;
    return [`untold   ${asked}`, ...under(outcome.why ?? 'its findings say why', 'because ')];
  });

export const countsText = ({ raw, reachable, pictures, whole }: Counts): string =>
  whole
    ? `Controls: all ${reachable} states that can be reached of ${raw}, ${pictures} different pictures.`
    : `Controls: not proved. At least ${reachable} states can be reached of ${raw}; ${pictures} pictures were looked at.`;

function summary(build: Build, outcomes: readonly RuleOutcome[], findings: number, causes: number): string {
  const found = `${findings} findings${causes === findings ? '' : ` of ${causes} causes`}`;
  if (build.rulePacks.length === 0)
    return `${build.name}: ${found}. No rule pack is chosen, so no rule was checked.`;
  const rules = outcomes.filter((o) => o.packId !== CONTROLS_PACK);
  const count = (verdict: RuleOutcome['verdict']): number =>
    rules.filter((o) => o.verdict === verdict).length;
  const unsure = count('cannot tell');
  const controls = outcomes.length - rules.length;
  const open = outcomes.filter((o) => o.packId === CONTROLS_PACK && o.verdict === 'cannot tell').length;
  const told = unsure === 0 ? '' : `, ${unsure} cannot be told`;
  const ofControls = open === 0 ? '' : `; ${open} of ${controls} checks of the controls cannot be told`;
  return `${build.name}: ${rules.length - count('silent')} rules and wishes checked, ${count('holds')} hold, ${count('broken')} broken${told}${ofControls}; ${found}.`;
}
