import { describe, expect, test, vi } from 'vitest';
import { placeMesh, type Placing } from '@flarik/core/vehicle/placeMesh';
import { countTriangles } from './countTriangles';
import { readMeshFile } from './meshFile';

// The loader reports its progress by an event that browsers have and Node has not.
vi.stubGlobal('ProgressEvent', class extends Event {});

const bytesOf = (text: string): ArrayBuffer => new TextEncoder().encode(text).buffer;

/** A box of 2 × 1 × 0.5 units, x × y × z, as quads. */
const OBJ = `# a box

o box

v 0 0 0\nv 2 0 0\nv 2 1 0\nv 0 1 0

v 0 0 0.5\nv 2 0 0.5\nv 2 1 0.5\nv 0 1 0.5

f 1 4 3 2\nf 5 6 7 8\nf 1 2 6 5\nf 2 3 7 6\nf 3 4 8 7\nf 4 1 5 8
`;

const STL = `solid one

facet normal 0 0 1
 outer loop
  vertex 0 0 0
  vertex 1 0 0
  vertex 0 1 0
 endloop

endfacet

endsolid one
`;

/** A binary STL of so many copies of one triangle. */
function binaryStl(count: number): ArrayBuffer {
  const data = new DataView(new ArrayBuffer(84 + 50 * count));
  data.setUint32(80, count, true);
  for (let t = 0; t < count; t++)
    for (const [i, v] of [0, 0, 1, t, 0, 0, t + 1, 0, 0, t, 1, 0].entries())
      data.setFloat32(84 + 50 * t + 4 * i, v, true);
  return data.buffer;
}

/** A glTF triangle whose node stands 3 up its y axis. */
function gltf(uri: string): string {
  return JSON.stringify({
    asset: { version: '2.0' },
    scene: 0,
    scenes: [{ nodes: [0] }],
    nodes: [{ mesh: 0, translation: [0, 3, 0] }],
    meshes: [{ primitives: [{ attributes: { POSITION: 0 } }] }],
    accessors: [
      { bufferView: 0, componentType: 5126, count: 3, type: 'VEC3', min: [0, 0, 0], max: [1, 1, 0] },
    ],
    bufferViews: [{ buffer: 0, byteLength: 36 }],
    buffers: [{ byteLength: 36, uri }],
  });
}

const corners = new Float32Array([0, 0, 0, 1, 0, 0, 0, 1, 0]);

const inline = `data:application/octet-stream;base64,${Buffer.from(corners.buffer).toString('base64')}`;

describe('mesh files', () => {
  test('OBJ: quads become triangles', async () => {
    expect(await readMeshFile('box.obj', bytesOf(OBJ))).toHaveLength(12 * 9);
  });
  test('STL, as text and as bytes', async () => {
    expect([...(await readMeshFile('one.stl', bytesOf(STL)))]).toEqual([0, 0, 0, 1, 0, 0, 0, 1, 0]);
    expect(await readMeshFile('three.STL', binaryStl(3))).toHaveLength(27);
  });
  test('glTF in one file, its nodes where they stand', async () => {
    expect([...(await readMeshFile('one.gltf', bytesOf(gltf(inline))))]).toEqual([0, 3, 0, 1, 3, 0, 0, 4, 0]);
  });

  test.each<[string, string, ArrayBuffer, RegExp]>([
    ['another kind', 'car.step', bytesOf(''), /^car\.step: must be an \.obj, \.stl, \.gltf or \.glb file/],
    ['nothing in it', 'car.obj', bytesOf('# empty\n'), /^car\.obj: contains no triangles/],
    ['not glTF', 'car.gltf', bytesOf('{'), /^car\.gltf: cannot be read as GLTF: /],
    ['not GLB', 'car.glb', bytesOf('glTF but no more'), /^car\.glb: cannot be read as GLB: /],
    [
      'its shape elsewhere',
      'car.gltf',
      bytesOf(gltf('car.bin')),
      /its shape is in another file, car\.bin: save it as one \.glb/,
    ],
    [
      'a corner that is no number',
      'car.obj',
      bytesOf('v 0 0 0\nv 1 x 0\nv 0 1 0\nf 1 2 3\n'),
      /contains a corner that is not a number/,
    ],
    [
      'too many triangles',
      'car.stl',
      binaryStl(20_001),
      /^car\.stl: has 20001 triangles, at most 20000: reduce it/,
    ],
    ['too many bytes', 'car.stl', new ArrayBuffer(26 * 1024 * 1024), /is too large: 26\.0 MB, at most 25 MB/],
  ])('%s is refused in one sentence', async (_, name, bytes, message) => {
    await expect(readMeshFile(name, bytes)).rejects.toThrow(message);
  });
});

