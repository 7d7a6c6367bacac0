import type { RulePack } from './rulePack.ts';
import type { Stage } from './timing.ts';
import { usualSpec } from '../vehicle/spec.ts';
import { EMPTY_BRIEF } from './brief.ts';
import { BUILD_FORMAT, SCHEMA_VERSION, type Build } from './schema.ts';
import type { Service } from '../words/service.ts';

const stage = (name: string): Stage => ({ name, cues: [], nightLevel: 1 });

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
    vehicle: usualSpec(bodyType),
    fixtures: [],
    photometry: [],
    placements: [],
    timing: {
      patterns: [],
      groups: [],
      stages: [stage('Off'), stage('Stage 1'), stage('Stage 2'), stage('Stage 3')],
    },
    scene: [],
    rulePacks,
  };
}
