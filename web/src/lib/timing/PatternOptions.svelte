<script lang="ts">
  import type { StageIndex } from '@flarik/core/build/schema';
  import { patternMisfit } from '@flarik/core/rules/allowedPattern';
  import { familyOf, PATTERN_FAMILIES, PATTERNS } from '@flarik/core/timing/library';
  import { getEditor } from '$lib/editor/context';

  /** The library as the choices of a select: by family, with what the packs do not allow in this stage said or left out. */
  let { stage, chosen, onlyAllowed }: { stage: StageIndex; chosen: string; onlyAllowed: boolean } = $props();
  const editor = getEditor()();

  const families = $derived(
    PATTERN_FAMILIES.map((family) => ({
      family,
      patterns: PATTERNS.filter((p) => familyOf(p.id) === family)
        .map((p) => ({ id: p.id, name: p.name, why: patternMisfit(editor.build, stage, p) }))
        .filter(({ id, why }) => !onlyAllowed || why === null || id === chosen),
    })).filter(({ patterns }) => patterns.length > 0),
  );
</script>

{#each families as { family, patterns } (family)}
  <optgroup label={family}>
    {#each patterns as { id, name, why } (id)}
      <option value={id} title={why ?? ''}>{why === null ? name : `${name} ✕`}</option>
    {/each}
  </optgroup>
{/each}