describe('a mesh on the vehicle', () => {
  const asIs: Placing = { unit: 'm', up: 'z', front: '+x', byM: [0, 0, 0] };
  const ends = (spec: { verticesM: number[] }, axis: number): [number, number] => {
    const along = spec.verticesM.filter((_, i) => i % 3 === axis);
    return [Math.min(...along), Math.max(...along)];
  };
  const placed = async (placing: Partial<Placing>) =>
    placeMesh(await readMeshFile('box.obj', bytesOf(OBJ)), 'box.obj', { ...asIs, ...placing }, true);

  test('its middle over the vehicle’s, its lowest point on the ground; corners are shared', async () => {
    const spec = await placed({});
    expect([ends(spec, 0), ends(spec, 1), ends(spec, 2)]).toEqual([
      [-1, 1],
      [-0.5, 0.5],
      [0, 0.5],
    ]);
    expect(spec.verticesM).toHaveLength(8 * 3);
    expect(spec.triangles).toHaveLength(12 * 3);
  });
  test('turned: what points to its +y is the front, y up turns it on its feet', async () => {
    const turned = await placed({ front: '+y' });
    expect(ends(turned, 0)).toEqual([-0.5, 0.5]);
    expect(ends(turned, 1)).toEqual([-1, 1]);
    const upright = await placed({ up: 'y', front: '-z' });
    expect(ends(upright, 0)).toEqual([-0.25, 0.25]);
    expect(ends(upright, 2)).toEqual([0, 1]);
  });
  test('scaled by its unit, and moved', async () => {
    const inches = await placed({ unit: 'inch', byM: [1, 0, 0.1] });
    expect(ends(inches, 0)).toEqual([1 - 0.025, 1 + 0.025]);
    expect(ends(inches, 2)[0]).toBe(0.1);
  });
  test('impossible axes and units are said', async () => {
    await expect(placed({ front: '+z' })).rejects.toThrow(/front and up cannot be the same axis/);
    await expect(placed({ byM: [20, 0, 0] })).rejects.toThrow(/reaches \d+\.\d m from the vehicle’s middle/);
    const tiny = placed({ unit: 'mm' }).then((spec) => spec.triangles.length);
    expect(await tiny).toBeGreaterThan(0);
    const raw = new Float64Array([0, 0, 0, 0.1, 0, 0, 0, 0.1, 0]);
    expect(() => placeMesh(raw, 'dust', { ...asIs, unit: 'mm' }, true)).toThrow(/smaller than a millimetre/);
  });
});

describe('what is counted before anything is read', () => {
  test('agrees with what is read', async () => {
    const files: [string, ArrayBuffer][] = [
      ['box.obj', bytesOf(OBJ)],
      ['one.stl', bytesOf(STL)],
      ['five.stl', binaryStl(5)],
      [
        'pentagon.obj',
        bytesOf('v 0 0 0\nv 1 0 0\nv 2 1 0\nv 1 2 0\nv 0 1 0\nf 1/1 2/2 3/3 4/4 5/5\n# f 1 2 3\n'),
      ],
    ];
    for (const [name, bytes] of files) {
      const kind = name.slice(-3);
      expect(countTriangles(kind, bytes), name).toBe((await readMeshFile(name, bytes)).length / 9);
    }
  });

  test('a file of nothing but beginnings is refused at once, whatever its size', async () => {
    for (const word of ['solid ', 'facet ', 'solid x facet '])
      await expect(readMeshFile('mad.stl', bytesOf(word.repeat(1_000_000)))).rejects.toThrow(
        /mad\.stl: contains a '(solid|facet)' without its 'end/,
      );
  });

  test('too many are refused by the count alone: a glTF that shows one mesh many times', async () => {
    const many = JSON.parse(gltf('data:application/octet-stream;base64,')) as Record<string, unknown>;
    const nodes = Array.from({ length: 100_000 }, () => ({ mesh: 0 }));
    await expect(readMeshFile('many.gltf', bytesOf(JSON.stringify({ ...many, nodes })))).rejects.toThrow(
      /many\.gltf: has 100000 triangles, at most/,
    );
  });
});
