import type { GroundShare } from '@flarik/core/sight/litGround';
import { levelAt } from '@flarik/core/timing/timeline';
import {
  AdditiveBlending,
  DataTexture,
  Group,
  LinearFilter,
  Mesh,
  MeshBasicMaterial,
  PlaneGeometry,
  RGBAFormat,
  SRGBColorSpace,
} from 'three';
import { TINT, type Air } from './glow';

/** Light on the ground is told apart from the light around from so many lux on for each cd/m² of that. */
const LX_PER_LUMINANCE = 3;
/** Full brightness of the picture is so many decades above it. */
const DECADES = 2.5;

/** Toward the edge of what is worked out the light fades over so much, m: it goes on beyond, and must not look cut off. */
const FADE_M = 4;

/** What lamps throw on the ground round a vehicle, drawn as a carpet of light. */
export class GroundLight {
  /** In the axes of the vehicle. */
  readonly group = new Group();
  readonly #shares: readonly GroundShare[];
  readonly #mesh: Mesh<PlaneGeometry, MeshBasicMaterial>;
  readonly #texture: DataTexture;
  readonly #sums: Float32Array;
  /** Share of the brightness that each point of the grid is drawn with. */
  readonly #fade: Float32Array;

  /** @param shares - on the same grid; at least one */
  constructor(shares: readonly GroundShare[]) {
    const [first] = shares;
    if (first === undefined) throw new RangeError('unlit ground is not drawn');
    const { columns, rows, stepM, fromX, fromY } = first.grid;
    this.#shares = shares;
    this.#sums = new Float32Array(3 * columns * rows);
    this.#fade = Float32Array.from({ length: columns * rows }, (_, i) => {
      const [column, row] = [i % columns, Math.floor(i / columns)];
      const toEdge = Math.min(column, row, columns - 1 - column, rows - 1 - row);
      return Math.min(1, (toEdge * stepM) / FADE_M);
    });
    this.#texture = new DataTexture(new Uint8Array(4 * columns * rows), columns, rows, RGBAFormat);
    this.#texture.colorSpace = SRGBColorSpace;
    this.#texture.magFilter = LinearFilter;
    this.#texture.minFilter = LinearFilter;
    this.#mesh = new Mesh(
      new PlaneGeometry(columns * stepM, rows * stepM),
      new MeshBasicMaterial({
        map: this.#texture,
        transparent: true,
        blending: AdditiveBlending,
        depthWrite: false,
        polygonOffset: true,
        polygonOffsetFactor: -1,
        polygonOffsetUnits: -4,
      }),
    );
    this.#mesh.position.set(fromX + ((columns - 1) * stepM) / 2, fromY + ((rows - 1) * stepM) / 2, 0);
    this.group.add(this.#mesh);
  }

  /** @param timeMs - the moment; null for all that is driven at once */
  show(timeMs: number | null, strength: number, air: Air): void {
    const { data } = this.#texture.image;
    if (!(data instanceof Uint8Array)) return;
    this.#sums.fill(0);
    for (const share of this.#shares) {
      const level = timeMs === null ? 1 : levelAt(share, timeMs);
      if (level === 0) continue;
      const { lx } = share.grid;
      const [r, g, b] = TINT[share.colour];
      for (let i = 0; i < lx.length; i++) {
        const now = (lx[i] ?? 0) * level;
        if (now === 0) continue;
        this.#sums[3 * i] = (this.#sums[3 * i] ?? 0) + now * r;
        this.#sums[3 * i + 1] = (this.#sums[3 * i + 1] ?? 0) + now * g;
        this.#sums[3 * i + 2] = (this.#sums[3 * i + 2] ?? 0) + now * b;
      }
    }
    const seenLx = LX_PER_LUMINANCE * air.luminance;
    for (let i = 0; i < data.length / 4; i++) {
      const [r = 0, g = 0, b = 0] = this.#sums.subarray(3 * i, 3 * i + 3);
      const most = Math.max(r, g, b);
      const bright = Math.min(1, Math.log10(1 + most / seenLx) / DECADES) * strength * (this.#fade[i] ?? 0);
      const k = most === 0 ? 0 : (255 * bright) / most;
      data[4 * i] = r * k;
      data[4 * i + 1] = g * k;
      data[4 * i + 2] = b * k;
      data[4 * i + 3] = 255;
    }
    this.#texture.needsUpdate = true;
  }

  close(): void {
    this.#texture.dispose();
    this.#mesh.geometry.dispose();
    this.#mesh.material.dispose();
  }
}
