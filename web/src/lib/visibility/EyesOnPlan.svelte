<script lang="ts">
  import { changeOwn } from '@flarik/core/design/ownEdits';
  import type { EyePlace } from '@flarik/core/design/site';
  import { bearingOf, wrapDeg } from '@flarik/core/geometry/direction';
  import { ownEyeId, type Station } from '@flarik/core/sight/stations';
  import { getEditor } from '$lib/editor/context';
  import { trackDrag } from '$lib/editor/trackDrag';

  /** Eyes on the plan, each with where it looks; those of the build's own are dragged, and turned by the end of their look. */
  let {
    stations,
    lookedId,
    px,
    py,
    bodyAt,
    choose,
  }: {
    stations: readonly Station[];
    lookedId: string | null;
    /** Body axes to the picture. */
    px: (xM: number) => number;
    py: (yM: number) => number;
    /** The window to body axes, m. */
    bodyAt: (clientX: number, clientY: number) => { readonly xM: number; readonly yM: number };
    choose: (id: string) => void;
  } = $props();
  const editor = getEditor()();
  /** A look is drawn so long, and so wide to each side, m and degrees. */
  const LOOK_M = 1.3;
  const WIDE_DEG = 16;
  const MOST_M = 60;

  /** What is drawn: an own eye where it is just now, which what was worked out may not know yet. */
  const eyes = $derived(
    stations.map((station) => {
      const own = editor.build.eyes.find(({ id }) => ownEyeId(id) === station.id);
      const [x, y] = own === undefined ? station.eye : [own.xM, own.yM];
      return { station, own, x, y, lookDeg: own?.lookDeg ?? bearingOf(station.view).bearingDeg };
    }),
  );
  /** So far from an eye in a direction clockwise from ahead, in the picture. */
  const at = (x: number, y: number, deg: number, m: number): string => {
    const turn = (deg * Math.PI) / 180;
    return `${px(x + m * Math.cos(turn))},${py(y - m * Math.sin(turn))}`;
  };

  function drag(
    press: PointerEvent,
    name: string,
    patchAt: (x: number, y: number) => Partial<EyePlace>,
    id: string,
  ) {
    press.preventDefault();
    const change = (x: number, y: number) => (b: typeof editor.build) =>
      changeOwn(b, 'eyes', id, patchAt(x, y));
    trackDrag(press, {
      move: (x, y) => editor.drag(change(x, y)),
      drop: (x, y) => editor.edit(name, change(x, y)),
      cancel: () => editor.cancelDrag(),
    });
  }
  const within = (m: number): number => Math.min(MOST_M, Math.max(-MOST_M, Math.round(m * 20) / 20));

  function press(event: PointerEvent, { station, own }: (typeof eyes)[number]): void {
    choose(station.id);
    if (own === undefined) return;
    drag(
      event,
      `Move ${own.name}`,
      (x, y) => {
        const to = bodyAt(x, y);
        return { xM: within(to.xM), yM: within(to.yM) };
      },
      own.id,
    );
  }

  function turn(event: PointerEvent, own: EyePlace): void {
    drag(
      event,
      `Turn ${own.name}`,
      (x, y) => {
        const to = bodyAt(x, y);
        const { bearingDeg } = bearingOf([to.xM - own.xM, to.yM - own.yM, 0]);
        return { lookDeg: wrapDeg(Math.round(bearingDeg)) };
      },
      own.id,
    );
  }
</script>

{#each eyes as eye, i (eye.station.id)}
  {@const { station, own, x, y, lookDeg } = eye}
  {@const looked = station.id === lookedId}
  <polygon
    class="look"
    class:looked
    points="{px(x)},{py(y)} {at(x, y, lookDeg - WIDE_DEG, LOOK_M)} {at(x, y, lookDeg + WIDE_DEG, LOOK_M)}"
  />
  <circle
    class="eye"
    class:own={own !== undefined}
    class:looked
    role="presentation"
    cx={px(x)}
    cy={py(y)}
    r="0.3"
    onpointerdown={(event) => press(event, eye)}
  />
  <text class:looked x={px(x)} y={py(y) + 0.14}>{i + 1}</text>
  {#if looked && own !== undefined}
    {@const [cx, cy] = at(x, y, lookDeg, LOOK_M).split(',')}
    <circle class="turn" role="presentation" {cx} {cy} r="0.18" onpointerdown={(event) => turn(event, own)} />
  {/if}
{/each}

<style>
  .look {
    fill: color-mix(in srgb, var(--accent) 35%, transparent);
    pointer-events: none;
  }

  .look.looked {
    fill: color-mix(in srgb, var(--on) 45%, transparent);
  }

  .eye,
  .turn {
    fill: var(--accent);
    stroke: var(--cds-text-01);
    stroke-width: 1;
    vector-effect: non-scaling-stroke;
    cursor: pointer;
  }

  .eye.own {
    cursor: move;
  }

  .eye.looked,
  .turn {
    fill: var(--on);
  }

  .turn {
    cursor: grab;
  }

  text {
    fill: var(--sheet);
    font-size: 0.4px;
    font-weight: 600;
    text-anchor: middle;
    pointer-events: none;
  }

  text.looked {
    fill: var(--on-text);
  }
</style>
