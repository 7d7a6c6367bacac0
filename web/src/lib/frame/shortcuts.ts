import { changeFrom } from '@flarik/core/timing/changes';
import type { Editor } from '$lib/editor/editor.svelte';

/** Fields and buttons use these keys themselves. */
const TYPES_IN = 'input:not([type=range],[type=checkbox]), textarea, select, [contenteditable]';
const PRESSED_BY_SPACE = 'button, a, [role=button], input, select, textarea';

/** A key that was pressed, and what it may work on. */
interface Pressed {
  /** As printed on the key, letters small. */
  readonly key: string;
  /** With Ctrl, or its like on other keyboards. */
  readonly ctrl: boolean;
  readonly shift: boolean;
  readonly target: Element | null;
  readonly editor: Editor;
  readonly dialogs: { readonly keys: () => void; readonly finder: () => void };
}

/** What a press does; null when it is another key's. */
type KeyHandler = (pressed: Pressed) => (() => void) | null;

/** A key or several, what they do, and how; without that whatever has the focus does it itself. */
interface Shortcut {
  readonly keys: string;
  readonly does: string;
  readonly on?: KeyHandler;
  /** It works in a field too. */
  readonly inFields?: true;
}

const ctrl =
  (key: string, run: (pressed: Pressed) => void): KeyHandler =>
  (pressed) =>
    pressed.ctrl && pressed.key === key ? () => run(pressed) : null;

const plain =
  (key: string, run: (pressed: Pressed) => void): KeyHandler =>
  (pressed) =>
    !pressed.ctrl && pressed.key === key ? () => run(pressed) : null;

/** Every key of a build's steps, as the list of keys shows them. */
export const SHORTCUTS: readonly Shortcut[] = [
  {
    keys: '0 1 2 3',
    does: 'Off and the three stages; in the 3D view, 1 to 8 select a position',
    on: ({ key, ctrl: withCtrl, editor }) => {
      if (withCtrl) return null;
      const { walk } = editor;
      if (walk !== null && /^[1-8]$/.test(key)) return () => walk(Number(key));
      const stage = /^\d$/.test(key) ? editor.stages[Number(key)] : undefined;
      return stage === undefined ? null : () => editor.lookAtFunction(stage.id);
    },
  },
  {
    keys: 'D',
    does: 'Day or night',
    on: plain('d', ({ editor }) => editor.setAmbient(editor.state.ambient === 'day' ? 'night' : 'day')),
  },
  {
    keys: 'H',
    does: 'Hatch, tailgate or rear doors: open, pinned, closed',
    on: plain('h', ({ editor }) => openRear(editor)),
  },
  {
    keys: 'Space',
    does: 'Play the preview; Space or Esc stops it',
    on: ({ key, ctrl: withCtrl, target, editor: { preview } }) => {
      if (withCtrl || key !== ' ') return null;
      if (preview.playing) return () => stopPreview(preview);
      return target?.matches(PRESSED_BY_SPACE) === true || !preview.noticeRead ? null : () => preview.play();
    },
  },
  { keys: 'Tab', does: 'Next lamp on the drawing' },
  { keys: 'Enter', does: 'Select the lamp; Shift adds it to the selection' },
  {
    keys: 'Ctrl+A',
    does: 'Select all lamps',
    on: ctrl('a', ({ editor }) => editor.select(editor.build.placements.map((p) => p.id))),
  },
  {
    keys: 'Arrow keys',
    does: 'In the catalogue, to the next fixture; on a lamp, nudge it by 5 mm, with Shift 25 mm',
  },
  { keys: '[ ]', does: 'Turn a lamp by 5° to its left or right' },
  {
    keys: 'On a line of the timeline',
    does: 'Enter adds a bar, Ctrl+C and Ctrl+V copy and paste the line',
  },
  {
    keys: 'On a bar of the timeline',
    does: 'Arrow keys move it by 10 ms, with Shift its end, with Alt by 1 ms; S splits it',
  },
  {
    keys: ', .',
    does: 'Previous or next change of light',
    on: ({ key, ctrl: withCtrl, editor: { preview, drives } }) =>
      withCtrl || (key !== ',' && key !== '.')
        ? null
        : () => {
            preview.stop();
            preview.scrub(changeFrom(drives, preview.timeMs, key === '.' ? 1 : -1));
          },
  },
  { keys: 'Delete', does: 'Delete the lamp or the selection' },
  {
    keys: 'Esc',
    does: 'Stop the preview; deselect the fixture',
    inFields: true,
    on: plain('Escape', ({ editor }) => {
      if (editor.preview.playing) stopPreview(editor.preview);
      else if (editor.carry !== null) editor.carry = null;
    }),
  },
  {
    keys: 'Ctrl+Z, Ctrl+Shift+Z',
    does: 'Undo, redo; Ctrl+Y too',
    on: (pressed) => {
      const { key, ctrl: withCtrl, shift, editor } = pressed;
      if (!withCtrl || (key !== 'z' && key !== 'y')) return null;
      return key === 'y' || shift ? () => editor.redo() : () => editor.undo();
    },
  },
  {
    keys: 'Ctrl+K',
    does: 'Find a command, lamp, zone or finding',
    inFields: true,
    on: ctrl('k', ({ dialogs }) => dialogs.finder()),
  },
  { keys: '?', does: 'Keys, terms and tour', on: plain('?', ({ dialogs }) => dialogs.keys()) },
];

/** Does what a pressed key stands for in every step of a build. */
export function onKey(event: KeyboardEvent, editor: Editor, dialogs: Pressed['dialogs']): void {
  const target = event.target instanceof Element ? event.target : null;
  const { key } = event;
  const pressed: Pressed = {
    key: key.length === 1 ? key.toLowerCase() : key,
    ctrl: event.ctrlKey || event.metaKey,
    shift: event.shiftKey,
    target,
    editor,
    dialogs,
  };
  // A dialog has its own keys; only Escape still stops what flashes behind it.
  if (target !== null && target.closest('[role=dialog]') !== null && key !== 'Escape') return;
  const typing = target?.matches(TYPES_IN) === true;
  for (const { on, inFields } of SHORTCUTS) {
    const run = typing && inFields !== true ? null : (on?.(pressed) ?? null);
    if (run === null) continue;
    if (key !== 'Escape') event.preventDefault();
    run();
    return;
  }
}

function stopPreview(preview: Editor['preview']): void {
  preview.stop();
  preview.scrub(0);
}

/** Hatch, tailgate, lift or rear doors: whatever opens at the back first. */
function openRear(editor: Editor): void {
  const { parts } = editor.vehicle;
  const rear =
    parts.find((p) => p.kind === 'hatch' || p.kind === 'tailgate' || p.kind === 'lift') ??
    parts.find((p) => p.kind === 'door' && p.id.startsWith('barn'));
  if (rear !== undefined) editor.moveOn(rear.id);
}
