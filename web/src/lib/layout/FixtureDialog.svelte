<script lang="ts">
  import FilePicker from '$lib/ui/FilePicker.svelte';
  import { SYNC_LINES } from '@flarik/core/fixture/flasher';
  import { coloursOffered } from '@flarik/core/fixture/catalogue/catalogue';
  import { Colour } from '@flarik/core/words/colour';
  import {
    attachFile,
    detachFile,
    lampsOf,
    removeFixture,
    importFixtures,
  } from '@flarik/core/design/fixtureEdits';
  import {
    formatOf,
    MAX_PHOTOMETRY_BYTES,
    PhotometryFile,
    readTable,
  } from '@flarik/core/fixture/photometry/file';
  import { InputError, parseInput } from '@flarik/core/words/errors';
  import { peakOf, type TableAxis } from '@flarik/core/fixture/photometry/table';
  import { Fixture } from '@flarik/core/fixture/types';
  import { Name } from '@flarik/core/words/names';
  import { Button, Modal, Select, SelectItem, TextInput } from 'carbon-components-svelte';
  import { getEditor } from '$lib/editor/context';
  import { factsIn } from './facts';
  import FixturePicture from './FixturePicture.svelte';
  import { polarOf } from '@flarik/core/resolve/polar';
  import PolarPlot from './PolarPlot.svelte';
  import { textOf } from '$lib/ui/textOf';
  import TypedNumber from '$lib/ui/TypedNumber.svelte';
  import { freshId } from '$lib/editor/freshId';

  /** All there is to know of a fixture: its facts, how it shines, the measured files attached to it. */
  let { open = $bindable(), fixture }: { open: boolean; fixture: Fixture } = $props();
  const editor = getEditor()();
  const ALL = '';

  let moduleId = $state(ALL);
  let colour = $state('');
  let axis = $state<TableAxis>('aim');
  let asPeak = $state(true);
  let trouble = $state('');
  let picker: { open: () => void } | undefined = $state();

  const module = $derived(fixture.modules.find((m) => m.id === moduleId) ?? fixture.modules[0]);
  const offered = $derived(coloursOffered(fixture.outputs));
  const shownColour = $derived(offered.find((c) => c === colour) ?? offered[0] ?? 'white');
  const files = $derived(editor.build.photometry.filter((f) => f.fixtureId === fixture.id));
  const polar = $derived(module === undefined ? null : polarOf(editor.lookup, fixture, module, shownColour));
  const own = $derived(editor.build.fixtures.some((f) => f.id === fixture.id));
  const facts = $derived(factsIn(editor.build.brief.currency));

  async function attach(file: File): Promise<void> {
    trouble = '';
    try {
      const format = formatOf(file.name);
      const text = await inFile(file.name, () => textOf(file, 'photometric file', MAX_PHOTOMETRY_BYTES));
      const peak = peakOf(await inFile(file.name, () => readTable(format, text)));
      if (peak <= 0) throw new InputError(file.name, 'shines nowhere: every intensity is 0');
      const attached = parseInput(PhotometryFile, {
        id: freshId('p'),
        fileName: file.name,
        format,
        fixtureId: fixture.id,
        moduleId: moduleId === ALL ? null : moduleId,
        axis,
        peakFor: asPeak ? shownColour : null,
        text,
      });
      editor.edit(`Attach ${file.name} to ${fixture.name}`, (b) => attachFile(b, attached));
    } catch (error) {
      trouble = error instanceof Error ? error.message : String(error);
    }
  }

  /** Names the file in an error of its reader. */
  async function inFile<T>(name: string, read: () => T | Promise<T>): Promise<T> {
    try {
      return await read();
    } catch (error) {
      throw error instanceof InputError ? new InputError(name, error.message) : error;
    }
  }

  /** Changes an own fixture, when what comes out can be one. */
  function change(patch: Partial<Fixture>): void {
    const changed = Fixture.safeParse({ ...fixture, ...patch });
    trouble = changed.success ? '' : (changed.error.issues[0]?.message ?? 'not accepted');
    if (changed.success)
      editor.edit(
        `Change ${fixture.name}`,
        (b) => importFixtures(b, [changed.data]).build,
        `own ${fixture.id}`,
      );
  }

  const CONTROLLER = 'controller';
  const ALONE = 'alone';
  const VOLTS: Readonly<Record<string, Fixture['volts']>> = { '12': [12], '24': [24], '12 24': [12, 24] };

  function chooseFlasher(value: string): void {
    const line = SYNC_LINES.find((l) => l === value) ?? null;
    const tolerancePercent = fixture.flasher?.tolerancePercent ?? 1;
    const flasher = value === CONTROLLER ? null : { line, tolerancePercent };
    if (
      (flasher?.line ?? value) !== (fixture.flasher === null ? CONTROLLER : (fixture.flasher.line ?? ALONE))
    )
      change({ flasher });
  }

  const NUMBERS: readonly {
    label: string;
    unit: string;
    value: (f: Fixture) => number;
    max: number;
    patch: (f: Fixture, v: number) => Partial<Fixture>;
  }[] = [
    {
      label: 'Width',
      unit: 'mm',
      value: (f) => f.sizeM.width * 1000,
      max: 4000,
      patch: (f, v) => ({ sizeM: { ...f.sizeM, width: v / 1000 } }),
    },
    {
      label: 'Height',
      unit: 'mm',
      value: (f) => f.sizeM.height * 1000,
      max: 2000,
      patch: (f, v) => ({ sizeM: { ...f.sizeM, height: v / 1000 } }),
    },
    {
      label: 'Depth',
      unit: 'mm',
      value: (f) => f.sizeM.depth * 1000,
      max: 2000,
      patch: (f, v) => ({ sizeM: { ...f.sizeM, depth: v / 1000 } }),
    },
    {
      label: 'Weight',
      unit: 'kg',
      value: (f) => f.weightKg,
      max: 200,
      patch: (_, v) => ({ weightKg: v }),
    },
    { label: 'Holes', unit: '', value: (f) => f.holes, max: 40, patch: (_, v) => ({ holes: Math.round(v) }) },
    {
      label: 'Price',
      unit: 'money',
      value: (f) => f.priceMinor / 100,
      max: 1e7,
      patch: (_, v) => ({ priceMinor: Math.round(v * 100) }),
    },
    {
      label: 'In stock',
      unit: '',
      value: (f) => f.inStock,
      max: 1e6,
      patch: (_, v) => ({ inStock: Math.round(v) }),
    },
    {
      label: 'Else in',
      unit: 'days',
      value: (f) => f.leadDays,
      max: 1000,
      patch: (_, v) => ({ leadDays: Math.round(v) }),
    },
  ];
