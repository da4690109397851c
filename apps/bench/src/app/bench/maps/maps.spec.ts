import type { StageSet } from '@brelvin/contract';
import { mipChain, newSet, type MeshData } from '@brelvin/core';
import { buildMesh } from '@brelvin/core';
import { shownPixels } from './channels';
import { cubeSheet } from './cube-sheet';
import { fittingLevel, litNormals } from './lit-normals';
import { uvLines } from './uv-lines';

const pixels = (side: number, at: (x: number, y: number) => readonly number[]) => {
  const data = new Uint8Array(side * side * 4).fill(255);
  for (let index = 0; index < side * side; index++) data.set(at(index % side, Math.floor(index / side)), index * 4);
  return { width: side, height: side, data };
};

describe('Channels of an image', () => {
  it('are shown alone as grey, or together, always opaque', () => {
    const stored = new Uint8Array([10, 20, 30, 40]);
    expect([...shownPixels(stored, 'all')]).toEqual([10, 20, 30, 255]);
    expect([...shownPixels(stored, 'green')]).toEqual([20, 20, 20, 255]);
    expect([...shownPixels(stored, 'alpha')]).toEqual([40, 40, 40, 255]);
  });
});

describe('A normal map, lit', () => {
  it('is brighter where it leans up to the lamp, and the other way round with green down', () => {
    const chain = mipChain(
      pixels(8, (_, y) => [128, y < 4 ? 200 : 56, 220]),
      'data',
    );
    const middle = (y: number): number => (y * 8 + 4) * 4;
    const [up, down] = [litNormals(chain, 8, false).data, litNormals(chain, 8, true).data];
    expect(up[middle(1)]).toBeGreaterThan((up[middle(6)] ?? 0) + 30);
    expect(down[middle(6)]).toBeGreaterThan((down[middle(1)] ?? 0) + 30);
  });

  it('is shown at a level that fits', () => {
    const chain = mipChain(
      pixels(64, () => [128, 128, 255]),
      'data',
    );
    expect(fittingLevel(chain, 16).width).toBe(16);
    expect(fittingLevel(chain, 500).width).toBe(64);
    expect(fittingLevel(chain, 1).width).toBe(1);
  });
});

describe('UVs over an image', () => {
  const lines = (set: StageSet, uvSet = 0): readonly number[] => [...uvLines(set, 'bench', uvSet, buildMesh).ends];

  it('are the edges of what wears the material, by either set', () => {
    const plane = newSet('s', 'plane', { segments: 1 });
    expect(lines(plane).length).toBe(2 * 3 * 4);
    expect(lines(plane).every((each) => each === 0 || each === 1)).toBeTrue();
    const cube = newSet('s', 'cube');
    expect(Math.max(...lines(cube))).toBe(1);
    expect(
      lines(cube, 1)
        .filter((_, at) => at % 4 === 0)
        .some((u) => u > 0.2 && u < 0.5),
    ).toBeTrue();
  });

  it('leave out parts that wear something else', () => {
    const cube = newSet('s', 'cube');
    const dressed = { ...cube, partRules: { r: { order: 0, pattern: 't*', material: 'other', values: {} } } };
    expect(lines(dressed).length).toBe((lines(cube).length * 5) / 6);
  });

  it('are thinned out evenly where there are very many', () => {
    const sphere = newSet('s', 'sphere', { segments: 256, rings: 128 });
    const { ends, step } = uvLines(sphere, 'bench', 0, (mesh): MeshData => buildMesh(mesh));
    expect(step).toBeGreaterThan(4);
    expect(ends.length).toBeLessThan(12_100 * 12);
    // To the end, not only the beginning.
    expect(ends.reduce((most, each) => Math.max(most, each), 0)).toBeGreaterThan(0.95);
  });
});

describe('A cube image on a sheet', () => {
  it('has its six sides three by two, at every level', () => {
    const faces = Array.from({ length: 6 }, (_, face) =>
      mipChain(
        pixels(4, () => [face * 10, 0, 0]),
        'data',
      ),
    );
    const sheet = cubeSheet({ faces });
    expect([sheet.width, sheet.height]).toEqual([12, 8]);
    const at = (x: number, y: number): number | undefined => sheet.levels[0]?.[(y * 12 + x) * 4];
    expect([at(1, 1), at(5, 1), at(9, 1), at(1, 5), at(5, 5), at(9, 5)]).toEqual([0, 10, 20, 30, 40, 50]);
    expect(sheet.levels[2]?.length).toBe(6 * 4);
  });
});
