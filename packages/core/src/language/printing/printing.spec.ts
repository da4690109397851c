import { constant } from '../../ir/build';
import { BOOL, FLOAT, INT, VEC3 } from '../../ir/types';
import { printExpression } from './print-expression';
import { writtenName } from './written-name';

const same = (name: string): string => name;
const names = { functionOf: same, global: same, local: same, struct: same, field: (_: string, name: string) => name };

describe('printExpression', () => {
  const text = (value: number): string => printExpression(constant(FLOAT, [value]), names);

  it('writes the shortest digits that read back as the same float', () => {
    expect([1, 0.1, -2.5, 1e-7, 16777216, 1 / 3].map(text)).toEqual(['1.0', '0.1', '(-2.5)', '1e-7', '16777216.0', '0.33333334']);
    for (const value of [Math.PI, 1e-20, 123456.789, 3e38]) expect(Math.fround(Number(text(value)))).toBe(Math.fround(value));
  });

  it('refuses what is not finite', () => {
    expect(() => text(NaN)).toThrowError(RangeError);
    expect(() => text(Infinity)).toThrowError(RangeError);
  });

  it('writes equal components once', () => {
    expect(printExpression(constant(VEC3, [2, 2, 2]), names)).toBe('vec3(2.0)');
    expect(printExpression(constant(VEC3, [1, 2, 3]), names)).toBe('vec3(1.0, 2.0, 3.0)');
    expect(printExpression(constant(INT, [3]), names)).toBe('3');
    expect(printExpression(constant(BOOL, [1]), names)).toBe('true');
  });
});

describe('writtenName', () => {
  it('keeps clear of words that GLSL knows', () => {
    expect(['tint', 'sin', 'sample', 'gl_x', 'deviceTarget', 'a__b', 'ä', '1a', 'main'].map(writtenName)).toEqual([
      'tint',
      'u_sin',
      'u_sample',
      'u_gl_x',
      'u_deviceTarget',
      'a_b',
      '_',
      'u_1a',
      'u_main',
    ]);
  });
});
