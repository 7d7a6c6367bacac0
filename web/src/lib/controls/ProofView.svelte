<script lang="ts">
  import { putTrial } from '@flarik/core/design/controlEdits';
  import { setDisabled } from '@flarik/core/design/moduleEdits';
  import type { ChannelRef } from '@flarik/core/design/schema';
  import type { Colour } from '@flarik/core/words/colour';
  import { onText } from '@flarik/core/design/controls';
  import { Wording } from '@flarik/core/controls/sentence';
  import type { Finding, RuleOutcome } from '@flarik/core/rules/finding';
  import { outcomeText } from '@flarik/core/proof/outcomeText';
  import { SEVERITIES } from '@flarik/core/words/severity';
  import { getEditor } from '$lib/editor/context';
  import { freshId } from '$lib/editor/freshId';
  import SeverityMark from '$lib/frame/SeverityMark.svelte';

  /** What is proved of the controls, and of the packs' rules, over every state that can be reached, and the way to each fault. */
  const editor = getEditor()();
  const { proving } = editor;
  const wording = $derived(new Wording(editor.build));
  const proof = $derived(proving.answer);
  const many = (count: string): string => count.replaceAll(/\B(?=(\d{3})+(?!\d))/g, ' ');
  const signs = { holds: '✓', broken: '✕', 'cannot tell': '?', silent: '–' } as const;
  const words = {
    holds: 'holds',
    broken: 'does not hold',
    'cannot tell': 'cannot be told',
    silent: 'does not speak here',
  } as const;

  const nameOf = (outcome: RuleOutcome): string =>
    outcomeText(editor.build, outcome)?.sentence ?? outcome.ruleId;
  /** What does not hold first, the gravest on top, then what cannot be told. */
  const outcomes = $derived((proof?.outcomes ?? []).toSorted((a, b) => gravity(a) - gravity(b)));
  const gravity = (outcome: RuleOutcome): number => {
    const { verdict } = outcome;
    if (verdict !== 'broken') return SEVERITIES.length + (verdict === 'cannot tell' ? 0 : 1);
    return Math.min(
      SEVERITIES.length - 1,
      ...foundBy(outcome).map(({ severity }) => SEVERITIES.indexOf(severity)),
    );
  };
  const foundBy = ({ packId, ruleId }: RuleOutcome): Finding[] =>
    (proof?.findings ?? []).filter((f) => f.packId === packId && f.ruleId === ruleId);

  /** Colours that no function shows, on lamps that show others. */
  const disables = ({ kind, evidence }: Finding): boolean =>
    kind === 'unlit' && unlitColour(evidence.channels) !== null;
  const colourOf = ({ placementId, moduleId, slot }: ChannelRef): Colour | undefined =>
    editor.build.placements.find((p) => p.id === placementId)?.modules.find((m) => m.id === moduleId)
      ?.colours[slot - 1];
  function unlitColour(channels: readonly ChannelRef[]): Colour | null {
    const colours = new Set(channels.flatMap((c) => colourOf(c) ?? []));
    const [only = null] = colours;
    return colours.size === 1 ? only : null;
  }

  function disable({ evidence: { channels } }: Finding): void {
    const colour = unlitColour(channels);
    if (colour !== null)
      editor.edit(`Disable ${colour} where nothing shows it`, (b) => setDisabled(b, channels, colour, true));
  }

  function keep(finding: Finding): void {
    const { steps, state } = finding.evidence;
    const name = finding.sentence.slice(0, 80).replaceAll(/[<>]/g, '');
    editor.edit('Keep the way as a trial', (b) =>
      putTrial(b, { id: freshId('t'), name, steps: [...steps], on: [...(state?.on ?? [])] }),
    );
  }
</script>

