import type { RulePack } from './rulePack.ts';
import { defaultControls } from './usualControls.ts';
import { defaultSpec } from '../vehicle/spec.ts';
import { EMPTY_BRIEF } from './brief.ts';
import { BUILD_FORMAT, SCHEMA_VERSION, type Build } from './schema.ts';
import type { Service } from '../words/service.ts';

/**
 * An empty build on a body type of usual measures.
 * @throws {RangeError} no such body type
 */
export function newBuild(
  id: string,
  name: string,
  service: Service,
  rulePacks: RulePack[],
  bodyType = 'mid-suv',
): Build {
  return {
    format: BUILD_FORMAT,
    schemaVersion: SCHEMA_VERSION,
    id,
    name,
    service,
    notes: '',
    brief: EMPTY_BRIEF,
    vehicle: defaultSpec(bodyType),
    fixtures: [],
    photometry: [],
    placements: [],
    timing: {
      patterns: [],
      groups: [],
    },
    controls: defaultControls(),
    scene: [],
    approaches: [],
    traffic: 'right',
    workPlaces: [],
    eyes: [],
    finishes: [],
    rulePacks,
    accepted: [],
  };
}
