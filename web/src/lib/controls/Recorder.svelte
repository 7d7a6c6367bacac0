<script lang="ts">
  import { activeFunctionNames, type ControlTest, type TestStep } from '@flarik/core/design/controls';
  import { saveTest, deleteTest } from '@flarik/core/design/controlEdits';
  import { readScript, stepText } from '@flarik/core/controls/script';
  import { timeText, Wording } from '@flarik/core/controls/sentence';
  import { runTest } from '@flarik/core/controls/controlTest';
  import { Name } from '@flarik/core/words/names';
  import { getEditor } from '$lib/editor/context';
  import { freshId } from '$lib/editor/freshId';
  import { reachable } from '$lib/ui/reachable';

  /** The steps taken since rest, and trials kept of such. */
  const editor = getEditor()();
  const { cockpit } = editor;
  const wording = $derived(new Wording(editor.build));
  let name = $state('');
  let script = $state('');
  let trouble = $state('');
  const outcomes = $derived(editor.build.controls.trials.map((trial) => runTest(cockpit.programme, trial)));

  const said = (step: TestStep): string =>
    step.kind === 'wait' ? `${timeText(step.ms)} pass` : wording.event(step.event);

  function keep(): void {
    const read = Name.safeParse(name.trim());
    if (!read.success) {
      trouble = 'Enter a name for the test.';
      return;
    }
    const trial: ControlTest = {
      id: freshId('t'),
      name: read.data,
      steps: [...cockpit.steps],
      on: [...cockpit.on],
    };
    trouble = '';
    name = '';
    editor.edit(`Save test ${trial.name}`, (b) => saveTest(b, trial));
  }

  function run(): void {
    try {
      cockpit.replay(readScript(cockpit.programme, script, 'Events'));
      trouble = '';
    } catch (error) {
      trouble = error instanceof Error ? error.message : String(error);
    }
  }
</script>

<section aria-label="Recorder">
  <div class="head">
    <h2>Recorder</h2>
    <button class="plain" disabled={cockpit.steps.length === 0} onclick={() => cockpit.back()}
      >Step back</button
    >
    <button class="plain" disabled={cockpit.steps.length === 0} onclick={() => cockpit.reset()}>Reset</button>
  </div>
  {#if cockpit.refusal !== null}<p role="alert" class="trouble">{cockpit.refusal}</p>{/if}
  {#if cockpit.due !== null}
    {@const { due } = cockpit}
    <p class="due">
      {wording.functionName(due.functionId)}: timer ends in {timeText(due.atMs - cockpit.running.nowMs)}
      <button class="plain" onclick={() => cockpit.wait(Math.max(1, due.atMs - cockpit.running.nowMs))}
        >End now</button
      >
    </p>
  {/if}
  <button class="plain" onclick={() => cockpit.wait(1000)}>Wait 1 s</button>
  <ol {@attach reachable}>
    {#each cockpit.played as { step, refused }, i (i)}
      <li class:refused>{said(step)}{refused ? ': no effect' : ''}</li>
    {:else}
      <li class="quiet rest">Initial state. Operate a control or change an input.</li>
    {/each}
  </ol>
  <form
    onsubmit={(event) => {
      event.preventDefault();
      keep();
    }}
  >
    <input aria-label="Test name" placeholder="Test name" maxlength="80" bind:value={name} />
    <button class="plain" disabled={cockpit.steps.length === 0}>Save</button>
  </form>
  <form
    onsubmit={(event) => {
      event.preventDefault();
      run();
    }}
  >
    <input
      aria-label="Events to play"
      placeholder="ignition=on, slide=2, wait=1000"
      bind:value={script}
      class="figure"
    />
    <button class="plain">Play</button>
  </form>
  {#if trouble !== ''}<p role="alert" class="trouble">{trouble}</p>{/if}
  {#if outcomes.length > 0}
    <h2>Tests</h2>
    <ul>
      {#each outcomes as { trial, missing, surplus } (trial.id)}
        {@const well = missing.length + surplus.length === 0}
        <li>
          <span class="mark" class:well aria-hidden="true">{well ? '✓' : '✕'}</span>
          <button
            class="link"
            title={trial.steps.map(stepText).join(', ')}
            onclick={() => cockpit.replay(trial.steps)}>{trial.name}</button
          >
          {#if !well}
            <span class="trouble"
              >{missing.length > 0 ? `not on: ${activeFunctionNames(editor.build, missing)}` : ''}
              {surplus.length > 0 ? `also on: ${activeFunctionNames(editor.build, surplus)}` : ''}</span
            >
          {/if}
          <button
            class="link"
            aria-label="Delete test {trial.name}"
            onclick={() => editor.edit(`Delete test ${trial.name}`, (b) => deleteTest(b, trial.id))}
            >delete</button
          >
        </li>
      {/each}
    </ul>
  {/if}
</section>

<style>
  section {
    display: grid;
    gap: 0.35rem;
    justify-items: start;
  }

  .head {
    display: flex;
    gap: 0.4rem;
    align-items: center;
    width: 100%;
  }

  h2 {
    font-size: 13px;
    font-weight: 600;
    margin-right: auto;
  }

  ol,
  ul {
    width: 100%;
    margin: 0;
    padding-left: 1.4rem;
    list-style: decimal;
    max-height: 9rem;
    overflow-y: auto;
  }

  ul {
    padding-left: 0;
    list-style: none;
  }

  li {
    font-size: 12.5px;
  }

  ul li {
    display: flex;
    flex-wrap: wrap;
    gap: 0 0.5rem;
  }

  ul li :last-child {
    margin-left: auto;
  }

  li.rest {
    list-style: none;
    margin-left: -1.4rem;
  }

  .refused {
    color: var(--cds-text-02);
  }

  .due {
    font-size: 12.5px;
  }

  form {
    display: flex;
    gap: 0.3rem;
    width: 100%;
  }

  form input {
    flex: 1;
  }

  .trouble {
    color: var(--gap);
    font-size: 12.5px;
  }

  .mark {
    color: var(--gap);
  }

  .mark.well {
    color: var(--good);
  }
</style>
