import { changeFrom } from '@flarik/core/timing/changes';
import type { Editor } from '$lib/editor/editor.svelte';

/** Fields and buttons use these keys themselves. */
const TYPES_IN = 'input:not([type=range],[type=checkbox]), textarea, select, [contenteditable]';
const PRESSED_BY_SPACE = 'button, a, [role=button], input, select, textarea';

/** Hatch, tailgate, lift or rear doors: whatever opens at the back first. */
function openRear(editor: Editor): void {
  const { parts } = editor.vehicle;
  const rear =
    parts.find((p) => p.kind === 'hatch' || p.kind === 'tailgate' || p.kind === 'lift') ??
    parts.find((p) => p.kind === 'door' && p.id.startsWith('barn'));
  if (rear !== undefined) editor.moveOn(rear.id);
}

/** The keys that work in every step of a build. */
export function onKey(
  event: KeyboardEvent,
  editor: Editor,
  dialogs: { readonly keys: () => void; readonly finder: () => void },
): void {
  const target = event.target instanceof Element ? event.target : null;
  const { preview } = editor;
  if (event.key === 'Escape') {
    if (preview.playing) {
      preview.stop();
      preview.scrub(0);
    } else if (editor.carry !== null) editor.carry = null;
    return;
  }
  if (target?.closest('[role=dialog]') !== null && target !== null) return;
  if (event.ctrlKey || event.metaKey) {
    const key = event.key.toLowerCase();
    if (key === 'k') {
      event.preventDefault();
      dialogs.finder();
    } else if (target?.matches(TYPES_IN) === true) return;
    else if (key === 'z') {
      event.preventDefault();
      if (event.shiftKey) editor.redo();
      else editor.undo();
    } else if (key === 'a') {
      event.preventDefault();
      editor.select(editor.build.placements.map((p) => p.id));
    } else if (key === 'y') {
      event.preventDefault();
      editor.redo();
    }
    return;
  }
  if (target?.matches(TYPES_IN) === true) return;
  if (editor.walk !== null && /^[1-8]$/.test(event.key)) {
    editor.walk(Number(event.key));
    return;
  }
  const stage = editor.stages.find((s) => String(s) === event.key);
  if (stage !== undefined) editor.setState({ stage });
  else if (event.key === ',' || event.key === '.') {
    preview.stop();
    preview.scrub(changeFrom(editor.drives, preview.timeMs, event.key === '.' ? 1 : -1));
  } else if (event.key === '?') dialogs.keys();
  else if (event.key === 'd') editor.setState({ ambient: editor.state.ambient === 'day' ? 'night' : 'day' });
  else if (event.key === 'h') openRear(editor);
  else if (event.key === ' ' && preview.playing) {
    event.preventDefault();
    preview.stop();
    preview.scrub(0);
  } else if (event.key === ' ' && target?.matches(PRESSED_BY_SPACE) !== true && preview.noticeRead) {
    event.preventDefault();
    preview.play();
  }
}
