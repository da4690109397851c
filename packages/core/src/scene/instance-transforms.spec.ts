import type { SetMesh } from '@brelvin/contract';
import { newMesh } from '../document/new-documents';
import { instanceCount, instanceRows, isMirrored } from './instance-transforms';
import { PointerEase } from './pointer-ease';

const mesh = (changes: Partial<SetMesh>): SetMesh => newMesh('cube', {}, changes);

function apply(rows: Float32Array, copy: number, [x = 0, y = 0, z = 0]: readonly number[]): number[] {
  return [0, 1, 2].map((row) => {
    const at = copy * 13 + row * 4;
    return (rows[at] ?? 0) * x + (rows[at + 1] ?? 0) * y + (rows[at + 2] ?? 0) * z + (rows[at + 3] ?? 0);
  });
}

const close = (found: readonly number[], wanted: readonly number[]): void =>
  wanted.forEach((each, axis) => expect(found[axis]).toBeCloseTo(each, 5));

describe('Placing meshes', () => {
  it('scales, then turns about x, y and z, then places', () => {
    const placing = { position: [10, 0, 0], turn: [Math.PI / 2, 0, Math.PI / 2], scale: [1, 2, 3] };
    const rows = instanceRows(mesh({ placing }), 0);
    // (1, 1, 0) → (1, 2, 0) → about x: (1, 0, 2) → about z: (0, 1, 2) → placed.
    close(apply(rows, 0, [1, 1, 0]), [10, 1, 2]);
  });

  it('lays copies out in a grid round the place, each with its number', () => {
    const rows = instanceRows(mesh({ copies: { columns: 3, rows: 2, spacing: 2 } }), 0);
    close(apply(rows, 0, [0, 0, 0]), [-2, 0, -1]);
    close(apply(rows, 5, [0, 0, 0]), [2, 0, 1]);
    expect([0, 1, 5].map((copy) => rows[copy * 13 + 12])).toEqual([0, 1, 5]);
    expect(instanceCount(mesh({ copies: { columns: 40, rows: 40, spacing: 1 } }))).toBe(400);
  });

  it('spins a quarter in a quarter of a turn, rocks there and back', () => {
    const spin = mesh({ motion: { kind: 'spin', axis: 'y', speed: 0.25, angle: 0 } });
    close(apply(instanceRows(spin, 1), 0, [0, 0, 1]), [1, 0, 0]);
    const rock = mesh({ motion: { kind: 'rock', axis: 'x', speed: 1, angle: Math.PI / 2 } });
    close(apply(instanceRows(rock, 0.25), 0, [0, 0, 1]), [0, -1, 0]);
    close(apply(instanceRows(rock, 0.5), 0, [0, 0, 1]), [0, 0, 1]);
  });

  it('knows mirrors', () => {
    const scaled = (...scale: number[]): boolean => isMirrored({ position: [0, 0, 0], turn: [0, 0, 0], scale });
    expect([scaled(1, 1, 1), scaled(-1, 1, 1), scaled(-1, -1, 1), scaled(-1, -1, -1)]).toEqual([false, true, false, true]);
  });
});

describe('PointerEase', () => {
  it('runs to 1 while the pointer is there and back when it leaves, softly at both ends', () => {
    const ease = new PointerEase();
    expect(ease.value(2)).toBe(0);
    ease.inside = true;
    expect(ease.moving).toBeTrue();
    ease.advance(0.5);
    expect(ease.value(2)).toBeCloseTo(0.25 ** 2 * (3 - 0.5), 10);
    expect(ease.advance(5)).toBeFalse();
    expect(ease.value(2)).toBe(1);
    ease.inside = false;
    ease.advance(1);
    expect(ease.value(2)).toBe(0.5);
    ease.advance(9);
    expect([ease.value(2), ease.moving]).toEqual([0, false]);
  });

  it('keeps several speeds apart, and jumps without one', () => {
    const ease = new PointerEase();
    [1, 4, 0].forEach((period) => ease.value(period));
    ease.inside = true;
    ease.advance(1);
    expect([ease.value(1), ease.value(0)]).toEqual([1, 1]);
    expect(ease.value(4)).toBeLessThan(0.5);
  });
});
