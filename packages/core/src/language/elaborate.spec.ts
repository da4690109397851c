import { evaluateCall } from '../ir/evaluate';
import { components, type Value } from '../ir/value';
import { formatDiagnostic } from './diagnostics';
import { elaborate } from './elaborate';

function messages(text: string): string[] {
  return elaborate('f.glsl', text).diagnostics.map(formatDiagnostic);
}

/** Runs `test()` of the given code. */
function result(text: string, ...args: number[]): readonly number[] {
  const { module, diagnostics } = elaborate('f.glsl', text);
  expect(diagnostics.map(formatDiagnostic)).toEqual([]);
  const test = [...module.functions.values()].find((each) => each.name === 'test');
  if (!test) throw new Error('no test()');
  const value: Value = evaluateCall(
    test,
    args.map((arg) => [arg]),
    { functions: module.functions },
  ).result;
  return components(value);
}

describe('elaborate: what code means', () => {
  it('computes with vectors and scalars', () => {
    expect(result('vec3 test() { return vec3(1.0, 2.0, 3.0) * 2.0 + vec3(1.0); }')).toEqual([3, 5, 7]);
  });

  it('reads and writes swizzles', () => {
    expect(result('vec4 test() { vec4 v = vec4(1.0, 2.0, 3.0, 4.0); v.zx = v.xy; return v.wzyx; }')).toEqual([4, 1, 2, 2]);
  });

  it('builds vectors of parts and cuts longer ones', () => {
    expect(result('vec4 test() { return vec4(vec2(1.0, 2.0), vec3(3.0, 4.0, 5.0).xy); }')).toEqual([1, 2, 3, 4]);
    expect(result('vec2 test() { return vec2(vec4(1.0, 2.0, 3.0, 4.0)); }')).toEqual([1, 2]);
  });

  it('multiplies matrices column by column', () => {
    expect(result('vec2 test() { mat2 m = mat2(1.0, 2.0, 3.0, 4.0); return m * vec2(1.0, 10.0); }')).toEqual([31, 42]);
    expect(result('vec2 test() { mat2 m = mat2(1.0, 2.0, 3.0, 4.0); return vec2(1.0, 10.0) * m; }')).toEqual([21, 43]);
    expect(result('vec2 test() { mat2 m = mat2(2.0); return (m * m)[1]; }')).toEqual([0, 4]);
  });

  it('runs loops with break and continue', () => {
    const code = `int test(int n) {
      int sum = 0;
      for (int i = 0; i < 100; i++) {
        if (i % 2 == 1) continue;
        if (i > n) break;
        sum += i;
      }
      return sum;
    }`;
    expect(result(code, 7)).toEqual([12]);
  });

  it('runs while and do', () => {
    expect(result('int test() { int i = 0; while (i < 5) i++; do { i += 10; } while (i < 0); return i; }')).toEqual([15]);
  });

  it('hides outer names inside a block', () => {
    expect(result('float test() { float a = 1.0; { float a = 5.0; a += 1.0; } return a; }')).toEqual([1]);
  });

  it('chooses overloads by type', () => {
    const code = 'float f(float a) { return 1.0; } float f(vec2 a) { return 2.0; } vec2 test() { return vec2(f(0.0), f(vec2(0.0))); }';
    expect(result(code)).toEqual([1, 2]);
  });

  it('writes through out and inout', () => {
    const code =
      'void f(out float a, inout vec2 b) { a = 3.0; b.y += 1.0; } vec3 test() { float a; vec2 b = vec2(5.0); f(a, b); return vec3(a, b); }';
    expect(result(code)).toEqual([3, 5, 6]);
  });

  it('keeps structs and arrays by value', () => {
    const code = `struct P { vec2 at; float w[2]; };
      vec3 test() { P p = P(vec2(1.0, 2.0), float[2](3.0, 4.0)); P q = p; q.w[1] = 9.0; q.at.x = 7.0; return vec3(p.at.x, p.w[1], q.w[1] + q.at.x); }`;
    expect(result(code)).toEqual([1, 4, 16]);
  });

  it('divides and shifts whole numbers as GLSL does', () => {
    expect(result('ivec3 test() { return ivec3(-7 / 2, 7 % 3, 1 << 4); }')).toEqual([-3, 1, 16]);
    expect(result('uint test() { return 4000000000u * 2u; }')).toEqual([3705032704]);
  });

  it('lets functions stand in any order', () => {
    expect(result('float test() { return later(); } float later() { return 4.0; }')).toEqual([4]);
  });

  it('takes constants as array lengths', () => {
    expect(result('const int N = 3; float test() { float a[N]; a[2] = 2.0; return a[0] + a[2]; }')).toEqual([2]);
  });
});

