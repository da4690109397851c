import { validate, MATERIAL } from '@brelvin/contract';
import { strToU8 } from 'fflate';
import { compileMaterial } from '../compile/compile-material';
import { readMeshFile, MeshFileRefused, meshFileHead, writeMeshFile } from '../formats/mesh-file';
import { readMtl } from './obj/read-mtl';
import { readObj } from './obj/read-obj';
import { buildMesh, GENERATED_SHAPES } from '../mesh/build-mesh';
import { enclosedVolume, facesInwards } from '../mesh/enclosed-volume';
import type { MeshData } from '../mesh/mesh';
import { turnedMesh } from '../mesh/turned-mesh';
import { assembleMesh } from './assemble-mesh';
import { ImportRefused, PLAIN_IMPORT, type ImportedMaterial, type ImportedPiece } from './imported-scene';
import { materialFromImport } from './material-from-import';

const near = (a: readonly number[], b: readonly number[], within = 1e-4): boolean =>
  a.length === b.length && a.every((each, at) => Math.abs(each - b[at]!) <= within);
const corner = (mesh: MeshData, at: number): number[] => {
  const vertex = mesh.indices[at]!;
  return [
    ...mesh.positions.subarray(vertex * 3, vertex * 3 + 3),
    ...mesh.normals.subarray(vertex * 3, vertex * 3 + 3),
    ...mesh.uvs.subarray(vertex * 2, vertex * 2 + 2),
  ];
};

/** A generated mesh as pieces, one a part, as an exporter would write them. */
function piecesOf(mesh: MeshData, without: readonly (keyof ImportedPiece)[] = []): ImportedPiece[] {
  return mesh.parts.map(({ name, first, count }) => {
    const piece: ImportedPiece = {
      name,
      positions: mesh.positions,
      normals: mesh.normals,
      tangents: mesh.tangents,
      uvs: mesh.uvs,
      uvs2: mesh.uvs2,
      colours: mesh.colours,
      indices: mesh.indices.subarray(first, first + count),
      flat: false,
    };
    return Object.fromEntries(
      Object.entries(piece).filter(([key]) => !without.includes(key as keyof ImportedPiece)),
    ) as unknown as ImportedPiece;
  });
}

/** The mesh as an OBJ file's text. */
function objOf(mesh: MeshData): string {
  const rows = (values: Float32Array, size: number, word: string, row: (values: number[]) => number[] = (each) => each): string[] =>
    Array.from({ length: values.length / size }, (_, at) => `${word} ${row([...values.subarray(at * size, at * size + size)]).join(' ')}`);
  const faces = mesh.parts.flatMap(({ name, first, count }) => [
    `o ${name}`,
    ...Array.from({ length: count / 3 }, (_, triangle) => {
      const at = first + triangle * 3;
      return `f ${[0, 1, 2]
        .map((each) => mesh.indices[at + each]! + 1)
        .map((index) => `${index}/${index}/${index}`)
        .join(' ')}`;
    }),
  ]);
  return [
    ...rows(mesh.positions, 3, 'v'),
    ...rows(mesh.uvs, 2, 'vt', ([u, v]) => [u!, 1 - v!]),
    ...rows(mesh.normals, 3, 'vn'),
    ...faces,
  ].join('\n');
}

const few = { segments: 12, rings: 8, sides: 8, frequency: 3 };

