<script lang="ts">
  import { channelsNear } from '@flarik/core/coverage/near';
  import { onMount, untrack } from 'svelte';
  import { downloadBlob } from '$lib/download';
  import { calmSlowdown } from '@flarik/core/timing/calm';
  import { trackDrag } from '$lib/editor/trackDrag';
  import { getEditor } from '$lib/editor/context';
  import Choice from '$lib/frame/Choice.svelte';
  import { OBSERVERS, SEEN_AS, type Observer } from '@flarik/core/sight/observer';
  import { SIDES } from '@flarik/core/coverage/gaps';
  import { filmOf } from './film';
  import { framesOf } from './frames';
  import { glowsAt } from './glow';
  import { AIR, eyePoint, NightStage, type Surroundings } from './stage';

  /** The vehicle as an eye beside it sees it: walked round, by day, by night and in fog. */
  const editor = getEditor()();

  /** A calm preview has less contrast. */
  const CALM_STRENGTH = 0.6;
  const AROUND: readonly { value: Surroundings; text: string }[] = [
    { value: 'day', text: 'Day' },
    { value: 'night', text: 'Night' },
    { value: 'fog', text: 'Fog' },
  ];
  const EYES = [
    { value: 0.6, text: 'Low car 0.6 m' },
    { value: 1.2, text: 'Car 1.2 m' },
    { value: 1.7, text: 'On foot 1.7 m' },
    { value: 2.5, text: 'Truck 2.5 m' },
  ];

  let canvas = $state<HTMLCanvasElement>();
  let width = $state(600);
  let height = $state(400);
  let distanceM = $state(10);
  let heightM = $state(1.7);
  let fog = $state(false);
  let observer = $state<Observer>('normal');
  const OBSERVER_NAMES: Readonly<Record<Observer, string>> = {
    normal: 'Sees all colours',
    protan: 'Sees red poorly',
    deutan: 'Sees green poorly',
  };
  /** A row of factors as an SVG filter has it: red, green, blue, alpha, and what is added. */
  const matrixOf = (rows: readonly (readonly number[])[]): string =>
    [...rows.map((row) => [...row, 0, 0]), [0, 0, 0, 1, 0]].map((row) => row.join(' ')).join(' ');
  let filming = $state<number | null>(null);
  let problem = $state('');
  let stage: NightStage | null = $state.raw(null);

  const around = $derived<Surroundings>(fog ? 'fog' : editor.state.ambient);
  const eye = $derived({ bearingDeg: editor.bearing, distanceM, heightM });
  const open = $derived(new Set(editor.state.open));
  const channels = $derived(channelsNear(editor.seen, editor.state, eyePoint(eye)));
  const playing = $derived(editor.preview.playing || editor.preview.timeMs > 0);
  const strength = $derived(editor.preview.trueSpeed ? 1 : CALM_STRENGTH + (playing ? 0 : 0.25));

  onMount(() => {
    if (canvas === undefined) return;
    try {
      stage = new NightStage(canvas);
    } catch (error) {
      problem = `This browser cannot draw in three dimensions: ${error instanceof Error ? error.message : String(error)}`;
    }
    editor.walk = (position) => (editor.bearing = (position - 1) * 45);
    return () => {
      editor.walk = null;
      stage?.close();
    };
  });

  $effect(() => {
    stage?.setVehicle(editor.vehicle, open);
    untrack(draw);
  });
  $effect(() => {
    stage?.setSurroundings(around);
    stage?.setEye(eye);
    stage?.resize(width * devicePixelRatio, height * devicePixelRatio);
    paint(playing ? editor.preview.timeMs : null);
  });

  function paint(timeMs: number | null): void {
    stage?.render(glowsAt(channels, timeMs, AIR[around]), strength, AIR[around]);
  }
  const draw = (): void => paint(playing ? editor.preview.timeMs : null);

  function drag(press: PointerEvent): void {
    const from = { bearing: editor.bearing, heightM };
    const to = (clientX: number, clientY: number): void => {
      const turned = Math.round(from.bearing + (clientX - press.clientX) * 0.4);
      editor.bearing = ((turned % 360) + 360) % 360;
      heightM = Math.min(6, Math.max(0.3, from.heightM + (clientY - press.clientY) * 0.015));
    };
    const cancel = (): void => {
      editor.bearing = from.bearing;
      heightM = from.heightM;
    };
    trackDrag(press, { move: to, drop: to, cancel });
  }

  const nearer = (by: number): void => {
    distanceM = Math.min(120, Math.max(5, Math.round(distanceM * by * 10) / 10));
  };

  function key(event: KeyboardEvent): void {
    const turn = event.key === 'ArrowRight' ? 5 : event.key === 'ArrowLeft' ? -5 : 0;
    const rise = event.key === 'ArrowUp' ? 0.1 : event.key === 'ArrowDown' ? -0.1 : 0;
    if (turn !== 0) editor.bearing = (editor.bearing + turn + 360) % 360;
    else if (rise !== 0) heightM = Math.min(6, Math.max(0.3, heightM + rise));
    else if (event.key === '+') nearer(0.9);
    else if (event.key === '-') nearer(1.1);
    else return;
    event.preventDefault();
    event.stopPropagation();
  }

  /** The picture as it stands; what is drawn can be read in the same moment alone. */
  function save(): void {
    draw();
    canvas?.toBlob((blob) => {
      if (blob !== null) downloadBlob(`${editor.build.name}, ${editor.bearing}°.png`, blob);
    });
  }

  async function film(): Promise<void> {
    if (canvas === undefined) return;
    editor.preview.stop();
    filming = 0;
    problem = '';
    try {
      const blob = await filmOf(
        canvas,
        framesOf(editor.drives, calmSlowdown(editor.drives)),
        (timeMs) => stage?.render(glowsAt(channels, timeMs, AIR[around]), CALM_STRENGTH, AIR[around]),
        (share) => {
          if (filming === null) return false;
          filming = share;
          return true;
        },
      );
      if (blob !== null) downloadBlob(`${editor.build.name}, ${editor.bearing}°.gif`, blob);
    } catch (error) {
      problem = `The film was not made: ${error instanceof Error ? error.message : String(error)}`;
    }
    filming = null;
    draw();
  }
