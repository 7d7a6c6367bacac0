<script lang="ts">
  import type { Fixture } from '@flarik/core/fixture/types';
  import { Modal } from 'carbon-components-svelte';
  import { getEditor } from '$lib/editor/context';
  import { factsIn } from './facts';
  import FixturePicture from './FixturePicture.svelte';

  /** Fixtures side by side; what differs stands out. */
  let { open = $bindable(), fixtures }: { open: boolean; fixtures: readonly Fixture[] } = $props();
  const editor = getEditor()();
  const rows = $derived(
    factsIn(editor.build.brief.currency).map((fact) => {
      const values = fixtures.map(fact.of);
      return { name: fact.name, values, differs: new Set(values).size > 1 };
    }),
  );
</script>

<Modal passiveModal bind:open modalHeading="Comparison" hasScrollingContent>
  <table>
    <thead>
      <tr>
        <th scope="col"><span class="visually-hidden">What</span></th>
        {#each fixtures as fixture (fixture.id)}
          <th scope="col"><FixturePicture {fixture} />{fixture.name}</th>
        {/each}
      </tr>
    </thead>
    <tbody>
      {#each rows as row (row.name)}
        <tr class:differs={row.differs}>
          <th scope="row">{row.name}</th>
          {#each row.values as value, i (fixtures[i]?.id ?? i)}<td>{value}</td>{/each}
        </tr>
      {/each}
    </tbody>
  </table>
</Modal>

<style>
  table {
    width: 100%;
    border-collapse: collapse;
    font-size: 13px;
  }

  th,
  td {
    padding: 0.3rem 0.6rem 0.3rem 0;
    border-bottom: 1px solid var(--cds-ui-03);
    text-align: left;
    vertical-align: top;
    font-weight: 400;
  }

  thead th {
    font-weight: 600;
    min-width: 9rem;
  }

  tbody th {
    color: var(--cds-text-02);
  }

  .differs td {
    font-weight: 600;
  }
</style>
