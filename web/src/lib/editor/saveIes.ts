import { activeFunctionNames } from '@flarik/core/design/controls';
import { iesOfState } from '@flarik/core/coverage/iesOfState';
import { download } from '$lib/download';
import type { Editor } from './editor.svelte';

/** Hands out the light of the vehicle, or of one lamp on it, in the state being looked at, as an IES file. */
export function saveIes(editor: Editor, lampId: string | null): void {
  const { state, isBefore } = editor;
  // One lamp is the one that stands in the build; the vehicle is what is looked at.
  const build = lampId === null ? editor.seen : editor.build;
  const lamp = build.placements.find((p) => p.id === lampId);
  const name = lamp === undefined ? build.name : `${build.name}, ${lamp.label}`;
  const when = lampId === null && isBefore ? ', before the work' : '';
  download(
    `${name}${when}, ${activeFunctionNames(build, state.on)}.ies`,
    iesOfState(build, state, lampId),
    'text/plain',
  );
}
