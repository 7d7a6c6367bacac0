import { movePoint } from '@flarik/core/geometry/frame';
import type { Solid } from '@flarik/core/geometry/solid';
import { entryM } from '@flarik/core/geometry/ray';
import { add, cross, dot, scale, sub, type Vec3 } from '@flarik/core/geometry/vec';
import type { Vehicle, View } from '@flarik/core/vehicle/types';
import { motionOf, type OpenParts } from '@flarik/core/vehicle/vehicle';
import { Outlines } from '@flarik/core/vehicle/picture/outlines';
import { project, toViewer } from '@flarik/core/vehicle/picture/views';
import {
  BufferGeometry,
  CanvasTexture,
  CylinderGeometry,
  DoubleSide,
  Float32BufferAttribute,
  Group,
  Mesh,
  MeshLambertMaterial,
  SRGBColorSpace,
} from 'three';
import { paintView, type Painted } from './paint';

type BodyMesh = Mesh<BufferGeometry, MeshLambertMaterial>;

/** What the picture of a vehicle is made of. */
export interface Body {
  readonly group: Group;
  readonly meshes: readonly BodyMesh[];
}

const VIEWS: readonly View[] = ['plan', 'left', 'right', 'front', 'rear'];
/** Trim and pillars as the driver sees them. */
const INTERIOR = 0x3a3f45;
const TYRE = 0x17191b;
/** The picture of a wheel lies so far before its tyre, so that it is the one that is seen, m. */
const BEFORE_TYRE_M = 0.004;

/**
 * The vehicle's solids, rounded as it is drawn, with its pictures laid on: each face takes the picture of the view it looks toward most, where
 * the part is when shut, so that an open door carries its picture along.
 * @param inside - for an eye within: glass is left out, so that it looks through, and so are the pictures of the outside
 *   on faces that only somebody within or behind them sees
 */
export function bodyOf(vehicle: Vehicle, open: OpenParts, inside = false): Body {
  const group = new Group();
  const meshes: BodyMesh[] = [];
  const addMesh = (mesh: BodyMesh): void => {
    meshes.push(mesh);
    group.add(mesh);
  };
  const shut = new Map(VIEWS.map((view) => [view, paintView(vehicle, view, new Set())]));
  const posed = new Map(VIEWS.map((view) => [view, paintView(vehicle, view, open)]));
  const shapes = shapesOf(vehicle);
  for (const view of VIEWS)
    for (const moving of [false, true]) {
      const painted = (moving ? shut : posed).get(view);
      if (painted === undefined) continue;
      const sheet = new Sheet(painted);
      // From within, the plan shows what is outside; what lies under glass has no picture of its own.
      const covered = new Sheet(painted);
      for (const { solid, faces } of shapes) {
        if (isWheel(solid) || (solid.partId !== null) !== moving || (inside && solid.transmission > 0))
          continue;
        const motion = motionOf(vehicle, solid.partId, open);
        for (const face of faces)
          if (nearestView(face) === view)
            (inside && isUnderGlass(vehicle, face) ? covered : sheet).add(
              face.map((at) => ({ at: movePoint(motion, at), on: painted.at(...project(view, at)) })),
            );
      }
      if (!moving && !inside && (view === 'left' || view === 'right')) {
        addMesh(wheelPictures(vehicle, view).mesh(true));
        for (const tyre of tyresOf(vehicle, view)) addMesh(tyre);
      }
      addMesh(sheet.mesh(!inside || view === 'plan'));
      if (inside) addMesh(covered.mesh(false));
    }
  return { group, meshes };
}

/** The shapes of a vehicle do not change while it opens. */
const knownShapes = new WeakMap<Vehicle, readonly Shape[]>();

interface Shape {
  readonly solid: Solid;
  readonly faces: readonly (readonly Vec3[])[];
}

/** Every solid with its faces as the drawings round them. */
function shapesOf(vehicle: Vehicle): readonly Shape[] {
  const known = knownShapes.get(vehicle);
  if (known !== undefined) return known;
  const outlines = new Outlines(vehicle);
  const made = vehicle.solids.map((solid) => ({ solid, faces: outlines.rounded(solid) }));
  knownShapes.set(vehicle, made);
  return made;
}

/** Whether glass lies above the middle of a face. */
function isUnderGlass({ solids }: Vehicle, face: readonly Vec3[]): boolean {
  const middle = scale(
    face.reduce((sum, p) => add(sum, p), [0, 0, 0]),
    1 / face.length,
  );
  return solids.some((s) => s.transmission > 0 && Number.isFinite(entryM(s, middle, [0, 0, 1])));
}

