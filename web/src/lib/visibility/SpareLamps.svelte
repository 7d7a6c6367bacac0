<script lang="ts">
  import { removePlacements } from '@flarik/core/arrange/lamps';
  import { outcomeText } from '@flarik/core/proof/outcomeText';
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
        name: lamp.placementIds.map((id) => labels.get(id) ?? id).join(' and '),
        rule: lamp.loses === null ? null : outcomeText(editor.build, lamp.loses),
      })),
  );
  const percent = (margin: number): string => `${Math.round(margin * 100)} %`;
  const isSelected = (ids: readonly string[]): boolean => ids.every((id) => editor.selection.has(id));

  function leaveOut({ placementIds, name }: { placementIds: readonly string[]; name: string }): void {
    editor.edit(`Leave out ${name}`, (b) => removePlacements(b, new Set(placementIds)));
  }
</script>

<Beside label="Lamps to spare" {stale}>
  <div class="table">
    {#if rows.length === 0 && !stale}
      <p class="quiet">
        No lamp that warns is to spare: without any of them something is found that is not found now.
      </p>
    {/if}
    {#if rows.length > 0}
      <table>
        <thead>
          <tr>
            <th>Lamp, or pair</th>
            <th class="figure">Saves</th>
            <th>Loses most room</th>
            <th class="figure">with it</th>
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
                ><button class="plain" onclick={() => leaveOut(row)} aria-label="Leave out {row.name}"
                  >Leave out</button
                ></td
              >
            </tr>
          {/each}
        </tbody>
      </table>
    {/if}
  </div>
  {#snippet says()}
    <h2>Lamps to spare</h2>
    <p>
      Looked at function by function, without any <strong>one</strong> of these, or a pair of them, nothing that
      blocks, warns or advises is found that is not found with it, and nothing that is found gets worse. Without
      two, something may well be broken: leave one out, and the list is made anew.
    </p>
    <p>
      Room is how far a rule is from its limit, as a share of the limit; dirt, age and a low battery take from
      it.
    </p>
    <p class="quiet small">
      Looked at are lamps made to warn. What functions bring about together, and rules that ask for a
      condition, are left to the proof, which begins when one is left out. No rule knows why a lamp was
      wanted: one that nothing asks for may be the one that is seen when another fails.
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
