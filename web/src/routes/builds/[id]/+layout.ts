import { ApiError, loadBuild } from '$lib/client';
import { error } from '@sveltejs/kit';
import type { LayoutLoad } from './$types';

/** The editor lives in the browser: workers, pointer, drawing. */
export const ssr = false;

export const load: LayoutLoad = async ({ params, fetch }) => {
  try {
    return { saved: await loadBuild(params.id, fetch) };
  } catch (cause) {
    if (cause instanceof ApiError) error(cause.status === 0 ? 503 : cause.status, cause.message);
    throw cause;
  }
};
