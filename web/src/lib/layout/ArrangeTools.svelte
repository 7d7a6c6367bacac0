<script lang="ts">
  import type { Placement } from '@flarik/core/design/placement';
  import { alignHeights, arrayAlong, roomFor, spaceEvenly } from '@flarik/core/arrange/align';
  import { Button } from 'carbon-components-svelte';
  import { getEditor } from '$lib/editor/context';
  import { nameOf } from '$lib/editor/names';
  import { freshId } from '$lib/editor/freshId';

  /** Puts lamps in order: many to one height or evenly spaced, one repeated along its zone. */
  let { placements }: { placements: readonly Placement[] } = $props();
  const editor = getEditor()();
  let count = $state(3);

  const ids = $derived(placements.map((p) => p.id));
  /** One lamp, or a pair: what can be repeated along its zone. */
  const only = $derived.by(() => {
    const [first, second, third] = placements;
    if (first === undefined || third !== undefined) return undefined;
    const pair = first.partnerId !== null && first.partnerId === second?.id;
    const alone = second === undefined && first.partnerId === null;
    return pair || alone ? first : undefined;
  });
  const room = $derived(only === undefined ? 1 : roomFor(editor.build, only));
  const wanted = $derived(Math.min(Math.max(2, Math.round(count) || 2), room));

  function repeat(lamp: Placement): void {
    const fresh = () => Array.from({ length: wanted - 1 }, () => freshId());
    const [copies, partners] = [fresh(), fresh()];
    editor.edit(`Repeat ${lamp.label}`, (b) => arrayAlong(b, lamp.id, copies, partners));
    const { partnerId } = lamp;
    editor.select([lamp.id, ...copies, ...(partnerId === null ? [] : [partnerId, ...partners])]);
  }
</script>

{#if only !== undefined && room > 1}
  <div class="repeat">
    <label>
      Along its zone
      <input type="number" min="2" max={room} bind:value={count} aria-label="Number along the zone" />
    </label>
    <Button size="small" kind="ghost" on:click={() => repeat(only)}>Repeat to {wanted}</Button>
  </div>
{/if}
{#if placements.length > 1}
  <div class="many">
    <Button
      size="small"
      kind="ghost"
      on:click={() =>
        editor.edit(`Same height for ${nameOf(editor.build, ids)}`, (b) => alignHeights(b, ids))}
      >Same height</Button
    >
    <Button
      size="small"
      kind="ghost"
      disabled={placements.length < 3}
      on:click={() => editor.edit(`Space ${nameOf(editor.build, ids)}`, (b) => spaceEvenly(b, ids))}
      >Equal spacing</Button
    >
  </div>
{/if}

<style>
  .repeat,
  .many {
    display: flex;
    align-items: center;
    justify-content: space-between;
  }

  label {
    font-size: 12px;
    color: var(--cds-text-02);
  }

  input {
    width: 3.2rem;
    height: 28px;
  }
</style>
