import { expect, test } from 'vitest';
import { equippedBuild } from '../../../test/reference/equipped.ts';
import { controlsFailure } from '../../design/controlEdits.ts';
import { checkWhole } from '../../verification/checkWhole.ts';
import type { Build } from '../../design/schema.ts';
import { CONTROL_TEMPLATES, templateMisfit } from '../controlTemplates.ts';
import { FUNCTION_TEMPLATES } from './functionTemplates.ts';

/** What is grave of a build, by its kind and sentence. */
const graveOf = (build: Build): string[] =>
  checkWhole(build)
    .findings.filter(({ severity }) => severity === 'blocks' || severity === 'warns')
    .map(({ kind, sentence }) => `${kind}: ${sentence}`);

const all = [
  ...FUNCTION_TEMPLATES.map(({ id, applyTemplate: lay, misfit }) => ({ id, lay, misfit })),
  ...CONTROL_TEMPLATES.map((template) => ({
    id: template.id,
    lay: template.applyTemplate,
    misfit: (build: Build) => templateMisfit(template, build),
  })),
];

test.each(['mid-suv', 'pumper'])(
  'nothing that is ready to be laid breaks anything on a new %s with its usual lamps',
  (body) => {
    const build = equippedBuild(body);
    const before = new Set(graveOf(build));
    const fitting = all.filter(({ misfit }) => misfit(build) === null);
    expect(fitting.length).toBeGreaterThan(12);
    for (const { id, lay } of fitting) {
      const laid = lay(build);
      expect(controlsFailure(laid), id).toBeNull();
      expect(
        graveOf(laid).filter((said) => !before.has(said)),
        id,
      ).toEqual([]);
    }
  },
);
