import { putSet } from '../design/controlEdits.ts';
import {
  ruledSet,
  type LampSet,
  type LampUse,
  type SetClause,
  type SetPick,
  type Side,
} from '../design/lampSets.ts';
import type { Build } from '../design/schema.ts';
import { chosenBy } from '../resolve/setMembers.ts';
import type { Colour } from '../words/colour.ts';
import type { FactoryFunction } from '../words/factoryFunction.ts';
import type { Face } from '../words/face.ts';

export const forUse = (...of: LampUse[]): SetClause => ({ about: 'use', not: false, of });
export const inColour = (...of: Colour[]): SetClause => ({ about: 'colour', not: false, of });
export const onSide = (...of: Side[]): SetClause => ({ about: 'side', not: false, of });
export const tiedTo = (...of: FactoryFunction[]): SetClause => ({ about: 'tied', not: false, of });
export const besideFactory = (...of: FactoryFunction[]): SetClause => ({ about: 'beside', not: false, of });
/** With everything closed. */
export const shining = (...of: Face[]): SetClause => ({
  about: 'shines',
  not: false,
  of,
  closed: true,
  stops: [],
});
/** With one of these stops open. @param closed - with everything closed as well */
export const shiningOpen = (face: Face, stops: string[], closed = false): SetClause => ({
  about: 'shines',
  not: false,
  of: [face],
  closed,
  stops,
});
export const carriedBy = (part: string, covered: boolean): SetClause => ({
  about: 'part',
  not: false,
  of: [part],
  covered,
});

/** Whether any module that can light meets all of these. */
export const anyMeets = (build: Build, clauses: SetClause[]): boolean =>
  chosenBy(build, { clauses, pick: 'all' }).length > 0;

/** A build with a set that a rule chooses, in place of the one of that id. */
export function withRuledSet(
  build: Build,
  id: string,
  name: string,
  clauses: SetClause[],
  pick: SetPick = 'all',
): { readonly build: Build; readonly set: LampSet } {
  const set = ruledSet(id, name, clauses, pick);
  return { build: putSet(build, set), set };
}