</script>

<div class="night">
  <div class="tools">
    <Choice
      label="Around"
      options={AROUND}
      value={around}
      onchoose={(v: Surroundings) => {
        fog = v === 'fog';
        editor.setAmbient(v === 'day' ? 'day' : 'night');
      }}
    />
    <label>
      Eye
      <select
        value={EYES.find((e) => Math.abs(e.value - heightM) < 0.05)?.value ?? 0}
        onchange={(event) => (heightM = Number(event.currentTarget.value) || heightM)}
      >
        {#if !EYES.some((e) => Math.abs(e.value - heightM) < 0.05)}
          <option value={0}>{heightM.toFixed(1)} m</option>
        {/if}
        {#each EYES as e (e.value)}<option value={e.value}>{e.text}</option>{/each}
      </select>
    </label>
    <label>
      Who looks
      <select bind:value={observer}>
        {#each OBSERVERS as one (one)}<option value={one}>{OBSERVER_NAMES[one]}</option>{/each}
      </select>
    </label>
    <label>
      Distance <span class="figure">{distanceM} m</span>
      <input type="range" min="5" max="120" step="1" bind:value={distanceM} />
    </label>
    <label>
      Walk round
      <select
        value={editor.bearing % 45 === 0 ? String(editor.bearing) : ''}
        onchange={(event) => {
          if (event.currentTarget.value !== '') editor.bearing = Number(event.currentTarget.value);
        }}
      >
        {#if editor.bearing % 45 !== 0}<option value="">{editor.bearing}°</option>{/if}
        {#each SIDES as name, i (name)}<option value={String(i * 45)}>{i + 1}: {name}</option>{/each}
      </select>
    </label>
    <button class="plain" onclick={save} disabled={stage === null}>Save as a picture</button>
    {#if filming === null}
      <button class="plain" onclick={film} disabled={editor.drives.length === 0 || stage === null}
        >Save as a calm loop</button
      >
    {:else}
      <button class="plain" onclick={() => (filming = null)}
        >Stop: {Math.round(filming * 100)} % filmed</button
      >
    {/if}
  </div>
  <svg width="0" height="0" aria-hidden="true">
    {#each Object.entries(SEEN_AS) as [id, rows] (id)}
      <filter id="seen-as-{id}" color-interpolation-filters="linearRGB">
        <feColorMatrix type="matrix" values={matrixOf(rows)} />
      </filter>
    {/each}
  </svg>
  {#if problem !== ''}<p role="alert">{problem}</p>{/if}
  <div class="picture" bind:clientWidth={width} bind:clientHeight={height}>
    <div
      class="round"
      tabindex="0"
      role="slider"
      aria-label="Walk round the vehicle"
      aria-valuemin="0"
      aria-valuemax="359"
      aria-valuenow={editor.bearing}
      aria-valuetext="Seen from {editor.bearing}°, {distanceM} m away, eye at {heightM.toFixed(
        1,
      )} m, {around === 'fog' ? 'in fog at night' : `by ${around}`}"
      onpointerdown={drag}
      onkeydown={key}
      onwheel={(event) => nearer(event.deltaY > 0 ? 1.08 : 0.93)}
    >
      <canvas
        bind:this={canvas}
        style:filter={observer === 'normal' ? undefined : `url(#seen-as-${observer})`}
      ></canvas>
    </div>
    <p class="caption">
      from {editor.bearing}°, {distanceM} m, eye {heightM.toFixed(1)} m{playing
        ? ''
        : ' · all that the stage drives'} · drag to walk round, keys 1–8
    </p>
  </div>
</div>

<style>
  .night {
    display: flex;
    flex-direction: column;
    min-height: 0;
    height: 100%;
  }

  .tools {
    display: flex;
    flex-wrap: wrap;
    gap: 0.5rem 1rem;
    align-items: end;
    padding: 0.25rem 0.75rem;
  }

  label {
    display: grid;
    font-size: 12px;
    color: var(--cds-text-02);
  }

  label:has(input) {
    grid-template-columns: auto auto;
    column-gap: 0.5rem;
  }

  label input {
    grid-column: 1 / -1;
    width: 110px;
    accent-color: var(--accent);
  }

  select,
  button {
    height: 28px;
  }

  .picture {
    position: relative;
    flex: 1;
    min-height: 0;
    overflow: hidden;
  }

  .round {
    position: absolute;
    inset: 0;
    cursor: grab;
    touch-action: none;
  }

  svg {
    position: absolute;
  }

  canvas {
    display: block;
    width: 100%;
    height: 100%;
  }

  .round:focus-visible {
    outline: 2px solid var(--cds-focus);
    outline-offset: -2px;
  }

  .caption {
    position: absolute;
    left: 0.75rem;
    bottom: 0.4rem;
    padding: 0.1rem 0.4rem;
    font-size: 12px;
    color: #fff;
    background: rgb(0 0 0 / 55%);
    pointer-events: none;
  }
</style>
