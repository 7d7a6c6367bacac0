<script lang="ts">
  import { namedOns } from '@flarik/core/design/controls';
  import { addToScene, changeInScene, removeFromScene } from '@flarik/core/design/sceneEdits';
  import type { ScenePoint, SceneVehicle } from '@flarik/core/design/scene';
  import type { Build } from '@flarik/core/design/schema';
  import { lookupOf } from '@flarik/core/resolve/lookup';
  import { sceneSeen } from '@flarik/core/coverage/scene';
  import { onMount } from 'svelte';
  import type { BuildSummary } from '$lib/api';
  import { listBuilds } from '$lib/client';
  import { getEditor } from '$lib/editor/context';
  import { SceneMembers } from '$lib/editor/sceneMembers.svelte';
  import { trackDrag } from '$lib/editor/trackDrag';
  import ViewPicture from '$lib/sheet/ViewPicture.svelte';
  import { thresholdIn } from '@flarik/core/rules/threshold';
  import { freshId } from '$lib/editor/freshId';

  /** Several vehicles at one scene: where they stand, what keeps step, what someone sees of them all. */
  const editor = getEditor()();
  const SHUT = new Set<string>();

  let known = $state.raw<readonly BuildSummary[]>([]);
  const scene = new SceneMembers();
  let problem = $state('');
  let point = $state.raw<ScenePoint>({ aheadM: -40, leftM: 0, heightM: 1.2 });
  let svg = $state<SVGSVGElement>();

  onMount(() => {
    listBuilds().then(
      (builds) => (known = builds.filter((b) => b.id !== editor.build.id)),
      (error: unknown) => (problem = error instanceof Error ? error.message : String(error)),
    );
  });
  $effect(() => scene.want(editor.build.scene));
  const members = $derived(scene.of(editor.build.scene));
  const threshold = $derived(thresholdIn(editor.build, editor.state.on));
  const seen = $derived(sceneSeen(editor.build, editor.state, members, point, threshold));
  /** What is drawn: all vehicles and the eye, with room around them, m; y down as on the screen. */
  const bounds = $derived.by(() => {
    const xs = [-6, 6, point.aheadM - 3, point.aheadM + 3];
    const ys = [-6, 6, -point.leftM - 3, -point.leftM + 3];
    for (const v of editor.build.scene) {
      xs.push(v.aheadM - 7, v.aheadM + 7);
      ys.push(-v.leftM - 6, -v.leftM + 6);
    }
    const [x, y] = [Math.min(...xs), Math.min(...ys)];
    return { x, y, width: Math.max(...xs) - x, height: Math.max(...ys) - y };
  });
  const dot = $derived(Math.max(bounds.width, 2 * bounds.height) / 70);
  const number = new Intl.NumberFormat(undefined, { maximumFractionDigits: 0 });

  const add = (buildId: string): void => {
    const chosen = known.find((b) => b.id === buildId);
    if (chosen === undefined) return;
    const id = freshId('v');
    editor.edit(`${chosen.name} to the scene`, (b) => addToScene(b, { id, buildId, name: chosen.name }));
  };
  const change = (v: SceneVehicle, patch: Partial<Omit<SceneVehicle, 'id' | 'buildId'>>): void =>
    editor.edit(`${v.name} in the scene`, (b) => changeInScene(b, v.id, patch), `scene ${v.id}`);

  const clamp = (n: number, most: number): number => Math.min(most, Math.max(-most, Math.round(n * 2) / 2));

  /** Metres of the scene for each pixel of the plan. */
  const scale = (): number => {
    const matrix = svg?.getScreenCTM();
    return matrix == null ? 0 : 1 / matrix.a;
  };

  function dragVehicle(press: PointerEvent, v: SceneVehicle): void {
    const m = scale();
    const to = (x: number, y: number) => (b: Build) =>
      changeInScene(b, v.id, {
        aheadM: clamp(v.aheadM + (x - press.clientX) * m, 200),
        leftM: clamp(v.leftM - (y - press.clientY) * m, 200),
      });
    trackDrag(press, {
      move: (x, y) => editor.drag(to(x, y)),
      drop: (x, y) => editor.edit(`Move ${v.name}`, to(x, y)),
      cancel: () => editor.cancelDrag(),
    });
  }

  function dragEye(press: PointerEvent): void {
    const m = scale();
    const from = point;
    const to = (x: number, y: number): void => {
      point = {
        ...from,
        aheadM: clamp(from.aheadM + (x - press.clientX) * m, 500),
        leftM: clamp(from.leftM - (y - press.clientY) * m, 500),
      };
    };
    trackDrag(press, { move: to, drop: to, cancel: () => (point = from) });
  }

  function eyeKey(event: KeyboardEvent): void {
    const step = event.shiftKey ? 5 : 1;
    const [dx, dy] =
      event.key === 'ArrowRight'
        ? [step, 0]
        : event.key === 'ArrowLeft'
          ? [-step, 0]
          : event.key === 'ArrowUp'
            ? [0, step]
            : event.key === 'ArrowDown'
              ? [0, -step]
              : [0, 0];
    if (dx === 0 && dy === 0) return;
    event.preventDefault();
    event.stopPropagation();
    point = { ...point, aheadM: clamp(point.aheadM + dx, 500), leftM: clamp(point.leftM + dy, 500) };
  }

  const typed = (event: Event & { currentTarget: HTMLInputElement }, most: number): number => {
    const n = Math.min(most, Math.max(-most, event.currentTarget.valueAsNumber || 0));
    event.currentTarget.valueAsNumber = n;
    return n;
  };
