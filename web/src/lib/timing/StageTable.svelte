<script lang="ts">
  import { stageAt } from '@flarik/core/design/timing';
  import { changeGroup, changeStage, removeGroup } from '@flarik/core/design/timingEdits';
  import { Name } from '@flarik/core/words/names';
  import { Button } from 'carbon-components-svelte';
  import TrashCan from 'carbon-icons-svelte/lib/TrashCan.svelte';
  import { getEditor } from '$lib/editor/context';
  import CueCell from './CueCell.svelte';
  import { membersOf } from './members';

  const editor = getEditor()();
  let onlyAllowed = $state(false);
  const { timing } = $derived(editor.build);
  const countOf = (groupId: string | null): number => membersOf(editor.build, groupId).length;
  const rows = $derived([
    ...timing.groups.map((g): { id: string | null; name: string } => ({ id: g.id, name: g.name })),
    ...(countOf(null) > 0 ? [{ id: null, name: 'In no group' }] : []),
  ]);

  function rename(groupId: string, text: string): void {
    const name = Name.safeParse(text.trim());
    if (name.success) editor.edit('Rename group', (b) => changeGroup(b, groupId, { name: name.data }));
  }

  let scroller = $state<HTMLDivElement>();
  let head = $state<HTMLTableRowElement>();
  let width = $state(0);
  // The stage that is looked at stays in sight, however narrow the panel is.
  $effect(() => {
    const cell = head?.cells[1 + editor.stages.indexOf(editor.state.stage)];
    const names = head?.cells[0]?.offsetWidth ?? 0;
    if (scroller === undefined || cell === undefined) return;
    const hiddenLeft = cell.offsetLeft < scroller.scrollLeft + names;
    const hiddenRight = cell.offsetLeft + cell.offsetWidth > scroller.scrollLeft + width;
    if (hiddenLeft || hiddenRight) scroller.scrollLeft = cell.offsetLeft - names;
  });

  const selectMembers = (groupId: string | null): void =>
    editor.select([...new Set(membersOf(editor.build, groupId).map(({ placement }) => placement.id))]);
</script>

<div class="scroller" bind:this={scroller} bind:clientWidth={width}>
  <label class="allowed">
    <input type="checkbox" bind:checked={onlyAllowed} /> Only patterns that the chosen packs allow in the stage;
    the others are marked ✕
  </label>
  <table>
    <caption class="visually-hidden">What each sync group shows in each stage</caption>
    <thead>
      <tr bind:this={head}>
        <th scope="col">Sync group</th>
        {#each editor.stages as stage (stage)}
          <th scope="col" class:now={stage === editor.state.stage}>
            {#if stage === 0}
              {stageAt(editor.build, 0).name}
            {:else}
              <button
                class="link"
                aria-pressed={stage === editor.state.stage}
                onclick={() => editor.setState({ stage })}
              >
                {stageAt(editor.build, stage).name}
              </button>
            {/if}
          </th>
        {/each}
      </tr>
    </thead>
    <tbody>
      {#each rows as row (row.id)}
        <tr>
          <th scope="row">
            {#if row.id === null}
              <span class="name">{row.name}</span>
            {:else}
              {@const id = row.id}
              <input
                aria-label="Name of group {row.name}"
                value={row.name}
                maxlength="80"
                onchange={(event) => rename(id, event.currentTarget.value)}
              />
            {/if}
            <span class="under">
              <button class="link" onclick={() => selectMembers(row.id)}>
                {countOf(row.id)} modules{row.id === null ? ', each on its own clock' : ''}
              </button>
              {#if row.id !== null}
                {@const id = row.id}
                <Button
                  kind="ghost"
                  size="small"
                  icon={TrashCan}
                  iconDescription="Delete group {row.name}"
                  tooltipPosition="right"
                  on:click={() => editor.edit(`Delete group ${row.name}`, (b) => removeGroup(b, id))}
                />
              {/if}
            </span>
          </th>
          {#each editor.stages as stage (stage)}
            <td class:now={stage === editor.state.stage}>
              <CueCell {stage} group={row} {onlyAllowed} />
            </td>
          {/each}
        </tr>
      {:else}
        <tr
          ><td colspan="5" class="quiet"
            >No sync groups yet. Select lamps on the sheet and give them a group in the inspector.</td
          ></tr
        >
      {/each}
    </tbody>
    {#if rows.length > 0}
      <tfoot>
        <tr>
          <th scope="row">Night level</th>
          {#each editor.stages as stage (stage)}
            <td class:now={stage === editor.state.stage}>
              <label class="night">
                <input
                  type="number"
                  min="5"
                  max="100"
                  step="5"
                  aria-label="Night level of {stageAt(editor.build, stage).name}, percent"
                  value={Math.round(stageAt(editor.build, stage).nightLevel * 100)}
                  onchange={(event) => {
                    const percent = Math.min(100, Math.max(5, event.currentTarget.valueAsNumber || 100));
                    event.currentTarget.valueAsNumber = percent;
                    editor.edit(`Night level of ${stageAt(editor.build, stage).name}`, (b) =>
                      changeStage(b, stage, { nightLevel: percent / 100 }),
                    );
                  }}
                /> %
              </label>
            </td>
          {/each}
        </tr>
      </tfoot>
    {/if}
  </table>
</div>

<style>
  .allowed input {
    width: auto;
    height: auto;
    flex: none;
  }

  .allowed {
    position: sticky;
    left: 0;
    display: flex;
    gap: 0.4rem;
    align-items: center;
    padding: 0.3rem 0.5rem;
    font-size: 12px;
    color: var(--cds-text-02);
  }

  .scroller {
    overflow: auto;
    min-height: 0;
    scroll-padding-left: 7.5rem;
  }

  table {
    border-collapse: collapse;
    width: 100%;
    font-size: 13px;
  }

  th,
  td {
    padding: 0.25rem 0.4rem;
    border-bottom: 1px solid var(--cds-ui-03);
    text-align: left;
    vertical-align: top;
  }

  thead th {
    position: sticky;
    z-index: 1;
    top: 0;
    background: var(--cds-ui-01);
    color: var(--cds-text-02);
    font-weight: 400;
  }

  /* The names stay in sight beside whichever stages the panel's width shows. */
  tr > :first-child {
    position: sticky;
    left: 0;
    min-width: 7.5rem;
    background: var(--cds-ui-01);
  }

  thead tr > :first-child {
    z-index: 2;
  }

  thead th,
  td {
    min-width: 9.5rem;
  }

  thead th:nth-child(2),
  td:nth-child(2) {
    min-width: 5rem;
  }

  .now {
    background: color-mix(in srgb, var(--accent) 12%, var(--cds-ui-01));
  }

  thead .now,
  thead .now button {
    color: var(--cds-text-01);
    font-weight: 600;
  }

  .under {
    display: flex;
    align-items: center;
    justify-content: space-between;
  }

  input {
    width: 100%;
    height: 26px;
    font-size: 12px;
  }

  th input {
    font-weight: 600;
  }

  .night input {
    width: 3.5rem;
  }
</style>
