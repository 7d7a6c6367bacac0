<script lang="ts">
  import { activeFunctionNames } from '@flarik/core/design/controls';
  import { setFinish } from '@flarik/core/design/ownEdits';
  import { LUMINANCE_AROUND } from '@flarik/core/sight/approach';
  import { partText } from '@flarik/core/vehicle/partText';
  import type { Colour } from '@flarik/core/words/colour';
  import { getEditor } from '$lib/editor/context';
  import Choice from '$lib/ui/Choice.svelte';
  import FigureField from '$lib/ui/FigureField.svelte';
  import type { EyesAnswer } from '$lib/workers/sight.worker';
  import Beside from './Beside.svelte';
  import DriverOutlook, { type Mark } from './DriverOutlook.svelte';
  import { contrastText, small, whoText, type UsedTo } from './glareText';
  import LampList from './LampList.svelte';

  /** What the own lamps do to the driver: seen straight, in glass and mirrors, thrown back by what they light and by fog. */
  let {
    answer,
    usedTo,
    opticalRangeM,
    stale,
    onrange,
  }: {
    answer: EyesAnswer;
    usedTo: UsedTo;
    opticalRangeM: number;
    stale: boolean;
    onrange: (opticalRangeM: number) => void;
  } = $props();
  const editor = getEditor()();
  const labels = $derived(new Map(editor.build.placements.map((p) => [p.id, p.label])));
  const RANGES = ['50', '80', '200'].map((value) => ({ value, text: `${value} m` }));
  const WHITE: Colour = 'white';
  const { veil, direct } = $derived(answer);
  /** At their highest lamps do not add up: not all are there at once. */
  const lampsByMean = $derived((veil?.byLamp ?? []).toSorted((a, b) => b.mean - a.mean));
  const fogLuminance = $derived(LUMINANCE_AROUND[usedTo.around]);
  /** The brightest surfaces, and those besides of which the build says how much they throw back. */
  const lit = $derived(answer.bounces.slice(0, 6));
  const dark = $derived(
    editor.build.finishes.filter(({ surface }) => !lit.some((bounce) => bounce.surface === surface)),
  );
  const marks = $derived<Mark[]>([
    ...lit.map((one) => ({
      ...one,
      what: 'lit' as const,
      text: `${partText(one.surface)} ${small(one.highest)} cd/m²`,
    })),
    ...answer.reflections
      .slice(0, 6)
      .map((one) => ({ ...one, what: 'shown' as const, text: `${one.mirror} ${small(one.eyeLx)} lx` })),
    ...direct.flatMap(({ byLamp }) =>
      byLamp.slice(0, 4).map((one) => ({
        ...one,
        what: 'straight' as const,
        text: `${labels.get(one.placementId) ?? 'deleted lamp'} ${small(one.eyeLx)} lx`,
      })),
    ),
  ]);
  /** Drawn as lit as it is bright against what the eye is used to: a hundredth of it not at all, ten times as much whole. */
  const litShares = $derived(
    new Map(
      answer.bounces.map(({ surface, highest }) => [
        surface,
        Math.min(1, Math.max(0, (Math.log10(highest / usedTo.cdPerM2) + 2) / 3)),
      ]),
    ),
  );
  /** What takes most from what this eye could see, in a sentence: a veil over all, or a surface brighter than what it is used to. */
  const worstText = $derived.by(() => {
    const [surface] = lit;
    const own = answer.stations.find(({ station }) => station.id === 'driver')?.glare;
    const veils = [
      ...answer.reflections.map(({ mirror, ...one }) => ({ ...one, by: `reflections in ${mirror}` })),
      ...(own === undefined ? [] : [{ ...own, by: 'lamps in direct view' }]),
    ].toSorted((a, b) => b.highest - a.highest);
    const [worst] = veils;
    if (worst !== undefined && worst.highest > (surface?.highest ?? 0))
      return `Worst for the driver: ${worst.by} (${whoText(labels, worst.byLamp)}), peak threshold increment ${contrastText(worst.highest, usedTo)}.`;
    if (surface === undefined)
      return 'No lit lamp causes glare for the driver, and no surface in view reaches 0.01 cd/m².';
    const times = small(surface.highest / usedTo.cdPerM2);
    return `Worst for the driver: ${partText(surface.surface)}, lit to ${small(surface.highest)} cd/m² by ${whoText(labels, surface.byLamp)}, ${times} times what the eye is used to.`;
  });
  const isSaid = (surface: string): boolean =>
    editor.build.finishes.some((finish) => finish.surface === surface);
  const setBack = (surface: string, percent: number | null): void =>
    editor.edit(`Set reflectance of ${partText(surface)}`, (b) => setFinish(b, surface, percent));
</script>

