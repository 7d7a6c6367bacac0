<script lang="ts">
  import { untrack } from 'svelte';
  import { Button, TextArea, TextInput } from 'carbon-components-svelte';
  import { getEditor } from '$lib/editor/context';
  import TypedNumber from '$lib/ui/TypedNumber.svelte';
  import TickBoxes from '$lib/ui/TickBoxes.svelte';

  /** The figures of one own part, each of which can be typed. */
  let {
    item,
    what,
    choices,
    several = {},
    named = true,
    open = false,
    onchange,
    onremove = null,
  }: {
    item: { readonly id: string; readonly name: string };
    /** What it is, in a word. */
    what: string;
    /** Fields that take one of a few words. */
    choices: Readonly<Record<string, readonly string[]>>;
    /** Fields that take at least one of a few words. */
    several?: Readonly<Record<string, readonly string[]>>;
    /** It can be called otherwise. */
    named?: boolean;
    /** Its figures are seen at once. */
    open?: boolean;
    onchange: (patch: object) => void;
    onremove?: (() => void) | null;
  } = $props();

  const editor = getEditor()();
  let isOpen = $state(untrack(() => open));
  const fields = $derived(Object.entries<unknown>(item));
  const FIELD: Readonly<Record<string, string>> = {
    name: 'Name',
    behind: 'Space behind',
    does: 'Function',
    face: 'On the',
    facing: 'Looks',
    panDeg: 'Turned right',
    tiltDeg: 'Tilted up',
    partId: 'Carried by',
    mount: 'Takes',
    fixings: 'Mounting',
    behindM: 'Free depth behind',
    outM: 'Projection allowed',
    kind: 'Kind',
    colour: 'Colour',
    widthM: 'Width',
    heightM: 'Height',
    fromY: 'From',
    toY: 'To',
    centre: 'Middle',
    middle: 'Middle',
    from: 'From',
    to: 'To',
  };
  /** Lengths that nobody need have measured. */
  const optional = ['behindM', 'outM'];
  const AXES = ['x', 'y', 'z'] as const;
  const lengths = $derived(
    fields.flatMap(([key, value]) => {
      if (
        typeof value === 'number' &&
        key !== 'transmission' &&
        !key.endsWith('Deg') &&
        key !== 'cdPerLxM2' &&
        key !== 'loadA' &&
        !optional.includes(key)
      )
        return [
          {
            label: `${FIELD[key] ?? key}${key.endsWith('Y') ? ' y' : ''}`,
            value,
            patch: (v: number): object => ({ [key]: v }),
          },
        ];
      if (!isPoint(value)) return [];
      return AXES.map((axis, i) => ({
        label: `${FIELD[key] ?? key} ${axis}`,
        value: value[i] ?? 0,
        patch: (v: number): object => ({ [key]: value.map((old, j) => (i === j ? v : old)) }),
      }));
    }),
  );
  const profile = $derived(
    fields.flatMap(([key, value]) => (key === 'points' && isProfile(value) ? [value] : []))[0],
  );
  let refused = $state('');

  function isPoint(value: unknown): value is number[] {
    return Array.isArray(value) && value.length === 3 && value.every((v) => typeof v === 'number');
  }
  function isWords(value: unknown): value is string[] {
    return Array.isArray(value) && value.every((v) => typeof v === 'string');
  }
  function isProfile(value: unknown): value is number[][] {
    return Array.isArray(value) && value.every((v) => Array.isArray(v));
  }

  const mm = (m: number): number => Math.round(m * 1000);

  /** Corners as lines of "x z" in millimetres. */
  function readProfile(text: string): void {
    const lines = text.split('\n').filter((row) => row.trim() !== '');
    const points = lines.map((row) =>
      row
        .trim()
        .split(/[\s,;]+/)
        .map(Number),
    );
    const bad = points.findIndex((p) => p.length !== 2 || !p.every(Number.isFinite));
    refused = bad < 0 ? '' : `corner ${bad + 1}: enter two numbers, x and z in mm`;
    if (bad < 0) onchange({ points: points.map((p) => p.map((v) => v / 1000)) });
  }
</script>

