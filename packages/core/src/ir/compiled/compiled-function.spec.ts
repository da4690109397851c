import { library } from '../../catalogue/library';
import { Computing } from '../../fuzz/computing';
import { Random } from '../../fuzz/random';
import { elaborate } from '../../language';
import { evaluateCall } from '../evaluate';
import type { IrFunction, Module } from '../ir';
import { scalarOf, type Type } from '../types';
import { components, type Value } from '../value';
import { compileFunction } from './compiled-function';
import { numbersOf, scalarsOf } from './flat';

function read(text: string): Module {
  const { module, diagnostics } = elaborate('compiled', text, library().module);
  expect(diagnostics.filter(({ severity }) => severity === 'error')).toEqual([]);
  return module;
}

function declared({ functions }: Module, signature: string): IrFunction {
  const found = functions.get(signature);
  if (!found) throw new ReferenceError(signature);
  return found;
}

function run(text: string, signature: string, ...numbers: number[]): readonly number[] | undefined {
  const module = read(text);
  return compileFunction(declared(module, signature), { functions: module.functions })?.(...numbers);
}

describe('A compiled function', () => {
  it('gives what is evaluated, bit for bit, of a thousand random programs of loops, arrays, structs and effects', () => {
    const results = new Set<string>();
    for (let seed = 0; seed < 1000; seed++) {
      const { name, text } = new Computing(new Random(seed), 'f').program();
      const { functions } = elaborate('random', text).module;
      const callee = functions.get(`${name}(uint)`);
      if (!callee) throw new ReferenceError(name);
      const words = compileFunction(callee, { functions })?.(seed).map((each) => each >>> 0) ?? [];
      expect(words)
        .withContext(`seed ${seed}\n${text}`)
        .toEqual([...components(evaluateCall(callee, [[seed]], { functions }).result)]);
      results.add(words.join());
    }
    expect(results.size).toBeGreaterThan(900);
  });

  it('gives what is evaluated of the library’s functions of numbers', () => {
    const { functions, globals } = library().module;
    const known = new Map<string, Value>();
    for (const { name, storage, value } of globals.values())
      if (storage === 'const' && value?.op === 'constant') known.set(name, value.value);
    const context = { functions, globals: known };
    const random = new Random(7);
    const isNumbers = (type: Type): boolean => scalarOf(type) === 'float' || scalarOf(type) === 'int';
    let compared = 0;
    const differing: string[] = [];
    for (const callee of functions.values()) {
      if (!/^(field|noise|mapping|colour|curve|maths?)\b/.test(callee.origin.path)) continue;
      if (!callee.parameters.every(({ type, direction }) => direction === 'in' && isNumbers(type))) continue;
      const compiled = compileFunction(callee, context);
      if (!compiled) continue;
      for (let turn = 0; turn < 3; turn++) {
        const args = callee.parameters.map(({ type }) =>
          scalarsOf(type).map((scalar) => (scalar === 'int' ? random.whole(5) : Math.fround(0.1 + random.whole(900) / 1000))),
        );
        const expected = numbersOf(evaluateCall(callee, args, context).result);
        const found = compiled(...args.flat());
        const same = expected.every((each, index) => {
          const other = found[index] ?? NaN;
          return Object.is(each, other) || Math.abs(each - other) <= 2e-3 * Math.max(1, Math.abs(each));
        });
        if (!same) differing.push(`${callee.signature} of ${args.join(' | ')}: ${expected.join()} but ${found.join()}`);
        compared++;
      }
    }
    expect(differing).toEqual([]);
    expect(compared).toBeGreaterThan(200);
  });

  it('hands out what is written to parameters, behind the result', () => {
    const text = 'float f(vec2 a, out int n, inout vec3 v) { n = int(a.x) / 2; v.zx = a; v[1] += 1.0; return a.x + a.y; }';
    expect(run(text, 'f(vec2,int,vec3)', 7, 0.5, 1, 2, 3)).toEqual([7.5, 3, 0.5, 3, 7]);
  });

  it('swaps without losing, and reads before it changes', () => {
    expect(run('vec2 f(vec2 a) { a = a.yx; return a; }', 'f(vec2)', 1, 2)).toEqual([2, 1]);
    const text = 'float next(inout float n) { n += 1.0; return n; } float f(float a) { return a * 10.0 + next(a) + a * 100.0; }';
    expect(run(text, 'f(float)', 1)).toEqual([10 + 2 + 200]);
  });

  it('divides whole numbers by 0 and by −1 without stopping', () => {
    const text = 'ivec4 f(int a, int b) { return ivec4(a / b, a % b, int(uint(a) / uint(b)), int(uint(a) % uint(b))); }';
    expect(run(text, 'f(int,int)', 7, 0)).toEqual([0, 0, 0, 0]);
    expect(run(text, 'f(int,int)', -2147483648, -1)).toEqual([-2147483648, 0, 0, -2147483648]);
    expect(run(text, 'f(int,int)', -7, 2)).toEqual([-3, -1, 2147483644, 1]);
  });

  it('multiplies matrices from both sides, and cuts and pads them', () => {
    const text = 'vec4 f(vec2 a) { mat2 m = mat2(1.0, 2.0, 3.0, 4.0); return vec4(m * a, a * m); }';
    expect(run(text, 'f(vec2)', 1, 10)).toEqual([31, 42, 21, 43]);
    expect(run('float f(float a) { mat3 m = mat3(mat2(a)); return m[0][0] + m[1][0] * 10.0 + m[2][2] * 100.0; }', 'f(float)', 2)).toEqual([
      102,
    ]);
    expect(run('float f(mat2 m) { return determinant(m); }', 'f(mat2)', 1, 2, 3, 4)).toEqual([-2]);
  });

  it('does not compile what only a device has', () => {
    const module = read(
      'uniform sampler2D image; float f(vec2 uv) { return texture(image, uv).x; } float g(float a) { return a + gl_FragCoord.x; }',
    );
    const context = { functions: module.functions };
    expect(compileFunction(declared(module, 'f(vec2)'), context)).toBeUndefined();
    expect(compileFunction(declared(module, 'g(float)'), context)).toBeUndefined();
  });

  it('has no more variables than are alive at once', () => {
    const writes = Array.from({ length: 300 }, (_, at) => `a[int(x * ${at}.0) % 300] = x + ${at}.0;`).join('\n');
    const text = `float f(float x) { float a[300]; ${writes} return a[int(x * 299.0) % 300]; }`;
    expect(run(text, 'f(float)', 1)).toEqual([300]);
  });

  it('is not there where it would be too large for a host', () => {
    const beyond = (count: number): readonly number[] | undefined =>
      run(`float f(float x[${count}]) { return x[0]; } float g(float y) { float x[${count}]; x[0] = y; return f(x); }`, 'g(float)', 3);
    expect(beyond(1000)).toEqual([3]);
    expect(beyond(1001)).toBeUndefined();
    const large = (count: number): readonly number[] | undefined => {
      const arrays = Array.from({ length: count }, (_, at) => `mat4 a${at}[1024]; a${at}[0][0][0] = x;`).join(' ');
      return run(`float f(float x) { ${arrays} return a0[0][0][0]; }`, 'f(float)', 3);
    };
    expect(large(3)).toEqual([3]);
    expect(large(4)).toBeUndefined();
  });
});
