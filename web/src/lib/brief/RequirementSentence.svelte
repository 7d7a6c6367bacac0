<script lang="ts">
  import type { CompleteRequirement } from '@flarik/core/rules/brief/requirements';
  import { openText } from '@flarik/core/state/state';
  import { stopsOf } from '@flarik/core/vehicle/vehicle';
  import { COLOURS, type Colour } from '@flarik/core/words/colour';
  import { FACES, type Face } from '@flarik/core/words/face';
  import { getEditor } from '$lib/editor/context';
  import InlineChoice from '$lib/ui/InlineChoice.svelte';
  import InlineNumber from '$lib/ui/InlineNumber.svelte';
  import TickBoxes from '$lib/ui/TickBoxes.svelte';
  import BehaviourSentence from './BehaviourSentence.svelte';
  import FoldedBoxes from '$lib/ui/FoldedBoxes.svelte';

  /** A wish as a sentence whose figures and choices are edited where they stand. */
  let { wish, onset }: { wish: CompleteRequirement; onset: (wish: CompleteRequirement) => void } = $props();
  const editor = getEditor()();
  const { vehicle, build } = $derived(editor);

  const LIGHTS = [
    { value: 'any', text: 'any' },
    { value: 'steady', text: 'steady' },
    { value: 'flashing', text: 'flashing' },
  ] as const;
  const WHERE = [
    { value: 'where it is', text: 'where it is' },
    { value: 'anywhere', text: 'there or elsewhere on the vehicle' },
  ] as const;
  const zoneNames = (ids: readonly string[]): string =>
    ids.map((id) => vehicle.zones.find((z) => z.id === id)?.name ?? 'deleted zone').join(', ');
</script>

<div class="sentence">
  {#if wish.kind === 'lowest-lamp'}
    Nothing to the
    <TickBoxes
      label="Sides"
      items={FACES}
      chosen={wish.faces}
      onset={(faces: Face[]) => onset({ ...wish, faces })}
    />
    has its lower edge below
    <InlineNumber
      label="Lowest height, mm"
      value={Math.round(wish.heightM * 1000)}
      min={0}
      max={4000}
      step={10}
      onset={(mm: number) => onset({ ...wish, heightM: mm / 1000 })}
    /> mm from the ground.
  {:else if wish.kind === 'no-holes'}
    No holes are drilled in
    <FoldedBoxes
      label="Zones"
      summary={wish.zoneIds.length === 0 ? 'any zone of the vehicle' : zoneNames(wish.zoneIds)}
      items={vehicle.zones}
      chosen={wish.zoneIds}
      atLeast={0}
      onset={(zoneIds: string[]) => onset({ ...wish, zoneIds })}
    />
  {:else if wish.kind === 'only-colours' || wish.kind === 'never-colours'}
    {wish.kind === 'only-colours' ? 'Only' : 'No'}
    <TickBoxes
      label="Colours"
      items={COLOURS}
      chosen={wish.colours}
      onset={(colours: Colour[]) => onset({ ...wish, colours })}
    />
    to the
    <TickBoxes
      label="Sides"
      items={FACES}
      chosen={wish.faces}
      onset={(faces: Face[]) => onset({ ...wish, faces })}
    />, of
    <InlineChoice
      label="Steady or flashing"
      options={LIGHTS}
      value={wish.light}
      onset={(light: typeof wish.light) => onset({ ...wish, light })}
    /> light.
  {:else if wish.kind === 'unseen-when-off'}
    At most
    <InlineNumber
      label="Lamps seen when off"
      value={wish.atMost}
      min={0}
      max={200}
      onset={(atMost: number) => onset({ ...wish, atMost })}
    /> lamps are visible when off.
  {:else if wish.kind === 'spend-at-most'}
    The fixtures cost at most
    <InlineNumber
      label="Cost limit, {editor.build.brief.currency}"
      value={Math.round(wish.minor / 100)}
      min={0}
      max={1e8}
      step={100}
      wide
      onset={(money: number) => onset({ ...wish, minor: money * 100 })}
    />
    {editor.build.brief.currency}.
  {:else if wish.kind === 'keep-head'}
    Keep
    <InlineChoice
      label="Head to keep"
      options={editor.build.placements.map((p) => ({ value: p.id, text: p.label }))}
      value={wish.placementId}
      onset={(placementId: string) => onset({ ...wish, placementId })}
    />
    <InlineChoice
      label="Position of the kept head"
      options={WHERE}
      value={wish.where}
      onset={(where: typeof wish.where) => onset({ ...wish, where })}
    />.
  {:else if wish.kind === 'leave-factory-lamp'}
    Leave the
    <InlineChoice
      label="Untouched factory lamp"
      options={vehicle.factoryLamps.map((l) => ({ value: l.id, text: l.name.toLowerCase() }))}
      value={wish.lampId}
      onset={(lampId: string) => onset({ ...wish, lampId })}
    />
    untouched.
  {:else if wish.kind === 'spare-outputs'}
    Of
    <InlineNumber
      label="Available outputs"
      value={wish.outputs}
      min={1}
      max={512}
      onset={(outputs: number) => onset({ ...wish, outputs })}
    />
    outputs,
    <InlineNumber
      label="Spare outputs"
      value={wish.spare}
      min={0}
      max={512}
      onset={(spare: number) => onset({ ...wish, spare })}
    />
    stay spare.
  {:else if wish.kind === 'behaviour'}
    <BehaviourSentence {wish} {onset} />
  {:else}
    Lamps on
    <FoldedBoxes
      label="Zones"
      summary={zoneNames(wish.zoneIds)}
      items={vehicle.zones}
      chosen={wish.zoneIds}
      atLeast={1}
      onset={(zoneIds: string[]) => onset({ ...wish, zoneIds })}
    />
    stay visible with
    <FoldedBoxes
      label="Open parts"
      summary={openText(build, wish.open)}
      items={stopsOf(vehicle).map((stop) => ({ id: stop.id, name: openText(build, [stop.id]) }))}
      chosen={wish.open}
      atLeast={1}
      onset={(open: string[]) => onset({ ...wish, open })}
    />
  {/if}
</div>

<style>
  .sentence {
    display: flex;
    flex-wrap: wrap;
    gap: 0.3rem;
    align-items: center;
    line-height: 26px;
  }
</style>
