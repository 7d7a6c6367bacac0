import { RulePack } from '@flarik/core/design/rulePack';
import { error } from '@sveltejs/kit';
import { z } from 'zod';
import type { PageLoad } from './$types';

export const load: PageLoad = async ({ fetch, depends }) => {
  depends('flarik:shelf');
  const answer = await fetch('/api/v1/rule-packs').catch(() => null);
  if (answer?.ok !== true) error(503, 'The rule library cannot be reached.');
  return { shelf: z.array(RulePack).parse(await answer.json()) };
};
