<script lang="ts">
  import type { RulePack } from '@flarik/core/design/rulePack';
  import { withHead } from '@flarik/core/rules/packEdits';
  import { InputError } from '@flarik/core/words/errors';
  import { TextArea, TextInput } from 'carbon-components-svelte';
  import { getEditor } from '$lib/editor/context';
  import TypedNumber from '$lib/ui/TypedNumber.svelte';
  import TickBoxes from '$lib/ui/TickBoxes.svelte';

  /** Where a pack comes from, what it is for, and who checked it. */
  let {
    pack,
    onchange,
  }: { pack: RulePack; onchange: (label: string, pack: RulePack, merge?: string) => void } = $props();
  const editor = getEditor()();
  const own = $derived(pack.status === 'own');
  let refused = $state('');

  const places = $derived([...new Set([...editor.build.brief.jurisdictions, ...pack.jurisdictions])]);

  function set<K extends keyof RulePack>(field: K, value: RulePack[K], label: string): void {
    try {
      const changed = withHead(pack, { [field]: value });
      refused = '';
      onchange(label, changed, `pack ${pack.id} ${field}`);
    } catch (error) {
      if (!(error instanceof InputError)) throw error;
      refused = error.message;
    }
  }
</script>

<div class="fields">
  {#if own}
    <TextInput
      size="sm"
      labelText="Name of the pack"
      maxlength={80}
      value={pack.name}
      on:change={(event) => set('name', String(event.detail ?? ''), 'Name the pack')}
    />
    <TextInput
      size="sm"
      labelText="Source"
      maxlength={80}
      value={pack.source}
      on:change={(event) => set('source', String(event.detail ?? ''), 'Source of the pack')}
    />
    <TextInput
      size="sm"
      labelText="Edition"
      maxlength={80}
      value={pack.edition}
      on:change={(event) => set('edition', String(event.detail ?? ''), 'Edition of the pack')}
    />
    <TypedNumber
      label="Upper is above"
      unit="m"
      min={0.3}
      max={4}
      value={pack.upperAboveM}
      onset={(upperAboveM: number) => set('upperAboveM', upperAboveM, 'Height of upper lamps')}
    />
  {/if}
  <TextInput
    size="sm"
    labelText="Checked against this edition by"
    placeholder="Not checked"
    maxlength={80}
    value={pack.checkedBy}
    on:change={(event) => set('checkedBy', String(event.detail ?? ''), 'Checked by')}
  />
  <TextInput
    size="sm"
    labelText="Checked on (YYYY-MM-DD)"
    placeholder="not yet"
    value={pack.checkedOn}
    on:change={(event) => set('checkedOn', String(event.detail ?? '').trim(), 'Checked on')}
  />
</div>
<div class="places">
  <span class="quiet">Applies in</span>
  {#if places.length === 0}
    <span class="quiet">all jurisdictions; the brief lists none</span>
  {:else}
    <TickBoxes
      label="Jurisdictions the pack applies to; none selected means all"
      items={places}
      chosen={pack.jurisdictions}
      atLeast={0}
      onset={(jurisdictions: string[]) =>
        set('jurisdictions', jurisdictions, 'Change jurisdictions of the pack')}
    />
    {#if pack.jurisdictions.length === 0}<span class="quiet">none selected: applies everywhere</span>{/if}
  {/if}
</div>
{#if own}
  <TextArea
    labelText="Notes"
    rows={2}
    maxlength={2000}
    value={pack.notes}
    on:change={({ currentTarget }) => {
      if (currentTarget instanceof HTMLTextAreaElement)
        set('notes', currentTarget.value, 'Notes of the pack');
    }}
  />
{/if}
{#if refused !== ''}<p class="refused" role="alert">Not accepted: {refused}.</p>{/if}

<style>
  .fields {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(10.5rem, 1fr));
    gap: 0.75rem;
  }

  .places {
    display: flex;
    flex-wrap: wrap;
    gap: 0.5rem;
    align-items: baseline;
    font-size: 13px;
  }

  .refused {
    color: var(--gap);
    font-size: 13px;
  }
</style>
