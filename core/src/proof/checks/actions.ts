import type { RuleOf } from '../../rules/registry.ts';
import type { Found } from '../found.ts';
import { withVehicle } from '../moves.ts';
import type { ProofSubject } from '../subject.ts';
import { warningIds } from './stuck.ts';

/**
 * Stages and functions that take more actions of an operator than a rule allows, from the ignition on and all else at rest;
 * what the vehicle does is free.
 */
export function manyActions(subject: ProofSubject, rule: RuleOf<'few-actions'>): Found[] {
  const { build } = subject;
  const { programme, wired } = subject.reach.machine;
  const ignition = wired.placeOf('ignition');
  const on = programme.inputs[ignition ?? -1]?.values.indexOf('on') ?? -1;
  const warning = warningIds(subject);
  if (build.controls.panels.length === 0) return [];
  return programme.ranked.flatMap((fn): Found[] => {
    if (fn.kind === 'signal' || fn.kind === 'dim' || fn.kind === 'load') return [];
    const most = fn.kind === 'stage' && fn.mode === 3 ? rule.toHighestStage : rule.toOthers;
    const about = subject.about([...warning, fn.id]);
    if (about === null)
      return [
        {
          about: fn.id,
          sentence: `too many states to tell how many actions lead to ${fn.name}.`,
          outcome: 'cannot tell',
        },
      ];
    const { space } = about;
    const warns = about.ranks.slice(0, -1);
    const fromOff = space.nearest(
      space.where(
        warns,
        (values, isOn) =>
          warns.every((w) => isOn[w] !== 1) && (ignition === undefined || values[ignition] === on),
      ),
    );
    const least = space.actions(fromOff, withVehicle, 'from');
    const there = space.isOn(about.ranks.at(-1) ?? 0);
    let nearest = -1;
    for (let state = 0; state < space.size; state++) {
      const steps = least[state] ?? -1;
      if (there[state] === 1 && steps >= 0 && (nearest < 0 || steps < (least[nearest] ?? 0))) nearest = state;
    }
    const needed = nearest < 0 ? -1 : (least[nearest] ?? -1);
    if (needed <= most) return [];
    return [
      {
        about: fn.id,
        sentence: `${fn.name} takes ${needed} actions from all warning off; at most ${most} is wanted.`,
        moment: subject.placeIn(about, nearest),
      },
    ];
  });
}
