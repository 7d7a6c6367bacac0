import type { Build } from '../design/schema.ts';
import type { Colour } from '../words/colour.ts';
import type { Face } from '../words/face.ts';
import { colour } from './kinds/colour.ts';
import { whiteRear } from './kinds/whiteRear.ts';
import { applicableRules } from './registry.ts';

/**
 * Whether the packs of a build let flashing light of a colour be shown to a face, whatever is on: rules about steady light, or
 * under a condition, leave it open.
 */
export function permittedColours(build: Build): (face: Face, colour: Colour) => boolean {
  const rules = applicableRules(build).filter(({ rule }) => rule.when === null);
  const forbidding = rules.flatMap(({ rule }) => colour.schema.safeParse(rule).data ?? []);
  const noWhiteRear = rules.some(({ rule }) => whiteRear.schema.safeParse(rule).success);
  return (face, shown) => {
    if (noWhiteRear && face === 'rear' && shown === 'white') return false;
    return forbidding.every(
      ({ faces, colours, verdict, light }) =>
        light === 'steady' || !faces.includes(face) || colours.includes(shown) === (verdict === 'only'),
    );
  };
}
