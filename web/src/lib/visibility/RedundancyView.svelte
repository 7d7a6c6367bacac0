<script lang="ts">
  import { removePlacements } from '@flarik/core/arrange/lamps';
  import { outcomeText } from '@flarik/core/verification/outcomeText';
  import type { Redundant } from '@flarik/core/rules/redundant';
  import { moneyText } from '@flarik/core/rules/brief/words';
  import { getEditor } from '$lib/editor/context';
  import Beside from './Beside.svelte';

  /** Lamps that no rule, wish or check would miss: what each saves, and which rule loses most of its room. */
  let { lamps, stale }: { lamps: readonly Redundant[]; stale: boolean } = $props();
  const editor = getEditor()();
  const labels = $derived(new Map(editor.build.placements.map((p) => [p.id, p.label])));
  /** What is gone since stands here no longer. */
  const rows = $derived(
    lamps
      .filter(({ placementIds }) => placementIds.every((id) => labels.has(id)))
      .map((lamp) => ({
        ...lamp,
        name: lamp.placementIds.map((id) => labels.get(id) ?? 'deleted lamp').join(' and '),
        rule: lamp.loses === null ? null : outcomeText(editor.build, lamp.loses),
      })),
  );
  const percent = (margin: number): string => `${Math.round(margin * 100)} %`;
  const isSelected = (ids: readonly string[]): boolean => ids.every((id) => editor.selection.has(id));

  function leaveOut({ placementIds, name }: { placementIds: readonly string[]; name: string }): void {
    editor.edit(`Remove ${name}`, (b) => removePlacements(b, new Set(placementIds)));
  }
</script>

<Beside label="Redundant lamps" {stale}>
  <div class="table">
    {#if rows.length === 0 && !stale}
      <p class="quiet">No warning lamp is redundant: removing any one causes a new finding.</p>
    {/if}
    {#if rows.length > 0}
      <table>
        <thead>
          <tr>
            <th>Lamp, or pair</th>
            <th class="figure">Saves</th>
            <th>Rule with the largest loss of margin</th>
            <th class="figure">Margin with</th>
            <th class="figure">without</th>
            <td></td>
          </tr>
        </thead>
        <tbody>
          {#each rows as row (row.placementIds.join())}
            <tr class:on={isSelected(row.placementIds)}>
              <td>
                <button
                  class="link"
                  aria-pressed={isSelected(row.placementIds)}
                  onclick={() => editor.select([...row.placementIds])}>{row.name}</button
                >
              </td>
              <td class="figure"
                >{row.priceMinor === 0 ? '–' : moneyText(row.priceMinor, editor.build.brief.currency)}</td
              >
              <td class="rule">
                {#if row.rule === null}<span class="quiet">none</span>{:else}
                  {row.rule.sentence}
                  <span class="quiet">{row.rule.from}</span>
                {/if}
              </td>
              <td class="figure">{row.loses === null ? '' : percent(row.loses.with)}</td>
              <td class="figure">{row.loses === null ? '' : percent(row.loses.without)}</td>
              <td
                ><button class="plain" onclick={() => leaveOut(row)} aria-label="Remove {row.name}"
                  >Remove</button
                ></td
              >
            </tr>
          {/each}
        </tbody>
      </table>
    {/if}
  </div>
  {#snippet says()}
    <h2>Redundant lamps</h2>
    <p>
      Removing any <strong>one</strong> of these lamps or pairs causes no new finding and makes none worse, function
      by function. Removing two may. The list is recalculated after each removal.
    </p>
    <p>
      Margin is the distance of a rule from its limit, as a share of the limit. Dirt, ageing and low voltage
      reduce it.
    </p>
    <p class="quiet small">
      Only warning lamps are tested. Combined functions and conditional rules are verified after a removal. A
      lamp that no rule needs may still be the visible one when another fails.
    </p>
  {/snippet}
</Beside>

<style>
  .table {
    padding: 0.5rem 0.75rem;
    overflow: auto;
  }

  table {
    width: 100%;
    border-collapse: collapse;
    font-size: 13px;
  }

  th,
  td {
    padding: 0.3rem 0.4rem;
    text-align: left;
    vertical-align: top;
  }

  th {
    color: var(--cds-text-02);
    font-weight: 400;
  }

  .figure {
    text-align: right;
    white-space: nowrap;
  }

  td {
    border-top: 1px solid var(--sheet-line);
  }

  tr.on td {
    background: var(--cds-ui-02);
  }

  .rule .quiet {
    display: block;
    font-size: 12px;
  }

  .plain {
    white-space: nowrap;
  }

  .link {
    font-size: 13px;
  }
</style>
