import { elaborate } from '../language';
import { constant, construct, float, global, local, member, swizzle } from './build';
import { evaluate, evaluateCall, NotEvaluable } from './evaluate';
import type { Expression } from './ir';
import { FLOAT, INT, matrix as square, VEC2, VEC3, VEC4, type StructType } from './types';
import { components, zero } from './value';

const nothing = { functions: new Map() };

describe('evaluate', () => {
  it('reads globals and locals, and says which one is missing', () => {
    const context = { functions: new Map(), globals: new Map([['time', [2]]]) };
    expect(evaluate(global('time', FLOAT), context)).toEqual([2]);
    expect(evaluate(local('a', FLOAT), nothing, new Map([['a', [3]]]))).toEqual([3]);
    expect(() => evaluate(global('wind', FLOAT), context)).toThrowError(NotEvaluable, 'wind');
  });

  it('builds and takes apart', () => {
    const made = construct(VEC4, [constant(VEC2, [1, 2]), float(3), float(4)]);
    expect(evaluate(swizzle(made, [3, 0]), nothing)).toEqual([4, 1]);
    const pair: StructType = {
      kind: 'struct',
      name: 'Pair',
      fields: [
        { name: 'a', type: FLOAT },
        { name: 'b', type: VEC3 },
      ],
    };
    const value = construct(pair, [float(1), constant(VEC3, [2, 3, 4])]);
    expect(evaluate(member(value, 'b'), nothing)).toEqual([2, 3, 4]);
    expect(() => member(value, 'c')).toThrowError(RangeError);
    expect(zero(pair)).toEqual({ fields: { a: [0], b: [0, 0, 0] } });
  });

  it('computes only the chosen side', () => {
    const broken = global('missing', FLOAT);
    const choice: Expression = {
      op: 'conditional',
      condition: constant({ kind: 'scalar', scalar: 'bool' }, [1]),
      then: float(1),
      else: broken,
      type: FLOAT,
    };
    expect(evaluate(choice, nothing)).toEqual([1]);
  });

  it('indexes vectors, matrices and arrays', () => {
    const at = (index: number): Expression => constant(INT, [index]);
    const matrix = constant(square(2), [1, 2, 3, 4]);
    expect(evaluate({ op: 'index', object: matrix, index: at(1), type: VEC2 }, nothing)).toEqual([3, 4]);
    const list = construct({ kind: 'array', element: VEC2, length: 2 }, [constant(VEC2, [1, 2]), constant(VEC2, [5, 6])]);
    expect(evaluate({ op: 'index', object: list, index: at(1), type: VEC2 }, nothing)).toEqual([5, 6]);
  });

  it('wants numbers where numbers are due', () => {
    expect(() => components({ fields: {} })).toThrowError(TypeError);
    expect(() => components({ items: [] })).toThrowError(TypeError);
  });
});

describe('evaluateCall', () => {
  function run(code: string, ...args: number[]): ReturnType<typeof evaluateCall> {
    const { module, diagnostics } = elaborate('test', code);
    expect(diagnostics).toEqual([]);
    const test = [...module.functions.values()].find((each) => each.name === 'test');
    return evaluateCall(
      test!,
      args.map((arg) => [arg]),
      { functions: module.functions },
    );
  }

  it('gives what went out through parameters', () => {
    const { outs } = run('void test(float a, out float twice, inout float sum) { twice = a * 2.0; sum += a; }', 3, 0, 10);
    expect(outs).toEqual({ twice: [6], sum: [13] });
  });

  it('stops a loop without an end', () => {
    expect(() => run('float test() { float a = 0.0; while (true) { a += 1.0; } return a; }')).toThrowError(NotEvaluable, /too many steps/);
  });

  it('cannot discard', () => {
    expect(() => run('float test() { discard; }')).toThrowError(NotEvaluable, 'discard');
  });

  it('resizes matrices as GLSL does', () => {
    expect(run('mat3 test() { return mat3(mat2(1.0, 2.0, 3.0, 4.0)); }').result).toEqual([1, 2, 0, 3, 4, 0, 0, 0, 1]);
    expect(run('vec2 test() { return mat2(mat3(2.0))[1]; }').result).toEqual([0, 2]);
  });

  it('works with single bits and truth', () => {
    expect(run('ivec4 test() { return ivec4(6 & 3, 6 | 3, 6 ^ 3, ~0); }').result).toEqual([2, 7, 5, -1]);
    expect(run('bvec3 test() { return bvec3(true ^^ false, !true || false, 1.0 != 2.0); }').result).toEqual([1, 0, 1]);
    expect(run('uint test() { return 0xF0000000u >> 28u; }').result).toEqual([15]);
    expect(run('int test() { return -16 >> 2; }').result).toEqual([-4]);
  });

  it('assigns inside matrices and arrays of structs', () => {
    expect(run('vec2 test() { mat2 m = mat2(0.0); m[1] = vec2(3.0, 4.0); m[0].y = 7.0; return vec2(m[0].y, m[1].x); }').result).toEqual([
      7, 3,
    ]);
    expect(run('struct S { float a; }; float test() { S s[2]; s[1].a = 5.0; S copy = s[1]; copy.a = 9.0; return s[1].a; }').result).toEqual(
      [5],
    );
  });
});
