import type { MeshShape } from '@brelvin/contract';
import { buildMesh, GENERATED_SHAPES, MESH_SHAPES } from './build-mesh';
import { meshNumber } from './mesh-number';
import { boundsOf, type MeshData } from './mesh';
import { weld } from './weld';

const SHAPES = GENERATED_SHAPES;

type Triple = readonly [number, number, number];
const vertex = (from: Float32Array, index: number): Triple => [from[index * 3] ?? 0, from[index * 3 + 1] ?? 0, from[index * 3 + 2] ?? 0];
const minus = (a: Triple, b: Triple): Triple => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
const cross = (a: Triple, b: Triple): Triple => [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]];
const dot = (a: Triple, b: Triple): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];

function* triangles(
  mesh: MeshData,
): Generator<{ corners: readonly [Triple, Triple, Triple]; normals: readonly [Triple, Triple, Triple]; face: Triple }> {
  for (let first = 0; first < mesh.indices.length; first += 3) {
    const [a = 0, b = 0, c = 0] = mesh.indices.subarray(first, first + 3);
    const corners = [vertex(mesh.positions, a), vertex(mesh.positions, b), vertex(mesh.positions, c)] as const;
    const face = cross(minus(corners[1], corners[0]), minus(corners[2], corners[0]));
    yield { corners, normals: [vertex(mesh.normals, a), vertex(mesh.normals, b), vertex(mesh.normals, c)], face };
  }
}

