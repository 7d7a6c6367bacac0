<script lang="ts">
  import { addOwn } from '@flarik/core/design/ownEdits';
  import { MOST_OWN, type EyePlace } from '@flarik/core/design/site';
  import { bearingOf, wrapDeg } from '@flarik/core/geometry/direction';
  import { ownEyeId, outlineOf } from '@flarik/core/sight/stations';
  import { getEditor } from '$lib/editor/context';
  import { freshId } from '$lib/editor/freshId';
  import ViewPicture from '$lib/sheet/ViewPicture.svelte';
  import type { EyesAnswer } from '$lib/workers/sight.worker';
  import Beside from './Beside.svelte';
  import EyeEdit from './EyeEdit.svelte';
  import EyesOnPlan from './EyesOnPlan.svelte';
  import { contrastText, small, type UsedTo } from './glareText';
  import LampList from './LampList.svelte';

  /** Eyes of who works at the vehicle, on its plan and in a table; those of the build's own are moved and turned. */
  let { stations, usedTo, stale }: { stations: EyesAnswer['stations']; usedTo: UsedTo; stale: boolean } =
    $props();
  const editor = getEditor()();
  const open = $derived(editor.open);
  let chosenId = $state<string | null>(null);
  const worst = $derived(
    stations.reduce<EyesAnswer['stations'][number] | undefined>(
      (a, b) => (a === undefined || b.glare.highest > a.glare.highest ? b : a),
      undefined,
    ),
  );
  /** The one dazzled most, until another is chosen. */
  const looked = $derived(stations.find(({ station }) => station.id === chosenId) ?? worst);
  const own = $derived(editor.build.eyes.find(({ id }) => ownEyeId(id) === looked?.station.id));

  const outline = $derived(outlineOf(editor.vehicle));
  /** So far around the vehicle the plan shows at least, m. */
  const AROUND_M = { along: 6.5, across: 2.5 };
  const xs = $derived(stations.map(({ station }) => station.eye[0]));
  const ys = $derived(stations.map(({ station }) => station.eye[1]));
  const fromX = $derived(Math.min(outline.rearX - AROUND_M.along, ...xs.map((x) => x - 1.5)));
  const toX = $derived(Math.max(outline.frontX + AROUND_M.along, ...xs.map((x) => x + 1.5)));
  const fromY = $derived(Math.min(outline.rightY - AROUND_M.across, ...ys.map((y) => y - 1.5)));
  const toY = $derived(Math.max(outline.leftY + AROUND_M.across, ...ys.map((y) => y + 1.5)));
  /** Body axes to the picture: x (forward) to the right, y (left) up. */
  const px = (x: number): number => x - fromX;
  const py = (y: number): number => toY - y;
  let plan = $state<SVGSVGElement>();

  /** The window to body axes, m. */
  function bodyAt(clientX: number, clientY: number): { readonly xM: number; readonly yM: number } {
    const matrix = plan?.getScreenCTM()?.inverse();
    const at = new DOMPoint(clientX, clientY).matrixTransform(matrix ?? undefined);
    return { xM: fromX + at.x, yM: toY - at.y };
  }

  const full = $derived(editor.build.eyes.length >= MOST_OWN);
  function add(like: Omit<EyePlace, 'id'>): void {
    const id = freshId('eye');
    editor.edit('Add an eye', (b) => addOwn(b, 'eyes', { ...like, id }));
    chosenId = ownEyeId(id);
  }

  /** One who stands at the right front corner and looks back along the vehicle: put right at once. */
  const NEW_EYE = { name: 'Another eye', xM: 3, yM: -2, zM: 1.6, lookDeg: 180, upDeg: 0 };

  /** A usual eye as one of the build's own, at the same place. */
  function copy(station: EyesAnswer['stations'][number]['station']): void {
    const [x, y, z] = station.eye;
    const { bearingDeg, elevationDeg } = bearingOf(station.view);
    const round = (v: number): number => Math.round(v * 100) / 100;
    add({
      name: `${station.name.slice(0, 70)} (copy)`,
      xM: round(x),
      yM: round(y),
      zM: round(z),
      lookDeg: wrapDeg(Math.round(bearingDeg * 10) / 10),
      upDeg: Math.round(elevationDeg * 10) / 10,
    });
  }
