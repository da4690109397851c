import { libraryProgram } from '../../catalogue/library';
import { compileMaterial } from '../../compile/compile-material';
import { newCodeMaterial } from '../../compile/code/new-code';
import { MOST_IMAGES } from '../../compile/limits';
import { plainVertexModule } from '../../compile/surface-programs';
import { PORTABLE_LIMITS, type Limits } from '../../ir/limits';
import { linkProgram } from '../../ir/program';
import { elaborate, originOfLine } from '../../language';
import { codeFor, type TargetCode } from '../target';
import { WGSL_TARGET } from './target';

function emitFragment(code: string, vertex = libraryProgram('full_screen.vert')): TargetCode {
  const { module, diagnostics } = elaborate('test.frag', code);
  expect(diagnostics).toEqual([]);
  return codeFor(WGSL_TARGET, linkProgram(vertex, module));
}

const bodyOf = (text: string): string => /fn programMain\(\) \{\n([^]*?)\n\}/.exec(text)?.[1]?.replace(/^ {2}/gm, '') ?? '';
const fragmentBody = (body: string, before = ''): string =>
  bodyOf(emitFragment(`out vec4 pixel; ${before} void main() { ${body} }`).fragment.text);

describe('WGSL', () => {
  it('binds blocks, images and samplers at the places that the layout says', () => {
    const { fragment, layout } = emitFragment(
      'out vec4 pixel; uniform sampler2D smooth_; uniform sampler2D plain; uniform Numbers { vec4 used; }; void main() { pixel = used + texture(smooth_, used.xy) + texelFetch(plain, ivec2(0), 0); }',
    );
    expect(fragment.text).toContain('@group(1) @binding(0) var<uniform> Numbers: NumbersBlock;');
    expect(fragment.text).toContain('@group(1) @binding(1) var plain: texture_2d<f32>;');
    expect(fragment.text).toContain('@group(1) @binding(2) var smooth_: texture_2d<f32>;');
    expect(fragment.text).toContain('@group(1) @binding(3) var smooth_Sampler: sampler;');
    expect(fragment.text).not.toContain('plainSampler');
    expect(bodyOf(fragment.text)).toBe(
      'pixel = (Numbers.used + textureSample(smooth_, smooth_Sampler, Numbers.used.xy)) + textureLoad(plain, vec2i(0i), 0i);',
    );
    expect(layout[1]?.textures.map(({ name, fetched }) => [name, fetched])).toEqual([
      ['plain', true],
      ['smooth_', false],
    ]);
  });

  it('hands on what pixels read, at the same places on both sides', () => {
    const { vertex, fragment, attributes } = codeFor(
      WGSL_TARGET,
      linkProgram(plainVertexModule('surface.vert'), libraryProgram('not_ready.frag')),
    );
    const places = (text: string, struct: string): string[] =>
      [...(new RegExp(`struct ${struct} \\{([^}]*)\\}`).exec(text)?.[1] ?? '').matchAll(/@location\(\d+\) \w+/g)].map(String);
    expect(places(vertex.text, 'StageOutput')).toEqual(places(fragment.text, 'StageInput'));
    expect(places(vertex.text, 'StageOutput').length).toBeGreaterThan(0);
    expect(vertex.text).not.toMatch(/StageOutput \{[^}]*meshPlace/);
    expect(vertex.text).toContain(`@location(${attributes.indexOf('meshPosition')}) meshPosition_: vec3f`);
  });

  it('hands on matrices, arrays and whole numbers piece by piece', () => {
    const vertex = elaborate(
      'v',
      'out mat2 turn; flat out int which; out float list[2]; void main() { turn = mat2(1.0); which = 2; list[0] = 1.0; list[1] = 2.0; gl_Position = vec4(0.0); }',
    ).module;
    const { fragment, vertex: written } = emitFragment(
      'in mat2 turn; flat in int which; in float list[2]; out vec4 pixel; void main() { pixel = vec4(turn[0], float(which), list[1]); }',
      vertex,
    );
    expect(fragment.text).toContain('@location(0) turn_0_: vec2f,');
    expect(fragment.text).toContain('@location(2) @interpolate(flat) which_: i32,');
    expect(fragment.text).toContain('list[1] = given.list_1_;');
    expect(written.text).toMatch(/return StageOutput\(clipPosition, turn\[0\], turn\[1\], which, list\[0\], list\[1\]\);/);
  });

  it('gives colours four components, opaque where a program gives no alpha', () => {
    expect(emitFragment('out vec3 pixel; void main() { pixel = vec3(1.0); }').fragment.text).toContain('StageOutput(vec4f(pixel, 1.0))');
  });

  it('has functions for what WGSL lacks, each once, and only where it is wanted', () => {
    const { fragment } = emitFragment('out vec4 pixel; void main() { pixel = mod(gl_FragCoord, 2.0) + mod(gl_FragCoord, 3.0); }');
    expect(fragment.text.match(/fn wgsl_mod/g)?.length).toBe(1);
    expect(fragment.text).not.toContain('wgsl_inverse');
    expect(fragmentBody('pixel = vec4(inverse(mat3(gl_FragCoord.x)) * vec3(1.0), 1.0);')).toContain('wgsl_inverse(');
    expect(fragmentBody('pixel = vec4(isnan(gl_FragCoord.x) ? 1.0 : 0.0);')).toContain('wgsl_isnan(pixelPlace.x)');
    expect(fragmentBody('pixel = vec4(dot(gl_FragCoord.x, 2.0));')).toContain('wgsl_dot(pixelPlace.x, 2.0)');
  });

  it('keeps its own functions apart from those of a text', () => {
    const text = emitFragment(
      'float wgsl_mod(float a, float b) { return a; } out vec4 pixel; void main() { pixel = vec4(wgsl_mod(1.0, 2.0) + mod(gl_FragCoord.x, 2.0)); }',
    ).fragment.text;
    expect(text).toContain('fn wgsl_mod(');
    expect(text).toContain('fn wgsl_mod_2(');
  });

  it('leaves to the device what WGSL would refuse to work out', () => {
    expect(fragmentBody('pixel = vec4(1.0 / 0.0);')).toContain('wgsl_given(1.0) / 0.0');
    expect(fragmentBody('pixel = vec4(sqrt(-1.0));')).toContain('sqrt(wgsl_given(-1.0))');
    expect(fragmentBody('int a = int(gl_FragCoord.x) / 0; pixel = vec4(a);')).toContain('/ wgsl_given(0i)');
    expect(fragmentBody('pixel = vec4(smoothstep(1.0, 0.0, gl_FragCoord.x));')).toContain('smoothstep(wgsl_given(1.0), 0.0, pixelPlace.x)');
    expect(fragmentBody('pixel = vec4(clamp(gl_FragCoord.x, 1.0, 0.0));')).toContain('wgsl_given(1.0)');
    // What is in order stays as it is, and what can be worked out here is.
    expect(fragmentBody('pixel = vec4(smoothstep(0.0, 1.0, gl_FragCoord.x));')).not.toContain('given');
    expect(fragmentBody('pixel = vec4(2.0 * 3.0);')).toBe('pixel = vec4f(6.0);');
    expect(fragmentBody('uint a = uint(gl_FragCoord.x) << 40u; pixel = vec4(a);')).toContain('<< 8u');
  });

  it('chooses between matrices and structs by a function', () => {
    expect(fragmentBody('S s = gl_FragCoord.x > 1.0 ? S(1.0) : S(2.0); pixel = vec4(s.a);', 'struct S { float a; };')).toContain(
      'wgsl_choice(',
    );
  });

  it('keeps a comparison among arguments from being taken for a template', () => {
    expect(fragmentBody('bool a = gl_FragCoord.x > 2.0 ? gl_FragCoord.x < 1.0 : gl_FragCoord.x > 3.0; pixel = vec4(a);')).toContain(
      'select(pixelPlace.x > 3.0, (pixelPlace.x < 1.0), pixelPlace.x > 2.0)',
    );
  });

  it('reads images between vertices at a level', () => {
    const vertex = elaborate(
      'v',
      'uniform sampler2D heights; void main() { gl_Position = texture(heights, vec2(0.5)) + textureOffset(heights, vec2(0.5), ivec2(1)); }',
    ).module;
    const { vertex: written } = emitFragment('out vec4 pixel; void main() { pixel = vec4(1.0); }', vertex);
    expect(bodyOf(written.text)).toBe(
      'clipPosition = textureSampleLevel(heights, heightsSampler, vec2f(0.5), 0.0) + textureSampleLevel(heights, heightsSampler, vec2f(0.5), 0.0, vec2i(1i));',
    );
  });

  it('gives overloads names of their own, and keeps clear of words and functions of the language', () => {
    const text = emitFragment(
      'float pick(float a) { return a; } float pick(vec2 a) { return a.x; } out vec4 pixel; void main() { float select = pick(1.0); float fn = pick(vec2(2.0)); pixel = vec4(select + fn); }',
    ).fragment.text;
    expect(text).toContain('fn pick(');
    expect(text).toContain('fn pick_2(');
    expect(text).toContain('let select_2 = pick(1.0);');
    expect(text).toContain('let fn_ = pick_2(vec2f(2.0));');
  });

  it('remembers what each line was made of', () => {
    const code = 'out vec4 pixel;\nvoid main() {\n  float a = gl_FragCoord.x;\n  pixel = vec4(a);\n}';
    const { fragment } = emitFragment(code);
    const line = fragment.text.split('\n').findIndex((each) => each.includes('pixel = vec4f(a)')) + 1;
    const origin = originOfLine(fragment, line);
    expect(code.slice(origin?.range?.from, origin?.range?.to)).toBe('pixel = vec4(a)');
  });

  it('offers what every material may use', () => {
    for (const what of Object.keys(PORTABLE_LIMITS) as (keyof Limits)[])
      expect(WGSL_TARGET.limits[what]).withContext(what).toBeGreaterThanOrEqual(PORTABLE_LIMITS[what]);
    expect(MOST_IMAGES).toBeLessThanOrEqual(WGSL_TARGET.limits.textures);
  });

  it('writes loops, switches and functions that write to what they are given', () => {
    const text =
      'void halve(inout float a) { a *= 0.5; }\nvec4 paint(Surface s) { vec3 v = s.place; for (int i = 0; i < 3; i++) { if (i == 1) continue; halve(v.x); } switch (int(s.uv.x)) { case 0: v.y = 1.0; default: v.z = 2.0; } return vec4(v, 1.0); }';
    const { compiled } = compileMaterial(newCodeMaterial('m', {}, { text }));
    const { fragment } = codeFor(WGSL_TARGET, compiled!.program);
    expect(fragment.text).toContain('fn halve(a: ptr<function, f32>)');
    expect(fragment.text).toMatch(/var (copy\d) = v\.x;\n\s+halve\(&\1\);\n\s+v\.x = \1;/);
    expect(fragment.text).toContain('default: {');
  });
});