describe('An imported mesh', () => {
  for (const shape of GENERATED_SHAPES) {
    it(`is what was exported: ${shape}`, () => {
      const mesh = buildMesh({ shape, numbers: few, smooth: true });
      const { mesh: back, facts } = assembleMesh(piecesOf(mesh));
      expect(facts.made).toEqual([]);
      expect(facts.parts.length).toBe(mesh.parts.length);
      expect(back.indices.length).toBe(mesh.indices.length);
      for (let at = 0; at < mesh.indices.length; at += 7) if (!near(corner(back, at), corner(mesh, at))) fail(`corner ${at} moved`);
    });

    it(`comes through OBJ: ${shape}`, () => {
      const mesh = buildMesh({ shape, numbers: few, smooth: true });
      const { pieces } = readObj(strToU8(objOf(mesh)));
      const { mesh: back, facts } = assembleMesh(pieces);
      expect(facts.made).toEqual(['tangents', 'secondUvs']);
      expect(back.indices.length).toBe(mesh.indices.length);
      for (let at = 0; at < mesh.indices.length; at += 7) if (!near(corner(back, at), corner(mesh, at))) fail(`corner ${at} moved`);
    });

    it(`is completed where it has only positions: ${shape}`, () => {
      const mesh = buildMesh({ shape, numbers: few, smooth: true });
      const { mesh: back, facts } = assembleMesh(piecesOf(mesh, ['normals', 'tangents', 'uvs', 'uvs2', 'colours']));
      expect(facts.made).toEqual(['normals', 'uvs', 'tangents', 'secondUvs']);
      for (const values of [back.normals, back.tangents, back.uvs, back.uvs2]) expect(values.every(Number.isFinite)).toBeTrue();
      for (let vertex = 0; vertex < back.positions.length / 3; vertex++) {
        const [normal, tangent] = [back.normals.subarray(vertex * 3, vertex * 3 + 3), back.tangents.subarray(vertex * 4, vertex * 4 + 4)];
        expect(Math.hypot(...normal)).toBeCloseTo(1, 3);
        if (Math.abs(normal[0]! * tangent[0]! + normal[1]! * tangent[1]! + normal[2]! * tangent[2]!) > 1e-3)
          fail('a tangent leaves the surface');
      }
      expect(facts.mirrored).withContext('a box is wrapped round without mirroring').toBeFalse();
      expect(overlaps(back)).toBe(0);
    });
  }

  it('has the tangents that generated meshes have, where they are made from UVs', () => {
    const mesh = buildMesh({ shape: 'torus', numbers: { segments: 64, sides: 32 }, smooth: true });
    const { mesh: back } = assembleMesh(piecesOf(mesh, ['tangents']));
    let worst = 1;
    for (let at = 0; at < mesh.indices.length; at++) {
      const [own, made] = [mesh.indices[at]! * 4, back.indices[at]! * 4];
      worst = Math.min(
        worst,
        [0, 1, 2].reduce((sum, axis) => sum + mesh.tangents[own + axis]! * back.tangents[made + axis]!, 0),
      );
      if (mesh.tangents[own + 3] !== back.tangents[made + 3]) fail('a handedness turned');
    }
    expect(worst).toBeGreaterThan(0.99);
  });

  it('keeps mirrored halves apart, and says so', () => {
    // Two squares side by side; the right one shows the left one's picture from right to left.
    const positions = new Float32Array([-1, 0, 0, 0, 0, 0, 1, 0, 0, -1, 1, 0, 0, 1, 0, 1, 1, 0]);
    const uvs = new Float32Array([0, 1, 1, 1, 0, 1, 0, 0, 1, 0, 0, 0]);
    const indices = new Uint32Array([0, 1, 4, 0, 4, 3, 1, 2, 5, 1, 5, 4]);
    const { mesh, facts } = assembleMesh([{ name: 'two', positions, uvs, indices, flat: false }]);
    expect(facts.mirrored).toBeTrue();
    const hands = [...mesh.indices].map((vertex) => mesh.tangents[vertex * 4 + 3]);
    expect(hands.slice(0, 6)).toEqual([1, 1, 1, 1, 1, 1]);
    expect(hands.slice(6)).toEqual([-1, -1, -1, -1, -1, -1]);
  });

  it('stands where its transform puts it, its faces outwards also where it is mirrored', () => {
    const mesh = buildMesh({ shape: 'cube', numbers: { size: 2 }, smooth: false });
    const mirrored = [-2, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 5, 6, 7, 1];
    const { mesh: back } = assembleMesh(piecesOf(mesh).map((piece) => ({ ...piece, matrix: mirrored })));
    expect([...back.bounds.low]).toEqual([3, 5, 6]);
    expect([...back.bounds.high]).toEqual([7, 7, 8]);
    for (let at = 0; at < back.indices.length; at += 3) {
      const points = [0, 1, 2].map((each) => [...back.positions.subarray(back.indices[at + each]! * 3, back.indices[at + each]! * 3 + 3)]);
      const [a, b, c] = points as [number[], number[], number[]];
      const [u, v] = [b.map((each, axis) => each - a[axis]!), c.map((each, axis) => each - a[axis]!)];
      const face = [u[1]! * v[2]! - u[2]! * v[1]!, u[2]! * v[0]! - u[0]! * v[2]!, u[0]! * v[1]! - u[1]! * v[0]!];
      const normal = back.normals.subarray(back.indices[at]! * 3, back.indices[at]! * 3 + 3);
      expect(face[0]! * normal[0]! + face[1]! * normal[1]! + face[2]! * normal[2]!).toBeGreaterThan(0);
    }
  });

  it('gives every face a normal of its own where that is asked for', () => {
    const mesh = buildMesh({ shape: 'geodesic', numbers: { frequency: 2 }, smooth: true });
    const { mesh: flat } = assembleMesh(piecesOf(mesh, ['normals', 'tangents']).map((piece) => ({ ...piece, flat: true })));
    expect(flat.positions.length / 3).toBe(flat.indices.length);
  });

  it('leaves out what has no place, with a sentence, and refuses what is not there', () => {
    const positions = new Float32Array([0, 0, 0, 1, 0, 0, 0, 1, 0, NaN, 0, 0, Infinity, 1, 1]);
    const piece = (indices: number[]): ImportedPiece => ({ name: 'sail', positions, indices: new Uint32Array(indices), flat: false });
    const { facts, words } = assembleMesh([piece([0, 1, 2, 0, 1, 3, 2, 4, 1])]);
    expect(facts.triangles).toBe(1);
    expect(words.join(' ')).toMatch(/2 triangles were left out: a corner had no place/);
    expect(() => assembleMesh([piece([0, 1, 9])])).toThrowError(ImportRefused, /“sail” names vertex 9, but there are only 5/);
    expect(() => assembleMesh([piece([0, 1, 3])])).toThrowError(ImportRefused, /None of its triangles/);
    expect(() => assembleMesh([])).toThrowError(ImportRefused, /no triangles/);
  });

  it('has a name of its own for every part', () => {
    const mesh = buildMesh({ shape: 'plane', numbers: {}, smooth: true });
    const [piece] = piecesOf(mesh);
    expect(assembleMesh([piece!, piece!, { ...piece!, name: ' ' }]).facts.parts).toEqual(['plane', 'plane 2', 'part']);
  });

  it('of hundreds of thousands of triangles in one chart that folds gets a second UV set', () => {
    const [turns, across] = [1350, 100];
    const positions: number[] = [];
    const indices: number[] = [];
    for (let step = 0; step <= turns; step++) {
      const angle = (step / turns) * 4 * Math.PI;
      for (let out = 0; out <= across; out++)
        positions.push(Math.cos(angle) * (1 + out / across), angle * 0.02, Math.sin(angle) * (1 + out / across));
      const at = step * (across + 1);
      if (step < turns)
        for (let out = at; out < at + across; out++)
          indices.push(out, out + 1, out + across + 1, out + 1, out + across + 2, out + across + 1);
    }
    const ramp: ImportedPiece = { name: 'ramp', positions: Float32Array.from(positions), indices: Uint32Array.from(indices), flat: false };
    const { mesh, facts } = assembleMesh([ramp]);
    expect(facts.triangles).toBe(270_000);
    expect(mesh.uvs2.every((each) => each >= 0 && each <= 1)).toBeTrue();
  });
});

