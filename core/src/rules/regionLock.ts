import {
  during,
  first,
  is,
  applyTemplate,
  ofSet,
  there,
  type FunctionTemplate,
} from '../arrange/templates/kit.ts';
import { putSet } from '../design/controlEdits.ts';
import { inColour } from '../arrange/lampSets.ts';
import { ruledSet } from '../design/lampSets.ts';
import { candidatesOf } from '../resolve/candidates.ts';
import { membersOfSet } from '../resolve/setMembers.ts';
import { fieldsOf } from '../coverage/lampFields.ts';
import { FACE_BEARINGS } from '../coverage/sectors.ts';
import { darkCue, newFunction, type Cue } from '../design/functions.ts';
import { REGION } from '../design/inputs.ts';
import type { Build, ModuleRef } from '../design/schema.ts';
import { lookupOf } from '../resolve/lookup.ts';
import { COLOURS, type Colour } from '../words/colour.ts';
import type { Face } from '../words/face.ts';
import { colour } from './kinds/colour.ts';
import { holdsIn, appliesToService } from './registry.ts';
import { LEVEL_DEG } from './situation.ts';

const REGION_LOCK = 'region-lock';
const lockId = (place: number): string => `${REGION_LOCK}-${place + 1}`;

/** A colour that a pack forbids to a side, above an intensity. */
interface Forbidden {
  readonly colour: Colour;
  readonly face: Face;
  readonly aboveCd: number;
  readonly warningOnly: boolean;
}

/** The colours that rules which block forbid in a jurisdiction, steady light alone left out. */
function forbiddenIn(build: Build, jurisdiction: string): Forbidden[] {
  return build.rulePacks
    .filter((pack) => holdsIn(pack, jurisdiction))
    .flatMap((pack) =>
      pack.rules.filter((rule) => rule.severity === 'blocks' && appliesToService(rule, build)),
    )
    .flatMap((data) => {
      const rule = colour.of(data);
      if (rule === null || rule.light === 'steady') return [];
      const colours = COLOURS.filter((c) => rule.colours.includes(c) === (rule.verdict === 'never'));
      return colours.flatMap((c) =>
        rule.faces.map((face) => ({
          colour: c,
          face,
          aboveCd: rule.aboveCd,
          warningOnly: rule.lamps === 'warning',
        })),
      );
    });
}

/** By colour the modules to be kept dark in a jurisdiction: what the others send together stays within the limit. */
function locked(build: Build, jurisdiction: string): Map<Colour, readonly ModuleRef[]> {
  const lookup = lookupOf(build);
  const fields = fieldsOf(build);
  const placements = new Map(build.placements.map((p) => [p.id, p]));
  const modules = candidatesOf(build).flatMap(({ placementId, moduleId, use }) => {
    const placement = placements.get(placementId);
    const setup = placement?.modules.find(({ id }) => id === moduleId);
    if (placement === undefined || setup === undefined) return [];
    const share = fields.most(placement, LEVEL_DEG).get(moduleId);
    const outputs = lookup.outputs(lookup.fixture(placement.fixtureId), setup);
    const warns = use !== 'light';
    return [{ ref: { placementId, moduleId }, warns, setup, share, outputs }];
  });
  const out = new Map<Colour, Set<ModuleRef>>();
  for (const { colour: c, face, aboveCd, warningOnly } of forbiddenIn(build, jurisdiction)) {
    const having = modules.filter((m) => m.setup.colours.includes(c) && (m.warns || !warningOnly));
    const mostCd = ({ share, outputs }: (typeof modules)[number]): number =>
      (outputs[c]?.peakCd ?? 0) * Math.max(...FACE_BEARINGS[face].map((bearing) => share?.[bearing] ?? 0));
    const mine = having.filter((m) => mostCd(m) > aboveCd / having.length);
    if (mine.length > 0) out.set(c, new Set([...(out.get(c) ?? []), ...mine.map(({ ref }) => ref)]));
  }
  return new Map([...out].map(([c, refs]) => [c, [...refs]]));
}

const keyOf = ({ placementId, moduleId }: ModuleRef): string => `${placementId}/${moduleId}`;

/** The function that keeps dark in a jurisdiction what is forbidden there; the build itself where nothing is. */
function laidFor(b: Build, jurisdiction: string, place: number): Build {
  let build = b;
  const cues: Cue[] = [];
  for (const [c, modules] of locked(b, jurisdiction)) {
    const id = `no-${c}-${place + 1}`;
    // Lamps placed later are kept dark, too, until somebody has seen that they need not be.
    const keys = new Set(modules.map(keyOf));
    const set = ruledSet(id, `No ${c} in ${jurisdiction}`.slice(0, 80), [inColour(c)]);
    const without = membersOfSet(b, set).filter((m) => !keys.has(keyOf(m)));
    build = putSet(build, { ...set, without });
    cues.push(darkCue(ofSet(id), [c]));
  }
  if (cues.length === 0) return b;
  return applyTemplate(
    build,
    newFunction(
      lockId(place),
      `Lock for ${jurisdiction}`.slice(0, 80),
      'cut',
      during(is(REGION, jurisdiction)),
      cues,
    ),
  );
}

/** Colours that a jurisdiction of the brief forbids stay dark there, as the packs of the build say that hold there. */
export const regionLock: FunctionTemplate = {
  id: REGION_LOCK,
  name: 'Lock by region',
  what: 'In each jurisdiction of the brief the colours stay dark, head by head, that its packs forbid to that side.',
  misfit: (build) => {
    const { jurisdictions } = build.brief;
    if (jurisdictions.length < 2) return 'the brief names fewer than two jurisdictions';
    return first(
      ...jurisdictions.map((_, place) => there(build, lockId(place))),
      jurisdictions.every((name) => locked(build, name).size === 0)
        ? 'no lamp shows a colour that any of them forbids'
        : null,
    );
  },
  applyTemplate: (build) =>
    build.brief.jurisdictions.reduce((b, name, place) => laidFor(b, name, place), build),
};
