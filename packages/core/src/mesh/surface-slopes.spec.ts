import { buildMesh } from './build-mesh';
import type { MeshData } from './mesh';
import { SLOPE_FLOATS, surfaceSlopes } from './surface-slopes';

/** The numbers of one vertex in the middle of the mesh. */
function inside(mesh: MeshData): number[] {
  const slopes = surfaceSlopes(mesh);
  const count = mesh.positions.length / 3;
  const vertex = Math.floor(count / 2) + 5;
  return [...slopes.subarray(vertex * SLOPE_FLOATS, (vertex + 1) * SLOPE_FLOATS)];
}

const recipe = (shape: 'plane' | 'sphere' | 'cylinder', numbers: Record<string, number>): MeshData =>
  buildMesh({ shape, numbers, smooth: true });

describe('Slopes of a surface', () => {
  it('of a plane: UV grows by one over its sides, and the normal stays', () => {
    const [uAlong = 0, vAlong, uAcross, vAcross = 0, ...rest] = inside(recipe('plane', { width: 4, height: 2, segments: 8 }));
    expect(uAlong).toBeCloseTo(0.25, 5);
    expect([vAlong, uAcross].map((each) => Math.abs(each ?? 1))).toEqual([0, 0]);
    // Across goes up the image, v down.
    expect(vAcross).toBeCloseTo(-0.5, 5);
    expect(rest.slice(0, 3).map((each) => Math.abs(each))).toEqual([0, 0, 0]);
    // Eight segments along each side.
    expect(rest[3]).toBeCloseTo(1 / 8, 6);
  });

  it('of a sphere: the normal turns by one over the radius on every way', () => {
    const [, , , , along = 0, across = 0, mixed = 1] = inside(recipe('sphere', { radius: 2, segments: 96, rings: 64 }));
    expect(along).toBeCloseTo(0.5, 2);
    expect(across).toBeCloseTo(0.5, 2);
    expect(Math.abs(mixed)).toBeLessThan(0.01);
  });

  it('gives zeros, and no broken numbers, where triangles have no area', () => {
    const mesh = recipe('plane', { segments: 1 });
    const flat = { ...mesh, positions: new Float32Array(mesh.positions.length) };
    expect([...surfaceSlopes(flat)].every((each) => each === 0)).toBeTrue();
  });
});
