<script lang="ts">
  import { CONTROL_TEMPLATES, templateMisfit } from '@flarik/core/arrange/controlTemplates';
  import type { FunctionTemplate } from '@flarik/core/arrange/templates/kit';
  import { FUNCTION_TEMPLATES } from '@flarik/core/arrange/templates/functionTemplates';
  import { controlsFailure } from '@flarik/core/design/controlEdits';
  import type { Build } from '@flarik/core/design/schema';
  import { regionLock } from '@flarik/core/rules/regionLock';
  import { getEditor } from '$lib/editor/context';
  import FindingsPreview from '$lib/frame/FindingsPreview.svelte';

  /** Whole ways to operate a vehicle, and single functions, laid with one undo and then changed. */
  const editor = getEditor()();
  const templates = $derived(CONTROL_TEMPLATES.map((t) => ({ ...t, why: templateMisfit(t, editor.build) })));
  /** What a programme has no room for any more is found as it is laid. */
  let refused = $state.raw<{ build: Build; id: string; why: string } | null>(null);
  const functions = $derived(
    [...FUNCTION_TEMPLATES, regionLock].map((f) => ({
      ...f,
      why: refused?.id === f.id && refused.build === editor.build ? refused.why : f.misfit(editor.build),
    })),
  );

  function put({ id, name, applyTemplate }: FunctionTemplate): void {
    const laid = applyTemplate(editor.build);
    const why = controlsFailure(laid);
    if (why === null) editor.edit(name, () => laid);
    else refused = { build: editor.build, id, why };
  }
</script>

<section class="ready" aria-label="Templates">
  <h2>Complete programs</h2>
  {#each templates as { id, name, what, why, applyTemplate } (id)}
    <div class="one">
      <button
        class="plain"
        disabled={why !== null}
        aria-label="Apply {name}"
        onclick={() => editor.edit(`Template ${name}`, (b) => applyTemplate(b))}>Apply</button
      >
      <p>
        <strong>{name}</strong>
        {what}
        {#if why !== null}<span class="quiet">Not available: {why}.</span>{/if}
      </p>
      {#if why === null}<div class="more"><FindingsPreview {name} apply={applyTemplate} /></div>{/if}
    </div>
  {/each}
  <h2>Single functions</h2>
  {#each functions as fn (fn.id)}
    {@const { name, what, why } = fn}
    <div class="one">
      <button class="plain" disabled={why !== null} aria-label="Apply {name}" onclick={() => put(fn)}
        >Apply</button
      >
      <p>
        <strong>{name}</strong>
        {what}
        {#if why !== null}<span class="quiet">Not available: {why}.</span>{/if}
      </p>
      {#if why === null}<div class="more"><FindingsPreview {name} apply={fn.applyTemplate} /></div>{/if}
    </div>
  {/each}
</section>

<style>
  .ready {
    display: grid;
    align-content: start;
    gap: 0.35rem;
    padding: 0.5rem 0.75rem;
    overflow-y: auto;
  }

  h2 {
    font-size: 13px;
    font-weight: 600;
  }

  .one {
    display: grid;
    grid-template-columns: 3rem 1fr;
    gap: 0.5rem;
    align-items: start;
  }

  .more {
    grid-column: 2;
    margin-top: -0.4rem;
  }

  p {
    font-size: 12.5px;
    line-height: 1.35;
  }
</style>
