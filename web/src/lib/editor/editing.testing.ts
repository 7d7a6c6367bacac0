import { afterEach, beforeEach, vi } from 'vitest';
import { demoBuild } from '@flarik/core/test/reference/demo';
import { Editor } from './editor.svelte';

/** A worker that never answers: what is worked out there is not looked at here. */
class Silent extends EventTarget {
  postMessage = (): void => undefined;
  terminate = (): void => undefined;
}

export const OPENED = { build: demoBuild('ks-12'), version: 3, savedAt: '2026-01-01T00:00:00.000Z' };

/** A new editor for each test of a file, without workers, and with time that stands still. */
export function editing(): { readonly editor: Editor } {
  let editor: Editor | null = null;
  beforeEach(() => {
    vi.useFakeTimers();
    vi.stubGlobal('Worker', Silent);
    vi.stubGlobal('requestAnimationFrame', () => 0);
    vi.stubGlobal('cancelAnimationFrame', () => undefined);
    editor = new Editor(OPENED);
  });
  afterEach(() => {
    editor?.close();
    vi.useRealTimers();
    vi.unstubAllGlobals();
  });
  return {
    get editor() {
      if (editor === null) throw new Error('there is an editor during a test alone');
      return editor;
    },
  };
}