{#snippet finish(surface: string, reflectance: number)}
  <td>
    {partText(surface)}
    {#if isSaid(surface)}
      <button
        class="link"
        aria-label="Use the default reflectance of {partText(surface)}"
        onclick={() => setBack(surface, null)}>Default</button
      >
    {/if}
  </td>
  <td class="figure field">
    <FigureField
      label="{partText(surface)}, reflectance, %"
      value={Math.round(reflectance * 100)}
      min={0}
      max={95}
      whole={true}
      onset={(percent: number) => setBack(surface, percent)}
    /> %
  </td>
{/snippet}

<Beside label="Fog backscatter" {stale}>
  <section aria-label="Driver’s view of the vehicle’s lamps">
    {#if veil === null || answer.outlook === null}
      <p class="quiet">This body type has no driver’s seat.</p>
    {:else}
      <p class="worst">{worstText}</p>
      <DriverOutlook outlook={answer.outlook} {marks} lit={litShares} />
      <table aria-label="Lamps in direct view">
        <thead>
          <tr><th>Direct view, function</th><th>At the eye, lx</th><th>Main source</th></tr>
        </thead>
        <tbody>
          {#each direct.slice(0, 5) as { on, eyeLx, byLamp } (on)}
            <tr>
              <td>{activeFunctionNames(editor.seen, [on])}</td>
              <td class="figure">{small(eyeLx)}</td>
              <td class="who"
                >{byLamp
                  .slice(0, 2)
                  .map((one) => `${labels.get(one.placementId) ?? 'deleted lamp'} ${small(one.eyeLx)} lx`)
                  .join(', ')}</td
              >
            </tr>
          {:else}
            <tr><td colspan="3" class="quiet">No lit lamp is in the driver’s direct view.</td></tr>
          {/each}
        </tbody>
      </table>
    {/if}
    {#if answer.reflections.length > 0}
      <table aria-label="Reflections in the driver’s view">
        <thead>
          <tr
            ><th>Reflection in</th><th>Veiling luminance, cd/m²</th><th>Threshold increment</th><th
              >At the eye, lx</th
            ><th>Direction</th><th>Main source</th></tr
          >
        </thead>
        <tbody>
          {#each answer.reflections.slice(0, 6) as reflection (reflection.mirror)}
            <tr>
              <td>{reflection.mirror}</td>
              <td class="figure">{small(reflection.highest)}</td>
              <td class="figure">{contrastText(reflection.highest, usedTo)}</td>
              <td class="figure">{small(reflection.eyeLx)}</td>
              <td class="figure"
                >{Math.round(reflection.bearingDeg)}°, {Math.round(reflection.elevationDeg)}°</td
              >
              <td class="who">{whoText(labels, reflection.byLamp)}</td>
            </tr>
          {/each}
        </tbody>
      </table>
    {/if}
    {#if lit.length > 0 || dark.length > 0}
      <table aria-label="Lit surfaces before the driver">
        <thead>
          <tr
            ><th>Lit surface</th><th>Reflectance</th><th>Peak, cd/m²</th><th>Average</th><th>Direction</th><th
              >Main source</th
            ></tr
          >
        </thead>
        <tbody>
          {#each lit as bounce (bounce.surface)}
            <tr>
              {@render finish(bounce.surface, bounce.reflectance)}
              <td class="figure">{small(bounce.highest)}</td>
              <td class="figure">{small(bounce.mean)}</td>
              <td class="figure">{bounce.bearingDeg}°, {bounce.elevationDeg}°</td>
              <td class="who">{whoText(labels, bounce.byLamp)}</td>
            </tr>
          {/each}
          {#each dark as { surface, percent } (surface)}
            <tr>
              {@render finish(surface, percent / 100)}
              <td class="figure quiet">below 0.01</td>
              <td colspan="3"></td>
            </tr>
          {/each}
        </tbody>
      </table>
    {/if}
  </section>
  {#snippet says()}
    <h2>Fog backscatter at the driver’s eye</h2>
    {#if veil !== null}
      <Choice
        label="Visibility in fog, m"
        small
        options={RANGES}
        value={String(opticalRangeM)}
        onchoose={(v: string) => onrange(Number(v))}
      />
      <dl>
        <dt>Peak</dt>
        <dd class="figure">{small(veil.highest)} cd/m²</dd>
        <dt>Average</dt>
        <dd class="figure">{small(veil.mean)} cd/m²</dd>
        <dt>Peak without {WHITE}</dt>
        <dd class="figure">{small(veil.withoutWhite.highest)} cd/m²</dd>
        <dt>Relative to fog luminance {fogLuminance} cd/m², {usedTo.around}</dt>
        <dd class="figure">{small(veil.highest / fogLuminance)} ×</dd>
      </dl>
      <h2>Share by lamp, average</h2>
      <LampList
        rows={lampsByMean.slice(0, 8).map(({ placementId, mean }) => ({
          placementId,
          figure: `${Math.round((100 * mean) / veil.mean)} %`,
        }))}
      />
    {/if}
    <p class="quiet small">
      Glare to CIE 146 at the peak, with all clocks at their worst alignment. Fog: single scattering, averaged
      over ±10° × ±5° straight ahead. Design values, not measurements. Flashing light can harm photosensitive
      people, regardless of these figures.
    </p>
  {/snippet}
</Beside>

<style>
  .link {
    font-size: 13px;
  }

  .worst {
    font-size: 13px;
    font-weight: 600;
  }

  section {
    display: grid;
    align-content: start;
    gap: 0.6rem;
    padding: 0.5rem 0.75rem;
    overflow-y: auto;
  }

  table {
    border-collapse: collapse;
    font-size: 13px;
  }

  th,
  td {
    padding: 0.1rem 0.4rem;
    text-align: right;
  }

  th {
    color: var(--cds-text-02);
    font-weight: 400;
  }

  th:first-child,
  td:first-child,
  th:last-child,
  .who {
    text-align: left;
  }

  td {
    border-top: 1px solid var(--sheet-line);
  }

  .field {
    white-space: nowrap;
  }

  dd {
    text-align: right;
    white-space: nowrap;
  }
</style>
