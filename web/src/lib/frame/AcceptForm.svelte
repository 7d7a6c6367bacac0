<script lang="ts">
  import { TextInput, Button } from 'carbon-components-svelte';
  import { z } from 'zod';
  import type { Finding } from '@flarik/core/rules/finding';
  import { stateText } from '@flarik/core/rules/findingsTable';
  import { getEditor } from '$lib/editor/context';
  import { recall, remember } from '$lib/ui/remember';

  /** Who accepts findings of one cause, and why; all of them are listed before. */
  let {
    findings,
    onaccept,
    oncancel,
  }: {
    findings: readonly Finding[];
    onaccept: (word: { reason: string; by: string; on: string }) => void;
    oncancel: () => void;
  } = $props();
  const editor = getEditor()();
  const KEY = 'flarik-accepts-as';
  let reason = $state('');
  let by = $state(recall(KEY, z.string(), ''));
  const plain = (text: string): string => text.replaceAll(/[<>\p{Control}]/gu, '').trim();
  const ready = $derived(plain(reason) !== '' && plain(by) !== '');

  function submit(event: SubmitEvent): void {
    event.preventDefault();
    if (!ready) return;
    remember(KEY, plain(by));
    onaccept({ reason: plain(reason), by: plain(by), on: new Date().toISOString().slice(0, 10) });
  }
</script>

<form onsubmit={submit}>
  <TextInput size="sm" labelText="Justification" maxlength={80} bind:value={reason} />
  <TextInput size="sm" labelText="Accepted by" maxlength={80} bind:value={by} />
  <Button size="small" type="submit" disabled={!ready}>Accept</Button>
  <Button size="small" kind="ghost" on:click={oncancel}>Cancel</Button>
  <p class="quiet">
    The acceptance ends when a figure gets worse or a limit changes. It makes nothing safe or lawful.
  </p>
  {#if findings.length > 1}
    <div class="accepts">
      <p class="quiet">You accept {findings.length} findings:</p>
      <ol>
        {#each findings as finding (finding.id)}
          <li>
            {finding.sentence}
            <span class="quiet">{stateText(editor.build, finding)} · {finding.packName}</span>
          </li>
        {/each}
      </ol>
    </div>
  {/if}
</form>

<style>
  form {
    grid-column: 2 / -1;
    display: grid;
    grid-template-columns: minmax(12rem, 2fr) minmax(9rem, 1fr) auto auto;
    gap: 0.4rem 0.6rem;
    align-items: end;
    padding: 0.4rem 0;
  }

  p {
    grid-column: 1 / -1;
    font-size: 12px;
  }

  .accepts {
    grid-column: 1 / -1;
    max-height: 9rem;
    overflow-y: auto;
    font-size: 12px;
  }

  ol {
    padding-left: 1.5rem;
    list-style: decimal;
  }
</style>
