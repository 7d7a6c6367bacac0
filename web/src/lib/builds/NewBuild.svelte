<script lang="ts">
  import { serviceName, Service } from '@flarik/core/words/service';
  import { BODY_TYPES, findBodyType } from '@flarik/core/vehicle/bodies/bodyTypes';
  import { Name } from '@flarik/core/words/names';
  import { goto } from '$app/navigation';
  import { Checkbox, Modal, Select, SelectItem, TextInput } from 'carbon-components-svelte';
  import { createBuild } from '$lib/client';

  let {
    open = $bindable(),
    packs,
  }: {
    open: boolean;
    packs: readonly { readonly id: string; readonly name: string; readonly rules: number }[];
  } = $props();
  let name = $state('');
  let service = $state<Service>('police');
  let bodyType = $state('mid-suv');
  const body = $derived(findBodyType(bodyType));
  let left = $state.raw<ReadonlySet<string>>(new Set());
  const chosen = $derived(packs.filter((p) => p.rules > 0 && !left.has(p.id)).map((p) => p.id));
  let refused = $state('');

  const nameError = $derived(name === '' ? '' : (Name.safeParse(name).error?.issues[0]?.message ?? ''));

  async function create(): Promise<void> {
    try {
      const { id } = await createBuild({ name, service, bodyType, rulePackIds: chosen });
      await goto(`/builds/${id}/brief`);
    } catch (error) {
      refused = error instanceof Error ? error.message : String(error);
    }
  }
</script>

<Modal
  bind:open
  modalHeading="New build"
  primaryButtonText="Create"
  secondaryButtonText="Cancel"
  selectorPrimaryFocus="#new-name"
  primaryButtonDisabled={name === '' || nameError !== ''}
  shouldSubmitOnEnter
  on:submit={create}
  on:click:button--secondary={() => (open = false)}
>
  <div class="form">
    <TextInput
      id="new-name"
      labelText="Name of the build"
      placeholder="For example: Causeway patrol KS-14"
      bind:value={name}
      invalid={nameError !== '' || refused !== ''}
      invalidText={nameError === '' ? refused : nameError}
    />
    <Select labelText="Service" bind:selected={service}>
      {#each Service.options as option (option)}
        <SelectItem value={option} text={serviceName[option]} />
      {/each}
    </Select>
    <Select labelText="Body type" bind:selected={bodyType} helperText={body?.what ?? ''}>
      {#each BODY_TYPES as type (type.id)}<SelectItem value={type.id} text={type.name} />{/each}
    </Select>
    <fieldset>
      <legend>Rule packs to check by</legend>
      {#each packs.filter((p) => p.rules > 0) as pack (pack.id)}
        <Checkbox
          labelText={pack.name}
          checked={!left.has(pack.id)}
          on:check={(event) => {
            const others = [...left].filter((id) => id !== pack.id);
            left = new Set(event.detail ? others : [...others, pack.id]);
          }}
        />
      {:else}
        <p class="quiet">The shelf is empty; packs can be chosen later under Rules.</p>
      {/each}
    </fieldset>
    <p class="quiet">Measures are typed in later. Example packs are made up; they are not the law.</p>
  </div>
</Modal>

<style>
  fieldset {
    border: 0;
    padding: 0;
  }

  .form {
    display: grid;
    gap: 1rem;
  }
</style>
