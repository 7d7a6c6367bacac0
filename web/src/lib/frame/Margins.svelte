<script lang="ts">
  import { outcomeText } from '@flarik/core/verification/outcomeText';
  import type { RuleOutcome } from '@flarik/core/rules/finding';
  import { formatNumber } from '@flarik/core/words/quantity';
  import { getEditor } from '$lib/editor/context';
  import { reachable } from '$lib/ui/reachable';

  /** What holds, the one with the least room first. */
  const editor = getEditor()();
  const { build } = $derived(editor);
  const rows = $derived(
    editor.outcomes
      .filter((o) => o.verdict === 'holds')
      .flatMap((o) => {
        const text = outcomeText(build, o);
        return text === null ? [] : [{ ...o, ...text }];
      })
      .toSorted((a, b) => (a.margin ?? Infinity) - (b.margin ?? Infinity)),
  );

  const room = ({ margin, isBound }: Pick<RuleOutcome, 'margin' | 'isBound'>): string => {
    if (margin === null || (isBound === true && margin === 0)) return 'Pass';
    if (margin >= 1) return 'margin over 100 %';
    return `margin ${isBound === true ? 'at least ' : ''}${Math.floor(margin * 100)} %`;
  };
</script>

{#if editor.pending !== null}<p class="quiet" role="status">Passed so far ({editor.pending})</p>{/if}
<ul {@attach reachable}>
  {#each rows as row (`${row.packId}|${row.ruleId}`)}
    <li>
      <span class="room" class:near={row.margin !== null && row.isBound !== true && row.margin < 0.05}
        >{room(row)}</span
      >
      <span>{row.sentence} <span class="quiet">{row.from}</span></span>
      <span class="quiet"
        >{row.statesChecked === 1 ? '1 state' : `${formatNumber(row.statesChecked)} states`}</span
      >
    </li>
  {:else}
    <li class="quiet">No passed checks yet.</li>
  {/each}
</ul>

<style>
  ul {
    overflow-y: auto;
    flex: 1;
    min-height: 0;
    border-top: 1px solid var(--cds-ui-03);
  }

  li {
    display: grid;
    grid-template-columns: 7.5rem minmax(0, 1fr) auto;
    gap: 0.75rem;
    padding: 0.25rem 0.75rem;
    border-bottom: 1px solid var(--cds-ui-03);
    font-size: 12px;
    line-height: 1.4;
  }

  .room {
    color: var(--good);
  }

  .room.near {
    color: var(--warn);
  }
</style>
