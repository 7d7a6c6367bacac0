import { illuminanceLx, type NearChannel } from '@flarik/core/coverage/near';
import { thresholdLx } from '@flarik/core/coverage/range';
import { fresnel, WATER } from '@flarik/core/sight/fresnel';
import type { Colour } from '@flarik/core/words/colour';
import type { Vec3 } from '@flarik/core/geometry/vec';
import { levelAt } from '@flarik/core/timing/timeline';
import {
  AdditiveBlending,
  BufferAttribute,
  BufferGeometry,
  NormalBlending,
  Points,
  ShaderMaterial,
} from 'three';

/** Light around: background luminance, cd/m², and how far one sees, m. */
export interface Air {
  readonly luminance: number;
  readonly opticalRangeM: number;
}

/** One light as it is drawn. */
export interface Glow {
  readonly at: Vec3;
  readonly colour: Colour;
  /** Decades of illuminance at the eye above what is just seen; below 0 it is not. */
  readonly decades: number;
  /** How many times higher than wide it is: 1 but on a wet road, which draws lights out toward the eye. */
  readonly stretch: number;
}

/**
 * What each channel looks like at a moment. A light grows by equal steps with equal ratios of illuminance at the eye,
 * as the eye itself takes it, from the threshold of the background on.
 */
export function glowsAt(channels: readonly NearChannel[], timeMs: number | null, air: Air): Glow[] {
  const threshold = thresholdLx(air.luminance);
  return channels.flatMap(({ drive, centre, cd, distanceM }): Glow[] => {
    const level = timeMs === null ? 1 : levelAt(drive, timeMs);
    if (cd * level <= 0) return [];
    const decades = Math.log10(illuminanceLx(cd * level, distanceM, air.opticalRangeM) / threshold);
    const stretch = centre[2] < 0 ? WET_STRETCH : 1;
    return decades <= 0 ? [] : [{ at: centre, colour: drive.colour, decades, stretch }];
  });
}

/** Ripples draw a light on a wet road out so much. */
const WET_STRETCH = 5;

/** The eye as it would stand below a road that mirrors. */
export const underRoad = ([x, y, z]: Vec3): Vec3 => [x, y, -z];

/**
 * Lights as a wet road mirrors them to an eye: each as far below the road as it stands above it, less what goes into the water.
 * @param channels - as `underRoad` of the eye sees them
 */
export const mirrored = (channels: readonly NearChannel[], eye: Vec3): NearChannel[] =>
  channels.map((channel) => {
    const [x, y, z] = channel.centre;
    return {
      ...channel,
      centre: [x, y, -z],
      cd: channel.cd * fresnel((z + eye[2]) / channel.distanceM, WATER),
    };
  });

/** Colours of light on the screen. */
export const TINT: Readonly<Record<Colour, readonly [number, number, number]>> = {
  red: [1, 0.13, 0.09],
  blue: [0.16, 0.36, 1],
  amber: [1, 0.56, 0.05],
  white: [0.92, 0.95, 1],
  green: [0.12, 0.9, 0.3],
  purple: [0.66, 0.32, 1],
};

const MOST = 1024;
/** Backgrounds above this are bright, cd/m². */
const BRIGHT = 100;
/** A light grows so much for each decade, px of a picture 600 px high. */
const PX_PER_DECADE = 11;

const VERTEX = `
attribute vec3 tint;
attribute float size;
attribute float stretch;
varying vec3 shade;
varying float narrow;
void main() {
  shade = tint;
  narrow = stretch;
  gl_Position = projectionMatrix * modelViewMatrix * vec4(position, 1.0);
  gl_PointSize = size * sqrt(stretch);
}`;
const FRAGMENT = `
varying vec3 shade;
varying float narrow;
uniform float strength;
void main() {
  float d = 2.0 * length((gl_PointCoord - 0.5) * vec2(narrow, 1.0));
  if (d > 1.0) discard;
  float halo = pow(1.0 - d, 2.6) * 0.75;
  float heart = smoothstep(0.2, 0.0, d);
  gl_FragColor = vec4(shade + vec3(heart * 0.6), min(1.0, halo + heart) * strength / sqrt(narrow));
}`;

/** The lights as soft points; what hides them has been reckoned, so they are drawn over all. */
export class GlowPoints {
  readonly points: Points<BufferGeometry, ShaderMaterial>;
  readonly #place = new BufferAttribute(new Float32Array(3 * MOST), 3);
  readonly #tint = new BufferAttribute(new Float32Array(3 * MOST), 3);
  readonly #size = new BufferAttribute(new Float32Array(MOST), 1);
  readonly #stretch = new BufferAttribute(new Float32Array(MOST), 1);

  constructor() {
    const geometry = new BufferGeometry();
    geometry.setAttribute('position', this.#place);
    geometry.setAttribute('tint', this.#tint);
    geometry.setAttribute('size', this.#size);
    geometry.setAttribute('stretch', this.#stretch);
    this.points = new Points(
      geometry,
      new ShaderMaterial({
        vertexShader: VERTEX,
        fragmentShader: FRAGMENT,
        uniforms: { strength: { value: 1 } },
        transparent: true,
        depthTest: false,
        depthWrite: false,
        blending: AdditiveBlending,
      }),
    );
    this.points.frustumCulled = false;
  }

  /**
   * @param heightPx - of the picture, in device pixels
   * @param strength - 1 full contrast; less for a calm preview
   * @param air - before a bright sky light adds little: it covers instead
   */
  show(glows: readonly Glow[], heightPx: number, strength: number, air: Air): void {
    const shown = glows.slice(0, MOST);
    for (const [i, { at, colour, decades, stretch }] of shown.entries()) {
      this.#place.setXYZ(i, ...at);
      this.#tint.setXYZ(i, ...TINT[colour]);
      this.#size.setX(i, (4 + PX_PER_DECADE * decades) * (heightPx / 600));
      this.#stretch.setX(i, stretch);
    }
    for (const attribute of [this.#place, this.#tint, this.#size, this.#stretch])
      attribute.needsUpdate = true;
    this.points.geometry.setDrawRange(0, shown.length);
    this.points.material.blending = air.luminance > BRIGHT ? NormalBlending : AdditiveBlending;
    const { strength: uniform } = this.points.material.uniforms;
    if (uniform !== undefined) uniform.value = strength;
  }
}
