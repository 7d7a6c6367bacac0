<script lang="ts">
  import Play from 'carbon-icons-svelte/lib/Play.svelte';
  import Stop from 'carbon-icons-svelte/lib/StopFilled.svelte';
  import { getEditor } from '$lib/editor/context';
  import { changeFrom } from '@flarik/core/timing/changes';
  import { calmSlowdown, loopMs } from '@flarik/core/timing/calm';
  import SafetyNotice from './SafetyNotice.svelte';

  const editor = getEditor()();
  const { preview } = editor;
  let asking = $state(false);
  let still = $state(false);

  $effect(() => {
    const query = window.matchMedia('(prefers-reduced-motion: reduce)');
    const follow = () => {
      still = query.matches;
      if (still) preview.stop();
    };
    follow();
    query.addEventListener('change', follow);
    return () => query.removeEventListener('change', follow);
  });

  const loop = $derived(loopMs(editor.drives));
  const slowdown = $derived(calmSlowdown(editor.drives));
  /** Of true speed, never none. */
  const percent = $derived(Math.max(1, Math.round(100 / slowdown)));
  const speed = $derived(preview.trueSpeed ? 'true speed' : `slow, ${percent} % speed`);

  function toggle(): void {
    if (preview.playing) {
      preview.stop();
      preview.scrub(0);
    } else if (preview.noticeRead) preview.play();
    else asking = true;
  }
</script>

<div class="playback" role="group" aria-label="Preview of the flashing">
  {#if still}
    <span class="quiet note">Paused: your system requests reduced motion</span>
  {:else}
    <button
      class="plain play"
      class:playing={preview.playing}
      disabled={editor.drives.length === 0}
      onclick={toggle}
    >
      {#if preview.playing}<Stop size={16} />Stop{:else}<Play size={16} />Play{/if}
    </button>
  {/if}
  <label title={speed}>
    <span class="quiet">{preview.trueSpeed ? 'true speed' : `${percent} % speed`}</span>
    <input
      type="range"
      min="0"
      max={loop}
      step="1"
      value={Math.round(preview.timeMs)}
      aria-label="Time in the pattern, milliseconds"
      disabled={editor.drives.length === 0}
      oninput={(event) => {
        preview.stop();
        preview.scrub(Number(event.currentTarget.value));
      }}
    />
  </label>
  <span class="steps">
    {#each [-1, 1] as const as step (step)}
      <button
        aria-label={step < 0 ? 'Previous change' : 'Next change'}
        title={step < 0 ? 'Previous change of light (,)' : 'Next change of light (.)'}
        disabled={editor.drives.length === 0}
        onclick={() => {
          preview.stop();
          preview.scrub(changeFrom(editor.drives, preview.timeMs, step));
        }}>{step < 0 ? '‹' : '›'}</button
      >
    {/each}
  </span>
  <span class="figure time">{Math.round(preview.timeMs)} ms</span>
</div>

<SafetyNotice bind:open={asking} />

<style>
  .playback {
    display: flex;
    align-items: center;
    gap: 0.5rem;
  }

  .play {
    display: flex;
    align-items: center;
    gap: 0.25rem;
    height: 28px;
    font-size: 13px;
    border-color: var(--cds-text-01);
  }

  .play:disabled {
    border-color: var(--cds-disabled-02);
  }

  .play.playing {
    border-color: var(--gap);
    background: color-mix(in srgb, var(--gap) 22%, transparent);
  }

  label {
    display: grid;
    font-size: 12px;
    line-height: 14px;
    white-space: nowrap;
  }

  input {
    width: 64px;
    height: 14px;
    accent-color: var(--accent);
  }

  .steps {
    display: flex;
  }

  .steps button {
    width: 20px;
    height: 28px;
    padding: 0;
    border: 1px solid var(--cds-ui-04);
    background: transparent;
    color: var(--cds-text-01);
    font: inherit;
    cursor: pointer;
  }

  .steps button:disabled {
    color: var(--cds-disabled-03);
  }

  .time {
    min-width: 3.4rem;
    font-size: 12px;
    white-space: nowrap;
  }

  .note {
    font-size: 12px;
    line-height: 14px;
    max-width: 9.5rem;
  }

  @media (max-width: 1150px) {
    .playback {
      gap: 0.25rem;
    }

    input {
      width: 56px;
    }

    .time {
      min-width: 0;
    }
  }
</style>
