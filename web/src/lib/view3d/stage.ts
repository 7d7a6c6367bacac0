import { directionOf } from '@flarik/core/geometry/direction';
import { add, scale, type Vec3 } from '@flarik/core/geometry/vec';
import type { GroundShare } from '@flarik/core/sight/litGround';
import type { Vehicle } from '@flarik/core/vehicle/types';
import type { OpenParts } from '@flarik/core/vehicle/vehicle';
import {
  AmbientLight,
  Color,
  DirectionalLight,
  FogExp2,
  Mesh,
  MeshLambertMaterial,
  PerspectiveCamera,
  PlaneGeometry,
  Scene,
  WebGLRenderer,
} from 'three';
import { bodyOf, type Body } from './body';
import { GlowPoints, type Air, type Glow } from './glow';
import { GroundLight } from './groundLight';

/** Where an eye beside the vehicle is: bearing as seen from it, distance on the ground from its middle, height. */
export interface EyeBeside {
  readonly bearingDeg: number;
  readonly distanceM: number;
  readonly heightM: number;
}

/** An eye in body axes, and where it looks, m. */
export interface Eye {
  readonly at: Vec3;
  readonly toward: Vec3;
  /** Inside the vehicle one sees more of the picture at once. */
  readonly inside: boolean;
}

/** An eye beside the vehicle looks at it so far up, as a share of its height. */
const LOOKED_AT = 0.45;

export function eyeBeside({ bearingDeg, distanceM, heightM }: EyeBeside, vehicle: Vehicle): Eye {
  const [x, y] = scale(directionOf(bearingDeg, 0), distanceM);
  return { at: [x, y, heightM], toward: [0, 0, vehicle.heightM * LOOKED_AT], inside: false };
}

/** An eye within that looks toward a bearing. */
export const eyeInside = (at: Vec3, bearingDeg: number, upDeg: number): Eye => ({
  at,
  toward: add(at, directionOf(bearingDeg, upDeg)),
  inside: true,
});

/** Where a vehicle of the picture stands. */
interface ScenePose {
  readonly at: Vec3;
  readonly turnedDeg: number;
}

/** A vehicle in the picture. */
export interface RenderedVehicle extends ScenePose {
  readonly vehicle: Vehicle;
  readonly open: OpenParts;
}

/** What the lamps of one vehicle throw on the ground, in its own axes. */
export interface LitGround extends ScenePose {
  readonly shares: readonly GroundShare[];
}

export const SURROUNDINGS = ['day', 'dusk', 'night', 'rain', 'fog'] as const;
/** Rain and fog are those of the night. */
export type Surroundings = (typeof SURROUNDINGS)[number];

/** Background luminance and optical range of what is around. */
export const AIR: Readonly<Record<Surroundings, Air>> = {
  day: { luminance: 10_000, opticalRangeM: 20_000 },
  dusk: { luminance: 100, opticalRangeM: 20_000 },
  night: { luminance: 1, opticalRangeM: 20_000 },
  rain: { luminance: 1, opticalRangeM: 2000 },
  fog: { luminance: 10, opticalRangeM: 80 },
};

interface Look {
  readonly sky: number;
  readonly ground: number;
  readonly ambient: number;
  readonly sun: number;
}
const LOOK: Readonly<Record<Surroundings, Look>> = {
  day: { sky: 0xa9bccd, ground: 0x6d7378, ambient: 1.5, sun: 1.8 },
  dusk: { sky: 0x3d4a5e, ground: 0x3a3f45, ambient: 0.75, sun: 0.35 },
  night: { sky: 0x05070a, ground: 0x2a2f34, ambient: 0.3, sun: 0.3 },
  rain: { sky: 0x0a0d11, ground: 0x14181c, ambient: 0.26, sun: 0.15 },
  fog: { sky: 0x2b3036, ground: 0x23272b, ambient: 0.34, sun: 0.1 },
};
/** Light thrown back from fog. */
const VEIL = new Color(0xcfd6de);
/** The camera sees so far up and down, degrees. */
const FIELD_BESIDE_DEG = 30;
const FIELD_INSIDE_DEG = 58;

