import type { Build } from '@flarik/core/design/schema';
import { VehicleSpec } from '@flarik/core/vehicle/spec';
import { InputError, parseInput } from '@flarik/core/words/errors';
import type { Editor } from '$lib/editor/editor.svelte';

/** Makes a change of the vehicle unless it leaves something that cannot be. @returns what is wrong; empty when done */
export function tryEdit(editor: Editor, label: string, change: (build: Build) => Build): string {
  try {
    parseInput(VehicleSpec, change(editor.build).vehicle);
  } catch (error) {
    if (error instanceof InputError) return error.message;
    throw error;
  }
  editor.edit(label, change);
  return '';
}
