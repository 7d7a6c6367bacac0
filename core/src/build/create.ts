import { midSuvDefaults } from '../vehicle/midSuv/points.ts';
import type { RulePack } from '../rules/pack.ts';
import { BUILD_FORMAT, SCHEMA_VERSION, type Build, type Stage } from './schema.ts';
import type { Service } from './service.ts';

const stage = (name: string): Stage => ({ name, cues: [], nightLevel: 1 });

/** An empty build on the mid SUV. */
export function newBuild(id: string, name: string, service: Service, rulePacks: RulePack[]): Build {
  return {
    format: BUILD_FORMAT,
    schemaVersion: SCHEMA_VERSION,
    id,
    name,
    service,
    notes: '',
    vehicle: { bodyType: 'mid-suv', dimensions: midSuvDefaults },
    placements: [],
    timing: {
      groups: [],
      stages: [stage('Off'), stage('Stage 1'), stage('Stage 2'), stage('Stage 3')],
    },
    rulePacks,
  };
}
