<script lang="ts">
  import { textOf } from '$lib/ui/textOf';
  import FilePicker from '$lib/ui/FilePicker.svelte';
  import { parseJson } from '@flarik/core/words/json';
  import { readRulePack } from '@flarik/core/rules/document';
  import type { RulePack } from '@flarik/core/design/rulePack';
  import { invalidate } from '$app/navigation';
  import { Button, InlineNotification } from 'carbon-components-svelte';
  import Add from 'carbon-icons-svelte/lib/Add.svelte';
  import Upload from 'carbon-icons-svelte/lib/Upload.svelte';
  import { choosePack } from '@flarik/core/design/packEdits';
  import { blankPack, ownCopy } from '@flarik/core/rules/packEdits';
  import { importRulePack, shelvePack } from '$lib/client';
  import { getEditor } from '$lib/editor/context';
  import Jurisdictions from '$lib/rules/Jurisdictions.svelte';
  import PackCard from '$lib/rules/PackCard.svelte';
  import TryPack from '$lib/rules/TryPack.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();
  const editor = getEditor()();
  let trouble = $state('');
  let done = $state('');
  let tried = $state.raw<RulePack | null>(null);
  let picker: { open: () => void } | undefined = $state();

  const chosen = $derived(new Set(editor.build.rulePacks.map((p) => p.id)));
  const others = $derived(data.shelf.filter((p) => !chosen.has(p.id)));

  const choose = (pack: RulePack) => editor.edit(`Choose ${pack.name}`, (b) => choosePack(b, pack));

  /** An id that no pack here or on the shelf has. */
  function freshPackId(stem: string): string {
    const taken = new Set([...chosen, ...data.shelf.map((p) => p.id)]);
    const ids = Array.from({ length: taken.size + 1 }, (_, i) => `${stem.slice(0, 54)}-${i + 1}`);
    return ids.find((id) => !taken.has(id)) ?? stem;
  }

  /** The copy stands in the place of what it was copied from, so that nothing is asked twice. */
  const copy = (pack: RulePack) =>
    editor.edit(`Edit a copy of ${pack.name}`, (b) => ({
      ...b,
      rulePacks: b.rulePacks.map((p) =>
        p.id === pack.id ? ownCopy(pack, freshPackId(`${pack.id}-own`)) : p,
      ),
    }));

  async function shelve(pack: RulePack): Promise<void> {
    trouble = '';
    done = '';
    try {
      await shelvePack(pack);
      done = `${pack.name} was added to the library.`;
      await invalidate('flarik:shelf');
    } catch (error) {
      trouble = `${pack.name}: ${error instanceof Error ? error.message : String(error)}`;
    }
  }

  async function takeFile(file: File): Promise<void> {
    trouble = '';
    try {
      const text = await textOf(file, 'rule pack');
      const pack = readRulePack(parseJson(text, 'rule pack'));
      await importRulePack(text);
      choose(pack);
      await invalidate('flarik:shelf');
    } catch (error) {
      trouble = `${file.name}: ${error instanceof Error ? error.message : String(error)}`;
    }
  }
</script>

<div class="step">
  <div class="head">
    <h1>Rules</h1>
    <p class="quiet">Local codes and licensed people take precedence over any pack.</p>
    <FilePicker
      bind:this={picker}
      label="Rule pack file to import"
      accept=".json,application/json"
      ontake={takeFile}
    />
    <Button size="small" kind="tertiary" icon={Upload} on:click={() => picker?.open()}
      >Import a rule pack</Button
    >
    <Button
      size="small"
      kind="tertiary"
      icon={Add}
      on:click={() => choose(blankPack(freshPackId('own'), 'Custom rules'))}>New pack</Button
    >
  </div>
  {#if trouble !== ''}
    <InlineNotification
      kind="error"
      lowContrast
      title="Could not import."
      subtitle={trouble}
      on:close={() => (trouble = '')}
    />
  {/if}
  {#if done !== ''}<p class="done" role="status">{done}</p>{/if}
  {#if editor.build.brief.jurisdictions.length > 1 && editor.build.rulePacks.length > 0}<Jurisdictions />{/if}
  {#each editor.build.rulePacks as pack (pack.id)}
    <PackCard
      {pack}
      oncopy={copy}
      onshelve={(of: RulePack) => void shelve(of)}
      ontry={(of: RulePack) => (tried = of)}
    />
  {:else}
    <p>No rule pack is selected. Add one below or import one.</p>
  {/each}
  {#if others.length > 0}
    <h2>Library</h2>
    <ul>
      {#each others as pack (pack.id)}
        <li>
          <span>{pack.name}</span>
          <span class="quiet">{pack.rules.length === 1 ? '1 rule' : `${pack.rules.length} rules`}</span>
          <Button size="small" kind="ghost" icon={Add} on:click={() => choose(pack)}>Add</Button>
        </li>
      {/each}
    </ul>
  {/if}
</div>
{#if tried !== null}<TryPack pack={tried} onclose={() => (tried = null)} />{/if}

<style>
  .step {
    display: grid;
    align-content: start;
    gap: 0.75rem;
    height: 100%;
    overflow-y: auto;
    padding: 0.75rem 1rem;
  }

  .head {
    display: flex;
    align-items: center;
    gap: 1rem;
  }

  .done {
    color: var(--good);
    font-size: 13px;
  }

  .head p {
    flex: 1;
  }

  li {
    display: flex;
    align-items: center;
    gap: 1rem;
  }
</style>
