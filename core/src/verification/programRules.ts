import type { RuleData } from '../design/rulePack.ts';
import { allOff } from '../rules/kinds/allOff.ts';
import { fewActions } from '../rules/kinds/fewActions.ts';
import { lightAtDoors } from '../rules/kinds/lightAtDoors.ts';
import { standingDraw } from '../rules/kinds/standingDraw.ts';
import { manyActions } from './checks/actions.ts';
import { lightAtOpenDoors } from './checks/lightAtDoors.ts';
import { standingDraws } from './checks/drain.ts';
import { stuck } from './checks/stuck.ts';
import type { VerificationFinding } from './found.ts';
import type { VerificationSubject } from './subject.ts';

/** What a rule about the controls themselves finds; null where it is about something else. */
export function foundByRule(
  subject: VerificationSubject,
  data: RuleData,
): readonly VerificationFinding[] | null {
  const few = fewActions.of(data);
  if (few !== null) return manyActions(subject, few);
  const off = allOff.of(data);
  if (off !== null) return stuck(subject, off);
  const draw = standingDraw.of(data);
  if (draw !== null) return standingDraws(subject, draw);
  const atDoors = lightAtDoors.of(data);
  return atDoors === null ? null : lightAtOpenDoors(subject, atDoors);
}
