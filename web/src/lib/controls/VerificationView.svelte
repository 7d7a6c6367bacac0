<script lang="ts">
  import { saveTest } from '@flarik/core/design/controlEdits';
  import { setDisabled } from '@flarik/core/design/moduleEdits';
  import type { ChannelRef } from '@flarik/core/design/schema';
  import type { Colour } from '@flarik/core/words/colour';
  import { activeFunctionNames } from '@flarik/core/design/controls';
  import { Wording } from '@flarik/core/controls/sentence';
  import type { Finding, RuleOutcome } from '@flarik/core/rules/finding';
  import { outcomeText } from '@flarik/core/verification/outcomeText';
  import { SEVERITIES } from '@flarik/core/words/severity';
  import { getEditor } from '$lib/editor/context';
  import { freshId } from '$lib/editor/freshId';
  import SeverityMark from '$lib/frame/SeverityMark.svelte';
  import { reachable } from '$lib/ui/reachable';

  /** What is proved of the controls, and of the packs' rules, over every state that can be reached, and the way to each fault. */
  const editor = getEditor()();
  const { proving } = editor;
  const wording = $derived(new Wording(editor.build));
  const proof = $derived(proving.answer);
  const many = (count: string): string => BigInt(count).toLocaleString('en-GB');
  const signs = { holds: '✓', broken: '✕', 'cannot tell': '?', silent: '–' } as const;
  const words = {
    holds: 'Pass',
    broken: 'Fail',
    'cannot tell': 'Inconclusive',
    silent: 'Not applicable',
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
    editor.edit('Save sequence as test', (b) =>
      saveTest(b, { id: freshId('t'), name, steps: [...steps], on: [...(state?.on ?? [])] }),
    );
  }
</script>

<section class="proof" {@attach reachable} aria-label="Verification" aria-busy={editor.isProvedSoon}>
  {#if proving.progress !== null}
    {@const { done, of, what } = proving.progress}
    <div class="running" role="status">
      <progress max={of} value={done} aria-label="Verification progress"></progress>
      <span>Checking {what}</span>
      <button class="plain" onclick={() => proving.stop()}>Stop</button>
    </div>
  {:else if proving.stopped}
    <p class="running" role="status">
      Stopped. The current build is not verified.
      <button class="plain" onclick={() => proving.again()}>Restart</button>
    </p>
  {:else if editor.isProvedSoon && proof !== null}
    <p class="running" role="status">Build changed. Verification restarts shortly.</p>
  {/if}
  {#if proving.error !== null}<p class="trouble" role="alert">
      Verification failed: {proving.error.message}
    </p>{/if}
  {#if proof !== null}
    {@const { reachable, raw, pictures, whole } = proof.counts}
    <p class="counts">
      {#if whole}
        <strong>All {many(reachable)} reachable states checked</strong> (of {many(raw)} possible), with {many(
          pictures,
        )} different output states.
      {:else}
        <strong>Incomplete:</strong> too many states. {many(reachable)} states nearest to the initial state were
        checked, with {many(pictures)} different output states.
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
                      aria-label="Play: {finding.sentence}"
                      onclick={() => editor.show(finding)}>Play</button
                    >
                    <button
                      class="link"
                      aria-label="Save as test: {finding.sentence}"
                      onclick={() => keep(finding)}>Save as test</button
                    >
                    <span class="quiet">
                      Active: {activeFunctionNames(editor.build, finding.evidence.state?.on ?? [])}
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
      Timers are assumed to expire at any time, so a pass is valid for every timer setting. This verifies the
      program, not the wiring.
    </p>
  {:else if proving.progress === null && !proving.stopped}
    <p class="quiet">Not started.</p>
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