/** The view a face looks toward most; its corners say which way it faces. */
function nearestView(face: readonly Vec3[]): View {
  const [first] = face;
  const n = face.reduce<Vec3>(
    (sum, p, i) => {
      const q = face[(i + 1) % face.length] ?? p;
      return first === undefined ? sum : add(sum, cross(sub(p, first), sub(q, first)));
    },
    [0, 0, 0],
  );
  return VIEWS.reduce(
    (best, view) => (dot(n, toViewer[view]) > dot(n, toViewer[best]) ? view : best),
    'plan',
  );
}

const isWheel = ({ id }: Solid): boolean => id.startsWith('wheel-');

/** The wheels of a side, each with what it takes up, m. */
const wheelsOn = ({ solids }: Vehicle, side: 'left' | 'right') =>
  solids
    .filter((solid) => isWheel(solid) && solid.id.endsWith(side))
    .map(({ vertices }) => {
      const span = (axis: 0 | 1 | 2): readonly [low: number, high: number] => {
        const values = vertices.map((corner) => corner[axis]);
        return [Math.min(...values), Math.max(...values)];
      };
      return { x: span(0), y: span(1), z: span(2) };
    });

/** A card before the tyres of a side with what of the wheels is drawn there. */
function wheelPictures(vehicle: Vehicle, side: 'left' | 'right'): Sheet {
  const painted = paintView(vehicle, side, new Set(), 'wheels');
  const sheet = new Sheet(painted);
  const outer = Math.max(0, ...wheelsOn(vehicle, side).map(({ y: [low, high] }) => Math.max(-low, high)));
  const y = (outer + BEFORE_TYRE_M) * (side === 'left' ? 1 : -1);
  const x = vehicle.lengthM / 2;
  const top = vehicle.heightM * 0.5;
  const corners: Vec3[] = [
    [-x, y, 0],
    [x, y, 0],
    [x, y, top],
    [-x, y, top],
  ];
  sheet.add(corners.map((at) => ({ at, on: painted.at(...project(side, at)) })));
  return sheet;
}

/** The tyres of a side, as wide as they are. */
const tyresOf = (vehicle: Vehicle, side: 'left' | 'right'): BodyMesh[] =>
  wheelsOn(vehicle, side).map(({ x, y, z }) => {
    const radius = (z[1] - z[0]) / 2;
    // A cylinder stands along y, as an axle does.
    const geometry = new CylinderGeometry(radius, radius, y[1] - y[0], 40);
    geometry.translate((x[0] + x[1]) / 2, (y[0] + y[1]) / 2, (z[0] + z[1]) / 2);
    return new Mesh<BufferGeometry, MeshLambertMaterial>(geometry, new MeshLambertMaterial({ color: TYRE }));
  });

/** Faces that share one picture. */
class Sheet {
  readonly #painted: Painted;
  readonly #places: number[] = [];
  readonly #pictures: number[] = [];

  constructor(painted: Painted) {
    this.#painted = painted;
  }

  /** Adds a convex face as a fan of triangles. */
  add(corners: readonly { readonly at: Vec3; readonly on: readonly [number, number] }[]): void {
    const [hub] = corners;
    for (let i = 1; i + 1 < corners.length; i++)
      for (const corner of [hub, corners[i], corners[i + 1]]) {
        if (corner === undefined) continue;
        this.#places.push(...corner.at);
        this.#pictures.push(...corner.on);
      }
  }

  /** @param painted - with the picture on it; plain without */
  mesh(painted: boolean): BodyMesh {
    const geometry = new BufferGeometry();
    geometry.setAttribute('position', new Float32BufferAttribute(this.#places, 3));
    geometry.setAttribute('uv', new Float32BufferAttribute(this.#pictures, 2));
    geometry.computeVertexNormals();
    if (!painted)
      return new Mesh(
        geometry,
        new MeshLambertMaterial({ color: INTERIOR, side: DoubleSide, flatShading: true }),
      );
    const map = new CanvasTexture(this.#painted.canvas);
    map.colorSpace = SRGBColorSpace;
    map.anisotropy = 4;
    return new Mesh(geometry, new MeshLambertMaterial({ map, alphaTest: 0.5, side: DoubleSide }));
  }
}
