import { describe, expect, test } from 'vitest';
import type { Build } from '../design/schema.ts';
import { astray, DEMO_BUILDS, demoBuild, type DemoBuild } from '../../test/reference/demo.ts';
import { everyKind } from '../../test/reference/rules.ts';
import { REQUIREMENT_KINDS, describeRequirement } from './brief/requirements.ts';
import { checkBuild } from './check.ts';
import type { Finding, RuleOutcome } from './finding.ts';
import { kindOf, ruleSentence } from './registry.ts';
import { findingsTable } from './findingsTable.ts';

/*
 * All that is found in the demo builds, word for word and to six digits, as it was when somebody last looked. What a
 * change of the checks changes here is right or is mended; then it is written anew by `npx vitest -u` and told in
 * docs/demo-changes.md.
 */

const digits = (v: number): string => String(Number(v.toPrecision(6)));

function findingText(f: Finding): string {
  const { state, channels, sectors } = f.evidence;
  const where =
    state === null ? 'every state' : `${state.on.join('+')}|${state.open.join('+')}|${state.ambient}`;
  return [
    `${f.id}: ${f.outcome}, ${f.severity}, ${f.home}`,
    f.sentence,
    f.figure === null ? 'no figure' : `${digits(f.figure.value)} ${f.figure.unit}`,
    f.limits.map((l) => `${l.sense} ${digits(l.value)} ${l.unit}`).join(', '),
    where,
    channels.map((c) => `${c.placementId}/${c.moduleId}/${c.slot}`).join(' '),
    sectors.map((s) => `${digits(s.fromDeg)}–${digits(s.toDeg)}`).join(' '),
  ].join('\n  ');
}

const outcomeText = ({ packId, ruleId, verdict, margin, statesChecked }: RuleOutcome): string =>
  `${packId} ${ruleId}: ${verdict}, ${margin === null ? 'no margin' : digits(margin)}, ${statesChecked} states`;

function foundText(build: Build): string {
  const { findings, outcomes } = checkBuild(build);
  expect(new Set(findings.map(({ id }) => id)).size).toBe(findings.length);
  return `${[...outcomes.map(outcomeText), ...findings.map(findingText)].join('\n')}\n`;
}

const withEveryWish = (build: Build): Build => ({
  ...build,
  brief: {
    ...build.brief,
    constraints: REQUIREMENT_KINDS.flatMap((kind, i) => kind.first(build, `wish-${i}`) ?? []),
  },
});

const reference = (name: string): string => `../../test/reference/found/${name}.txt`;

describe('what is found in the demo builds', () => {
  test.each(DEMO_BUILDS)('%s, by its own packs', async (name) => {
    await expect(foundText(demoBuild(name))).toMatchFileSnapshot(reference(name));
  });

  const CASES: readonly (readonly [DemoBuild, number])[] = [
    ['ks-12', 1],
    ['shore-medic-7', 1 / 8],
    ['line-marking', 8],
  ];
  test.each(CASES)('%s, by a rule and a wish of every kind, figures × %d', async (name, times) => {
    const rulePacks = everyKind(times);
    const build = { ...withEveryWish(demoBuild(name)), rulePacks };
    const said = [
      ...rulePacks.flatMap(({ rules }) => rules.map((rule) => ruleSentence(rule))),
      ...build.brief.constraints.map((wish) => describeRequirement(build, wish)),
    ];
    await expect([...said, foundText(build)].join('\n')).toMatchFileSnapshot(reference(`${name}-every-kind`));
  });

  test('as a table: a rule and a wish of every kind on KS-12', async () => {
    const build = { ...withEveryWish(demoBuild('ks-12')), rulePacks: everyKind(2) };
    const rows = findingsTable(build, checkBuild(build).findings);
    const table = `${rows.map((row) => row.join(' | ')).join('\n')}\n`;
    await expect(table).toMatchFileSnapshot(reference('ks-12-table'));
  });

  test('the fields of the sentence of a rule of every kind', async () => {
    const [pack] = everyKind(1);
    const fields = (pack?.rules ?? []).map((rule) =>
      JSON.stringify([rule.kind, ...kindOf(rule).sentenceParts(rule)]),
    );
    await expect(`${fields.join('\n')}\n`).toMatchFileSnapshot(reference('fields'));
  });

  test.each(['tunnel-pumper-3', 'shore-medic-7'] as const)('%s with its lamps astray', async (name) => {
    await expect(foundText(astray(demoBuild(name)))).toMatchFileSnapshot(reference(`${name}-astray`));
  });
});
