<script lang="ts">
  import { nightLevelOf, setNightLevel } from '@flarik/core/design/controlEdits';
  import { targetKey, type Target } from '@flarik/core/design/functions';
  import { changeGroup, removeGroup } from '@flarik/core/design/timingEdits';
  import { Name } from '@flarik/core/words/names';
  import { Button } from 'carbon-components-svelte';
  import TrashCan from 'carbon-icons-svelte/lib/TrashCan.svelte';
  import { getEditor } from '$lib/editor/context';
  import CueCell from '$lib/pieces/CueCell.svelte';
  import { cueRows, membersOf } from '$lib/pieces/members';

  const editor = getEditor()();
  let onlyAllowed = $state(false);
  const countOf = (target: Target): number => membersOf(editor.build, target).length;
  const rows = $derived(
    cueRows(editor.build).filter(({ target }) => target.kind !== 'ungrouped' || countOf(target) > 0),
  );

  function rename(groupId: string, text: string): void {
    const name = Name.safeParse(text.trim());
    if (name.success) editor.edit('Rename group', (b) => changeGroup(b, groupId, { name: name.data }));
  }

  let scroller = $state<HTMLDivElement>();
  let head = $state<HTMLTableRowElement>();
  let width = $state(0);
  // The function that is looked at stays in sight, however narrow the panel is.
  $effect(() => {
    const cell = head?.cells[1 + editor.named.findIndex(({ on }) => on === editor.looked)];
    const names = head?.cells[0]?.offsetWidth ?? 0;
    if (scroller === undefined || cell === undefined) return;
    const hiddenLeft = cell.offsetLeft < scroller.scrollLeft + names;
    const hiddenRight = cell.offsetLeft + cell.offsetWidth > scroller.scrollLeft + width;
    if (hiddenLeft || hiddenRight) scroller.scrollLeft = cell.offsetLeft - names;
  });

  const selectMembers = (target: Target): void =>
    editor.select([...new Set(membersOf(editor.build, target).map(({ placement }) => placement.id))]);
</script>

<div class="scroller" bind:this={scroller} bind:clientWidth={width}>
  <label class="allowed">
    <input type="checkbox" bind:checked={onlyAllowed} /> Only permitted patterns; others are marked ✕
  </label>
  <table>
    <caption class="visually-hidden">Pattern of each sync group and lamp set by function</caption>
    <thead>
      <tr bind:this={head}>
        <th scope="col">Sync group or set</th>
        {#each editor.named as { on, name } (on)}
          <th scope="col" class:now={on === editor.looked}>
            <button class="link" aria-pressed={on === editor.looked} onclick={() => editor.lookAtFunction(on)}
              >{name}</button
            >
          </th>
        {/each}
      </tr>
    </thead>
    <tbody>
      {#each rows as row (targetKey(row.target))}
        <tr>
          <th scope="row">
            {#if row.target.kind === 'group'}
              {@const id = row.target.groupId}
              <input
                aria-label="Name of group {row.name}"
                value={row.name}
                maxlength="80"
                onchange={(event) => rename(id, event.currentTarget.value)}
              />
            {:else}
              <span class="name">{row.name}</span>
            {/if}
            <span class="under">
              <button class="link" onclick={() => selectMembers(row.target)}>
                {countOf(row.target)}
                {countOf(row.target) === 1 ? 'module' : 'modules'}{row.target.kind === 'ungrouped'
                  ? ', each on its own clock'
                  : row.target.kind === 'set'
                    ? ' in this set'
                    : ''}
              </button>
              {#if row.target.kind === 'group'}
                {@const id = row.target.groupId}
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
          {#each editor.named as { on } (on)}
            <td class:now={on === editor.looked}>
              <CueCell {on} {row} {onlyAllowed} />
            </td>
          {/each}
        </tr>
      {:else}
        <tr
          ><td colspan={1 + editor.named.length} class="quiet"
            >No sync groups yet. Select lamps on the drawing and assign a group in the inspector.</td
          ></tr
        >
      {/each}
    </tbody>
    {#if rows.length > 0}
      <tfoot>
        <tr>
          <th scope="row">Night level</th>
          {#each editor.named as { on, name } (on)}
            {@const level = nightLevelOf(editor.build, on)}
            <td class:now={on === editor.looked}>
              <label class="night">
                <input
                  type="number"
                  min="5"
                  max="100"
                  step="5"
                  aria-label="Night level of {name}, percent"
                  placeholder="–"
                  value={level === null ? '' : Math.round(level * 100)}
                  onchange={(event) => {
                    const percent = Math.min(100, Math.max(5, event.currentTarget.valueAsNumber || 100));
                    event.currentTarget.valueAsNumber = percent;
                    editor.edit(`Night level of ${name}`, (b) => setNightLevel(b, on, percent / 100));
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

  /* The names stay in sight beside whichever functions the panel's width shows. */
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