</script>

<div class="scene">
  <div class="plan">
    <svg
      bind:this={svg}
      viewBox="{bounds.x} {bounds.y} {bounds.width} {bounds.height}"
      role="group"
      aria-label="Plan of the scene, front to the right"
    >
      <line class="road" x1={bounds.x - 500} x2={bounds.x + 1000} y1={-3.2} y2={-3.2} />
      <line class="road" x1={bounds.x - 500} x2={bounds.x + 1000} y1={3.2} y2={3.2} />
      <g transform="scale(1,-1)">
        <ViewPicture vehicle={editor.vehicle} view="plan" open={SHUT} />
      </g>
      {#each members as { vehicle: v, build } (v.id)}
        <g
          class="other"
          role="button"
          tabindex="-1"
          aria-label="Move {v.name}"
          transform="translate({v.aheadM},{-v.leftM}) rotate({-v.turnedDeg}) scale(1,-1)"
          onpointerdown={(event) => dragVehicle(event, v)}
        >
          <ViewPicture vehicle={lookupOf(build).vehicle} view="plan" open={SHUT} />
        </g>
      {/each}
      <g
        class="eye"
        role="button"
        tabindex="0"
        aria-label="Eye at {point.aheadM} m ahead, {point.leftM} m to the left; arrow keys move it"
        transform="translate({point.aheadM},{-point.leftM})"
        onpointerdown={dragEye}
        onkeydown={eyeKey}
      >
        <circle r={dot} />
        <circle class="pupil" r={dot / 2.6} />
      </g>
    </svg>
  </div>
  <div class="side">
    {#if problem !== ''}<p role="alert" class="problem">{problem}</p>{/if}
    <label class="add"
      >Add vehicle
      <select
        value=""
        disabled={editor.build.scene.length >= 8}
        onchange={(event) => {
          add(event.currentTarget.value);
          event.currentTarget.value = '';
        }}
      >
        <option value="">choose a build …</option>
        {#each known as b (b.id)}<option value={b.id}>{b.name}</option>{/each}
      </select>
    </label>
    {#each editor.build.scene as v (v.id)}
      {@const there = scene.loaded.get(v.buildId)}
      <fieldset>
        <legend>{v.name}</legend>
        {#if there === null}
          <p class="problem">Deleted build.</p>
        {/if}
        <div class="numbers">
          <label
            >Ahead, m <input
              type="number"
              step="0.5"
              value={v.aheadM}
              onchange={(event) => change(v, { aheadM: typed(event, 200) })}
            /></label
          >
          <label
            >Left, m <input
              type="number"
              step="0.5"
              value={v.leftM}
              onchange={(event) => change(v, { leftM: typed(event, 200) })}
            /></label
          >
          <label
            >Turned, ° <input
              type="number"
              step="5"
              value={v.turnedDeg}
              onchange={(event) => change(v, { turnedDeg: typed(event, 180) })}
            /></label
          >
          <label
            >Shows
            <select
              value={v.on[0] ?? ''}
              onchange={(event) => change(v, { on: [event.currentTarget.value] })}
            >
              {#each namedOns(there ?? editor.build) as { on, name } (on)}<option value={on}>{name}</option
                >{/each}
            </select></label
          >
        </div>
        {#each there?.timing.groups ?? [] as group (group.id)}
          <label class="tie"
            >{group.name} synchronised with
            <select
              value={v.inStep.find((t) => t.there === group.id)?.here ?? ''}
              onchange={(event) => {
                const here = event.currentTarget.value;
                const rest = v.inStep.filter((t) => t.there !== group.id);
                change(v, { inStep: here === '' ? rest : [...rest, { here, there: group.id }] });
              }}
            >
              <option value="">none: drifts</option>
              {#each editor.build.timing.groups as g (g.id)}<option value={g.id}>{g.name}</option>{/each}
            </select></label
          >
        {/each}
        <button
          class="plain"
          onclick={() => editor.edit(`Remove ${v.name} from the scene`, (b) => removeFromScene(b, v.id))}
          >Remove</button
        >
      </fieldset>
    {/each}
  </div>
  <div class="figures">
    <dl>
      <dt>Rhythms seen</dt>
      <dd class="figure">{seen.rhythms}</dd>
      <dt>Clocks that drift</dt>
      <dd class="figure">{seen.clocks}</dd>
      <dt>Optical power</dt>
      <dd class="figure">{number.format(seen.powerCdsPerMin)} cd·s/min</dd>
      <dt>Effective, worst alignment</dt>
      <dd class="figure">
        {seen.worst.effective.exact ? '' : '≥ '}{number.format(seen.worst.effective.value)} cd
      </dd>
      <dt>Dark below {threshold} cd, worst alignment</dt>
      <dd class="figure">
        {Number.isFinite(seen.worst.dark.value)
          ? `${seen.worst.dark.exact ? '' : '≤ '}${number.format(seen.worst.dark.value)} ms`
          : 'unlimited'}
      </dd>
      <dt>Peak, all together</dt>
      <dd class="figure">
        {seen.worst.highestCd.exact ? '' : '≤ '}{number.format(seen.worst.highestCd.value)} cd
      </dd>
    </dl>
    <p class="quiet small">
      Drag the viewpoint and the vehicles. Values assume the distance of this vehicle. Eye {point.aheadM}
      m ahead, {point.leftM} m to the left, {point.heightM} m up.
    </p>
  </div>
</div>

<style>
  .scene {
    display: grid;
    grid-template: minmax(0, 1fr) auto / minmax(0, 1fr) minmax(9rem, 14rem);
    min-height: 0;
    height: 100%;
  }

  .plan {
    display: flex;
    flex-direction: column;
    min-height: 0;
  }

  svg {
    flex: 1;
    min-height: 0;
    background: var(--sheet);
    touch-action: none;
  }

  .road {
    stroke: var(--sheet-line);
    stroke-width: 0.2;
    stroke-dasharray: 2 1.4;
  }

  .other {
    cursor: grab;
    outline: none;
  }

  .eye {
    cursor: grab;
    outline: none;
  }

  .eye circle {
    fill: var(--accent);
    stroke: var(--sheet);
    stroke-width: 0.15;
  }

  .eye:focus-visible circle {
    stroke: var(--cds-text-01);
    stroke-width: 0.4;
  }

  .eye .pupil {
    fill: var(--sheet);
  }

  .side {
    display: grid;
    align-content: start;
    gap: 0.4rem;
    padding: 0.3rem 0.5rem;
    overflow-y: auto;
  }

  label {
    display: grid;
    font-size: 11.5px;
    color: var(--cds-text-02);
  }

  .numbers {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0.25rem;
  }

  fieldset {
    display: grid;
    gap: 0.25rem;
    padding: 0.3rem;
    border: 1px solid var(--cds-ui-04);
  }

  legend {
    padding: 0 0.2rem;
    font-size: 12.5px;
    font-weight: 600;
  }

  select,
  input,
  button {
    width: 100%;
    height: 24px;
  }

  .figures {
    grid-column: 1 / -1;
    padding: 0.3rem 0.5rem;
    border-top: 1px solid var(--cds-ui-03);
  }

  dl {
    display: grid;
    grid-template-columns: repeat(3, 1fr);
    grid-template-rows: repeat(2, auto auto);
    grid-auto-flow: column;
    gap: 0 0.75rem;
  }

  dd {
    white-space: nowrap;
  }

  dt,
  dd,
  .small {
    font-size: 12px;
  }

  dt {
    color: var(--cds-text-02);
  }

  .problem {
    color: var(--gap);
    font-size: 12.5px;
  }
</style>
