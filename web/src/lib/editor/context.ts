import { createContext } from 'svelte';
import type { Editor } from './editor.svelte';

/** The open build's editor, for the components below its frame. */
export const [getEditor, setEditor] = createContext<() => Editor>();
