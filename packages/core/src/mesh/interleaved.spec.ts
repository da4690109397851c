import { interleaved } from './interleaved';

describe('Interleaved columns', () => {
  it('stand beside each other, vertex by vertex', () => {
    const rows = interleaved([
      [Float32Array.of(1, 2, 3, 4), 2],
      [Float32Array.of(5, 6), 1],
      [Float32Array.of(7, 8, 9, 10, 11, 12), 3],
    ]);
    expect([...rows]).toEqual([1, 2, 5, 7, 8, 9, 3, 4, 6, 10, 11, 12]);
  });

  it('are nothing where there are no vertices', () => {
    expect(interleaved([[new Float32Array(), 4]]).length).toBe(0);
    expect(interleaved([]).length).toBe(0);
  });
});