describe('elaborate: what it says about mistakes', () => {
  it('offers the nearest right name', () => {
    expect(messages('float f(float x) { return smoothstpe(0.0, 1.0, x); }')).toEqual([
      'f.glsl:1:27: error: There is no function "smoothstpe". To mend: Write “smoothstep”.',
    ]);
    expect(messages('float f(float width) { return widht; }')).toEqual([
      'f.glsl:1:31: error: Nothing here is called "widht". To mend: Write “width”.',
    ]);
    expect(messages('vec33 f() { return vec3(0.0); }')).toEqual(['f.glsl:1:1: error: There is no type "vec33". To mend: Write “vec3”.']);
  });

  it('mends whole numbers where floats are due', () => {
    expect(messages('float f() { return 1; }')).toEqual([
      'f.glsl:1:20: error: What the function returns must be float, but this is int. To mend: Write “1.0”.',
    ]);
    expect(messages('float f(float x) { return x * 2; }')).toEqual([
      'f.glsl:1:31: error: Whole numbers and floats do not mix. Write 2.0. To mend: Write “2.0”.',
    ]);
    expect(messages('float f() { return sin(1); }')[0]).toContain(
      '"sin" takes float here, but this is a whole number. To mend: Write “1.0”.',
    );
  });

  it('points at the gap where something is missing', () => {
    expect(messages('float f() {\n  float a = 1.0\n  return a;\n}')).toEqual([
      'f.glsl:2:16: error: Expected ";" at the end of the declaration, found "return". To mend: Put “;”.',
    ]);
    expect(messages('float f() { return (1.0; }')[0]).toContain('Expected ")" to close the bracket, found ";"');
  });

  it('reports several mistakes in one run', () => {
    expect(messages('float f() { return a; }\nfloat g() { return b; }\nfloat h() { return 1.0; }').length).toBe(2);
  });

  it('goes on behind a broken declaration', () => {
    const found = messages('float f( { return 1.0; }\nfloat g() { return nothing; }');
    expect(found.some((each) => each.includes('f.glsl:2:20'))).toBeTrue();
  });

  const cases: readonly (readonly [string, string])[] = [
    ['float f() { }', '"f" must return a float on every way through.'],
    ['float f(bool b) { if (b) return 1.0; }', 'on every way through'],
    ['float f() { return f(); }', 'calls itself'],
    ['float f() { return g(); } float g() { return f(); }', 'calls itself'],
    ['float sin(float x) { return x; }', '"sin" is built in'],
    ['float f() { const float a = 1.0; a = 2.0; return a; }', 'is const'],
    ['float f() { float a = 1.0; float a = 2.0; return a; }', 'already declared'],
    ['float f() { vec2 v = vec2(1.0); return v.z; }', 'vec2 has only 2 components'],
    ['float f() { vec2 v = vec2(1.0); v.xx = vec2(2.0); return v.x; }', 'only once'],
    ['float f() { float a[3]; return a[3]; }', 'from 0 to 2'],
    ['float f() { if (1.0) return 1.0; return 2.0; }', 'A condition must be bool'],
    ['void f() { break; }', 'inside a loop'],
    ['float f() { return vec3(1.0) * vec2(1.0); }', '"*" does not work between vec3 and vec2'],
    ['float f() { return vec3(1.0, 2.0); }', 'vec3 needs 3 components, 2 are given'],
    ['struct S { float a; }; float f(S s) { return s.b; }', 'S has no field "b"'],
    ['float a = 1.0;', 'needs "const" in front here'],
    ['in vec3 p; void f() { p = vec3(0.0); }', 'can only be read'],
    ['void f() { 1.0 = 2.0; }', 'Only a variable can be assigned to'],
    ['float f() { float a[]; return 1.0; }', 'Give the array a length'],
    ['void f() { void x; }', 'cannot be of type void'],
  ];
  for (const [code, words] of cases) {
    it(`says "${words}" for ${code}`, () => {
      expect(messages(code).join('\n')).toContain(words);
    });
  }

  it('warns of a result that is not used', () => {
    expect(messages('void f() { sin(1.0); }')).toEqual(['f.glsl:1:12: warning: The result of this is not used.']);
  });

  it('refuses nesting that would break the stack, quickly', () => {
    const deep = `float f() { return ${'('.repeat(20_000)}1.0${')'.repeat(20_000)}; }`;
    expect(messages(deep)[0]).toContain('nested more than 256 deep');
    expect(messages(`void f() { ${'{'.repeat(20_000)}`)[0]).toContain('nested more than 256 deep');
  });

  it('stays calm about rubbish', () => {
    for (const text of ['', ';;;', '}', '{', 'float', 'float f(', 'struct', 'uniform X {', '((((', '/**', 'for(;;)', '"text"']) {
      expect(() => elaborate('f.glsl', text)).not.toThrow();
    }
  });

  it('stops at fifty', () => {
    const text = Array.from({ length: 200 }, (_, index) => `float f${index}() { return nothing${index}; }`).join('\n');
    expect(messages(text).length).toBe(50);
  });
});
