<script lang="ts">
  import type { ActiveFunction } from '@flarik/core/design/controls';
  import { patternMisfit } from '@flarik/core/rules/allowedPattern';
  import { bookOf } from '@flarik/core/timing/book';
  import { familyOf, PATTERN_FAMILIES, PATTERNS } from '@flarik/core/timing/library';
  import { getEditor } from '$lib/editor/context';

  /**
   * One of the patterns: own ones, then the library by family; what the packs do not allow in this function is
   * said or left out. A table holds hundreds of these, so the list is filled when somebody comes to it.
   */
  let {
    label,
    on,
    value,
    none,
    onlyAllowed,
    onset,
  }: {
    label: string;
    on: ActiveFunction;
    /** The id of the pattern, or null for none. */
    value: string | null;
    /** What stands for no pattern. */
    none: string;
    onlyAllowed: boolean;
    onset: (patternId: string | null) => void;
  } = $props();
  const editor = getEditor()();
  let reached = $state(false);

  const book = $derived(bookOf(editor.build));
  const chosenName = $derived(value === null ? none : book.pattern(value).name);
  const families = $derived(
    [
      { family: 'own', patterns: book.own },
      ...PATTERN_FAMILIES.map((family) => ({
        family,
        patterns: PATTERNS.filter((p) => familyOf(p.id) === family),
      })),
    ]
      .map(({ family, patterns }) => ({
        family,
        patterns: patterns
          .map((p) => ({ id: p.id, name: p.name, why: patternMisfit(editor.build, on, book.cycle(p.id)) }))
          .filter(({ id, why }) => !onlyAllowed || why === null || id === value),
      }))
      .filter(({ patterns }) => patterns.length > 0),
  );
  const reach = (): void => void (reached = true);
</script>

<select
  aria-label={label}
  value={value ?? ''}
  onfocus={reach}
  onpointerenter={reach}
  onchange={({ currentTarget }) => onset(currentTarget.value === '' ? null : currentTarget.value)}
>
  {#if reached}
    <option value="">{none}</option>
    {#each families as { family, patterns } (family)}
      <optgroup label={family}>
        {#each patterns as { id, name, why } (id)}
          <option value={id} title={why ?? ''}>{why === null ? name : `${name} ✕`}</option>
        {/each}
      </optgroup>
    {/each}
  {:else}
    <option value={value ?? ''}>{chosenName}</option>
  {/if}
</select>

<style>
  select {
    width: 100%;
    font-size: 12px;
  }
</style>
