import { RulePack } from '@flarik/core/design/rulePack';
import { Build } from '@flarik/core/design/schema';
import {
  BuildPatch,
  BuildPicture,
  BuildSummary,
  Created,
  NewBuildRequest,
  PackVersion,
  Problem,
  Revision,
  RevisionPatch,
  SaveAnswer,
  SavedBuild,
  SaveRequest,
} from '$lib/api';
import { z } from 'zod';

const schemas = {
  Build,
  BuildPatch,
  BuildPicture,
  BuildSummary,
  Created,
  NewBuildRequest,
  PackVersion,
  Problem,
  Revision,
  RevisionPatch,
  RulePack,
  SaveAnswer,
  SavedBuild,
  SaveRequest,
} as const;
type SchemaName = keyof typeof schemas;

const ref = (name: SchemaName) => ({ $ref: `#/components/schemas/${name}` });
const content = (schema: object) => ({ 'application/json': { schema } });
const ok = (description: string, schema: object) => ({ description, content: content(schema) });
const body = (name: SchemaName) => ({ required: true, content: content(ref(name)) });
const failed = {
  default: {
    description: 'Problem details',
    content: { 'application/problem+json': { schema: ref('Problem') } },
  },
};
const version = { name: 'version', in: 'path', required: true, schema: { type: 'integer', minimum: 1 } };
const id = { name: 'id', in: 'path', required: true, schema: { type: 'string', format: 'uuid' } };

/** The published JSON Schema of the build file. */
export const buildSchema = () => z.toJSONSchema(Build, { io: 'input' });

/** The OpenAPI document of the JSON routes, made from the same schemas that parse them. */
export const openApi = () => ({
  openapi: '3.1.0',
  info: { title: 'Flarik', version: '1', description: 'Builds and rule packs of warning-light designs.' },
  paths: {
    '/api/v1/builds': {
      get: {
        summary: 'All builds',
        responses: { 200: ok('Builds', { type: 'array', items: ref('BuildSummary') }), ...failed },
      },
      post: {
        summary: 'A new, empty build',
        requestBody: body('NewBuildRequest'),
        responses: { 201: ok('Made', ref('Created')), ...failed },
      },
    },
    '/api/v1/builds/import': {
      post: {
        summary: 'Takes a build file in',
        requestBody: body('Build'),
        responses: { 201: ok('Made', ref('Created')), ...failed },
      },
    },
    '/api/v1/builds/{id}': {
      parameters: [id],
      get: {
        summary: 'A build as last saved',
        responses: { 200: ok('The build', ref('SavedBuild')), ...failed },
      },
      put: {
        summary: 'Saves a build; 409 when it was based on an older version',
        requestBody: body('SaveRequest'),
        responses: { 200: ok('Saved', ref('SaveAnswer')), ...failed },
      },
      patch: {
        summary: 'Puts a build away, or brings it back',
        requestBody: body('BuildPatch'),
        responses: { 204: { description: 'Done' }, ...failed },
      },
      delete: { summary: 'Deletes a build', responses: { 204: { description: 'Deleted' }, ...failed } },
    },
    '/api/v1/builds/{id}/file': {
      parameters: [id],
      get: {
        summary: 'The build as a file',
        responses: { 200: ok('The build file', ref('Build')), ...failed },
      },
    },
    '/api/v1/builds/{id}/picture': {
      parameters: [id, { name: 'key', in: 'query', required: false, schema: { type: 'string' } }],
      get: {
        summary:
          'Preview: the left side with its lamps. Null if there is none. Cacheable if key is the pictureKey of the summary',
        responses: { 200: ok('The preview', { anyOf: [ref('BuildPicture'), { type: 'null' }] }), ...failed },
      },
    },
    '/api/v1/builds/{id}/revisions': {
      parameters: [id],
      get: {
        summary: 'The revisions of a build, the newest first',
        responses: { 200: ok('Revisions', { type: 'array', items: ref('Revision') }), ...failed },
      },
    },
    '/api/v1/builds/{id}/revisions/{version}': {
      parameters: [id, version],
      get: {
        summary: 'A build as it was saved once',
        responses: { 200: ok('The build', ref('SavedBuild')), ...failed },
      },
      patch: {
        summary: 'Names a revision, which is then kept permanently',
        requestBody: body('RevisionPatch'),
        responses: { 204: { description: 'Done' }, ...failed },
      },
    },
    '/api/v1/rule-packs': {
      get: {
        summary: 'The rule library',
        responses: { 200: ok('Packs', { type: 'array', items: ref('RulePack') }), ...failed },
      },
      post: {
        summary: 'Adds a rule pack to the library',
        requestBody: body('RulePack'),
        responses: { 201: ok('Stored', ref('Created')), ...failed },
      },
    },
    '/api/v1/rule-packs/{id}/versions': {
      parameters: [{ name: 'id', in: 'path', required: true, schema: { type: 'string' } }],
      get: {
        summary: 'Every library version of a pack, newest first',
        responses: { 200: ok('Versions', { type: 'array', items: ref('PackVersion') }), ...failed },
      },
    },
  },
  components: {
    schemas: Object.fromEntries(
      Object.entries(schemas).map(([name, schema]) => [name, z.toJSONSchema(schema, { io: 'input' })]),
    ),
  },
});