describe('Generated meshes', () => {
  for (const shape of SHAPES) {
    for (const smooth of [true, false]) {
      describe(`${shape}, ${smooth ? 'smooth' : 'flat'}`, () => {
        const mesh = buildMesh({ shape, numbers: {}, smooth });

        it('has fronts that are counter-clockwise and face where normals do', () => {
          let wrong = 0;
          for (const { face, normals } of triangles(mesh)) {
            if (Math.hypot(...face) === 0 || normals.some((normal) => dot(face, normal) <= 0)) wrong++;
          }
          expect(wrong).toBe(0);
        });

        it('has unit normals, and unit tangents square to them', () => {
          let wrong = 0;
          for (let index = 0; index < mesh.positions.length / 3; index++) {
            const normal = vertex(mesh.normals, index);
            const tangent: Triple = [mesh.tangents[index * 4] ?? 0, mesh.tangents[index * 4 + 1] ?? 0, mesh.tangents[index * 4 + 2] ?? 0];
            const unit = Math.abs(Math.hypot(...normal) - 1) < 1e-4 && Math.abs(Math.hypot(...tangent) - 1) < 1e-4;
            if (!unit || Math.abs(dot(normal, tangent)) > 1e-4 || Math.abs(mesh.tangents[index * 4 + 3] ?? 0) !== 1) wrong++;
          }
          expect(wrong).toBe(0);
        });

        it('keeps both UV sets inside 0…1 and its parts over all indices', () => {
          const most = shape === 'geodesic' ? 1.5 : 1;
          expect([...mesh.uvs].every((uv) => uv >= -1e-6 && uv <= most + 1e-6)).toBeTrue();
          expect([...mesh.uvs2].every((uv) => uv >= -1e-6 && uv <= 1 + 1e-6)).toBeTrue();
          expect(mesh.parts.map((part) => part.name)).toEqual([...MESH_SHAPES[shape].parts]);
          let next = 0;
          for (const part of mesh.parts) {
            expect(part.first).toBe(next);
            next += part.count;
          }
          expect(next).toBe(mesh.indices.length);
        });

        it('knows its bounds', () => {
          expect(mesh.bounds).toEqual(boundsOf(mesh.positions));
        });
      });
    }
  }

  it('leave no gaps: vertices that are meant to be in one place are exactly there', () => {
    for (const shape of GENERATED_SHAPES) {
      const mesh = buildMesh({ shape, numbers: {}, smooth: true });
      const places = weld(mesh);
      const known = new Map<number, string>();
      let apart = 0;
      places.forEach((place, vertex) => {
        const here = [...mesh.positions.subarray(vertex * 3, vertex * 3 + 3)].join();
        if ((known.get(place) ?? here) !== here) apart++;
        known.set(place, here);
      });
      expect(apart).withContext(shape).toBe(0);
    }
  });

  it('puts a sphere’s points on the sphere, its seam at the back', () => {
    const mesh = buildMesh({ shape: 'sphere', numbers: { radius: 2 }, smooth: true });
    for (let index = 0; index < mesh.positions.length / 3; index++) expect(Math.hypot(...vertex(mesh.positions, index))).toBeCloseTo(2, 5);
    const middle = Array.from({ length: mesh.uvs.length / 2 }, (_, index) => index).filter(
      (index) => mesh.uvs[index * 2] === 0.5 && mesh.uvs[index * 2 + 1] === 0.5,
    );
    expect(vertex(mesh.positions, middle[0] ?? 0)[2]).toBeCloseTo(2, 5);
  });

  it('encloses what it should: a sphere’s volume from its triangles', () => {
    const mesh = buildMesh({ shape: 'sphere', numbers: { segments: 256, rings: 128 }, smooth: true });
    let volume = 0;
    for (const { corners } of triangles(mesh)) volume += dot(corners[0], cross(corners[1], corners[2])) / 6;
    expect(volume).toBeCloseTo((4 / 3) * Math.PI, 2);
  });

  it('gives a torus knot the volume of its tube (Pappus: cross-section times length)', () => {
    const mesh = buildMesh({ shape: 'torusKnot', numbers: { segments: 512, sides: 64, turns: 1, windings: 1, tube: 0.05 }, smooth: true });
    let volume = 0;
    for (const { corners } of triangles(mesh)) volume += dot(corners[0], cross(corners[1], corners[2])) / 6;
    let length = 0;
    const at = (t: number): Triple => {
      const angle = t * 2 * Math.PI;
      const distance = Math.cos(angle) + 2;
      return [distance * Math.cos(angle) * 0.35, -Math.sin(angle) * 0.35, distance * Math.sin(angle) * 0.35];
    };
    for (let step = 0; step < 2000; step++) length += Math.hypot(...minus(at((step + 1) / 2000), at(step / 2000)));
    expect(volume / (Math.PI * 0.05 ** 2 * length)).toBeCloseTo(1, 1);
  });

  it('names the six sides of a cube, each with its own part of the second UV set', () => {
    const mesh = buildMesh({ shape: 'cube', numbers: { segments: 3 }, smooth: false });
    expect(mesh.parts.map((part) => part.name)).toEqual(['front', 'back', 'right', 'left', 'top', 'bottom']);
    expect(mesh.parts.every((part) => part.count === 3 * 3 * 6)).toBeTrue();
    const corner = (part: number): string => {
      const vertexIndex = mesh.indices[mesh.parts[part]?.first ?? 0] ?? 0;
      return `${mesh.uvs2[vertexIndex * 2]?.toFixed(2)},${mesh.uvs2[vertexIndex * 2 + 1]?.toFixed(2)}`;
    };
    expect(new Set([0, 1, 2, 3, 4, 5].map(corner)).size).toBe(6);
  });

  const volumeOf = (mesh: MeshData): number => {
    let volume = 0;
    for (const { corners } of triangles(mesh)) volume += dot(corners[0], cross(corners[1], corners[2])) / 6;
    return volume;
  };
  const volumes: readonly [string, MeshShape, Record<string, number>, number][] = [
    ['a geodesic sphere', 'geodesic', { frequency: 40 }, (4 / 3) * Math.PI],
    ['a cylinder: πr²h', 'cylinder', { radius: 0.5, height: 2, segments: 256 }, Math.PI * 0.25 * 2],
    ['a cone: πr²h/3', 'cone', { radius: 0.5, height: 2, segments: 256 }, (Math.PI * 0.25 * 2) / 3],
    [
      'a capsule: cylinder and sphere',
      'capsule',
      { radius: 0.5, height: 1, segments: 256, rings: 200 },
      Math.PI * 0.25 + (4 / 3) * Math.PI * 0.125,
    ],
    ['a torus: 2π²Rr²', 'torus', { radius: 1, tube: 0.25, segments: 256, sides: 128 }, 2 * Math.PI ** 2 * 0.0625],
    ['a room, from inside', 'room', { width: 2, height: 3, depth: 4 }, -24],
    // Steiner's formula for the body parallel to a box: V + S r + (π/4) (sum of the twelve edges) r² + (4/3) π r³.
    [
      'a rounded box',
      'roundedBox',
      { width: 1, height: 1.2, depth: 1.4, radius: 0.2, segments: 32 },
      0.6 * 0.8 * 1 + 2 * (0.6 * 0.8 + 0.8 * 1 + 0.6 * 1) * 0.2 + (Math.PI / 4) * 4 * (0.6 + 0.8 + 1) * 0.04 + (4 / 3) * Math.PI * 0.008,
    ],
  ];
  for (const [words, shape, numbers, volume] of volumes) {
    it(`gives the volume of ${words}`, () => {
      expect(volumeOf(buildMesh({ shape, numbers, smooth: true })) / volume).toBeCloseTo(1, 2);
    });
  }

  it('keeps the eyes of the puppet head behind its fringe, and its parts apart', () => {
    const mesh = buildMesh({ shape: 'puppetHead', numbers: {}, smooth: true });
    const part = (name: string): Triple[] => {
      const { first = 0, count = 0 } = mesh.parts.find((each) => each.name === name) ?? {};
      return [...mesh.indices.subarray(first, first + count)].map((index) => vertex(mesh.positions, index));
    };
    const above = (points: Triple[]): number => Math.max(...points.map((point) => point[1]));
    const fringe = part('hair').filter((point) => Math.abs(point[0]) < 0.4 && point[2] > 0.5);
    expect(Math.min(...fringe.map((point) => point[1]))).toBeLessThan(above(part('eyes')));
    expect(above(part('brows'))).toBeGreaterThan(above(part('eyes')));
  });

  it('splits a smooth mesh into facets', () => {
    const smooth = buildMesh({ shape: 'sphere', numbers: { segments: 8, rings: 4 }, smooth: true });
    const flat = buildMesh({ shape: 'sphere', numbers: { segments: 8, rings: 4 }, smooth: false });
    expect(flat.indices.length).toBe(smooth.indices.length);
    expect(flat.positions.length / 3).toBe(flat.indices.length);
  });

  it('brings numbers into their range, whole where they must be', () => {
    const spec = MESH_SHAPES.sphere.numbers[1]!;
    expect([undefined, 7.6, -5, 1e9].map((value) => meshNumber(spec, value))).toEqual([64, 8, 3, 256]);
    expect(() => buildMesh({ shape: 'sphere', numbers: { segments: -1, radius: 0 }, smooth: true })).not.toThrow();
  });
});
