<script lang="ts">
  import { LAMP_USES, SET_PICKS, SIDES } from '@flarik/core/design/lampSets';
  import type { SetClause, SetPick, SetRule } from '@flarik/core/design/lampSets';
  import { lookupOf } from '@flarik/core/resolve/lookup';
  import { namesOf, stopName, USES, PICKS } from '@flarik/core/resolve/setText';
  import { COLOURS } from '@flarik/core/words/colour';
  import { FACES } from '@flarik/core/words/face';
  import { FACTORY_FUNCTIONS } from '@flarik/core/words/factoryFunction';
  import { getEditor } from '$lib/editor/context';
  import InlineChoice from '$lib/ui/InlineChoice.svelte';
  import TickBoxes from '$lib/ui/TickBoxes.svelte';

  /** The conditions of a lamp set, changed in place. */
  let { name, rule, onset }: { name: string; rule: SetRule; onset: (rule: SetRule) => void } = $props();
  const editor = getEditor()();
  const vehicle = $derived(lookupOf(editor.build).vehicle);
  const stops = $derived(vehicle.parts.flatMap((p) => p.stops.map(({ id }) => id)));
  const used = $derived(new Set(editor.build.placements.map((p) => p.zoneId)));
  const zones = $derived(vehicle.zones.filter((z) => used.has(z.id)).map(({ id }) => id));
  const NO_GROUP = '';
  const CLOSED = '';

  const ABOUT: readonly { readonly value: SetClause['about']; readonly text: string }[] = [
    { value: 'use', text: 'Use' },
    { value: 'colour', text: 'Colour' },
    { value: 'shines', text: 'Shines to the' },
    { value: 'side', text: 'Side' },
    { value: 'group', text: 'Sync group' },
    { value: 'zone', text: 'Zone' },
    { value: 'part', text: 'Carried by' },
    { value: 'tied', text: 'Tied into' },
    { value: 'beside', text: 'Beside factory lamp' },
  ];

  /** A condition as it begins. */
  function begun(about: SetClause['about']): SetClause {
    const not = false;
    switch (about) {
      case 'use':
        return { about, not, of: ['warning'] };
      case 'colour':
        return { about, not, of: ['white'] };
      case 'shines':
        return { about, not, of: ['front'], closed: true, stops: [] };
      case 'side':
        return { about, not, of: ['left'] };
      case 'group':
        return { about, not, of: [editor.build.timing.groups[0]?.id ?? null] };
      case 'zone':
        return { about, not, of: [zones[0] ?? vehicle.zones[0]?.id ?? 'none'] };
      case 'part':
        return { about, not, of: [vehicle.parts[0]?.id ?? 'none'], covered: false };
      case 'tied':
        return { about, not, of: ['turn'] };
      case 'beside':
        return { about, not, of: ['turn'] };
    }
  }

  const put = (i: number, clause: SetClause | null): void =>
    onset({
      ...rule,
      clauses: rule.clauses.flatMap((c, k) => (k === i ? (clause === null ? [] : [clause]) : [c])),
    });
  const one = (c: SetClause): string => namesOf(editor.build, c)[0] ?? '';
  /** What is chosen, and what can be: what is gone stays in sight until it is taken out. */
  const within = (all: readonly string[], chosen: readonly string[]): string[] => [
    ...new Set([...all, ...chosen]),
  ];
</script>