/** How many of some points in the second UV set lie in more than one triangle. */
function overlaps(mesh: MeshData): number {
  const side = 256;
  const owner = new Int32Array(side * side).fill(-1);
  let found = 0;
  for (let at = 0; at < mesh.indices.length; at += 3) {
    const [a, b, c] = [0, 1, 2].map((each) => [...mesh.uvs2.subarray(mesh.indices[at + each]! * 2, mesh.indices[at + each]! * 2 + 2)]) as [
      number[],
      number[],
      number[],
    ];
    const area = (b[0]! - a[0]!) * (c[1]! - a[1]!) - (c[0]! - a[0]!) * (b[1]! - a[1]!);
    if (Math.abs(area) < 1e-12) continue;
    const bounds = (axis: number): [number, number] => [Math.min(a[axis]!, b[axis]!, c[axis]!), Math.max(a[axis]!, b[axis]!, c[axis]!)];
    const [[left, right], [top, bottom]] = [bounds(0), bounds(1)];
    for (let y = Math.ceil(top * side - 0.5); y <= bottom * side - 0.5; y++) {
      for (let x = Math.ceil(left * side - 0.5); x <= right * side - 0.5; x++) {
        const [u, v] = [(x + 0.5) / side, (y + 0.5) / side];
        const inside = (p: number[], q: number[]): number => ((q[0]! - p[0]!) * (v - p[1]!) - (q[1]! - p[1]!) * (u - p[0]!)) / area;
        if (inside(a, b) < 1e-6 || inside(b, c) < 1e-6 || inside(c, a) < 1e-6) continue;
        if (owner[y * side + x]! >= 0) found++;
        owner[y * side + x] = at;
      }
    }
  }
  return found;
}

