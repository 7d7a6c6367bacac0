import { documentOf } from '$lib/server/document';
import { buildSchema } from '$lib/server/openapi';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = documentOf(buildSchema);
