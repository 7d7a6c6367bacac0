<script lang="ts">
  import { formatDate } from '$lib/ui/formatDate';
  import { textOf } from '$lib/ui/textOf';
  import FilePicker from '$lib/ui/FilePicker.svelte';
  import { InputError } from '@flarik/core/words/errors';
  import { Service, serviceName } from '@flarik/core/words/service';
  import { goto, invalidateAll } from '$app/navigation';
  import {
    Button,
    InlineNotification,
    Modal,
    OverflowMenu,
    OverflowMenuItem,
  } from 'carbon-components-svelte';
  import Add from 'carbon-icons-svelte/lib/Add.svelte';
  import Upload from 'carbon-icons-svelte/lib/Upload.svelte';
  import type { BuildSummary } from '$lib/api';
  import FindingCounts from '$lib/builds/FindingCounts.svelte';
  import { listed, type Sort } from '$lib/builds/listed';
  import NewBuild from '$lib/builds/NewBuild.svelte';
  import BuildThumbnail from '$lib/builds/BuildThumbnail.svelte';
  import UnsavedWork from '$lib/builds/UnsavedWork.svelte';
  import BuildComparison from '$lib/builds/BuildComparison.svelte';
  import { archiveBuild, importBuild, listBuilds, loadBuild, removeBuild } from '$lib/client';
  import TopBar from '$lib/frame/TopBar.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();
  let making = $state(false);
  let removing = $state.raw<BuildSummary | null>(null);
  /** Builds that are to be held side by side, in the order in which they were taken. */
  let beside = $state.raw<readonly string[]>([]);
  let comparing = $state(false);
  /** More columns do not fit. */
  const MOST_BESIDE = 4;
  const takeBeside = (id: string, take: boolean): void => {
    beside = take ? [...beside, id] : beside.filter((one) => one !== id);
  };
  let trouble = $state('');
  let picker: { open: () => void } | undefined = $state();

  /** As the page was loaded, and then as counts come in. */
  let builds = $derived(data.builds);
  /** Counts that are still coming are looked for again, ms. */
  const AGAIN_MS = 1500;
  $effect(() => {
    if (!builds.some((build) => build.counting)) return;
    const again = setTimeout(() => {
      // A list that cannot be had just now stays as it is; the next look may have more luck.
      listBuilds().then(
        (now) => (builds = now),
        () => (builds = [...builds]),
      );
    }, AGAIN_MS);
    return () => clearTimeout(again);
  });

  let words = $state('');
  let service = $state('');
  let sort = $state<Sort>('saved');
  let archived = $state(false);
  const services = $derived([...new Set(builds.map((b) => b.service))].toSorted());
  const putAway = $derived(builds.filter((b) => b.archived).length);
  const shown = $derived(listed(builds, { words, service, archived, sort }, serviceText));

  /** So many builds are drawn at first, and with each press for more. */
  const PAGE = 50;
  let most = $state(PAGE);

  const LONGEST_NAME = 80;

  function serviceText(service: string): string {
    const known = Service.safeParse(service);
    return known.success ? serviceName[known.data] : service;
  }

  async function attempt(work: () => Promise<void>): Promise<void> {
    trouble = '';
    try {
      await work();
    } catch (error) {
      trouble = error instanceof Error ? error.message : String(error);
    }
  }

  const takeFile = (file: File): Promise<void> =>
    attempt(async () => {
      const text = await textOf(file, 'build file').catch((error: unknown) => {
        throw error instanceof InputError ? new InputError(file.name, error.reason) : error;
      });
      const { id } = await importBuild(text);
      await goto(`/builds/${id}/layout`);
    });

  const duplicate = ({ id }: BuildSummary): Promise<void> =>
    attempt(async () => {
      const { build } = await loadBuild(id, fetch);
      await importBuild({
        ...build,
        id: crypto.randomUUID(),
        name: `Copy of ${build.name}`.slice(0, LONGEST_NAME),
      });
      await invalidateAll();
    });

  const archive = (build: BuildSummary): Promise<void> =>
    attempt(async () => {
      await archiveBuild(build.id, !build.archived);
      await invalidateAll();
    });

  const remove = (): Promise<void> =>
    attempt(async () => {
      const build = removing;
      removing = null;
      if (build === null) return;
      await removeBuild(build.id);
      await invalidateAll();
    });
</script>

<svelte:head><title>Flarik: builds</title></svelte:head>

