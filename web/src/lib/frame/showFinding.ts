import type { Finding } from '@flarik/core/rules/finding';
import { goto } from '$app/navigation';
import { page } from '$app/state';
import type { Editor } from '$lib/editor/editor.svelte';

/** Shows a finding where it can be seen: from Rules, which has no drawing, it goes to the step that mends it. */
export function showFinding(editor: Editor, finding: Finding): void {
  editor.show(finding);
  if (page.url.pathname.endsWith('/rules')) void goto(`/builds/${editor.build.id}/${finding.home}`);
}
