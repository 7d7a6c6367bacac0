import type { RuleOf } from '../../rules/registry.ts';
import { towards, withVehicle } from '../actions.ts';
import { EVERY, NONE } from '../diagrams.ts';
import type { VerificationFinding } from '../found.ts';
import type { VerificationSubject } from '../subject.ts';
import { isAnyOn, warningIds } from './stuck.ts';
import { about } from '../../rules/subject.ts';

/**
 * Stages and functions that take more actions of an operator than a rule allows, from the ignition on and all else at rest;
 * what the vehicle does is free.
 */
export function manyActions(
  subject: VerificationSubject,
  rule: RuleOf<'few-actions'>,
): VerificationFinding[] {
  const { build, programme } = subject;
  const warning = warningIds(subject);
  if (build.controls.panels.length === 0) return [];
  const hasIgnition = programme.inputs.some(({ id }) => id === 'ignition');
  return programme.ranked.flatMap((fn): VerificationFinding[] => {
    if (['signal', 'dim', 'load', 'condition'].includes(fn.kind)) return [];
    const most = fn.kind === 'stage' && fn.mode === 3 ? rule.toHighestStage : rule.toOthers;
    const reached = subject.reached.of([...warning, fn.id]);
    const { program } = reached;
    const d = program.diagrams;
    const keyOn = hasIgnition ? program.holds({ kind: 'is', input: 'ignition', values: ['on'] }) : EVERY;
    const from = reached.allNearest(d.all([reached.states, keyOn, d.not(isAnyOn(program, warning))]));
    const goal = isAnyOn(program, [fn.id]);
    let needed = -1;
    let actions = 0;
    for (const layer of towards(reached, goal, withVehicle)) {
      if (d.and(layer, from) !== NONE) {
        needed = actions;
        break;
      }
      actions++;
    }
    if (needed < 0 && reached.within !== null)
      return [
        {
          subjects: [about('function', fn.id)],
          sentence: `${fn.name} is not reached within ${reached.within} events. Longer sequences were not checked.`,
          outcome: 'cannot tell',
        },
      ];
    if (needed <= most) return [];
    return [
      {
        subjects: [about('function', fn.id)],
        sentence: `${fn.name}: ${needed} actions from all warning off (limit ${most}).`,
        where: subject.nearest(d.and(reached.states, goal), reached),
      },
    ];
  });
}