/** The perspective picture of vehicles with their lamps alight. */
export class NightStage {
  readonly #renderer: WebGLRenderer;
  readonly #scene = new Scene();
  readonly #camera = new PerspectiveCamera(FIELD_BESIDE_DEG, 1.6, 0.1, 600);
  readonly #ambient = new AmbientLight(0xffffff, 1);
  readonly #sun = new DirectionalLight(0xffffff, 1);
  readonly #ground = new Mesh(new PlaneGeometry(900, 900), new MeshLambertMaterial({ color: 0x101316 }));
  readonly #glow = new GlowPoints();
  #bodies: readonly Body[] = [];
  #groundLights: readonly GroundLight[] = [];

  constructor(canvas: HTMLCanvasElement) {
    this.#renderer = new WebGLRenderer({ canvas, antialias: true, preserveDrawingBuffer: true });
    this.#camera.up.set(0, 0, 1);
    this.#sun.position.set(6, 9, 14);
    this.#scene.add(this.#ambient, this.#sun, this.#ground, this.#glow.points);
  }

  /** @param inside - the eye is within the first of them */
  setVehicles(vehicles: readonly RenderedVehicle[], inside: boolean): void {
    for (const body of this.#bodies) {
      this.#scene.remove(body.group);
      discard(body);
    }
    this.#bodies = vehicles.map(({ vehicle, open, at, turnedDeg }, i) => {
      const body = bodyOf(vehicle, open, inside && i === 0);
      body.group.position.set(...at);
      body.group.rotation.z = (turnedDeg * Math.PI) / 180;
      this.#scene.add(body.group);
      return body;
    });
  }

  setGround(grounds: readonly LitGround[]): void {
    for (const light of this.#groundLights) {
      this.#scene.remove(light.group);
      light.close();
    }
    this.#groundLights = grounds
      .filter(({ shares }) => shares.length > 0)
      .map(({ at, turnedDeg, shares }) => {
        const light = new GroundLight(shares);
        light.group.position.set(...at);
        light.group.rotation.z = (turnedDeg * Math.PI) / 180;
        this.#scene.add(light.group);
        return light;
      });
  }

  /** @param veil - how far what fog throws back covers what is outside, 0 to 1 */
  setSurroundings(around: Surroundings, veil: number): void {
    const look = LOOK[around];
    const sky = new Color(look.sky).lerp(VEIL, veil);
    this.#scene.background = sky;
    this.#scene.fog = around === 'fog' ? new FogExp2(sky, 1.5 / AIR.fog.opticalRangeM) : null;
    this.#ambient.intensity = look.ambient;
    this.#sun.intensity = look.sun;
    this.#ground.material.color.set(look.ground);
    this.#ground.material.needsUpdate = true;
  }

  setEye({ at, toward, inside }: Eye): void {
    this.#camera.fov = inside ? FIELD_INSIDE_DEG : FIELD_BESIDE_DEG;
    this.#camera.position.set(...at);
    this.#camera.lookAt(...toward);
    this.#camera.updateProjectionMatrix();
  }

  resize(width: number, height: number): void {
    this.#renderer.setSize(width, height, false);
    this.#camera.aspect = width / Math.max(1, height);
    this.#camera.updateProjectionMatrix();
  }

  /** @param timeMs - the moment, for the ground; null for all that is driven at once */
  render(glows: readonly Glow[], timeMs: number | null, strength: number, air: Air): void {
    const { height } = this.#renderer.domElement;
    for (const light of this.#groundLights) light.show(timeMs, strength, air);
    this.#glow.show(glows, height, strength, air);
    this.#renderer.render(this.#scene, this.#camera);
  }

  /** Lets go of what the picture holds on the graphics card. */
  close(): void {
    for (const body of this.#bodies) discard(body);
    for (const light of this.#groundLights) light.close();
    this.#renderer.dispose();
  }
}

function discard({ meshes }: Body): void {
  for (const { geometry, material } of meshes) {
    geometry.dispose();
    material.map?.dispose();
    material.dispose();
  }
}