<TopBar />
<main>
  <div class="head">
    <h1>Builds</h1>
    <div class="actions">
      <FilePicker
        bind:this={picker}
        label="Build file to import"
        accept=".json,application/json"
        ontake={takeFile}
      />
      <Button kind="tertiary" size="field" icon={Upload} on:click={() => picker?.open()}>Import build</Button>
      <Button size="field" icon={Add} on:click={() => (making = true)}>New build</Button>
    </div>
  </div>
  {#if trouble !== ''}
    <InlineNotification
      kind="error"
      title="Failed."
      subtitle={trouble}
      lowContrast
      on:close={() => (trouble = '')}
    />
  {/if}
  <UnsavedWork />
  {#if builds.length === 0}
    <section class="empty">
      <h2>No builds yet</h2>
      <p>
        A build is one vehicle: body, lamps, flash patterns and rules. Create a build or import a build file.
      </p>
    </section>
  {:else}
    <div class="filters" role="search">
      <input
        type="search"
        aria-label="Search builds"
        placeholder="Name, service or jurisdiction"
        bind:value={words}
      />
      <label>
        Service
        <select bind:value={service}>
          <option value="">All services</option>
          {#each services as known (known)}<option value={known}>{serviceText(known)}</option>{/each}
        </select>
      </label>
      <label>
        Sort by
        <select bind:value={sort}>
          <option value="saved">Last saved</option>
          <option value="name">Name</option>
          <option value="findings">Findings</option>
        </select>
      </label>
      {#if beside.length > 0}
        <Button kind="tertiary" size="small" disabled={beside.length < 2} on:click={() => (comparing = true)}
          >{beside.length < 2 ? 'Select one more to compare' : `Compare ${beside.length} builds`}</Button
        >
      {/if}
      {#if putAway > 0 || archived}
        <label><input type="checkbox" bind:checked={archived} /> Show archived ({putAway})</label>
      {/if}
    </div>
    <table>
      <thead>
        <tr>
          <th scope="col"><span class="visually-hidden">Select to compare</span></th>
          <th scope="col"><span class="visually-hidden">Preview</span></th>
          <th scope="col">Build</th>
          <th scope="col">Findings</th>
          <th scope="col">Last saved</th>
          <th scope="col"><span class="visually-hidden">Actions</span></th>
        </tr>
      </thead>
      <tbody>
        {#each shown.slice(0, most) as build (build.id)}
          <tr>
            <td class="take">
              <input
                type="checkbox"
                aria-label="Select {build.name} to compare"
                title="Select to compare"
                checked={beside.includes(build.id)}
                disabled={beside.length >= MOST_BESIDE && !beside.includes(build.id)}
                onchange={({ currentTarget }) => takeBeside(build.id, currentTarget.checked)}
              />
            </td>
            <td class="picture">
              <a href="/builds/{build.id}/layout" tabindex="-1" aria-hidden="true">
                <BuildThumbnail {build} />
              </a>
            </td>
            <th scope="row">
              <a href="/builds/{build.id}/layout">{build.name}</a>
              <span class="quiet">
                {[serviceText(build.service), build.jurisdictions.join('; ')]
                  .filter((t) => t !== '')
                  .join(' · ')}
              </span>
            </th>
            <td><FindingCounts findings={build.findings} counting={build.counting} /></td>
            <td>
              <span class="nowrap">{formatDate(build.updatedAt)}</span>
              <span class="quiet small">revision {build.version}</span>
            </td>
            <td class="actions-cell">
              <OverflowMenu
                flipped
                iconDescription="Actions for {build.name}"
                aria-label="Actions for {build.name}"
              >
                <OverflowMenuItem text="Duplicate" on:click={() => duplicate(build)} />
                <OverflowMenuItem
                  text={build.archived ? 'Restore' : 'Archive'}
                  on:click={() => archive(build)}
                />
                <OverflowMenuItem danger hasDivider text="Delete …" on:click={() => (removing = build)} />
              </OverflowMenu>
            </td>
          </tr>
        {:else}
          <tr><td colspan="6" class="quiet">No builds match.</td></tr>
        {/each}
      </tbody>
    </table>
    {#if shown.length > most}
      <Button kind="ghost" on:click={() => (most += PAGE)}>
        Show {Math.min(PAGE, shown.length - most)} more of {shown.length} builds
      </Button>
    {/if}
  {/if}
  <section class="caution quiet">
    <h2>Limits of use</h2>
    <p>
      Flarik does not replace the law, standards, laboratory tests or a licensed installer. Supplied rule
      packs are fictitious examples or blank forms. Only qualified people may work on high-current, brake and
      signal circuits.
    </p>
  </section>
</main>

<NewBuild bind:open={making} packs={data.packs} {builds} />
<Modal passiveModal open={comparing} modalHeading="Comparison" on:close={() => (comparing = false)}>
  {#if comparing}<BuildComparison ids={beside} />{/if}
</Modal>
<Modal
  danger
  open={removing !== null}
  modalHeading="Delete {removing?.name ?? ''}?"
  primaryButtonText="Delete"
  secondaryButtonText="Cancel"
  on:submit={remove}
  on:click:button--secondary={() => (removing = null)}
  on:close={() => (removing = null)}
>
  <p>This deletes the build and all its revisions. It cannot be undone. Export it first to keep a copy.</p>
</Modal>

<style>
  main {
    max-width: 72rem;
    margin: 0 auto;
    padding: 1.5rem 1rem;
    display: grid;
    gap: 1rem;
  }

  .head,
  .actions {
    display: flex;
    align-items: center;
    justify-content: space-between;
    gap: 0.5rem;
  }

  table {
    width: 100%;
    border-collapse: collapse;
    background: var(--cds-ui-01);
  }

  th,
  td {
    padding: 0.6rem 1rem;
    text-align: left;
    border-bottom: 1px solid var(--cds-ui-03);
    vertical-align: middle;
  }

  thead th {
    color: var(--cds-text-02);
    font-weight: 400;
  }

  th a {
    font-weight: 600;
    color: var(--cds-link-01);
  }

  .filters {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.5rem 1.25rem;
  }

  .filters label {
    display: flex;
    align-items: center;
    gap: 0.4rem;
    font-size: 13px;
  }

  [type='search'] {
    width: 16rem;
    height: 32px;
  }

  .take {
    width: 2rem;
    padding: 0 0 0 1rem;
  }

  .picture {
    width: 140px;
    padding: 0.25rem 0.5rem;
    background: var(--sheet);
  }

  th .quiet,
  td .small {
    display: block;
    font-size: 12px;
    font-weight: 400;
  }

  .nowrap {
    white-space: nowrap;
  }

  .actions-cell {
    width: 3rem;
    padding: 0 0.5rem;
  }

  .empty,
  .caution {
    max-width: 48rem;
  }
</style>