<section class="proof" aria-label="Proof" aria-busy={editor.isProvedSoon}>
  {#if proving.progress !== null}
    {@const { done, of, what } = proving.progress}
    <div class="running" role="status">
      <progress max={of} value={done} aria-label="How far the proof is"></progress>
      <span>Looking at: {what}</span>
      <button class="plain" onclick={() => proving.stop()}>Stop</button>
    </div>
  {:else if proving.stopped}
    <p class="running" role="status">
      Stopped: nothing is proved of the build as it is now.
      <button class="plain" onclick={() => proving.again()}>Begin again</button>
    </p>
  {:else if editor.isProvedSoon && proof !== null}
    <p class="running" role="status">Changed since; it is proved anew in a moment.</p>
  {/if}
  {#if proving.error !== null}<p class="trouble" role="alert">Not proved: {proving.error.message}</p>{/if}
  {#if proof !== null}
    {@const { reachable, raw, pictures, whole } = proof.counts}
    <p class="counts">
      {#if whole}
        Looked at <strong>all {many(reachable)} states</strong> that can be reached, of {many(raw)} there could
        be; they show {many(pictures)} different pictures.
      {:else}
        <strong>Not proved whole:</strong> there are too many states. Looked at {many(reachable)} of them, nearest
        to rest first; they show {many(pictures)} different pictures.
      {/if}
    </p>
    <ul>
      {#each outcomes as outcome (`${outcome.packId} ${outcome.ruleId}`)}
        <li class={outcome.verdict.replace(' ', '-')}>
          <span class="sign" aria-hidden="true">{signs[outcome.verdict]}</span>
          <div>
            <p class="name">{nameOf(outcome)} <span class="quiet">{words[outcome.verdict]}</span></p>
            {#if outcome.why !== undefined}<p class="quiet">{outcome.why}</p>{/if}
            {#each foundBy(outcome) as finding (finding.id)}
              <div class="found">
                <p>
                  <SeverityMark severity={finding.severity} short />
                  {finding.sentence}
                </p>
                {#if disables(finding)}
                  <div class="buttons">
                    <button
                      class="plain"
                      aria-label="Disable there: {finding.sentence}"
                      disabled={editor.isProvedSoon}
                      onclick={() => disable(finding)}>Disable there</button
                    >
                  </div>
                {/if}
                {#if finding.evidence.steps.length > 0}
                  <p class="way">{wording.way(finding.evidence.steps)}</p>
                  <div class="buttons">
                    <button
                      class="plain"
                      aria-label="Play it: {finding.sentence}"
                      onclick={() => editor.show(finding)}>Play it</button
                    >
                    <button
                      class="link"
                      aria-label="keep as a trial: {finding.sentence}"
                      onclick={() => keep(finding)}>keep as a trial</button
                    >
                    <span class="quiet">
                      then on: {onText(editor.build, finding.evidence.state?.on ?? [])}
                    </span>
                  </div>
                {/if}
              </div>
            {/each}
          </div>
        </li>
      {/each}
    </ul>
    <p class="quiet small">
      Timers may end at any moment here, so that what holds, holds for any setting of times. It is proved for
      the programme, not for the wiring.
    </p>
  {:else if proving.progress === null && !proving.stopped}
    <p class="quiet">Not begun yet.</p>
  {/if}
</section>

<style>
  .proof {
    display: grid;
    align-content: start;
    gap: 0.5rem;
    padding: 0.5rem 0.75rem;
    overflow-y: auto;
  }

  .running {
    display: flex;
    gap: 0.6rem;
    align-items: center;
    font-size: 12.5px;
  }

  .counts {
    font-size: 13px;
  }

  li {
    display: grid;
    grid-template-columns: 1.2rem 1fr;
    gap: 0.3rem;
    padding: 0.25rem 0;
    border-bottom: 1px solid var(--cds-ui-03);
    font-size: 13px;
  }

  .name {
    font-size: 13px;
  }

  .holds .sign {
    color: var(--good);
  }

  .broken .sign {
    color: var(--gap);
  }

  .broken .name {
    font-weight: 600;
  }

  .cannot-tell .sign {
    color: var(--warn);
  }

  .found {
    display: grid;
    gap: 0.2rem;
    padding: 0.3rem 0;
  }

  .found p {
    font-size: 13px;
  }

  .way {
    padding-left: 0.6rem;
    border-left: 2px solid var(--accent);
  }

  .buttons {
    display: flex;
    flex-wrap: wrap;
    gap: 0.6rem;
    align-items: center;
    font-size: 12px;
  }

  .small {
    font-size: 12px;
  }

  .trouble {
    color: var(--gap);
  }
</style>
