import type { MaterialCode } from '@brelvin/contract';
import { compileFor, type EmittedResult } from '../../emit/emitted-material';
import { GLSL_TARGET } from '../../emit/glsl/target';
import { library } from '../../catalogue/library';
import { libraryWith, type FunctionTexts } from '../../catalogue/function-library';
import { formatDiagnostic } from '../../language';
import { RIGHT_PROGRAMS } from '../../testing/right-programs';
import { writeMaterialValues } from '../material-values';
import { newCodeMaterial } from './new-code';
import { readCode } from './read-code';

function compiled(code: MaterialCode | string, texts?: FunctionTexts): EmittedResult {
  const material = newCodeMaterial('m', {}, typeof code === 'string' ? { text: code } : code);
  return compileFor(GLSL_TARGET, material, texts ? libraryWith(texts, library()) : library(), { variants: ['inspect'] });
}

const errors = (result: EmittedResult): string[] =>
  (result.diagnostics ?? []).filter(({ severity }) => severity === 'error').map(formatDiagnostic);

describe('A code material', () => {
  it('compiles whatever is right', () => {
    expect(RIGHT_PROGRAMS.length).toBeGreaterThanOrEqual(100);
    for (const [name, code] of RIGHT_PROGRAMS) {
      const result = compiled(code);
      expect(errors(result)).withContext(name).toEqual([]);
      expect(result.problems).withContext(name).toEqual([]);
    }
  });

  it('has the same program for texts that mean the same, and is read once', () => {
    const text = 'vec4 paint(Surface s) { return vec4(1.0); }';
    expect(compiled(text).compiled?.key).toBe(compiled(`// A comment.\n${text}`).compiled?.key);
    expect(readCode({ text }, library())).toBe(readCode({ text }, library()));
  });

  it('reads plain and cube images, each by a sampler of its own', () => {
    const text = `uniform sampler2D label;
/** Sky: all around. */ uniform samplerCube sky;
vec4 paint(Surface s) { return texture(label, s.uv) + texture(sky, s.normal); }`;
    const result = compiled(text);
    expect(errors(result)).toEqual([]);
    expect(result.compiled?.images.map(({ cube }) => cube ?? false).sort()).toEqual([false, true]);
    expect(result.compiled?.program.fragment.text).toMatch(/uniform samplerCube image1;/);
  });

  it('writes its parameters into the block, whole numbers and switches too', () => {
    const text = `/** @value 3 */ uniform int count;
/** @value on */ uniform bool lit;
/** @value 0.25 in 0..1 */ uniform float amount;
/** @colour 1 0.5 0 */ uniform vec3 tint;
vec4 paint(Surface s) { return lit ? vec4(tint * amount * float(count), 1.0) : vec4(0.0); }`;
    const material = newCodeMaterial('m', {}, { text });
    const result = compileFor(GLSL_TARGET, material);
    const words = new Float32Array(16);
    writeMaterialValues(result.compiled!, material, new Map(), words);
    const numbers = result.compiled!.slots.map(({ offset, source }) => [
      'parameter' in source ? source.parameter : '',
      source.from === 'halves' ? [...words.slice(offset, offset + 2)] : words[offset],
    ]);
    expect(Object.fromEntries(numbers)).toEqual({ 'u-count': [0, 3], 'u-lit': 1, 'u-amount': 0.25, 'u-tint': 1 });
  });

  it('keeps every whole number of 32 bits, and the nearest where there is none', () => {
    const text = 'uniform int count; uniform uint seed; vec4 paint(Surface s) { return vec4(float(count) + float(seed)); }';
    const plain = newCodeMaterial('m', {}, { text });
    const { slots } = compileFor(GLSL_TARGET, plain).compiled!;
    const written = (id: string, value: number): number[] => {
      const parameters = { ...plain.parameters, [id]: { ...plain.parameters[id]!, value } };
      const words = new Float32Array(16);
      writeMaterialValues({ slots, frame: { line: [], functions: new Map() } }, { ...plain, parameters }, new Map(), words);
      const { offset } = slots.find(({ source }) => 'parameter' in source && source.parameter === id)!;
      return [...words.slice(offset, offset + 2)];
    };
    const together = ([high = 0, low = 0]: number[]): number => high * 65536 + low;
    for (const value of [0, -1, 16_777_217, -16_777_219, 2 ** 31 - 1, -(2 ** 31)]) expect(together(written('u-count', value))).toBe(value);
    for (const value of [0, 16_777_217, 2 ** 32 - 1]) expect(together(written('u-seed', value))).toBe(value);
    expect(written('u-count', -1)).toEqual([-1, 65535]);
    expect([2.5, -3e10, 3e10].map((value) => together(written('u-count', value)))).toEqual([3, -(2 ** 31), 2 ** 31 - 1]);
    expect([-1, 1e20].map((value) => together(written('u-seed', value)))).toEqual([0, 2 ** 32 - 1]);
  });

  it('counts steps only where a loop may be long', () => {
    const loop = (head: string): string =>
      compiled(`uniform int n; vec4 paint(Surface s) { float t = 0.0; ${head} { t += 1.0; } return vec4(t); }`).compiled!.program.fragment
        .text;
    expect(loop('for (int i = 0; i < 8; i++)')).not.toContain('loopSteps');
    for (const head of [
      'for (int i = 0; i < 5000; i++)',
      'for (int i = 9; i >= 0; i -= 3)',
      'for (int i = 0; 5000 > i; i++)',
      'for (int i = 0; i != 64; i += 4)',
      'for (uint i = 0u; i < 3000u; i++)',
      'for (float x = 0.0; x < 3000.0; x += 0.5)',
    ])
      expect(loop(head)).withContext(head).not.toContain('loopSteps');
    for (const head of [
      'for (int i = 0; i < 70000; i++)',
      'for (int i = 0; i != 63; i += 4)',
      'for (int i = 0; i > -1; i++)',
      'for (uint i = 9u; i > 0u; i -= 2u)',
      'for (float x = 1e9; x < 2e9; x += 1.0)',
      'for (int i = 0; i < 8; i += 0)',
    ])
      expect(loop(head)).withContext(head).toContain('loopSteps < 4096');
    expect(loop('for (int i = 0; i < n; i++)')).toContain('loopSteps < 4096');
    expect(loop('while (true)')).toContain('loopSteps < 4096');
  });

  it('does not count a loop whose index is handed to what only reads it', () => {
    const text = (direction: string): string =>
      compiled(`float f(${direction} int n) { n += 1; return float(n); }
vec4 paint(Surface s) { float t = 0.0; for (int i = 0; i < 8; i++) { t += f(i); } return vec4(t); }`).compiled!.program.fragment.text;
    expect(text('in')).not.toContain('loopSteps');
    expect(text('inout')).toContain('loopSteps');
  });

  it('counts the steps of what a loop calls, and of loops in loops', () => {
    const text = compiled(`float inner(float x) { for (int i = 0; i < 100; i++) { x += 1.0; } return x; }
vec4 paint(Surface s) { float t = 0.0; for (int i = 0; i < 1000; i++) { t += inner(t); } return vec4(t); }`).compiled!.program.fragment
      .text;
    expect(text).toContain('loopSteps = loopSteps + 101;');
    expect(text.match(/loopSteps </g)?.length).toBe(1);
  });

  it('does not cut loops in loops that plainly end, and says which single loop is too long', () => {
    const text = `vec4 paint(Surface s) { int n = 0; for (int i = 0; i < 64; i++) for (int j = 0; j < 64; j++) n += 2; return vec4(float(n)); }`;
    expect(compiled(text).compiled!.program.fragment.text).not.toContain('loopSteps');
    const long = compiled('vec4 paint(Surface s) { float t = 0.0; for (int i = 0; i < 100000; i++) t += 1.0; return vec4(t); }');
    expect(long.diagnostics?.map(({ message }) => message)).toEqual([
      'This loop goes round 100,000 times at each pixel; devices can be expected to do 65,536. It is broken off after 4,096 steps.',
    ]);
  });

  it('refuses what would grow beyond all measure, quickly', () => {
    const calls = Array.from({ length: 40 }, (_, index) => `float f${index + 1}(float x) { return f${index}(x) + f${index}(x + 1.0); }`);
    const text = `float f0(float x) { return x; }\n${calls.join('\n')}\nvec4 paint(Surface s) { return vec4(f40(1.0)); }`;
    const started = Date.now();
    expect(compiled(text).problems[0]?.message).toContain('devices take at most 300,000');
    expect(Date.now() - started).toBeLessThan(2000);
  });

  it('adds up no terms that it does not have', () => {
    const { text } = compiled('Lit paint(Surface s) { return emitted(s.place); }').compiled!.program.fragment;
    expect(text).toMatch(/vec3 surfaceLight\(Lit lit\) \{\s+return lit\.emission;/);
  });

  it('imports functions of the Library, whose helpers stay their own', () => {
    const texts: FunctionTexts = new Map([
      ['soft', { text: 'float helper(float x) { return x * 0.5; }\nfloat soft(float x) { return helper(x); }' }],
      ['hard', { text: 'import soft;\nfloat helper(float x) { return x * 2.0; }\nfloat hard(float x) { return helper(soft(x)); }' }],
    ]);
    const result = compiled(
      'import hard;\nfloat helper(float x) { return x; }\nvec4 paint(Surface s) { return vec4(hard(helper(1.0))); }',
      texts,
    );
    expect(errors(result)).toEqual([]);
    const { text } = result.compiled!.program.fragment;
    expect(['float helper(float', 'float helper_soft(float', 'float helper_hard(float'].every((each) => text.includes(each))).toBeTrue();
    expect(errors(compiled('import hard;\nvec4 paint(Surface s) { return vec4(soft(1.0)); }', texts))[0]).toContain(
      '“soft” from the Library',
    );
  });
});
