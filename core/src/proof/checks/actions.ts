import type { RuleOf } from '../../rules/registry.ts';
import type { Found } from '../found.ts';
import { withVehicle } from '../moves.ts';
import { partsOf, type Space } from '../space.ts';
import type { ProofSubject } from '../subject.ts';
import { warningRanks } from './stuck.ts';

/**
 * Stages and functions that take more actions of an operator than a rule allows, from the ignition on and all else at rest;
 * what the vehicle does is free.
 */
export function manyActions(subject: ProofSubject, rule: RuleOf<'few-actions'>): Found[] {
  const { reach, build } = subject;
  const { machine } = reach;
  const { ranked } = machine.programme;
  const ignition = machine.wired.placeOf('ignition');
  const on = machine.programme.inputs[ignition ?? -1]?.values.indexOf('on') ?? -1;
  const warning = warningRanks(subject);
  const leastFromOff = (space: Space): Int32Array =>
    space.actions(
      space.nearest(
        space.where(
          warning,
          (values, isOn) =>
            warning.every((w) => isOn[w] !== 1) && (ignition === undefined || values[ignition] === on),
        ),
      ),
      withVehicle,
      'from',
    );
  const fromOff = new Map<Space, Int32Array>();
  return ranked.flatMap((fn, rank): Found[] => {
    if (fn.kind === 'signal' || fn.kind === 'dim' || fn.kind === 'load') return [];
    const most = fn.kind === 'stage' && fn.mode === 3 ? rule.toHighestStage : rule.toOthers;
    const space = subject.space(partsOf(reach, [...warning, rank]));
    if (space === null)
      return [
        {
          about: fn.id,
          sentence: `too many states to tell how many actions lead to ${fn.name}.`,
          outcome: 'cannot tell',
        },
      ];
    const least = fromOff.get(space) ?? leastFromOff(space);
    fromOff.set(space, least);
    const there = space.isOn(rank);
    let nearest = -1;
    for (let state = 0; state < space.size; state++) {
      const steps = least[state] ?? -1;
      if (there[state] === 1 && steps >= 0 && (nearest < 0 || steps < (least[nearest] ?? 0))) nearest = state;
    }
    const needed = nearest < 0 ? -1 : (least[nearest] ?? -1);
    if (needed <= most) return [];
    const places = space.placesOf(nearest);
    return [
      {
        about: fn.id,
        sentence: `${fn.name} takes ${needed} actions from all warning off; at most ${most} is wanted.`,
        moment: { on: subject.onsAt(places), places },
      },
    ].filter(() => build.controls.panels.length > 0);
  });
}
