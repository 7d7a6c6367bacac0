import type { RulePack } from '../design/rulePack.ts';
import type { Build } from '../design/schema.ts';
import type { State } from '../state/state.ts';
import type { WishData } from '../design/brief.ts';
import { wishKindOf, wishSentence } from './brief/wishes.ts';
import type { CheckResult } from './finding.ts';
import { CONTROLS_CHECKS } from './controls/controls.ts';
import { LAYOUT_CHECKS, layoutFaults } from './layout/layout.ts';
import { LayoutSubject } from './layout/subject.ts';
import { documentTasks } from './documentCheck.ts';
import { kindOf, speaksIn } from './registry.ts';
import { runTasks, type Task } from './run.ts';
import { freeRunners } from './timing/freeRunner.ts';
import { voltageFaults } from './timing/voltage.ts';

/** The id under which the brief's wishes are reported. */
export const BRIEF_PACK = 'brief';

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
    clause: 'Heads that run free in a sync group',
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
function wishTask(build: Build, wish: WishData): Task[] {
  const { check } = wishKindOf(wish);
  if ('proved' in check) return [];
  const head = {
    packId: BRIEF_PACK,
    packName: 'The brief',
    ruleId: wish.id,
    kind: wish.kind,
    home: 'brief',
    severity: wish.severity,
    clause: wishSentence(build, wish),
    listed: true,
    once: false,
  } as const;
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

function packTasks(build: Build, pack: RulePack): Task[] {
  return pack.rules.map((rule) => {
    const kind = kindOf(rule);
    return {
      packId: pack.id,
      packName: pack.name,
      ruleId: rule.id,
      kind: rule.kind,
      home: kind.home,
      severity: rule.severity,
      clause: rule.clause,
      listed: true,
      once: false,
      sees: kind.sees,
      upperAboveM: pack.upperAboveM,
      speaks: (state) => speaksIn(rule, build, state),
      limits: (at) => kind.limits(rule, at),
      check: (at) => kind.check(at, rule),
    };
  });
}
