import { documentOf } from '$lib/server/document';
import { openApi } from '$lib/server/openapi';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = documentOf(openApi);
