<script lang="ts">
  import { moneyText } from '@flarik/core/rules/brief/words';
  import { countsOf } from '@flarik/core/resolve/counts';
  import { getEditor } from '$lib/editor/context';

  /** What the layout comes to, always in sight. */
  const editor = getEditor()();
  const counts = $derived(countsOf(editor.build));
  const one = (n: number, word: string): string => `${n} ${word}${n === 1 ? '' : 's'}`;
  const hours = $derived(Math.round(counts.installMinutes / 6) / 10);
</script>

<p class="counts" role="status" aria-label="Layout totals">
  <b>{one(counts.heads, 'head')}</b>
  <span>{one(counts.modules, 'module')}</span>
  <span>{one(counts.channels, 'channel')}</span>
  <span>{one(counts.holes, 'hole')}</span>
  <span>{moneyText(counts.costMinor, editor.build.brief.currency)} to buy</span>
  <span>{hours} h to fit</span>
  <span>{counts.leadDays === 0 ? 'all in stock' : `last part in ${one(counts.leadDays, 'day')}`}</span>
</p>

<style>
  .counts {
    display: flex;
    flex-wrap: wrap;
    gap: 0 1.1rem;
    padding: 0.2rem 0.75rem;
    border-top: 1px solid var(--sheet-line);
    background: var(--cds-ui-01);
    font-size: 12px;
    font-variant-numeric: tabular-nums;
  }
</style>
