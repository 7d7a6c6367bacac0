<script lang="ts">
  import { TextInput, Button } from 'carbon-components-svelte';
  import { z } from 'zod';
  import { recall, remember } from '$lib/ui/remember';

  /** Who lets a finding stand, and why. */
  let {
    onaccept,
    oncancel,
  }: { onaccept: (word: { reason: string; by: string; on: string }) => void; oncancel: () => void } =
    $props();
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
  <TextInput size="sm" labelText="Why it may stand" maxlength={80} bind:value={reason} />
  <TextInput size="sm" labelText="Accepted by" maxlength={80} bind:value={by} />
  <Button size="small" type="submit" disabled={!ready}>Accept</Button>
  <Button size="small" kind="ghost" on:click={oncancel}>Cancel</Button>
  <p class="quiet">
    It stands until it gets worse or what is asked changes. Accepting it makes nothing safe or lawful.
  </p>
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
</style>
