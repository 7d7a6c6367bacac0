import type { RulePack } from '../design/rulePack.ts';
import type { Build } from '../design/schema.ts';
import type { State } from '../state/state.ts';
import type { RequirementData } from '../design/brief.ts';
import { requirementKindOf } from './brief/requirements.ts';
import { ruleHead, requirementHead } from './heads.ts';
import type { CheckResult } from './finding.ts';
import { CONTROLS_CHECKS } from './controls/controls.ts';
import { LAYOUT_CHECKS, layoutFaults } from './layout/layout.ts';
import { leftOutTask } from './leftOut.ts';
import { LayoutSubject } from './layout/subject.ts';
import { documentTasks } from './documentCheck.ts';
import { conditionOf, appliesInJurisdiction, kindOf, appliesInState, appliesToService } from './registry.ts';
import { judgementsOf, limitsOf } from './elevations.ts';
import { runTasks, type Task } from './run.ts';
import type { Situation } from './situation.ts';
import { freeRunners } from './timing/freeRunner.ts';
import { voltageFaults } from './timing/voltage.ts';

/**
 * Checks a build by its layout, its timing, its controls, its brief and all of its rule packs, in every state each speaks of.
 *
 * @param only - looks at this state alone; null looks at every state
 * @returns findings, the gravest first; and how each wish and rule came out, the brief first, then in pack order
 */
export const checkBuild = (build: Build, only: State | null = null): CheckResult =>
  runTasks(
    build,
    new LayoutSubject(build),
    [
      ...LAYOUT_TASKS,
      ...TIMING_TASKS,
      ...CONTROLS_TASKS,
      ...build.brief.constraints.flatMap((wish) => wishTask(build, wish)),
      ...build.rulePacks.flatMap((pack) => packTasks(build, pack)),
    ],
    only,
  );

/** Checks of the layout, which need no pack. */
const LAYOUT_TASKS = documentTasks('layout', 'Layout', LAYOUT_CHECKS, layoutFaults);

const TIMING = { packId: 'timing', packName: 'Timing', home: 'timing', listed: false, once: true } as const;

/** Checks of the timing, which need no pack. */
const TIMING_TASKS: readonly Task[] = [
  {
    ...TIMING,
    ruleId: 'voltage',
    kind: 'voltage',
    severity: 'blocks',
    clause: 'Lamps on the voltage they are made for',
    sees: 'document',
    check: voltageFaults,
  },
  ...([true, false] as const).map((mustKeepStep): Task => ({
    ...TIMING,
    ruleId: 'free-runner',
    kind: 'free-runner',
    severity: mustKeepStep ? 'warns' : 'notes',
    clause: 'Free-running heads in a sync group',
    sees: 'driven',
    upperAboveM: 0,
    speaks: () => true,
    limits: () => [],
    check: (at) => freeRunners(at, mustKeepStep),
  })),
];

/** Checks of the controls, which need no pack. */
const CONTROLS_TASKS = documentTasks('controls', 'Controls', CONTROLS_CHECKS);

/** A wish of the brief, as a rule of the agency's own pack; none for what is left to the proof. */
function wishTask(build: Build, wish: RequirementData): Task[] {
  const { check } = requirementKindOf(wish);
  if ('proved' in check) return [];
  const head = { ...requirementHead(build, wish), listed: true, once: false };
  return [
    'inState' in check
      ? {
          ...head,
          sees: 'light',
          upperAboveM: 0,
          speaks: () => true,
          limits: () => check.limits(wish),
          check: (at) => check.inState(at, wish),
        }
      : { ...head, sees: 'document', check: (subject) => check.onDocument(subject, wish) },
  ];
}

/**
 * The rules of a pack; none for what asks more of the controls than a function by itself, which is left to the proof,
 * and silent ones of a pack that does not hold here.
 */
function packTasks(build: Build, pack: RulePack): Task[] {
  const here = appliesInJurisdiction(pack, build);
  return pack.rules.flatMap((rule): Task[] => {
    const kind = kindOf(rule);
    if (here && kind.sees === 'programme') return [];
    if (here && kind.inStates && conditionOf(build, pack, rule) !== null) return [];
    const head = { ...ruleHead(pack, rule), listed: true, once: false };
    if (here && kind.sees === 'document' && appliesToService(rule, build))
      return [{ ...head, sees: 'document', check: (subject) => kind.findIssues(subject, rule) }];
    const speaks = (state: State): boolean => here && kind.inStates && appliesInState(rule, build, state);
    return [
      {
        ...head,
        sees: kind.sees === 'light' ? 'light' : 'driven',
        upperAboveM: pack.upperAboveM,
        speaks,
        limits: (at: Situation) => limitsOf(rule, at),
        check: (at: Situation) => judgementsOf(rule, at),
      },
      ...(here ? leftOutTask(pack, rule, speaks) : []),
    ];
  });
}
