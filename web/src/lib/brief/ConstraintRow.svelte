<script lang="ts">
  import { type Wish, wishSentence } from '@flarik/core/rules/brief/wishes';
  import { changeWish, removeWish } from '@flarik/core/design/briefEdits';
  import { SEVERITIES, Severity } from '@flarik/core/words/severity';
  import { Face } from '@flarik/core/words/face';
  import { openText } from '@flarik/core/state/state';
  import { COLOURS, type Colour } from '@flarik/core/words/colour';
  import { stopsOf } from '@flarik/core/vehicle/vehicle';
  import { Button } from 'carbon-components-svelte';
  import TrashCan from 'carbon-icons-svelte/lib/TrashCan.svelte';
  import { getEditor } from '$lib/editor/context';
  import { severityMark } from '$lib/frame/severity';
  import { showFinding } from '$lib/frame/showFinding';

  /** One wish: a sentence with its figures in it, and how it stands just now. */
  let { constraint }: { constraint: Wish } = $props();
  const editor = getEditor()();

  const sentence = $derived(wishSentence(editor.build, constraint));
  const broken = $derived(
    (editor.check.answer?.findings ?? []).filter((f) => f.packId === 'brief' && f.ruleId === constraint.id),
  );
  const { vehicle } = $derived(editor);

  const set = (changed: Wish): void =>
    editor.edit(`Change the wish: ${sentence}`, (b) => changeWish(b, changed), `wish ${constraint.id}`);

  const number = (event: Event): number | null => {
    const value = event.currentTarget instanceof HTMLInputElement ? event.currentTarget.valueAsNumber : NaN;
    return Number.isFinite(value) ? value : null;
  };
  const within = (value: number, min: number, max: number): number => Math.min(Math.max(value, min), max);

  /** With the item in it or out of it; the last one stays where one must. */
  function toggled<T>(items: readonly T[], item: T, atLeast: number): T[] {
    if (!items.includes(item)) return [...items, item];
    return items.length > atLeast ? items.filter((i) => i !== item) : [...items];
  }
  const FACES: readonly Face[] = Face.options;
</script>

