<script lang="ts">
  import { onMount, untrack } from 'svelte';
  import { downloadBlob } from '$lib/download';
  import { calmSlowdown } from '@flarik/core/timing/calm';
  import { trackDrag } from '$lib/editor/trackDrag';
  import { getEditor } from '$lib/editor/context';
  import Choice from '$lib/ui/Choice.svelte';
  import { OBSERVERS, SEEN_AS, type Observer } from '@flarik/core/sight/observer';
  import { SIDES } from '@flarik/core/coverage/gaps';
  import { sceneNear } from '@flarik/core/coverage/scene';
  import { driverOf, type Station } from '@flarik/core/sight/stations';
  import type { Vec3 } from '@flarik/core/geometry/vec';
  import { lookupOf } from '@flarik/core/resolve/lookup';
  import { SceneMembers } from '$lib/editor/sceneMembers.svelte';
  import type { Sight } from '$lib/editor/sight.svelte';
  import { filmOf } from './film';
  import { framesOf } from './frames';
  import { glowsAt, mirrored, underRoad } from './glow';
  import { AIR, eyeBeside, eyeInside, NightStage, type RenderedVehicle, type Surroundings } from './stage';

  /** The vehicle as an eye beside it, or its driver, sees it: by day, at dusk, by night, in rain and fog. */
  let { sight }: { sight: Sight } = $props();
  const editor = getEditor()();

  /** A calm preview has less contrast. */
  const CALM_STRENGTH = 0.6;
  const AROUND: readonly { value: Surroundings; text: string }[] = [
    { value: 'day', text: 'Day' },
    { value: 'dusk', text: 'Dusk' },
    { value: 'night', text: 'Night' },
    { value: 'rain', text: 'Rain' },
    { value: 'fog', text: 'Fog' },
  ];
  /** The value of the driver's eye among those to choose from. */
  const AT_THE_WHEEL = -1;
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
  let upDeg = $state(-4);
  let inside = $state(false);
  /** At dusk the lamps burn as by day, in rain and fog as at night. */
  let air = $state<'plain' | 'dusk' | 'rain' | 'fog'>('plain');
  let observer = $state<Observer>('normal');
  const OBSERVER_NAMES: Readonly<Record<Observer, string>> = {
    normal: 'Sees all colours',
    protan: 'Protan (red-deficient)',
    deutan: 'Deutan (green-deficient)',
  };
  /** A row of factors as an SVG filter has it: red, green, blue, alpha, and what is added. */
  const matrixOf = (rows: readonly (readonly number[])[]): string =>
    [...rows.map((row) => [...row, 0, 0]), [0, 0, 0, 1, 0]].map((row) => row.join(' ')).join(' ');
  let filming = $state<number | null>(null);
  let problem = $state('');
  let stage: NightStage | null = $state.raw(null);

  const around = $derived<Surroundings>(
    air === 'plain' || (air === 'dusk') !== (editor.state.ambient === 'day') ? editor.state.ambient : air,
  );
  const driver = $derived<Station | null>(driverOf(editor.vehicle, editor.seen.traffic));
  const eye = $derived(
    inside && driver !== null
      ? eyeInside(driver.eye, editor.bearing, upDeg)
      : eyeBeside({ bearingDeg: editor.bearing, distanceM, heightM }, editor.vehicle),
  );
  const scene = new SceneMembers();
  const others = $derived(editor.build.scene);
  $effect(() => scene.want(others));
  const members = $derived(scene.of(others));
  const { ambient } = $derived(editor.state);
  const shown = $derived.by((): RenderedVehicle[] => [
    { vehicle: editor.vehicle, open: editor.open, at: [0, 0, 0], turnedDeg: 0 },
    ...members.map(({ vehicle, build }) => ({
      vehicle: lookupOf(build).vehicle,
      open: new Set<string>(),
      at: [vehicle.aheadM, vehicle.leftM, 0] satisfies Vec3,
      turnedDeg: vehicle.turnedDeg,
    })),
  ]);
  const near = (at: Vec3) => sceneNear(editor.seen, editor.state, members, at);
  const channels = $derived([
    ...near(eye.at),
    ...(around === 'rain' && !eye.inside ? mirrored(near(underRoad(eye.at)), eye.at) : []),
  ]);
  $effect(() => void sight.litGround.run({ looked: { build: editor.seen, state: editor.state } }));
  $effect(() => {
    const asked = { members, ambient };
    untrack(() => void sight.litScene.run({ build: editor.seen, ...asked }));
  });
  /** What fog throws back to the driver. */
  $effect(() => {
    if (eye.inside && around === 'fog')
      void sight.eyes.run({
        looked: { build: editor.seen, state: editor.state },
        opticalRangeM: AIR.fog.opticalRangeM,
      });
  });
  const veil = $derived(eye.inside && around === 'fog' ? (sight.eyes.answer?.veil ?? null) : null);
  /** How far it covers what is outside: by equal steps for equal ratios, as the eye takes it. */
  const veiled = $derived(
    veil === null ? 0 : Math.min(0.9, Math.log10(1 + veil.mean / AIR.night.luminance) / 2),
  );
  const whereText = $derived(
    eye.inside
      ? `driver’s view toward ${editor.bearing}°`
      : `from ${editor.bearing}°, ${distanceM} m, eye ${heightM.toFixed(1)} m`,
  );
  const AROUND_TEXT: Readonly<Record<Surroundings, string>> = {
    day: 'by day',
    dusk: 'at dusk',
    night: 'at night',
    rain: 'in rain at night',
    fog: 'in fog at night',
  };
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
    stage?.setVehicles(shown, eye.inside);
    untrack(draw);
  });
  $effect(() => {
    stage?.setGround([
      { at: [0, 0, 0], turnedDeg: 0, shares: sight.litGround.answer ?? [] },
      ...(sight.litScene.answer ?? []).map(({ vehicle, shares }) => ({
        at: [vehicle.aheadM, vehicle.leftM, 0] as const,
        turnedDeg: vehicle.turnedDeg,
        shares,
      })),
    ]);
    untrack(draw);
  });
  $effect(() => {
    stage?.setSurroundings(around, veiled);
    stage?.setEye(eye);
    stage?.resize(width * devicePixelRatio, height * devicePixelRatio);
    paint(playing ? editor.preview.timeMs : null);
  });

  function paint(timeMs: number | null): void {
    stage?.render(glowsAt(channels, timeMs, AIR[around]), timeMs, strength, AIR[around]);
  }
  const draw = (): void => paint(playing ? editor.preview.timeMs : null);

  function drag(press: PointerEvent): void {
    const from = { bearing: editor.bearing, heightM, upDeg };
    // From within one turns one's head: the picture goes along with the pointer.
    const way = eye.inside ? -0.15 : 0.4;
    const to = (clientX: number, clientY: number): void => {
      const turned = Math.round(from.bearing + (clientX - press.clientX) * way);
      editor.bearing = ((turned % 360) + 360) % 360;
      const rise = clientY - press.clientY;
      if (eye.inside) lookUp(from.upDeg + rise * 0.1);
      else stand(from.heightM + rise * 0.015);
    };
    const cancel = (): void => {
      editor.bearing = from.bearing;
      heightM = from.heightM;
      upDeg = from.upDeg;
    };
    trackDrag(press, { move: to, drop: to, cancel });
  }

  const stand = (m: number): void => {
    heightM = Math.min(6, Math.max(0.3, m));
  };
  const lookUp = (deg: number): void => {
    upDeg = Math.min(40, Math.max(-40, deg));
  };
  const nearer = (by: number): void => {
    distanceM = Math.min(120, Math.max(5, Math.round(distanceM * by * 10) / 10));
  };

  function key(event: KeyboardEvent): void {
    const turn = event.key === 'ArrowRight' ? 5 : event.key === 'ArrowLeft' ? -5 : 0;
    const rise = event.key === 'ArrowUp' ? 1 : event.key === 'ArrowDown' ? -1 : 0;
    if (turn !== 0) editor.bearing = (editor.bearing + turn + 360) % 360;
    else if (rise !== 0 && eye.inside) lookUp(upDeg + 2 * rise);
    else if (rise !== 0) stand(heightM + 0.1 * rise);
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
        (timeMs) => stage?.render(glowsAt(channels, timeMs, AIR[around]), timeMs, CALM_STRENGTH, AIR[around]),
        (share) => {
          if (filming === null) return false;
          filming = share;
          return true;
        },
      );
      if (blob !== null) downloadBlob(`${editor.build.name}, ${editor.bearing}°.gif`, blob);
    } catch (error) {
      problem = `Could not save the animation: ${error instanceof Error ? error.message : String(error)}`;
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
        air = v === 'day' || v === 'night' ? 'plain' : v;
        editor.setAmbient(v === 'day' || v === 'dusk' ? 'day' : 'night');
      }}
    />
    <label>
      Eye
      <select
        value={eye.inside ? AT_THE_WHEEL : (EYES.find((e) => Math.abs(e.value - heightM) < 0.05)?.value ?? 0)}
        onchange={(event) => {
          const chosen = Number(event.currentTarget.value);
          inside = chosen === AT_THE_WHEEL;
          if (inside) editor.bearing = 0;
          else heightM = chosen || heightM;
        }}
      >
        {#if !EYES.some((e) => Math.abs(e.value - heightM) < 0.05)}
          <option value={0}>{heightM.toFixed(1)} m</option>
        {/if}
        {#each EYES as e (e.value)}<option value={e.value}>{e.text}</option>{/each}
        {#if driver !== null}<option value={AT_THE_WHEEL}>Driver’s view</option>{/if}
      </select>
    </label>
    <label>
      Observer <select bind:value={observer}>
        {#each OBSERVERS as one (one)}<option value={one}>{OBSERVER_NAMES[one]}</option>{/each}
      </select>
    </label>
    <label>
      Distance <span class="figure">{distanceM} m</span>
      <input type="range" min="5" max="120" step="1" disabled={eye.inside} bind:value={distanceM} />
    </label>
    <label>
      {eye.inside ? 'Direction' : 'Orbit'}
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
    <button class="plain" onclick={save} disabled={stage === null}>Save image</button>
    {#if filming === null}
      <button class="plain" onclick={film} disabled={editor.drives.length === 0 || stage === null}
        >Save slow animation</button
      >
    {:else}
      <button class="plain" onclick={() => (filming = null)}
        >Stop: {Math.round(filming * 100)} % recorded</button
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
      aria-label={eye.inside ? 'Driver’s view direction' : 'Orbit the vehicle'}
      aria-valuemin="0"
      aria-valuemax="359"
      aria-valuenow={editor.bearing}
      aria-valuetext="{whereText}, {AROUND_TEXT[around]}"
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
      {whereText}{playing ? '' : ' · all driven channels at once'}{veil === null
        ? ''
        : ` · fog backscatter ${veil.mean.toFixed(1)} cd/m², peak ${veil.highest.toFixed(1)}`} · drag to {eye.inside
        ? 'turn'
        : 'orbit'}, keys 1–8
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
