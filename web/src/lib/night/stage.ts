import { directionOf } from '@flarik/core/geometry/direction';
import { scale, type Vec3 } from '@flarik/core/geometry/vec';
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

/** Where the eye is: bearing as seen from the vehicle, distance on the ground from its middle, height. */
export interface Eye {
  readonly bearingDeg: number;
  readonly distanceM: number;
  readonly heightM: number;
}

/** The eye in body axes, m. */
export function eyePoint({ bearingDeg, distanceM, heightM }: Eye): Vec3 {
  const [x, y] = scale(directionOf(bearingDeg, 0), distanceM);
  return [x, y, heightM];
}

export type Surroundings = 'day' | 'night' | 'fog';

/** Background luminance and optical range of what is around. */
export const AIR: Readonly<Record<Surroundings, Air>> = {
  day: { luminance: 10_000, opticalRangeM: 20_000 },
  night: { luminance: 1, opticalRangeM: 20_000 },
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
  night: { sky: 0x05070a, ground: 0x2a2f34, ambient: 0.3, sun: 0.3 },
  fog: { sky: 0x2b3036, ground: 0x23272b, ambient: 0.34, sun: 0.1 },
};

/** The perspective picture of a vehicle with its lamps alight. */
export class NightStage {
  readonly #renderer: WebGLRenderer;
  readonly #scene = new Scene();
  readonly #camera = new PerspectiveCamera(30, 1.6, 0.1, 600);
  readonly #ambient = new AmbientLight(0xffffff, 1);
  readonly #sun = new DirectionalLight(0xffffff, 1);
  readonly #ground = new Mesh(new PlaneGeometry(900, 900), new MeshLambertMaterial({ color: 0x101316 }));
  readonly #glow = new GlowPoints();
  #body: Body | null = null;
  #middleM = 0.8;

  constructor(canvas: HTMLCanvasElement) {
    this.#renderer = new WebGLRenderer({ canvas, antialias: true, preserveDrawingBuffer: true });
    this.#camera.up.set(0, 0, 1);
    this.#sun.position.set(6, 9, 14);
    this.#scene.add(this.#ambient, this.#sun, this.#ground, this.#glow.points);
  }

  setVehicle(vehicle: Vehicle, open: OpenParts): void {
    if (this.#body !== null) {
      this.#scene.remove(this.#body.group);
      discard(this.#body);
    }
    this.#body = bodyOf(vehicle, open);
    this.#middleM = vehicle.heightM * 0.45;
    this.#scene.add(this.#body.group);
  }

  setSurroundings(around: Surroundings): void {
    const look = LOOK[around];
    this.#scene.background = new Color(look.sky);
    this.#scene.fog = around === 'fog' ? new FogExp2(look.sky, 1.5 / AIR.fog.opticalRangeM) : null;
    this.#ambient.intensity = look.ambient;
    this.#sun.intensity = look.sun;
    this.#ground.material.color.set(look.ground);
    this.#ground.material.needsUpdate = true;
  }

  setEye(eye: Eye): void {
    this.#camera.position.set(...eyePoint(eye));
    this.#camera.lookAt(0, 0, this.#middleM);
  }

  resize(width: number, height: number): void {
    this.#renderer.setSize(width, height, false);
    this.#camera.aspect = width / Math.max(1, height);
    this.#camera.updateProjectionMatrix();
  }

  render(glows: readonly Glow[], strength: number, air: Air): void {
    const { height } = this.#renderer.domElement;
    this.#glow.show(glows, height, strength, air);
    this.#renderer.render(this.#scene, this.#camera);
  }

  /** Lets go of what the picture holds on the graphics card. */
  close(): void {
    if (this.#body !== null) discard(this.#body);
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
