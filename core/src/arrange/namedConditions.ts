import { freeFunctionName, addFunction } from '../design/controlEdits.ts';
import type { Condition } from '../design/condition.ts';
import type { Controlled } from '../design/controls.ts';
import { newFunction, type ControlFunction, type FunctionKind } from '../design/functions.ts';
import type { Build } from '../design/schema.ts';

/** Conditions with names of their own: functions that show nothing, for others to ask about. */
export const namedConditions = ({ controls }: Controlled): readonly ControlFunction[] =>
  controls.functions.filter(({ kind }) => kind === 'condition');

/**
 * A build with one more named condition, the weakest of its functions; whoever asks about it asks for the condition itself,
 * whatever the master switch says.
 */
export const nameCondition = (build: Build, id: string, name: string, condition: Condition): Build =>
  addFunction(
    build,
    newFunction(
      id,
      freeFunctionName(build, name),
      'condition',
      { way: 'while', condition, afterMs: 0, staysMs: 0 },
      [],
      { withoutMaster: true },
    ),
  );

/** What a function of a kind is first asked to hold while, before anybody says otherwise. */
export function usualFirst(build: Controlled, kind: FunctionKind): Condition {
  const stage = build.controls.functions.find((fn) => fn.kind === 'stage' && fn.mode !== 0);
  switch (kind) {
    case 'light':
    case 'dim':
      return { kind: 'is', input: 'ambient', values: ['night'] };
    case 'signal':
      return { kind: 'is', input: 'brake', values: ['down'] };
    case 'warning':
    case 'cut':
      return stage === undefined ? IGNITION_ON : { kind: 'on', functionId: stage.id };
    case 'stage':
    case 'load':
    case 'condition':
      return IGNITION_ON;
  }
}

const IGNITION_ON: Condition = { kind: 'is', input: 'ignition', values: ['on'] };
