import { buildMesh, GENERATED_SHAPES } from './build-mesh';
import { weld } from './weld';
import { weldedNormals } from './welded-normals';

const byPlace = (mesh: ReturnType<typeof buildMesh>, normals: Float32Array): Map<number, Set<string>> => {
  const found = new Map<number, Set<string>>();
  weld(mesh).forEach((place, vertex) => {
    const words = [...normals.subarray(vertex * 3, vertex * 3 + 3)].map((each) => each.toFixed(4)).join();
    found.set(place, (found.get(place) ?? new Set()).add(words));
  });
  return found;
};

describe('Welded normals', () => {
  it('are one for all corners in one place, on every mesh, smooth or flat: what moves along them stays shut', () => {
    for (const shape of GENERATED_SHAPES) {
      for (const smooth of [true, false]) {
        const mesh = buildMesh({ shape, numbers: {}, smooth });
        const normals = weldedNormals(mesh);
        expect(normals.every(Number.isFinite)).withContext(shape).toBeTrue();
        const torn = [...byPlace(mesh, normals).values()].filter((ways) => ways.size > 1);
        expect(torn.length).withContext(shape).toBe(0);
      }
    }
  });

  it('of a cube go along its diagonals, whatever its own normals are', () => {
    const mesh = buildMesh({ shape: 'cube', numbers: { size: 2, segments: 1 }, smooth: false });
    const normals = weldedNormals(mesh);
    for (let at = 0; at < normals.length; at++) expect(normals[at]).toBeCloseTo(Math.sign(mesh.positions[at]!) / Math.sqrt(3), 4);
  });

  it('of a sphere are its own', () => {
    const mesh = buildMesh({ shape: 'sphere', numbers: {}, smooth: true });
    const normals = weldedNormals(mesh);
    let worst = 1;
    for (let at = 0; at < normals.length; at += 3)
      worst = Math.min(
        worst,
        [0, 1, 2].reduce((sum, axis) => sum + normals[at + axis]! * mesh.normals[at + axis]!, 0),
      );
    expect(worst).toBeGreaterThan(0.999);
  });

  it('are the same however small the mesh is', () => {
    const mesh = buildMesh({ shape: 'torus', numbers: {}, smooth: false });
    const by = 1e-6;
    const bounds = { low: mesh.bounds.low.map((each) => each * by), high: mesh.bounds.high.map((each) => each * by) };
    const [large, small] = [weldedNormals(mesh), weldedNormals({ ...mesh, positions: mesh.positions.map((each) => each * by), bounds })];
    let worst = 0;
    large.forEach((each, at) => (worst = Math.max(worst, Math.abs(each - (small[at] ?? 0)))));
    expect(worst).toBeLessThan(1e-3);
  });

  it('stay the vertex’s own where no face has any area', () => {
    const line = { positions: new Float32Array([0, 0, 0, 1, 0, 0, 2, 0, 0]), normals: new Float32Array([0, 1, 0, 0, 1, 0, 0, 1, 0]) };
    const mesh = { ...line, indices: new Uint32Array([0, 1, 2]), bounds: { low: [0, 0, 0], high: [2, 0, 0] } };
    expect([...weldedNormals(mesh)]).toEqual([...line.normals]);
  });
});

describe('Welding', () => {
  it('joins what rounding has set apart, also at the border of a cell, and keeps apart what is', () => {
    const bounds = { low: [0, 0, 0], high: [1, 1, 1] };
    for (const at of [0, 0.3, 0.50001, 0.999]) {
      const positions = new Float32Array([at, at, at, at + 1e-7, at - 1e-7, at, at + 1e-3, at, at]);
      const [first, same, other] = weld({ positions, bounds });
      expect(same).toBe(first);
      expect(other).not.toBe(first);
    }
  });
});