<details bind:open={isOpen}>
  <summary>{item.name} <span class="quiet">{what}</span></summary>
  <div class="figures">
    {#each fields as [key, value] (key)}
      {#if ((key === 'name' && named) || key === 'behind') && typeof value === 'string'}
        <div class="whole">
          <TextInput
            size="sm"
            labelText={FIELD[key] ?? key}
            {value}
            on:change={(event) => onchange({ [key]: String(event.detail ?? '').trim() })}
          />
        </div>
      {:else if choices[key] !== undefined && typeof value === 'string'}
        <label class="choice">
          {FIELD[key] ?? key}
          <select {value} onchange={(event) => onchange({ [key]: event.currentTarget.value })}>
            {#each choices[key] as option (option)}<option value={option}>{option}</option>{/each}
          </select>
        </label>
      {:else if several[key] !== undefined && isWords(value)}
        <div class="whole choice">
          {FIELD[key] ?? key}
          <TickBoxes
            label={FIELD[key] ?? key}
            items={several[key]}
            chosen={value}
            onset={(words: string[]) => onchange({ [key]: words })}
          />
        </div>
      {:else if key === 'partId'}
        <label class="choice">
          {FIELD[key]}
          <select
            value={value ?? ''}
            onchange={(event) => onchange({ partId: event.currentTarget.value || null })}
          >
            <option value="">the body</option>
            {#each editor.vehicle.parts as part (part.id)}<option value={part.id}>{part.name}</option>{/each}
          </select>
        </label>
      {:else if key.endsWith('Deg') && typeof value === 'number'}
        <TypedNumber
          label={FIELD[key] ?? key}
          unit="°"
          {value}
          min={-90}
          max={90}
          onset={(v: number) => onchange({ [key]: v })}
        />
      {:else if key === 'cdPerLxM2' && typeof value === 'number'}
        <TypedNumber
          label="Retroreflection R_A"
          unit="cd/lx/m²"
          {value}
          min={0}
          max={2000}
          onset={(v: number) => onchange({ [key]: v })}
        />
      {:else if key === 'loadA' && typeof value === 'number'}
        <TypedNumber
          label="Operating current"
          unit="A"
          {value}
          min={0}
          max={200}
          onset={(v: number) => onchange({ [key]: v })}
        />
      {:else if optional.includes(key)}
        <label class="choice">
          {FIELD[key]}, mm
          <input
            inputmode="numeric"
            placeholder="not measured"
            value={typeof value === 'number' ? mm(value) : ''}
            onchange={(event) => {
              const text = event.currentTarget.value.trim();
              onchange({ [key]: text === '' ? null : Number(text) / 1000 });
            }}
          />
        </label>
      {:else if typeof value === 'boolean'}
        <label class="whole flag">
          <input
            type="checkbox"
            checked={value}
            onchange={(event) => onchange({ [key]: event.currentTarget.checked })}
          /> Single wall: not to be drilled
        </label>
      {:else if key === 'transmission' && typeof value === 'number'}
        <TypedNumber
          label="Transmission"
          unit="%"
          value={value * 100}
          min={0}
          max={100}
          onset={(v: number) => onchange({ [key]: v / 100 })}
        />
      {/if}
    {/each}
    {#each lengths as field (field.label)}
      <TypedNumber
        label={field.label}
        unit="mm"
        value={mm(field.value)}
        min={-15_000}
        max={15_000}
        onset={(v: number) => onchange(field.patch(v / 1000))}
      />
    {/each}
    {#if profile !== undefined}
      <div class="whole">
        <TextArea
          rows={5}
          labelText="Corners in order: x and z of each, mm"
          value={profile.map((p) => p.map(mm).join(' ')).join('\n')}
          invalid={refused !== ''}
          invalidText={refused}
          on:change={(event) => {
            if (event.target instanceof HTMLTextAreaElement) readProfile(event.target.value);
          }}
        />
      </div>
    {/if}
    <p class="whole quiet small">x forward from the vehicle’s centre, y to its left, z up from the ground.</p>
    {#if onremove !== null}
      <Button size="small" kind="danger-ghost" on:click={onremove}>Delete</Button>
    {/if}
  </div>
</details>

<style>
  details {
    border: 1px solid var(--cds-ui-03);
    padding: 0 0.4rem;
  }

  summary {
    padding: 0.25rem 0;
    font-size: 13px;
    cursor: pointer;
  }

  .figures {
    display: grid;
    grid-template-columns: repeat(2, minmax(0, 1fr));
    gap: 0.4rem;
    padding-bottom: 0.4rem;
  }

  .figures :global(.bx--label) {
    white-space: nowrap;
  }
  .whole {
    grid-column: 1 / -1;
  }

  .small {
    font-size: 12px;
  }

  .flag {
    display: flex;
    gap: 0.4rem;
    align-items: center;
    font-size: 13px;
  }

  .choice {
    display: grid;
    gap: 4px;
    font-size: 12px;
    color: var(--cds-text-02);
  }

  .choice input:not([type='checkbox']) {
    min-width: 0;
  }

  .choice input:not([type='checkbox']),
  .choice select {
    height: 32px;
  }
</style>