<ul class="conditions" aria-label="Conditions of {name}">
  {#each rule.clauses as c, i (i)}
    {@const label = `${name}, condition ${i + 1}`}
    <li>
      <span class="about">
        <InlineChoice
          label="{label}: about"
          options={ABOUT}
          value={c.about}
          onset={(about) => put(i, begun(about))}
        />
        <InlineChoice
          label="{label}: applies or not"
          options={[
            { value: 'is', text: 'any of' },
            { value: 'not', text: 'none of' },
          ]}
          value={c.not ? 'not' : 'is'}
          onset={(is) => put(i, { ...c, not: is === 'not' })}
        />
        <button class="link" aria-label="Delete {label}" onclick={() => put(i, null)}>✕</button>
      </span>
      {#if c.about === 'use'}
        <TickBoxes
          {label}
          items={LAMP_USES}
          chosen={c.of}
          nameOf={(use) => USES[use]}
          onset={(of) => put(i, { ...c, of })}
        />
      {:else if c.about === 'colour'}
        <TickBoxes {label} items={COLOURS} chosen={c.of} onset={(of) => put(i, { ...c, of })} />
      {:else if c.about === 'shines'}
        <TickBoxes {label} items={FACES} chosen={c.of} onset={(of) => put(i, { ...c, of })} />
        <span>with</span>
        <TickBoxes
          label="{label}: open parts"
          items={within([CLOSED, ...stops], c.stops)}
          chosen={[...(c.closed ? [CLOSED] : []), ...c.stops]}
          nameOf={(stop: string) => (stop === CLOSED ? 'all closed' : stopName(editor.build, stop))}
          onset={(of: string[]) =>
            put(i, {
              ...c,
              closed: of.includes(CLOSED),
              stops: of.filter((stop) => stop !== CLOSED).slice(0, 16),
            })}
        />
      {:else if c.about === 'side'}
        <TickBoxes {label} items={SIDES} chosen={c.of} onset={(of) => put(i, { ...c, of })} />
      {:else if c.about === 'group'}
        <TickBoxes
          {label}
          items={within(
            [...editor.build.timing.groups.map((g) => g.id), NO_GROUP],
            c.of.map((id) => id ?? NO_GROUP),
          )}
          chosen={c.of.map((id) => id ?? NO_GROUP)}
          nameOf={(id: string) => one({ ...c, of: [id === NO_GROUP ? null : id] })}
          onset={(of: string[]) =>
            put(i, { ...c, of: of.slice(0, 16).map((id) => (id === NO_GROUP ? null : id)) })}
        />
      {:else if c.about === 'zone'}
        <TickBoxes
          {label}
          items={within(zones, c.of)}
          chosen={c.of}
          nameOf={(id: string) => one({ ...c, of: [id] })}
          onset={(of: string[]) => put(i, { ...c, of: of.slice(0, 16) })}
        />
      {:else if c.about === 'part'}
        <TickBoxes
          {label}
          items={within(
            vehicle.parts.map(({ id }) => id),
            c.of,
          )}
          chosen={c.of}
          nameOf={(id: string) => one({ ...c, of: [id] })}
          onset={(of: string[]) => put(i, { ...c, of: of.slice(0, 16) })}
        />
        <label>
          <input type="checkbox" checked={c.covered} onchange={() => put(i, { ...c, covered: !c.covered })} />
          hidden while closed
        </label>
      {:else}
        <TickBoxes {label} items={FACTORY_FUNCTIONS} chosen={c.of} onset={(of) => put(i, { ...c, of })} />
      {/if}
    </li>
  {/each}
  <li>
    <button
      class="link"
      disabled={rule.clauses.length >= 8}
      onclick={() => onset({ ...rule, clauses: [...rule.clauses, begun('colour')] })}>+ condition</button
    >
    <label>
      Take
      <InlineChoice
        label="{name}: which of these"
        options={SET_PICKS.map((pick) => ({
          value: pick,
          text: pick === 'all' ? 'all of these' : PICKS[pick],
        }))}
        value={rule.pick}
        onset={(pick: SetPick) => onset({ ...rule, pick })}
      />
    </label>
  </li>
</ul>

<style>
  .conditions {
    list-style: none;
    padding: 0 0 0 0.75rem;
    margin: 0;
    border-left: 2px solid var(--cds-ui-04);
  }

  .about {
    display: flex;
    gap: 0.5rem;
    width: 100%;
  }

  li {
    display: flex;
    flex-wrap: wrap;
    gap: 0.3rem 0.5rem;
    align-items: center;
    padding: 0.15rem 0;
    font-size: 12.5px;
  }
</style>
