/** The same rays through another's hands: triangles in a hierarchy of boxes, by three-mesh-bvh. */
import type { Build } from '@flarik/core/design/schema';
import { hasHousing, housingOf } from '@flarik/core/coverage/housings';
import { relativeIntensity } from '@flarik/core/fixture/distribution';
import { directionOf } from '@flarik/core/geometry/direction';
import { anglesInFrame } from '@flarik/core/geometry/frame';
import type { Solid } from '@flarik/core/geometry/solid';
import type { Vec3 } from '@flarik/core/geometry/vec';
import { lookupOf } from '@flarik/core/resolve/lookup';
import { placeModules } from '@flarik/core/resolve/place';
import { posedSolids } from '@flarik/core/vehicle/vehicle';
import { BufferAttribute, BufferGeometry, DoubleSide, Ray, Vector3 } from 'three';
import { MeshBVH } from 'three-mesh-bvh';

/** A ray begins so far before the lens, so that it does not meet the surface that carries the lamp, m. */
const NEAR_M = 1e-5;

/** Solids as one mesh, and which solid each of its corners is of. */
class Mesh {
  readonly #bvh: MeshBVH;
  readonly #ofCorner: number[] = [];
  readonly #ray = new Ray();

  constructor(solids: readonly Solid[]) {
    const corners: number[] = [];
    const triangles: number[] = [];
    for (const [solid, { vertices, faces }] of solids.entries()) {
      const first = corners.length / 3;
      for (const vertex of vertices) {
        corners.push(...vertex);
        this.#ofCorner.push(solid);
      }
      for (const [a = 0, ...others] of faces)
        for (let i = 1; i < others.length; i++)
          triangles.push(first + a, first + (others[i - 1] ?? 0), first + (others[i] ?? 0));
    }
    const geometry = new BufferGeometry();
    geometry.setAttribute('position', new BufferAttribute(new Float32Array(corners), 3));
    geometry.setIndex(triangles);
    this.#bvh = new MeshBVH(geometry);
  }

  /** Whether a ray meets any. */
  meets(from: Vec3, direction: Vec3): boolean {
    return this.#bvh.raycastFirst(this.#toward(from, direction), DoubleSide, NEAR_M) !== null;
  }

  /** Those that a ray meets. */
  met(from: Vec3, direction: Vec3): Set<number> {
    const hits = this.#bvh.raycast(this.#toward(from, direction), DoubleSide, NEAR_M);
    return new Set(hits.flatMap(({ face }) => (face == null ? [] : (this.#ofCorner[face.a] ?? []))));
  }

  #toward(from: Vec3, direction: Vec3): Ray {
    return this.#ray.set(new Vector3(...from), new Vector3(...direction));
  }
}

/** By lamp, elevation, module and bearing: the share of the peak that arrives, everything shut. */
export function outsideShares(
  build: Build,
  elevationsDeg: readonly number[],
): { readonly shares: readonly (readonly (readonly Float64Array[])[])[]; readonly rays: number } {
  const lookup = lookupOf(build);
  const shut = new Set<string>();
  const solids = posedSolids(lookup.vehicle, shut);
  const glass = solids.filter(({ transmission }) => transmission > 0 && transmission < 1);
  const riders = build.placements.filter(hasHousing);
  const meshes = {
    opaque: new Mesh(solids.filter(({ transmission }) => transmission === 0)),
    glass: new Mesh(glass),
    housings: new Mesh(riders.map((p) => housingOf(lookup, p, []))),
  };
  let rays = 0;
  const passes = (ownId: string, from: Vec3, direction: Vec3): number => {
    rays++;
    if (meshes.opaque.meets(from, direction)) return 0;
    for (const rider of meshes.housings.met(from, direction)) if (riders[rider]?.id !== ownId) return 0;
    return [...meshes.glass.met(from, direction)].reduce(
      (share, solid) => share * (glass[solid]?.transmission ?? 1),
      1,
    );
  };
  const shares = build.placements.map((p) =>
    elevationsDeg.map((e) =>
      placeModules(lookup, p, shut).map(({ module, centre, frame }) =>
        Float64Array.from({ length: 360 }, (_, b) => {
          const direction = directionOf(b, e);
          const { hDeg, vDeg } = anglesInFrame(frame, direction);
          const sent = relativeIntensity(module.distribution, hDeg, vDeg) * p.lensTransmission;
          return sent === 0 ? 0 : sent * passes(p.id, centre, direction);
        }),
      ),
    ),
  );
  return { shares, rays };
}
