<script lang="ts">
  import { setCue } from '@flarik/core/design/controlEdits';
  import { namedOns, effectsOf, type ActiveFunction } from '@flarik/core/design/controls';
  import { groupTarget, sameTarget, type LightCue } from '@flarik/core/design/functions';
  import type { Placement } from '@flarik/core/design/placement';
  import { membersOfSet } from '@flarik/core/resolve/setMembers';
  import type { Fixture } from '@flarik/core/fixture/types';
  import { BoardText, legibleM } from '@flarik/core/words/boardText';
  import { getEditor } from '$lib/editor/context';

  /** What a message board says in each function that lights it, how brightly, and how far it can be read. */
  let { placement, fixture }: { placement: Placement; fixture: Fixture } = $props();
  const editor = getEditor()();

  const inSets = $derived(
    new Set(
      editor.build.controls.sets
        .filter((set) => membersOfSet(editor.build, set).some((m) => m.placementId === placement.id))
        .map(({ id }) => id),
    ),
  );
  const speaksToIt = (cue: LightCue): boolean =>
    cue.target.kind === 'set'
      ? inSets.has(cue.target.setId)
      : placement.modules.some((m) => sameTarget(cue.target, groupTarget(m.groupId)));
  const rows = $derived(
    namedOns(editor.build).flatMap(({ on, name }) =>
      effectsOf(editor.build, on)
        .cues.filter((cue) => cue.show === 'light')
        .filter(speaksToIt)
        .map((cue) => ({ on, name, cue })),
    ),
  );
  const percent = (share: number): string => `${Math.round(share * 100)} %`;

  function say(on: ActiveFunction, cue: LightCue, said: string): void {
    const text = BoardText.safeParse(said.trim());
    if (text.success)
      editor.edit(`Text of ${placement.label}`, (b) =>
        setCue(b, on, cue.target, cue.ink, { ...cue, text: text.data }),
      );
  }
</script>

<section aria-label="Texts of {placement.label}">
  {#if fixture.letterM > 0}
    <p class="quiet small">
      Letters {Math.round(fixture.letterM * 1000)} mm high: read from about {Math.round(
        legibleM(fixture.letterM),
      )} m by a rule of thumb, 9 m for each 25 mm.
    </p>
  {/if}
  {#each rows as { on, name, cue } (`${on} ${cue.ink}`)}
    <label>
      {name}, day {percent(cue.level)}, night {percent(cue.level * cue.nightLevel)}
      <input
        value={cue.text}
        placeholder={placement.text || 'nothing yet'}
        maxlength="40"
        onchange={(event) => say(on, cue, event.currentTarget.value)}
      />
    </label>
  {:else}
    <p class="quiet small">No function lights it yet.</p>
  {/each}
</section>

<style>
  section {
    display: grid;
    gap: 0.35rem;
  }

  label {
    display: grid;
    font-size: 12px;
    color: var(--cds-text-02);
  }

  .small {
    font-size: 12px;
  }
</style>