{#snippet boxes<T extends string>(
  label: string,
  all: readonly T[],
  chosen: readonly T[],
  change: (items: T[]) => void,
)}
  <span class="boxes" role="group" aria-label={label}>
    {#each all as item (item)}
      <label class:on={chosen.includes(item)}>
        <input
          type="checkbox"
          checked={chosen.includes(item)}
          onchange={() => change(toggled(chosen, item, 1))}
        />
        {item}
      </label>
    {/each}
  </span>
{/snippet}

{#snippet zoneBoxes(chosen: readonly string[], atLeast: number, change: (ids: string[]) => void)}
  <details class="zones">
    <summary
      >{chosen.length === 0
        ? 'any zone of the vehicle'
        : chosen.map((id) => vehicle.zones.find((z) => z.id === id)?.name ?? id).join(', ')}</summary
    >
    <span class="boxes" role="group" aria-label="Zones">
      {#each vehicle.zones as zone (zone.id)}
        <label class:on={chosen.includes(zone.id)}>
          <input
            type="checkbox"
            checked={chosen.includes(zone.id)}
            onchange={() => change(toggled(chosen, zone.id, atLeast))}
          />
          {zone.name}
        </label>
      {/each}
    </span>
  </details>
{/snippet}

<li class:broken={broken.length > 0}>
  <div class="wish">
    <div class="sentence">
      {#if constraint.kind === 'lowest-lamp'}
        Nothing stands lower than
        <input
          type="number"
          aria-label="Lowest height, mm"
          min="0"
          max="4000"
          step="10"
          value={Math.round(constraint.heightM * 1000)}
          onchange={(event) => {
            const mm = number(event);
            if (mm !== null) set({ ...constraint, heightM: within(mm, 0, 4000) / 1000 });
          }}
        /> mm from the ground.
      {:else if constraint.kind === 'no-holes'}
        No holes are drilled in
        {@render zoneBoxes(constraint.zoneIds, 0, (zoneIds) => set({ ...constraint, zoneIds }))}
      {:else if constraint.kind === 'only-colours'}
        Only {@render boxes('Colours', COLOURS, constraint.colours, (colours: Colour[]) =>
          set({ ...constraint, colours }),
        )}
        to the {@render boxes('Sides', FACES, constraint.faces, (faces: Face[]) =>
          set({ ...constraint, faces }),
        )}
      {:else if constraint.kind === 'never-colours'}
        No {@render boxes('Colours', COLOURS, constraint.colours, (colours: Colour[]) =>
          set({ ...constraint, colours }),
        )}
        to the {@render boxes('Sides', FACES, constraint.faces, (faces: Face[]) =>
          set({ ...constraint, faces }),
        )}
      {:else if constraint.kind === 'unseen-when-off'}
        At most
        <input
          type="number"
          aria-label="Lamps seen when off"
          min="0"
          max="200"
          value={constraint.atMost}
          onchange={(event) => {
            const count = number(event);
            if (count !== null) set({ ...constraint, atMost: Math.round(within(count, 0, 200)) });
          }}
        /> lamps are seen when off.
      {:else if constraint.kind === 'spend-at-most'}
        The fixtures cost at most
        <input
          type="number"
          class="wide"
          aria-label="Most to spend, {editor.build.brief.currency}"
          min="0"
          step="100"
          value={Math.round(constraint.minor / 100)}
          onchange={(event) => {
            const money = number(event);
            if (money !== null) set({ ...constraint, minor: Math.round(within(money, 0, 1e8) * 100) });
          }}
        />
        {editor.build.brief.currency}.
      {:else if constraint.kind === 'keep-head'}
        Keep
        <select
          aria-label="Head to keep"
          value={constraint.placementId}
          onchange={(event) => set({ ...constraint, placementId: event.currentTarget.value })}
        >
          {#each editor.build.placements as p (p.id)}<option value={p.id}>{p.label}</option>{/each}
        </select>
        where it is.
      {:else if constraint.kind === 'leave-factory-lamp'}
        Leave the
        <select
          aria-label="Factory lamp to leave alone"
          value={constraint.lampId}
          onchange={(event) => set({ ...constraint, lampId: event.currentTarget.value })}
        >
          {#each vehicle.factoryLamps as lamp (lamp.id)}<option value={lamp.id}
              >{lamp.name.toLowerCase()}</option
            >{/each}
        </select>
        untouched.
      {:else if constraint.kind === 'spare-outputs'}
        Of
        <input
          type="number"
          aria-label="Outputs there are"
          min="1"
          max="512"
          value={constraint.outputs}
          onchange={(event) => {
            const n = number(event);
            if (n !== null) set({ ...constraint, outputs: Math.round(within(n, 1, 512)) });
          }}
        />
        outputs,
        <input
          type="number"
          aria-label="Outputs to stay spare"
          min="0"
          max="512"
          value={constraint.spare}
          onchange={(event) => {
            const n = number(event);
            if (n !== null) set({ ...constraint, spare: Math.round(within(n, 0, 512)) });
          }}
        />
        stay spare.
      {:else}
        Lamps on {@render zoneBoxes(constraint.zoneIds, 1, (zoneIds) => set({ ...constraint, zoneIds }))}
        stay visible with
        <details class="zones">
          <summary>{openText(vehicle, constraint.open)}</summary>
          <span class="boxes" role="group" aria-label="What stands open">
            {#each stopsOf(vehicle) as stop (stop.id)}
              {@const words = openText(vehicle, [stop.id])}
              <label class:on={constraint.open.includes(stop.id)}>
                <input
                  type="checkbox"
                  checked={constraint.open.includes(stop.id)}
                  onchange={() => set({ ...constraint, open: toggled(constraint.open, stop.id, 1) })}
                />
                {words}
              </label>
            {/each}
          </span>
        </details>
      {/if}
    </div>
    <p class="standing">
      {#if editor.check.answer === null}
        <span class="quiet">checking …</span>
      {:else if broken.length === 0}
        <span class="holds">✓ holds</span>
      {:else}
        {#each broken.slice(0, 3) as finding (finding.id)}
          <button onclick={() => showFinding(editor, finding)}
            ><span class={finding.severity} aria-hidden="true">{severityMark[finding.severity].shape}</span>
            {finding.sentence}</button
          >
        {/each}
        {#if broken.length > 3}<span class="quiet">and {broken.length - 3} more below</span>{/if}
      {/if}
    </p>
  </div>
  <select
    aria-label="How grave: {sentence}"
    value={constraint.severity}
    onchange={(event) => {
      const severity = Severity.safeParse(event.currentTarget.value);
      if (severity.success) set({ ...constraint, severity: severity.data });
    }}
  >
    {#each SEVERITIES as severity (severity)}<option value={severity}>{severityMark[severity].name}</option
      >{/each}
  </select>
  <Button
    kind="ghost"
    size="small"
    icon={TrashCan}
    iconDescription="Delete: {sentence}"
    tooltipPosition="left"
    on:click={() => editor.edit(`Delete the wish: ${sentence}`, (b) => removeWish(b, constraint.id))}
  />
</li>

<style>
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto auto;
    gap: 0.5rem;
    align-items: start;
    padding: 0.6rem 0.5rem 0.6rem 0.75rem;
    border-left: 3px solid var(--good);
    background: var(--cds-ui-01);
  }

  li.broken {
    border-left-color: var(--gap);
  }

  .sentence {
    display: flex;
    flex-wrap: wrap;
    gap: 0.3rem;
    align-items: center;
    line-height: 26px;
  }

  input[type='number'],
  select {
    height: 26px;
    padding: 0 0.35rem;
    border: 1px solid var(--cds-ui-04);
    background: var(--cds-field-01);
    color: var(--cds-text-01);
    font: inherit;
    font-size: 13px;
  }

  input[type='number'] {
    width: 4.6rem;
  }

  input.wide {
    width: 6.5rem;
  }

  :is(input, select, summary, button):focus-visible {
    outline: 2px solid var(--cds-focus);
  }

  .boxes {
    display: inline-flex;
    flex-wrap: wrap;
    gap: 0.2rem 0.3rem;
  }

  .boxes label {
    display: inline-flex;
    gap: 0.25rem;
    align-items: center;
    padding: 0 0.4rem;
    border: 1px solid var(--cds-ui-04);
    font-size: 12px;
    line-height: 22px;
    color: var(--cds-text-02);
  }

  .boxes label.on {
    color: var(--cds-text-01);
    background: var(--cds-ui-03);
  }

  .zones summary {
    padding: 0 0.4rem;
    border: 1px solid var(--cds-ui-04);
    background: var(--cds-field-01);
    font-size: 13px;
    cursor: pointer;
  }

  .zones[open] {
    flex-basis: 100%;
  }

  .zones .boxes {
    padding: 0.3rem 0;
  }

  .standing {
    display: grid;
    gap: 2px;
    font-size: 13px;
  }

  .standing button {
    padding: 0;
    border: 0;
    background: none;
    color: var(--cds-text-02);
    font: inherit;
    text-align: left;
    cursor: pointer;
  }

  .standing button:hover {
    color: var(--cds-text-01);
    text-decoration: underline;
  }

  .holds {
    color: var(--good);
  }

  .blocks {
    color: var(--gap);
  }

  .warns {
    color: var(--warn);
  }

  .advises {
    color: var(--accent);
  }
</style>
