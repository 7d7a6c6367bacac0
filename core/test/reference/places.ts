import { newBuild } from '../../src/design/create.ts';
import { addPlacement, changePlacement, type PlacementPatch } from '../../src/arrange/lamps.ts';
import type { Build } from '../../src/design/schema.ts';
import { checkBuild } from '../../src/rules/check.ts';
import type { Finding, FindingKind } from '../../src/rules/finding.ts';

/** An empty build on a body type. */
export const emptyBuild = (bodyType = 'mid-suv'): Build =>
  newBuild('66666666-6666-4666-8666-666666666666', 'Test', 'police', [], bodyType);

export interface At extends PlacementPatch {
  readonly fixture?: string;
  readonly zone: string;
}

/** Puts a lamp on a zone; a perimeter head unless said. */
export function put(
  build: Build,
  id: string,
  { fixture = 'perimeter-head-2', zone, uM = 0, vM = 0, ...more }: At,
): Build {
  return changePlacement(addPlacement(build, { id, fixtureId: fixture, zoneId: zone, uM, vM }), id, more);
}

/** The findings of one kind. */
export const ofKind = (build: Build, kind: FindingKind): Finding[] =>
  checkBuild(build).findings.filter((f) => f.kind === kind);
