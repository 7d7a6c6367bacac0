<script lang="ts">
  import type { Build } from '@flarik/core/design/schema';
  import type { CheckResult, Finding, RuleOutcome } from '@flarik/core/rules/finding';
  import { stateText } from '@flarik/core/rules/findingsTable';
  import { getEditor } from '$lib/editor/context';
  import { severityMark } from './severity';

  /** What something ready to be laid would break, over all that the controls bring about, before it is laid. */
  let { name, apply }: { name: string; apply: (build: Build) => Build } = $props();
  const editor = getEditor()();
  const MOST_SAID = 4;

  let looked = $state.raw<{
    build: Build;
    apply: (build: Build) => Build;
    fresh: readonly Finding[];
    gone: number;
    /** Rules that hold now, and could no longer be told. */
    untold: number;
  } | null>(null);
  let looking = $state(false);
  let trouble = $state('');
  /** Said of this, and of the build as it is now. */
  const said = $derived(looked?.apply === apply && looked.build === editor.build ? looked : null);

  const idsOf = ({ findings }: CheckResult): Set<string> => new Set(findings.map((f) => f.id));
  const keyOf = ({ packId, ruleId }: RuleOutcome): string => `${packId}|${ruleId}`;

  async function look(): Promise<void> {
    const [build, wanted] = [editor.build, apply];
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
        apply: wanted,
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

<button class="link" disabled={looking} aria-label="Preview findings: {name}" onclick={look}
  >{looking ? 'Checking …' : 'Preview findings'}</button
>
{#if trouble !== ''}<p role="alert">Check failed: {trouble}</p>{/if}
{#if said !== null}
  <div role="status">
    {#if said.untold > 0}
      <p>
        {said.untold === 1 ? 'One passed rule' : `${said.untold} passed rules`} would become inconclusive.
      </p>
    {/if}
    {#if said.fresh.length === 0 && said.untold === 0}
      <p class="good">
        ✓ No new findings{said.gone > 0
          ? `; ${said.gone === 1 ? 'one finding is' : `${said.gone} findings are`} resolved`
          : ''}.
      </p>
    {:else if said.fresh.length > 0}
      <p>
        {said.fresh.length === 1 ? 'One new finding' : `${said.fresh.length} new findings`}{said.gone > 0
          ? `, ${said.gone} resolved`
          : ''}:
      </p>
      <ul>
        {#each said.fresh.slice(0, MOST_SAID) as finding (finding.id)}
          <li>
            {severityMark[finding.severity].name}: {finding.sentence}
            <span class="quiet">{stateText(editor.build, finding)}</span>
          </li>
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
