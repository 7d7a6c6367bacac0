<script lang="ts">
  import type { On } from '@flarik/core/design/controls';
  import { patternMisfit } from '@flarik/core/rules/allowedPattern';
  import { bookOf } from '@flarik/core/timing/book';
  import { familyOf, PATTERN_FAMILIES, PATTERNS } from '@flarik/core/timing/library';
  import { getEditor } from '$lib/editor/context';

  /** The patterns as the choices of a select: own ones, then the library by family; what the packs do not allow in this function is said or left out. */
  let { on, chosen, onlyAllowed }: { on: On; chosen: string; onlyAllowed: boolean } = $props();
  const editor = getEditor()();

  const book = $derived(bookOf(editor.build));
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
          .filter(({ id, why }) => !onlyAllowed || why === null || id === chosen),
      }))
      .filter(({ patterns }) => patterns.length > 0),
  );
</script>

{#each families as { family, patterns } (family)}
  <optgroup label={family}>
    {#each patterns as { id, name, why } (id)}
      <option value={id} title={why ?? ''}>{why === null ? name : `${name} ✕`}</option>
    {/each}
  </optgroup>
{/each}