describe('Which way a mesh looks', () => {
  const lamp = buildMesh({ shape: 'torus', numbers: {}, smooth: true });
  const wound = (mesh: MeshData): MeshData => ({ ...mesh, indices: turnedMesh(mesh).indices });

  it('is found from the volume that it encloses: out, in, and neither where it is open', () => {
    expect(facesInwards(lamp)).toBeFalse();
    expect(facesInwards(turnedMesh(lamp))).toBeTrue();
    const { volume } = enclosedVolume(buildMesh({ shape: 'cube', numbers: { size: 2 }, smooth: false }));
    expect(volume).toBeCloseTo(8, 4);
    expect(facesInwards(turnedMesh(buildMesh({ shape: 'plane', numbers: {}, smooth: true })))).toBeFalse();
  });

  it('is turned all in all: twice is as before, and images lie on it the same', () => {
    const twice = turnedMesh(turnedMesh(lamp));
    expect([...twice.indices]).toEqual([...lamp.indices]);
    expect([...twice.normals]).toEqual([...lamp.normals]);
    expect(turnedMesh(lamp)).toBe(turnedMesh(lamp));
    const bitangentUp = ({ normals, tangents }: MeshData): number => {
      const [nx, , nz] = [normals[0]!, normals[1]!, normals[2]!];
      const [tx, , tz, w] = [tangents[0]!, tangents[1]!, tangents[2]!, tangents[3]!];
      return (nz * tx - nx * tz) * w;
    };
    expect(bitangentUp(turnedMesh(lamp))).toBeCloseTo(bitangentUp(lamp), 6);
  });

  it('is mended on the way in where triangles go round against their normals', () => {
    const { mesh, words, facts } = assembleMesh(piecesOf(wound(lamp)));
    expect(words.join(' ')).toContain('went round against their normals: they were turned');
    expect([...mesh.indices]).toEqual([...lamp.indices]);
    expect(facts.inwards).toBeUndefined();
  });

  it('is told where all of it looks inwards, and left as it is: a room does', () => {
    const { mesh, words, facts } = assembleMesh(piecesOf(turnedMesh(lamp)));
    expect(facts.inwards).toBeTrue();
    expect(words.join(' ')).toContain('It is inside out');
    expect(facesInwards(mesh)).toBeTrue();
    expect(assembleMesh(piecesOf(lamp)).words.join(' ')).not.toContain('inside out');
  });
});

describe('A mesh file of the workspace', () => {
  const mesh = buildMesh({ shape: 'lamp', numbers: few, smooth: true });

  it('gives back what was written', () => {
    const bytes = writeMeshFile(mesh);
    expect(readMeshFile(bytes.buffer)).toEqual({ ...mesh, closed: false });
    expect(meshFileHead(bytes).triangles).toBe(mesh.indices.length / 3);
  });

  it('says what the file that it came from did not have; one that was kept before says nothing', () => {
    expect(meshFileHead(writeMeshFile(mesh, ['normals', 'uvs'])).made).toEqual(['normals', 'uvs']);
    expect(meshFileHead(writeMeshFile(mesh)).made).toEqual([]);
  });

  it('is refused when it is cut, foreign, or names what is not there', () => {
    const bytes = writeMeshFile(mesh);
    expect(() => readMeshFile(bytes.slice(0, bytes.length - 4).buffer)).toThrowError(MeshFileRefused, /cut off/);
    expect(() => readMeshFile(strToU8('{"a":1,"b":2,"c":3}').slice().buffer)).toThrowError(MeshFileRefused, /no mesh/);
    expect(() => readMeshFile(new ArrayBuffer(2))).toThrowError(MeshFileRefused);
    const wrong = bytes.slice();
    new Uint32Array(wrong.buffer)[wrong.length / 4 - 1] = 1e9;
    expect(() => readMeshFile(wrong.buffer)).toThrowError(MeshFileRefused, /not there/);
  });
});

