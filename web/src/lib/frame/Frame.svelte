<script lang="ts">
  import { serviceName } from '@flarik/core/words/service';
  import { Button } from 'carbon-components-svelte';
  import Download from 'carbon-icons-svelte/lib/Download.svelte';
  import Keyboard from 'carbon-icons-svelte/lib/Keyboard.svelte';
  import Redo from 'carbon-icons-svelte/lib/Redo.svelte';
  import Search from 'carbon-icons-svelte/lib/Search.svelte';
  import Undo from 'carbon-icons-svelte/lib/Undo.svelte';
  import { onMount, untrack, type Snippet } from 'svelte';
  import type { SavedBuild } from '$lib/api';
  import { setEditor } from '$lib/editor/context';
  import { Editor } from '$lib/editor/editor.svelte';
  import { keepFocus } from './keepFocus';
  import { findUnsaved, type Unsaved } from '$lib/editor/unsaved';
  import Conflict from './Conflict.svelte';
  import Finder from './Finder.svelte';
  import Keys from './Keys.svelte';
  import PastNotice from './PastNotice.svelte';
  import Refusal from './Refusal.svelte';
  import Rail from './Rail.svelte';
  import Recovered from './Recovered.svelte';
  import Revisions from './Revisions.svelte';
  import SaveState from './SaveState.svelte';
  import SaveTrouble from './SaveTrouble.svelte';
  import { takeEarlyKeys } from './earlyKeys';
  import { onKey } from './shortcuts';
  import StateBar from './StateBar.svelte';
  import TourOffer from './TourOffer.svelte';
  import TopBar from './TopBar.svelte';
  import WithFindings from './WithFindings.svelte';

  let { saved, children }: { saved: SavedBuild; children: Snippet } = $props();

  // The frame is made anew for another build, so its first `saved` is the one.
  // svelte-ignore state_referenced_locally
  const editor = new Editor(saved);
  setEditor(() => editor);

  let keysShown = $state(false);
  let revisionsShown = $state(false);
  let finding = $state(false);
  /** What earlier tabs left unsaved of this build, each offered until it is taken or thrown away. */
  let unsaved = $state.raw<readonly Unsaved[]>([]);

  const dialogs = { keys: () => (keysShown = true), finder: () => (finding = true) };
  onMount(() => {
    for (const event of takeEarlyKeys()) onKey(event, editor, dialogs);
    void findUnsaved(saved).then((found) => (unsaved = found));
    return () => {
      void editor.autosave.flush();
      editor.close();
    };
  });

  // The ring and the findings of what is looked at come first; all states after them.
  $effect(() => {
    const { seen: build, state, ringOptions: options } = editor;
    if (!editor.dragging) void editor.ring.run({ build, state, options });
  });
  $effect(() => {
    const { build, state } = editor;
    if (!editor.dragging) void editor.here.run({ build, state });
  });
  $effect(() => {
    const { build } = editor;
    if (!editor.dragging) void editor.check.run(build);
  });
  $effect(() => {
    const { build, isBefore } = editor;
    if (isBefore && !editor.dragging) void editor.checkBefore.run(build);
  });
  $effect(() => {
    const checked = editor.check.answer;
    if (checked !== null && checked.build === editor.build && !editor.dragging)
      untrack(() => editor.proving.ask(checked));
  });

  async function exportFile(): Promise<void> {
    await editor.autosave.flush();
    const link = document.createElement('a');
    link.href = `/api/v1/builds/${editor.build.id}/file`;
    link.download = '';
    link.click();
  }
</script>

<svelte:head><title>{editor.build.name}: Flarik</title></svelte:head>
<svelte:window
  onkeydown={(event: KeyboardEvent) => onKey(event, editor, dialogs)}
  onbeforeunload={(event: BeforeUnloadEvent) => {
    // What is typed in a field that nobody has left yet is taken.
    if (document.activeElement instanceof HTMLElement) document.activeElement.blur();
    void editor.autosave.flush();
    if (editor.autosave.wouldLose) event.preventDefault();
  }}
  ononline={() => void editor.autosave.flush()}
/>

<div class="frame" {@attach keepFocus}>
  <TopBar>
    <div class="build">
      <h1 title="{editor.build.name} ({serviceName[editor.build.service]})">{editor.build.name}</h1>
      <SaveState onrevisions={() => (revisionsShown = true)} />
    </div>
    <StateBar />
    <span class="gap"></span>
    <div class="tools">
      <Button
        kind="ghost"
        size="small"
        icon={Undo}
        iconDescription={editor.undoLabel === null ? 'Nothing to undo' : `Undo: ${editor.undoLabel}`}
        tooltipPosition="bottom"
        disabled={editor.undoLabel === null || editor.past !== null}
        on:click={() => editor.undo()}
      />
      <Button
        kind="ghost"
        size="small"
        icon={Redo}
        iconDescription={editor.redoLabel === null ? 'Nothing to redo' : `Redo: ${editor.redoLabel}`}
        tooltipPosition="bottom"
        disabled={editor.redoLabel === null || editor.past !== null}
        on:click={() => editor.redo()}
      />
      <Button
        kind="ghost"
        size="small"
        icon={Download}
        iconDescription="Export"
        tooltipPosition="bottom"
        on:click={exportFile}
      />
      <Button
        kind="ghost"
        size="small"
        icon={Search}
        iconDescription="Find (Ctrl+K)"
        tooltipPosition="bottom"
        on:click={() => (finding = true)}
      />
      <Button
        kind="ghost"
        size="small"
        icon={Keyboard}
        iconDescription="Keys and terms (?)"
        tooltipPosition="bottom"
        on:click={() => (keysShown = true)}
      />
    </div>
  </TopBar>
  <SaveTrouble />
  <Recovered bind:unsaved />
  <PastNotice />
  <Refusal />
  <TourOffer />
  <div class="work">
    <Rail />
    <WithFindings>{@render children()}</WithFindings>
  </div>
</div>

<Conflict />
<Revisions bind:open={revisionsShown} />
<Keys bind:open={keysShown} />
<Finder bind:open={finding} />

<style>
  .frame {
    display: flex;
    flex-direction: column;
    height: 100vh;
    overflow: hidden;
  }

  .build {
    display: grid;
    flex: 0 1 auto;
    min-width: 6rem;
    line-height: 16px;
  }

  h1 {
    overflow: hidden;
    font-size: 14px;
    text-overflow: ellipsis;
    white-space: nowrap;
  }

  .tools {
    display: flex;
    flex: none;
  }

  .gap {
    flex: 1;
  }

  .work {
    flex: 1;
    display: flex;
    min-height: 0;
  }
</style>
