import { plainVertexModule } from '../../compile/surface-programs';
import { libraryProgram } from '../../catalogue/library';
import { constant } from '../../ir/build';
import { linkProgram } from '../../ir/program';
import { BOOL, FLOAT, INT, VEC3 } from '../../ir/types';
import { elaborate } from '../../language';
import { originOfLine } from '../source-map';
import { emitGlsl } from './emit-glsl';
import { glslExpression } from './expression';
import { glslName } from './names';

const same = (name: string): string => name;
const names = { functionOf: same, global: same, local: same, struct: same, field: (_: string, name: string) => name, downwards: same };

function emitFragment(code: string): string {
  const vertex = libraryProgram('full_screen.vert');
  const { module, diagnostics } = elaborate('test.frag', code);
  expect(diagnostics).toEqual([]);
  return emitGlsl(linkProgram(vertex, module)).fragment.text;
}

describe('glslExpression', () => {
  const text = (value: number): string => glslExpression(constant(FLOAT, [value]), names);

  it('writes the shortest digits that read back as the same float', () => {
    expect([1, 0.1, -2.5, 1e-7, 16777216, 1 / 3].map(text)).toEqual(['1.0', '0.1', '(-2.5)', '1e-7', '16777216.0', '0.33333334']);
    for (const value of [Math.PI, 1e-20, 123456.789, 3e38]) expect(Math.fround(Number(text(value)))).toBe(Math.fround(value));
  });

  it('refuses what is not finite', () => {
    expect(() => text(NaN)).toThrowError(RangeError);
    expect(() => text(Infinity)).toThrowError(RangeError);
  });

  it('writes equal components once', () => {
    expect(glslExpression(constant(VEC3, [2, 2, 2]), names)).toBe('vec3(2.0)');
    expect(glslExpression(constant(VEC3, [1, 2, 3]), names)).toBe('vec3(1.0, 2.0, 3.0)');
    expect(glslExpression(constant(INT, [3]), names)).toBe('3');
    expect(glslExpression(constant(BOOL, [1]), names)).toBe('true');
  });
});

describe('glslName', () => {
  it('keeps clear of words that GLSL knows', () => {
    expect(['tint', 'sin', 'sample', 'gl_x', 'deviceTarget', 'a__b', 'ä', '1a', 'main'].map(glslName)).toEqual([
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

describe('emitGlsl', () => {
  it('leaves out what main does not reach', () => {
    const text = emitFragment(
      'out vec4 pixel; uniform A { vec4 used; }; uniform B { vec4 idle; }; float unused() { return 1.0; } void main() { pixel = used; }',
    );
    expect(text).toContain('uniform A');
    expect(text).not.toContain('uniform B');
    expect(text).not.toContain('unused');
  });

  it('keeps "continue" from skipping the step of a loop', () => {
    const text = emitFragment(
      'out vec4 pixel; void main() { float sum = 0.0; for (int i = 0; i < 4; i++) { if (i == 1) continue; sum += 1.0; } pixel = vec4(sum); }',
    );
    expect(text).toMatch(/for \(; i < 4; i = i \+ 1\) \{/);
  });

  it('counts rows from the top', () => {
    const text = emitFragment('out vec4 pixel; void main() { pixel = gl_FragCoord + dFdy(gl_FragCoord); }');
    expect(text).toContain('deviceFragCoord()');
    expect(text).toContain('* -deviceTarget.x');
  });

  it('hands on from the vertex stage only what pixels read', () => {
    const { vertex } = emitGlsl(linkProgram(plainVertexModule('surface.vert'), libraryProgram('not_ready.frag')));
    expect(vertex.text).toContain('out vec3 worldNormal');
    expect(vertex.text).not.toContain('meshPlace');
    expect(vertex.text).not.toContain('copyNumber');
  });

  it('remembers what each line was made of', () => {
    const code = 'out vec4 pixel;\nvoid main() {\n  float a = 1.0;\n  pixel = vec4(a);\n}';
    const { module } = elaborate('mine.frag', code);
    const { fragment } = emitGlsl(linkProgram(libraryProgram('full_screen.vert'), module));
    const line = fragment.text.split('\n').findIndex((each) => each.includes('pixel = vec4(a)')) + 1;
    const origin = originOfLine(fragment, line);
    expect(origin?.path).toBe('mine.frag');
    expect(code.slice(origin?.range?.from, origin?.range?.to)).toBe('pixel = vec4(a)');
  });

  it('says which program has no main', () => {
    expect(() => linkProgram(libraryProgram('full_screen.vert'), elaborate('x', 'float f() { return 1.0; }').module)).toThrowError(
      /main\(\)/,
    );
  });
});
