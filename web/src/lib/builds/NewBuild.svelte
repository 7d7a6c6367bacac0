<script lang="ts">
  import { STAGE_PRESETS, startText, type Start } from '@flarik/core/arrange/startingStages';
  import { type Service, serviceName, SERVICES } from '@flarik/core/words/service';
  import { BODY_TYPES } from '@flarik/core/vehicle/bodies/bodyTypes';
  import { Name } from '@flarik/core/words/names';
  import { goto } from '$app/navigation';
  import { Checkbox, Modal, Select, SelectItem, TextInput } from 'carbon-components-svelte';
  import type { BuildSummary } from '$lib/api';
  import { createBuild, importBuild, loadBuild } from '$lib/client';
  import { proposedPacks, type ShelvedPack } from './proposed';
  import Thumbnail from './Thumbnail.svelte';

  let {
    open = $bindable(),
    packs,
    builds,
  }: { open: boolean; packs: readonly ShelvedPack[]; builds: readonly BuildSummary[] } = $props();

  let name = $state('');
  /** The build it is made after; empty begins with an empty vehicle. */
  let after = $state('');
  let service = $state<Service>('police');
  let bodyType = $state('mid-suv');
  let start = $state<Start>('rear-all-white');
  const known = $derived([...new Set(builds.flatMap((b) => b.jurisdictions))]);
  /** Most vehicles of a shop drive where most of the others do. */
  const usual = $derived(
    known
      .toSorted((a, b) => count(b) - count(a) || a.localeCompare(b))
      .slice(0, 1)
      .join(''),
  );
  const count = (place: string): number => builds.filter((b) => b.jurisdictions.includes(place)).length;
  let typed = $state<string | null>(null);
  const drives = $derived(typed ?? usual);
  const drivesIn = $derived(
    drives
      .split(';')
      .map((place) => place.trim())
      .filter((place) => place !== ''),
  );
  const proposed = $derived(new Set(proposedPacks(packs, drivesIn, known).map((p) => p.id)));
  /** Packs ticked or not against what is proposed. */
  let otherwise = $state.raw<ReadonlySet<string>>(new Set());
  const isChosen = (id: string): boolean => proposed.has(id) !== otherwise.has(id);
  const chosen = $derived(packs.filter((p) => isChosen(p.id)).map((p) => p.id));
  let refused = $state('');

  const nameError = $derived(name === '' ? '' : (Name.safeParse(name).error?.issues[0]?.message ?? ''));

  /** Enter in the name goes on to what is asked next: a build is created by its button alone. */
  function goOn(event: KeyboardEvent): void {
    if (event.key !== 'Enter') return;
    event.preventDefault();
    const next = document.querySelector<HTMLElement>('.bodies input:checked, .bx--modal .bx--btn--primary');
    next?.focus();
  }

  async function create(): Promise<void> {
    refused = '';
    try {
      if (after === '') {
        const { id } = await createBuild({
          name,
          service,
          bodyType,
          start,
          jurisdictions: drivesIn,
          rulePackIds: chosen,
        });
        await goto(`/builds/${id}/brief`);
      } else {
        const { build } = await loadBuild(after, fetch);
        const { id } = await importBuild({ ...build, id: crypto.randomUUID(), name });
        await goto(`/builds/${id}/brief`);
      }
    } catch (error) {
      refused = error instanceof Error ? error.message : String(error);
    }
  }
</script>

<Modal
  bind:open
  size="lg"
  hasForm
  modalHeading="New build"
  primaryButtonText="Create"
  secondaryButtonText="Cancel"
  selectorPrimaryFocus="#new-name"
  primaryButtonDisabled={name === '' || nameError !== ''}
  shouldSubmitOnEnter={false}
  on:submit={create}
  on:click:button--secondary={() => (open = false)}
>
  {#if open}
    <div class="form">
      <div class="pair">
        <TextInput
          id="new-name"
          labelText="Name of the build"
          placeholder="For example: Causeway patrol KS-14"
          bind:value={name}
          on:keydown={goOn}
          invalid={nameError !== '' || refused !== ''}
          invalidText={nameError === '' ? refused : nameError}
        />
        <Select labelText="Start from" bind:selected={after}>
          <SelectItem value="" text="an empty vehicle" />
          {#each builds as build (build.id)}<SelectItem
              value={build.id}
              text="a copy of {build.name}"
            />{/each}
        </Select>
      </div>
      {#if after === ''}
        <fieldset>
          <legend>Body</legend>
          <div class="bodies">
            {#each BODY_TYPES as type (type.id)}
              <label class="body" class:chosen={type.id === bodyType} title={type.what}>
                <input
                  class="visually-hidden"
                  type="radio"
                  name="body"
                  value={type.id}
                  bind:group={bodyType}
                />
                <Thumbnail picture={null} bodyType={type.id} width={124} height={56} />
                <span>{type.name}</span>
              </label>
            {/each}
          </div>
        </fieldset>
        <div class="pair">
          <Select labelText="Service" bind:selected={service}>
            {#each SERVICES as option (option)}
              <SelectItem value={option} text={serviceName[option]} />
            {/each}
          </Select>
          <TextInput
            labelText="Jurisdictions"
            placeholder="Separate with semicolons"
            value={drives}
            on:input={({ detail }) => (typed = String(detail ?? ''))}
          />
        </div>
        <div class="pair">
          <fieldset>
            <legend>Rule packs</legend>
            {#each packs.filter((p) => p.rules > 0) as pack (pack.id)}
              <Checkbox
                labelText={pack.name}
                checked={isChosen(pack.id)}
                on:check={({ detail }) => {
                  const next = new Set(otherwise);
                  if (detail === proposed.has(pack.id)) next.delete(pack.id);
                  else next.add(pack.id);
                  otherwise = next;
                }}
              />
            {:else}
              <p class="quiet">The rule library is empty. Packs can be added later under Rules.</p>
            {/each}
            <p class="quiet small">Example packs are fictitious. They are not the law.</p>
          </fieldset>
          <fieldset>
            <legend>Initial stages</legend>
            {#each STAGE_PRESETS as option (option)}
              <label class="start">
                <input type="radio" name="start" value={option} bind:group={start} />
                <span><strong>{startText[option].name}</strong> {startText[option].what}</span>
              </label>
            {/each}
          </fieldset>
        </div>
      {:else}
        <p class="quiet">Copies body, lamps, timing, brief and rule packs into a new build.</p>
      {/if}
    </div>
  {/if}
</Modal>

<style>
  fieldset {
    border: 0;
    padding: 0;
    min-width: 0;
  }

  legend {
    padding-bottom: 0.35rem;
    font-size: 12px;
    color: var(--cds-text-02);
  }

  .form {
    display: grid;
    gap: 1rem;
  }

  .pair {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 1rem 1.5rem;
  }

  .bodies {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(134px, 1fr));
    gap: 4px;
  }

  .body {
    display: grid;
    justify-items: center;
    gap: 2px;
    padding: 4px;
    border: 1px solid var(--cds-ui-04);
    background: var(--sheet);
    font-size: 12px;
    text-align: center;
    cursor: pointer;
  }

  .body.chosen {
    border-color: var(--accent);
    box-shadow: inset 0 0 0 1px var(--accent);
    font-weight: 600;
  }

  .body:focus-within {
    outline: 2px solid var(--cds-focus);
  }

  .start {
    display: flex;
    gap: 0.5rem;
    align-items: baseline;
    padding: 0.2rem 0;
    font-size: 13px;
  }

  .small {
    font-size: 12px;
  }
</style>
