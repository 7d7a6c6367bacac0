<script lang="ts">
  import { jurisdictionResults } from '@flarik/core/rules/jurisdictions';
  import { holdsIn, ruleSentence } from '@flarik/core/rules/registry';
  import { getEditor } from '$lib/editor/context';

  /** Where the vehicle may drive as it is: rule by rule, place by place. */
  const editor = getEditor()();
  const { build } = $derived(editor);
  const places = $derived(jurisdictionResults(build, editor.outcomes, editor.findings));
  const verdicts = $derived(new Map(editor.outcomes.map((o) => [`${o.packId}|${o.ruleId}`, o.verdict])));
  const rows = $derived(
    build.rulePacks.flatMap((pack) =>
      pack.rules.map((rule) => ({ pack, rule, verdict: verdicts.get(`${pack.id}|${rule.id}`) })),
    ),
  );

  const mark = $derived({
    holds: editor.pending === null ? '✓ Pass' : `Pass so far (${editor.pending})`,
    broken: '✕ Fail',
    'cannot tell': '? Inconclusive',
    silent: '– Not applicable',
  });
</script>

<section aria-label="Jurisdictions">
  <h2>Jurisdictions</h2>
  <ul>
    {#each places as place (place.jurisdiction)}
      <li>
        <strong>{place.jurisdiction}</strong>
        {#if place.packs.length === 0}
          <span class="quiet">no rule pack applies; nothing is checked</span>
        {:else if place.broken.length > 0}
          <span class="broken"
            >✕ {place.broken.length} {place.broken.length === 1 ? 'rule fails' : 'rules fail'}</span
          >
        {:else if place.inconclusive.length > 0}
          <span class="unsure">? {place.inconclusive.length} inconclusive</span>
        {:else if editor.pending !== null}
          <span class="quiet">no rule fails so far ({editor.pending})</span>
        {:else if place.passed.length === 0}
          <span class="quiet">no rule applies to this build</span>
        {:else}
          <span class="holds">✓ all applicable rules pass</span>
        {/if}
        {#if place.mustBeOff.length > 0}
          <span class="quiet">Must stay off there: {place.mustBeOff.slice(0, 6).join('; ')}</span>
        {/if}
      </li>
    {/each}
  </ul>
  <details>
    <summary>Rule by rule</summary>
    <table>
      <thead>
        <tr>
          <th scope="col">Rule</th>
          {#each places as { jurisdiction } (jurisdiction)}<th scope="col">{jurisdiction}</th>{/each}
        </tr>
      </thead>
      <tbody>
        {#each rows as { pack, rule, verdict } (`${pack.id}|${rule.id}`)}
          <tr>
            <td>{ruleSentence(rule)} <span class="quiet">{pack.name}</span></td>
            {#each places as { jurisdiction } (jurisdiction)}
              <td class={verdict === 'broken' && holdsIn(pack, jurisdiction) ? 'broken' : 'quiet'}>
                {#if !holdsIn(pack, jurisdiction)}not applicable there{:else if verdict === undefined}…{:else}{mark[
                    verdict
                  ]}{/if}
              </td>
            {/each}
          </tr>
        {/each}
      </tbody>
    </table>
  </details>
</section>

<style>
  section {
    display: grid;
    gap: 0.5rem;
    padding: 0.75rem 1rem;
    background: var(--cds-ui-01);
    font-size: 13px;
  }

  li {
    display: flex;
    flex-wrap: wrap;
    gap: 0.75rem;
    padding: 0.2rem 0;
  }

  summary {
    cursor: pointer;
  }

  table {
    width: 100%;
    border-collapse: collapse;
  }

  th,
  td {
    padding: 0.3rem 0.75rem 0.3rem 0;
    text-align: left;
    vertical-align: top;
    border-top: 1px solid var(--cds-ui-03);
    line-height: 1.4;
  }

  th {
    font-weight: 400;
    color: var(--cds-text-02);
  }

  .holds {
    color: var(--good);
  }

  .broken {
    color: var(--gap);
  }

  .unsure {
    color: var(--warn);
  }
</style>
