import { expect, test } from 'vitest';
import type { BuildSummary } from '$lib/api';
import { listed, type Wanted } from './listed';

const build = (name: string, more: Partial<BuildSummary> = {}): BuildSummary => ({
  id: name,
  name,
  service: 'police',
  bodyType: 'mid-suv',
  jurisdictions: ['Kestrel Sound'],
  version: 1,
  findings: { blocks: 0, warns: 0, advises: 0, notes: 0 },
  counting: false,
  pictureKey: null,
  archived: false,
  updatedAt: '2026-11-01T00:00:00.000Z',
  ...more,
});
const all: Wanted = { words: '', service: '', archived: false, sort: 'name' };
const builds = [
  build('Unit 10', { updatedAt: '2026-11-03T00:00:00.000Z', findings: null }),
  build('Unit 9', { service: 'fire', findings: { blocks: 1, warns: 0, advises: 0, notes: 0 } }),
  build('Unit 11', { jurisdictions: ['Dunmarrow'], findings: { blocks: 0, warns: 5, advises: 9, notes: 9 } }),
  build('Old unit', { archived: true }),
];
const names = (wanted: Partial<Wanted>): string[] =>
  listed(builds, { ...all, ...wanted }, (service) => (service === 'fire' ? 'Fire crews' : service)).map(
    (b) => b.name,
  );

test('sorted by name as people count, by the last save, by the gravest findings', () => {
  expect(names({})).toEqual(['Unit 9', 'Unit 10', 'Unit 11']);
  expect(names({ sort: 'saved' })).toEqual(['Unit 10', 'Unit 9', 'Unit 11']);
  expect(names({ sort: 'findings' })).toEqual(['Unit 9', 'Unit 11', 'Unit 10']);
});

test('found by any word of name, service or jurisdiction; by service; what was put away apart', () => {
  expect(names({ words: 'dunm  UNIT' })).toEqual(['Unit 11']);
  expect(names({ words: 'crews' })).toEqual(['Unit 9']);
  expect(names({ words: 'kestrel 11' })).toEqual([]);
  expect(names({ service: 'fire' })).toEqual(['Unit 9']);
  expect(names({ archived: true })).toEqual(['Old unit']);
});