describe('OBJ', () => {
  const read = (text: string): ReturnType<typeof readObj> => readObj(strToU8(text));

  it('has polygons, numbers from the end, colours, groups, materials and lines that go on', () => {
    const { pieces, libraries, words } = read(
      [
        'mtllib loft.mtl',
        'v 0 0 0 1 0 0',
        'v 1 0 0 0 1 0',
        'v 1 1 0 0 0 1',
        'v 0 1 0 1 1 1',
        'o board',
        'usemtl oak',
        'f -4 -3 \\',
        ' -2 -1',
        's off',
        'f 1 2 3',
        'l 1 2',
      ].join('\n'),
    );
    expect(libraries).toEqual(['loft.mtl']);
    expect(pieces.map(({ name, wears, flat, indices }) => [name, wears, flat, indices!.length / 3])).toEqual([
      ['board', 'oak', false, 2],
      ['board', 'oak', true, 1],
    ]);
    expect([...pieces[0]!.colours!.subarray(0, 8)]).toEqual([1, 0, 0, 1, 0, 1, 0, 1]);
    expect(words).toEqual(['1 lines was left out: only faces are read.']);
  });

  it('is read in portions without losing a line', () => {
    const lines = Array.from({ length: 400_000 }, (_, at) => `v ${at} 0.125 0.25`);
    const shares: number[] = [];
    const { pieces } = readObj(strToU8([...lines, 'f 1 200000 400000'].join('\n')), (share) => shares.push(share));
    expect([...pieces[0]!.positions]).toEqual([0, 0.125, 0.25, 199999, 0.125, 0.25, 399999, 0.125, 0.25]);
    expect(shares.length).toBeGreaterThan(1);
  });

  for (const [what, text, words] of [
    ['faces that name what is not there', 'v 0 0 0\nf 1 2 3', /Line 2: a face names vertex “2”, but there are only 1/],
    ['words for numbers', 'v 0 0 0\nf one two three', /Line 2: a face names vertex “one”/],
    ['a huge polygon', `v 0 0 0\nf ${'1 '.repeat(10_001)}`, /a polygon has 1\d+ corners; at most 10000/],
  ] as const)
    it(`refuses ${what}`, () => expect(() => read(text)).toThrowError(ImportRefused, words));

  it('refuses UTF-16 by name, and takes broken numbers as no place', () => {
    expect(() => readObj(new Uint8Array([0xff, 0xfe, 0x76, 0]))).toThrowError(ImportRefused, /UTF-16/);
    expect(() => readObj(new Uint8Array([0x76, 0, 0x20, 0]))).toThrowError(ImportRefused, /UTF-16/);
    const { pieces } = read('v a b c\nv 1 0 0\nv 0 1 0\nv 0 0 1\nf 1 2 3\nf 2 3 4');
    expect(assembleMesh(pieces).facts.triangles).toBe(1);
  });

  it('takes its materials from MTL', () => {
    const [oak, brass] = readMtl(
      [
        'newmtl oak wood',
        'Kd 0.5 0.25 0.125',
        'Ns 98',
        'd 0.5',
        'map_Kd -s 2 2 1 textures\\oak color.png',
        'bump -bm 0.3 oak_bump.png',
        'newmtl brass',
        'Pm 1',
        'Pr 0.3',
        'Kd x',
      ].join('\n'),
    );
    expect(oak?.material).toEqual(
      jasmine.objectContaining({ name: 'oak wood', baseColour: [0.5, 0.25, 0.125], opacity: 0.5, alpha: 'blend' }),
    );
    expect(oak?.material.roughness).toBeCloseTo(Math.sqrt(Math.sqrt(2 / 100)), 6);
    expect(oak?.files).toEqual({ baseColour: 'textures/oak color.png', bump: 'oak_bump.png' });
    expect(brass?.material).toEqual(jasmine.objectContaining({ metallic: 1, roughness: 0.3, baseColour: [0.8, 0.8, 0.8] }));
  });
});

