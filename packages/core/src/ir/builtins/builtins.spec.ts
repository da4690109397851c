import { BUILTIN_FUNCTIONS, evaluateBuiltin } from './table';

function one(name: string, ...args: (number | number[])[]): number | undefined {
  return evaluateBuiltin(
    name,
    args.map((arg) => (typeof arg === 'number' ? [arg] : arg)),
    false,
  )?.[0];
}

/** Values from the definitions in GLSL ES 3.00, chapter 8. */
describe('evaluateBuiltin', () => {
  it('follows the common functions', () => {
    expect(one('fract', -0.25)).toBe(0.75);
    expect(one('mod', -1, 3)).toBe(2);
    expect(one('sign', -3)).toBe(-1);
    expect(one('step', 0.5, 0.5)).toBe(1);
    expect(one('step', 0.5, 0.49)).toBe(0);
    expect(one('smoothstep', 0, 1, 0.25)).toBeCloseTo(0.15625, 12);
    expect(one('mix', 2, 4, 0.25)).toBe(2.5);
    expect(one('clamp', 5, 0, 1)).toBe(1);
    expect(one('round', 2.5)).toBe(2);
    expect(one('round', 3.5)).toBe(4);
    expect(one('round', -1.4)).toBe(-1);
  });

  it('keeps ones where the table says so', () => {
    const keeping = [...BUILTIN_FUNCTIONS].filter(([, { keepsOne }]) => keepsOne !== undefined);
    expect(keeping.map(([name]) => name)).toEqual(['min', 'max', 'mix']);
    for (const [name, { keepsOne = 0, signatures }] of keeping) {
      const others = (signatures[0]?.split(',').length ?? 0) - keepsOne;
      for (const other of [0, 0.3, 1]) {
        const args = [...Array.from({ length: keepsOne }, () => 1), ...Array.from({ length: others }, () => other)];
        expect(one(name, ...args)).toBe(1);
      }
    }
  });

  it('follows the geometric functions', () => {
    expect(one('length', [3, 4])).toBe(5);
    expect(one('distance', [1, 1], [4, 5])).toBe(5);
    expect(
      evaluateBuiltin(
        'cross',
        [
          [1, 0, 0],
          [0, 1, 0],
        ],
        false,
      ),
    ).toEqual([0, 0, 1]);
    expect(
      evaluateBuiltin(
        'reflect',
        [
          [1, -1, 0],
          [0, 1, 0],
        ],
        false,
      ),
    ).toEqual([1, 1, 0]);
    expect(evaluateBuiltin('refract', [[0, -1, 0], [0, 1, 0], [0.7]], false)?.[1]).toBeCloseTo(-1, 6);
    expect(evaluateBuiltin('refract', [[0.99, -0.141, 0], [0, 1, 0], [1.5]], false)).toEqual([0, 0, 0]);
    expect(
      evaluateBuiltin(
        'faceforward',
        [
          [0, 1, 0],
          [0, 1, 0],
          [0, 1, 0],
        ],
        false,
      ),
    ).toEqual([-0, -1, -0]);
  });

  it('spreads a scalar over a vector where GLSL does', () => {
    expect(evaluateBuiltin('max', [[1, 5, 3], [2]], false)).toEqual([2, 5, 3]);
    expect(
      evaluateBuiltin(
        'atan',
        [
          [1, -1],
          [1, 1],
        ],
        true,
      ),
    ).toEqual([Math.fround(Math.PI / 4), Math.fround(-Math.PI / 4)]);
  });

  it('moves bits', () => {
    expect(one('floatBitsToUint', 1)).toBe(0x3f800000);
    expect(one('uintBitsToFloat', 0x40490fdb)).toBeCloseTo(Math.PI, 6);
  });

  it('transposes', () => {
    expect(evaluateBuiltin('transpose', [[1, 2, 3, 4]], false)).toEqual([1, 3, 2, 4]);
  });

  it('leaves what needs a device', () => {
    expect(evaluateBuiltin('texture', [[0], [0, 0]], true)).toBeUndefined();
  });
});