</script>

<Beside label="Selected viewpoint" {stale}>
  <section aria-label="Glare at the vehicle">
    <svg
      bind:this={plan}
      viewBox="0 0 {toX - fromX} {toY - fromY}"
      role="img"
      aria-label="Viewpoints around the vehicle, front to the right; the table lists the values"
    >
      <g transform="translate({px(0)} {py(0)}) scale(1,-1)">
        <ViewPicture vehicle={editor.vehicle} view="plan" {open} />
      </g>
      <EyesOnPlan
        stations={stations.map(({ station }) => station)}
        lookedId={looked?.station.id ?? null}
        {px}
        {py}
        {bodyAt}
        choose={(id: string) => (chosenId = id)}
      />
    </svg>
    <div class="rows">
      <table>
        <thead>
          <tr
            ><td></td><th>Viewpoint</th><th>Veiling luminance, cd/m²</th><th>Average</th><th
              >Threshold increment</th
            ><th>Average</th><th>At the eye, lx</th></tr
          >
        </thead>
        <tbody>
          {#each stations as { station, glare }, i (station.id)}
            <tr class:looked={station.id === looked?.station.id}>
              <td class="quiet">{i + 1}</td>
              <td>
                <button
                  class="link"
                  aria-pressed={station.id === looked?.station.id}
                  onclick={() => (chosenId = station.id)}>{station.name}</button
                >
              </td>
              <td class="figure">{small(glare.highest)}</td>
              <td class="figure">{small(glare.mean)}</td>
              <td class="figure">{contrastText(glare.highest, usedTo)}</td>
              <td class="figure">{contrastText(glare.mean, usedTo)}</td>
              <td class="figure">{small(glare.eyeLx)}</td>
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
  </section>
  {#snippet says()}
    {#if looked !== undefined}
      {@const { station, glare } = looked}
      <h2>{station.name}</h2>
      {#if own !== undefined}
        <EyeEdit one={own} />
      {:else}
        <p>
          <button class="link" disabled={full} onclick={() => copy(station)}>Copy to this build</button>
          <span class="quiet">A copy can be moved and turned on the plan.</span>
        </p>
      {/if}
      <p>
        Threshold increment: peak <strong>{contrastText(glare.highest, usedTo)}</strong>, average {contrastText(
          glare.mean,
          usedTo,
        )}.
      </p>
      <h2>Glare by lamp</h2>
      {#if glare.byLamp.length === 0}
        <p class="quiet">
          No lamp causes glare here{glare.eyeLx > 0 ? '; light reaches it from beyond 60°' : ''}.
        </p>
      {/if}
      <LampList
        rows={glare.byLamp.slice(0, 8).map(({ placementId, share }) => ({
          placementId,
          figure: `${Math.round(100 * share)} %`,
        }))}
      />
    {/if}
    <p>
      <button class="link" disabled={full} onclick={() => add(NEW_EYE)}>Add viewpoint</button>
      {#if full}<span class="quiet">A build can have at most {MOST_OWN}.</span>{/if}
    </p>
    <p class="quiet small">
      CIE 146, all clocks at their worst alignment. Lamps within 1.5° of the line of sight count as at 1.5°;
      lamps beyond 60° are excluded. Shares are of the average. Design values, not measurements. Flashing
      light can harm photosensitive people, regardless of these figures.
    </p>
  {/snippet}
</Beside>

<style>
  section {
    display: grid;
    grid-template-rows: minmax(180px, 1fr) auto;
    min-height: 0;
    padding: 0 0.75rem 0.5rem;
  }

  svg {
    width: 100%;
    height: 100%;
    min-height: 0;
  }

  .rows {
    overflow-y: auto;
    min-height: 0;
  }

  table {
    width: 100%;
    border-collapse: collapse;
    font-size: 13px;
  }

  th,
  tbody td {
    padding: 0.15rem 0.4rem;
    text-align: right;
  }

  th {
    color: var(--cds-text-02);
    font-weight: 400;
  }

  th:nth-child(2),
  td:nth-child(2) {
    text-align: left;
  }

  tbody td {
    border-top: 1px solid var(--sheet-line);
  }

  .looked td {
    background: var(--cds-ui-02);
  }

  .link {
    font-size: 13px;
    text-align: left;
  }
</style>
