import type { LampSet, SetClause, SetRule } from '../design/lampSets.ts';
import { LAMP_USES, SIDES } from '../design/lampSets.ts';
import type { Build, ModuleRef } from '../design/schema.ts';
import { candidatesOf, shinesTo, type Candidate } from '../resolve/candidates.ts';
import { chosenBy } from '../resolve/setMembers.ts';
import { COLOURS } from '../words/colour.ts';
import { FACES } from '../words/face.ts';
import { forUse, inColour, onSide, shining } from './lampSets.ts';

const keyOf = ({ placementId, moduleId }: ModuleRef): string => `${placementId}/${moduleId}`;

/** What all modules of a list have in common, as a rule; null where none of them can light. */
export function ruleLike(build: Build, modules: readonly ModuleRef[]): SetRule | null {
  const keys = new Set(modules.map(keyOf));
  const these = candidatesOf(build).filter((m) => keys.has(keyOf(m)));
  if (these.length === 0) return null;
  const every = (is: (m: Candidate) => boolean): boolean => these.every(is);
  const sides = SIDES.filter((side) => these.some((m) => m.side === side));
  const clauses: SetClause[] = [
    forUse(...LAMP_USES.filter((use) => these.some((m) => m.use === use))),
    ...COLOURS.filter((colour) => every((m) => m.colours.includes(colour))).map((c) => inColour(c)),
    ...FACES.filter((face) => every((m) => shinesTo(m, face))).map((face) => shining(face)),
    ...(sides.length < SIDES.length ? [onSide(...sides)] : []),
  ];
  return { clauses, pick: 'all' };
}

/** Of a set that is a fixed list, the modules that have in common what all of its own have, and are not in it. */
export function likeButOutside(build: Build, set: LampSet): ModuleRef[] {
  const rule = set.rule === null ? ruleLike(build, set.modules) : null;
  if (rule === null) return [];
  const inside = new Set(set.modules.map(keyOf));
  return chosenBy(build, rule)
    .filter((m) => !inside.has(keyOf(m)))
    .map(({ placementId, moduleId }) => ({ placementId, moduleId }));
}
