<script lang="ts">
  import { serviceName, Service } from '@flarik/core/build/service';
  import { Name } from '@flarik/core/names';
  import { goto } from '$app/navigation';
  import { Modal, Select, SelectItem, TextInput } from 'carbon-components-svelte';
  import { createBuild } from '$lib/client';

  let { open = $bindable() }: { open: boolean } = $props();
  let name = $state('');
  let service = $state('police');
  let refused = $state('');

  const nameError = $derived(name === '' ? '' : (Name.safeParse(name).error?.issues[0]?.message ?? ''));

  async function create(): Promise<void> {
    try {
      const { id } = await createBuild(name, service);
      await goto(`/builds/${id}/layout`);
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
    <p class="quiet">
      The build starts on the mid SUV with the example rule packs of the shop. Example packs are made up; they
      are not the law.
    </p>
  </div>
</Modal>

<style>
  .form {
    display: grid;
    gap: 1rem;
  }
</style>