describe('A material of a file', () => {
  const map = {
    image: 0,
    uvSet: 0,
    wrapX: 'repeat',
    wrapY: 'mirror',
    filter: 'smooth',
    offset: [0, 0],
    scale: [1, 1],
    rotation: 0,
  } as const;
  const taken = new Map([[0, { name: 'Sail', asset: 'd'.repeat(64), width: 8, height: 8 }]]);
  const make = (change: Partial<ImportedMaterial>): ReturnType<typeof materialFromImport> =>
    materialFromImport({ ...PLAIN_IMPORT, name: 'Sail', ...change }, taken, {});

  const CASES: Readonly<Record<string, Partial<ImportedMaterial>>> = {
    plain: {},
    'with all maps': {
      maps: { baseColour: map, metallicRoughness: map, normal: map, occlusion: { ...map, uvSet: 1 }, emission: map },
      emission: [1, 0.5, 0],
      normalScale: 0.5,
      metallic: 1,
      roughness: 1,
    },
    'tinted and scaled': { maps: { baseColour: map, metallicRoughness: map }, baseColour: [0.5, 1, 1], roughness: 0.5, metallic: 0.25 },
    'cut out': { maps: { baseColour: map }, alpha: 'cut', cutoff: 0.25 },
    'blended without a map': { alpha: 'blend', opacity: 0.4 },
    unlit: { unlit: true, maps: { baseColour: map }, baseColour: [0.5, 0.5, 0.5] },
    glass: { features: { hasTransmission: { transmission: 0.9 }, hasVolume: { thickness: 0.1, ior: 1.4 } }, maps: { transmission: map } },
    'coated and brushed': {
      features: { hasCoat: { coat: 1, coatRoughness: 0.1 }, hasAnisotropy: { anisotropy: 0.5 }, hasSheen: { sheenColour: [1, 0, 0] } },
    },
    'of an image that is missing': { maps: { baseColour: { ...map, image: 7 } } },
  };
  for (const [name, change] of Object.entries(CASES))
    it(`is editable and sound: ${name}`, () => {
      const material = make(change);
      expect(validate(MATERIAL, material)).toEqual([]);
      expect(compileMaterial(material).problems).toEqual([]);
    });

  it('keeps numbers, images and how they are read', () => {
    const material = make(CASES['with all maps']!);
    expect(material.images['occlusion']).toEqual(
      jasmine.objectContaining({ uvSet: 1, role: 'data', wrapY: 'mirror', asset: 'd'.repeat(64) }),
    );
    expect(material.images['baseColour']?.role).toBe('colour');
    expect(material.surface.nodes['bumps']?.values).toEqual({ strengthX: 0.5, strengthY: 0.5 });
    expect(material.surface.ribbons['surface.metallic']?.outlet).toBe('blue');
    const scaled = make(CASES['tinted and scaled']!).surface;
    expect(scaled.nodes['surface']?.factors).toEqual({ baseColour: [0.5, 1, 1], roughness: 0.5, metallic: 0.25 });
    expect(Object.values(scaled.nodes).map(({ kind }) => kind)).not.toContain('multiply');
    expect(make(CASES['cut out']!).opacity).toBe('cut');
    expect(make(CASES['cut out']!).surface.nodes['opacityScale']?.values).toEqual({ b: 2 });
    expect(make(CASES['glass']!).surface.nodes['surface']?.features).toEqual(['hasTransmission', 'hasVolume']);
  });

  it('lays a turned and scaled picture where KHR_texture_transform puts it', () => {
    const rotation = 0.7;
    const { values } = make({ maps: { baseColour: { ...map, offset: [0.1, 0.2], scale: [2, 2], rotation } } }).surface.nodes[
      'baseColourMap'
    ]!;
    const [u, v] = [0.3, 0.8];
    const wanted = [
      Math.cos(rotation) * 2 * u + Math.sin(rotation) * 2 * v + 0.1,
      -Math.sin(rotation) * 2 * u + Math.cos(rotation) * 2 * v + 0.2,
    ];
    const [turn, repeat, offset] = [values['turn'] as number, values['repeat'] as number[], values['offset'] as number[]];
    const [x, y] = [u - 0.5, v - 0.5];
    const turned = [x * Math.cos(turn) - y * Math.sin(turn) + 0.5, x * Math.sin(turn) + y * Math.cos(turn) + 0.5];
    turned.forEach((each, axis) => expect(each * repeat[axis]! + offset[axis]!).toBeCloseTo(wanted[axis]!, 6));
  });
});
