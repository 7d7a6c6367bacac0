<script lang="ts">
  import type { Build } from '@flarik/core/design/schema';
  import type { CheckResult, Finding, RuleOutcome } from '@flarik/core/rules/finding';
  import { getEditor } from '$lib/editor/context';
  import { severityMark } from './severity';

  /** What something ready to be laid would break, over all that the controls bring about, before it is laid. */
  let { name, lay }: { name: string; lay: (build: Build) => Build } = $props();
  const editor = getEditor()();
  const MOST_SAID = 4;

  let looked = $state.raw<{
    build: Build;
    lay: (build: Build) => Build;
    fresh: readonly Finding[];
    gone: number;
    /** Rules that hold now, and could no longer be told. */
    untold: number;
  } | null>(null);
  let looking = $state(false);
  let trouble = $state('');
  /** Said of this, and of the build as it is now. */
  const said = $derived(looked?.lay === lay && looked.build === editor.build ? looked : null);

  const idsOf = ({ findings }: CheckResult): Set<string> => new Set(findings.map((f) => f.id));
  const keyOf = ({ packId, ruleId }: RuleOutcome): string => `${packId}|${ruleId}`;

  async function look(): Promise<void> {
    const [build, wanted] = [editor.build, lay];
    looking = true;
    trouble = '';
    try {
      const { findings, outcomes } = editor;
      const now = editor.isProved ? { findings, outcomes } : await editor.tryWhole(build);
      const then = await editor.tryWhole(wanted(build));
      const [before, after] = [idsOf(now), idsOf(then)];
      const held = new Set(now.outcomes.filter((o) => o.verdict === 'holds').map(keyOf));
      looked = {
        build,
        lay: wanted,
        fresh: then.findings.filter((f) => !before.has(f.id)),
        gone: now.findings.filter((f) => !after.has(f.id)).length,
        untold: then.outcomes.filter((o) => o.verdict === 'cannot tell' && held.has(keyOf(o))).length,
      };
    } catch (error) {
      trouble = error instanceof Error ? error.message : String(error);
    } finally {
      looking = false;
    }
  }
</script>

<button class="link" disabled={looking} aria-label="What would it break? {name}" onclick={look}
  >{looking ? 'Checking …' : 'What would it break?'}</button
>
{#if trouble !== ''}<p role="alert">Not checked: {trouble}</p>{/if}
{#if said !== null}
  <div role="status">
    {#if said.untold > 0}
      <p>
        {said.untold === 1 ? 'One rule that holds' : `${said.untold} rules that hold`} could not be told any more.
      </p>
    {/if}
    {#if said.fresh.length === 0 && said.untold === 0}
      <p class="good">
        ✓ Nothing that holds now{said.gone > 0
          ? `; ${said.gone === 1 ? 'one finding goes' : `${said.gone} findings go`} away`
          : ''}.
      </p>
    {:else if said.fresh.length > 0}
      <p>
        {said.fresh.length === 1 ? 'One new finding' : `${said.fresh.length} new findings`}{said.gone > 0
          ? `, ${said.gone} ${said.gone === 1 ? 'goes' : 'go'} away`
          : ''}:
      </p>
      <ul>
        {#each said.fresh.slice(0, MOST_SAID) as finding (finding.id)}
          <li>{severityMark[finding.severity].name}: {finding.sentence}</li>
        {/each}
        {#if said.fresh.length > MOST_SAID}<li>and {said.fresh.length - MOST_SAID} more</li>{/if}
      </ul>
    {/if}
  </div>
{/if}

<style>
  p,
  li {
    font-size: 12.5px;
    line-height: 1.35;
  }

  ul {
    padding-left: 0.75rem;
  }

  .good {
    color: var(--good);
  }
</style>