</script>

<Modal passiveModal bind:open size="lg" modalHeading={fixture.name} hasScrollingContent>
  <div class="dialog">
    <div>
      <FixturePicture {fixture} />
      <p class="quiet">{fixture.what}</p>
      <dl>
        {#each facts as fact (fact.name)}
          <dt>{fact.name}</dt>
          <dd>{fact.of(fixture)}</dd>
        {/each}
      </dl>
      {#if own}
        <h3>Custom values</h3>
        <TextInput
          size="sm"
          labelText="Name"
          value={fixture.name}
          on:change={(event) => change({ name: String(event.detail ?? '').trim() })}
        />
        <div class="numbers">
          {#each NUMBERS as n (n.label)}
            <TypedNumber
              label={n.label}
              unit={n.unit === 'money' ? editor.build.brief.currency : n.unit}
              value={n.value(fixture)}
              min={0}
              max={n.max}
              onset={(v: number) => change(n.patch(fixture, v))}
            />
          {/each}
          {#each offered as c (c)}
            <TypedNumber
              label="Peak {c}"
              unit="cd"
              value={fixture.outputs[c]?.peakCd ?? 0}
              min={0}
              max={1e7}
              onset={(v: number) =>
                change({
                  outputs: {
                    ...fixture.outputs,
                    [c]: { peakCd: v, currentA: fixture.outputs[c]?.currentA ?? 0 },
                  },
                })}
            />
          {/each}
        </div>
        <Select
          size="sm"
          labelText="Flashed by"
          selected={fixture.flasher === null ? CONTROLLER : (fixture.flasher.line ?? ALONE)}
          on:update={(event) => chooseFlasher(String(event.detail))}
        >
          <SelectItem value={CONTROLLER} text="the controller’s outputs" />
          <SelectItem value={ALONE} text="own flasher, no sync line" />
          {#each SYNC_LINES as line (line)}
            <SelectItem value={line} text="own flasher, synchronised by a {line}" />
          {/each}
        </Select>
        <Select
          size="sm"
          labelText="Voltage"
          selected={fixture.volts.join(' ')}
          on:update={(event) => {
            const volts = VOLTS[String(event.detail)];
            if (volts !== undefined && volts.join() !== fixture.volts.join()) change({ volts: [...volts] });
          }}
        >
          <SelectItem value="12" text="12 V" />
          <SelectItem value="24" text="24 V" />
          <SelectItem value="12 24" text="12 or 24 V" />
        </Select>
        <TextInput
          size="sm"
          labelText="Approvals, separated by semicolons"
          placeholder="not entered"
          maxlength={400}
          value={fixture.approvals.join('; ')}
          on:change={(event) => {
            const approvals = [
              ...new Set(
                String(event.detail ?? '')
                  .split(';')
                  .map((text) => text.trim())
                  .filter((text) => Name.safeParse(text).success),
              ),
            ].slice(0, 12);
            if (approvals.join() !== fixture.approvals.join()) change({ approvals });
          }}
        />
        {#if lampsOf(editor.build, fixture.id) === 0}
          <Button
            size="small"
            kind="danger-ghost"
            on:click={() => {
              open = false;
              editor.edit(`Delete ${fixture.name}`, (b) => removeFixture(b, fixture.id));
            }}>Delete this fixture</Button
          >
        {:else}
          <p class="quiet small">It is placed on the vehicle and cannot be deleted.</p>
        {/if}
      {/if}
    </div>
    <div>
      <div class="row">
        {#if fixture.modules.length > 1}
          <Select size="sm" labelText="Module" bind:selected={moduleId}>
            <SelectItem value={ALL} text="every module" />
            {#each fixture.modules as m (m.id)}<SelectItem value={m.id} text={m.name} />{/each}
          </Select>
        {/if}
        <Select
          size="sm"
          labelText="Colour"
          selected={shownColour}
          on:update={(event) => (colour = Colour.safeParse(event.detail).data ?? '')}
        >
          {#each offered as c (c)}<SelectItem value={c} text={c} />{/each}
        </Select>
      </div>
      {#if polar !== null}<PolarPlot {polar} />{/if}
      <h3>Measured files</h3>
      <p class="quiet small">
        An IES LM-63 or EULUMDAT file for {moduleId === ALL ? 'the modules' : (module?.name ?? 'it')} replaces the
        beam above in every calculation.
      </p>
      {#each files as file (file.id)}
        <div class="file">
          <span
            >{file.fileName}
            <span class="quiet"
              >{file.moduleId === null
                ? 'every module'
                : (fixture.modules.find((m) => m.id === file.moduleId)?.name ?? 'deleted module')},
              {file.peakFor === null ? 'its shape alone' : `its peak for ${file.peakFor}`}</span
            ></span
          >
          <Button
            size="small"
            kind="ghost"
            on:click={() => editor.edit(`Detach ${file.fileName}`, (b) => detachFile(b, file.id))}
            >Detach</Button
          >
        </div>
      {/each}
      <label class="flag"
        ><input type="checkbox" bind:checked={asPeak} /> take its peak for {shownColour} as well as its shape</label
      >
      <Select size="sm" labelText="A type C file’s axis points" bind:selected={axis}>
        <SelectItem value="aim" text="aim of the module" />
        <SelectItem value="upright" text="down: an upright lamp, as a beacon is measured" />
      </Select>
      <div class="row">
        <Button size="small" kind="tertiary" on:click={() => picker?.open()}>Attach a file</Button>
        <FilePicker bind:this={picker} label="Photometric file" accept=".ies,.ldt" ontake={attach} />
      </div>
      {#if trouble !== ''}<p class="trouble" role="alert">{trouble}</p>{/if}
    </div>
  </div>
</Modal>

<style>
  .dialog {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 1.5rem;
  }

  dl {
    display: grid;
    grid-template-columns: auto 1fr;
    gap: 0.2rem 0.75rem;
    margin: 0.5rem 0;
  }

  dt {
    color: var(--cds-text-02);
  }

  dt,
  dd {
    font-size: 13px;
  }

  h3 {
    margin: 0.6rem 0 0.2rem;
    font-size: 14px;
    font-weight: 600;
  }

  .row {
    display: flex;
    gap: 0.75rem;
    align-items: end;
    margin: 0.3rem 0;
  }

  .numbers {
    display: grid;
    grid-template-columns: 1fr 1fr 1fr;
    gap: 0.5rem;
    margin: 0.4rem 0;
  }

  .numbers :global(.bx--label) {
    white-space: nowrap;
  }
  .file {
    display: flex;
    justify-content: space-between;
    align-items: center;
    font-size: 13px;
  }

  .flag {
    display: flex;
    gap: 0.4rem;
    align-items: center;
    font-size: 13px;
    margin: 0.3rem 0;
  }

  .small {
    font-size: 12px;
  }

  .trouble {
    color: var(--gap);
  }
</style>
