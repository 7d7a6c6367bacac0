import { expect, test } from 'vitest';
import { astray, demoBuild } from '../../test/reference/demo.ts';
import { everyKind } from '../../test/reference/rules.ts';
import { mirrorBuild } from '../arrange/lamps.ts';
import type { Build } from '../design/schema.ts';
import { checkBuild } from './check.ts';
import { seenInTime } from './kinds/seenInTime.ts';

/* The nearest thing to an independent check: left and right changed places, the same is found on the other side. */

const otherSide = (text: string): string =>
  text.replace(/left|right/g, (side) => (side === 'left' ? 'right' : 'left'));

/** Patterns that sweep know left from right. */
const ONE_SIDED = 'direction';

/** How each rule comes out, in whichever order states are met; and all that the document alone shows. */
function found(build: Build, seen: (text: string) => string): string[] {
  const { findings, outcomes } = checkBuild(build);
  return [
    ...outcomes
      .filter(({ ruleId }) => !ruleId.startsWith(ONE_SIDED))
      .map(({ ruleId, verdict, margin }) => `${ruleId} | ${verdict} | ${margin?.toPrecision(6) ?? ''}`),
    ...findings
      .filter(({ kind, evidence }) => !kind.startsWith(ONE_SIDED) && (evidence.state?.on.length ?? 0) === 0)
      .map(({ ruleId, outcome, figure, evidence }) =>
        [
          ruleId,
          outcome,
          figure?.value.toPrecision(6) ?? '',
          evidence.state?.open.map(seen).toSorted().join('+') ?? 'always',
          evidence.channels.length,
        ].join(' | '),
      )
      .toSorted(),
  ];
}

test.each(['ks-12', 'tunnel-pumper-3', 'ferry-slip'] as const)(
  'the mirror image of a build has the findings of its mirror image: %s',
  (name) => {
    const build = { ...astray(demoBuild(name)), rulePacks: everyKind(1 / 8, ['left', 'rear']) };
    const rulePacks = everyKind(1 / 8, ['right', 'rear']).map((pack) => ({
      ...pack,
      rules: pack.rules.map((rule) => {
        const way = seenInTime.of(rule);
        return way === null ? rule : { ...way, fromDeg: 360 - way.fromDeg };
      }),
    }));
    // The driver sits, and others come, on the other side.
    const traffic = build.traffic === 'right' ? 'left' : 'right';
    const image: Build = { ...mirrorBuild(build), rulePacks, traffic };
    const findings = found(build, otherSide);
    expect(findings.length).toBeGreaterThan(40);
    expect(found(image, (text) => text)).toEqual(findings);
  },
);
