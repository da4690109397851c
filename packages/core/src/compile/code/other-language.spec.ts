import type { Material, MaterialCode } from '@brelvin/contract';
import { library } from '../../catalogue/library';
import { DEMO_DOCUMENTS } from '../../demo/demo-documents';
import { demoLibrary } from '../../demo/demo-library';
import { FIRST_FIELD, readField } from '../../field/read-field';
import { RIGHT_PROGRAMS } from '../../testing/right-programs';
import { isWgsl } from '../../language';
import { graphAsCode } from './graph-to-code';
import { inOtherLanguage } from './other-language';
import { readCode } from './read-code';

describe('A text in the other language', () => {
  const wgsl = (text: string): string => {
    const made = inOtherLanguage({ text }, library());
    return 'text' in made ? made.text : made.problem;
  };

  it('keeps the regions of a field', () => {
    const made = inOtherLanguage({ text: FIRST_FIELD, field: true }, library());
    if ('problem' in made) return fail(made.problem);
    expect(made.language).toBe('WGSL');
    expect(readField(made.text).program?.regions).toEqual(readField(FIRST_FIELD).program!.regions);
    const wrong = inOtherLanguage({ text: 'float field(vec3 p) { return q; }', field: true }, library());
    expect(wrong).toEqual({ problem: jasmine.stringContaining('Mend the text first: line 1') as unknown as string });
  });

  it('keeps names, comments and structure', () => {
    const text = `// A glow.
/** Tint: what shines. @colour #ff8800 */
uniform vec3 tint;
struct Ring { float width; vec3 colour; };
float wave(float x, inout float sum) {
  // Twice as fast.
  sum += x;
  return sin(x * 2.0);
}
vec4 paint(Surface s) {
  float sum = 0.0;
  Ring ring = Ring(0.1, tint);
  for (int i = 0; i < 3; i++) {
    ring.colour.xy *= wave(float(i), sum); // dims
  }
  return vec4(ring.colour, 1.0);
}
`;
    expect(wgsl(text)).toBe(`// A glow.
/** Tint: what shines. @colour #ff8800 */
@group(0) @binding(0) var<uniform> tint: vec3f;
struct Ring {
  width: f32,
  colour: vec3f,
}
fn wave(x: f32, sum: ptr<function, f32>) -> f32 {
  // Twice as fast.
  *sum += x;
  return sin(x * 2.0);
}
fn paint(s: Surface) -> vec4f {
  var sum = 0.0;
  var ring = Ring(0.1, tint);
  for (var i = 0i; i < 3i; i++) {
    let copy1 = ring.colour.xy * wave(f32(i), &sum);
    ring.colour.x = copy1.x;
    ring.colour.y = copy1.y;
    // dims
  }
  return vec4f(ring.colour, 1.0);
}
`);
  });

  /** Turned over and back, a text is read without an error, with the same parameters. */
  function thereAndBack(name: string, code: MaterialCode, from = library()): string[] {
    const said: string[] = [];
    const parameters = (each: MaterialCode): string =>
      JSON.stringify(
        readCode(each, from)
          .parameters.map(({ uniform, type }) => [uniform, type].join())
          .sort(),
      );
    let now = code;
    for (const step of ['there', 'back']) {
      const made = inOtherLanguage(now, from);
      if (!('text' in made)) return [`${name} ${step}: ${made.problem}`];
      const next: MaterialCode = { text: made.text, ...(made.vertices === undefined ? {} : { vertices: made.vertices }) };
      const errors = readCode(next, from).diagnostics.filter(({ severity }) => severity === 'error');
      for (const { line, message, path } of errors)
        said.push(
          `${name} ${step}, line ${line}: ${message}\n${(path === 'vertices' ? made.vertices : made.text)?.split('\n')[line - 1] ?? ''}`,
        );
      if (parameters(next) !== parameters(now)) said.push(`${name} ${step}: other parameters`);
      if (isWgsl(made.text) === isWgsl(now.text)) said.push(`${name} ${step}: the same language`);
      now = next;
    }
    return said;
  }

  it('is read again, there and back, for all right programs', () => {
    const said = RIGHT_PROGRAMS.flatMap(([name, code]) => thereAndBack(name, code));
    expect(said.filter((each) => !/WGSL has no way|nested more than/.test(each))).toEqual([]);
    expect(said.length).toBeLessThan(10);
  });

  it('is read again, there and back, for every demo', () => {
    const materials = DEMO_DOCUMENTS.map(({ document }) => document).filter((each): each is Material => each.format === 'brelvin-material');
    const said = materials.flatMap((material) => {
      const made = material.code ? { material } : graphAsCode(material, demoLibrary());
      const code = 'material' in made ? made.material.code : undefined;
      return code ? thereAndBack(material.name, code, demoLibrary()) : [];
    });
    expect(said).toEqual([]);
    expect(materials.length).toBeGreaterThan(15);
  });

  it('turns a whole program over, both stages into one text', () => {
    const text = `uniform float glow;
in vec2 at;
out vec4 pixel;
float rings(float x) {
  return fract(x * glow);
}
void main() {
  if (at.x < 0.0) {
    pixel = vec4(1.0);
    return;
  }
  // Where it goes on.
  pixel = vec4(rings(at.x), dFdy(at.y), 0.0, 1.0);
}
`;
    const vertices = `in vec3 position;
in vec2 uv;
uniform mat4 clipFromObject;
out vec2 at;
void main() {
  at = uv;
  gl_Position = clipFromObject * vec4(position, 1.0);
}
`;
    const made = inOtherLanguage({ text, vertices }, library());
    expect('text' in made && made.text).toBe(`@group(0) @binding(0) var<uniform> glow: f32;
fn rings(x: f32) -> f32 {
  return fract(x * glow);
}
@fragment
fn pixels(@location(0) at: vec2f) -> @location(0) vec4f {
  var pixel: vec4f;
  if at.x < 0.0 {
    pixel = vec4f(1.0);
    return pixel;
  }
  // Where it goes on.
  pixel = vec4f(rings(at.x), -dpdy(at.y), 0.0, 1.0);
  return pixel;
}

@group(0) @binding(1) var<uniform> clipFromObject: mat4x4f;
struct Placed {
  @builtin(position) clipPosition: vec4f,
  @location(0) at: vec2f,
}
@vertex
fn vertices(@location(0) position: vec3f, @location(1) uv: vec2f) -> Placed {
  var clipPosition: vec4f;
  var at: vec2f;
  at = uv;
  clipPosition = clipFromObject * vec4f(position, 1.0);
  return Placed(clipPosition, at);
}
`);
  });

  it('says why not', () => {
    expect(wgsl('float f( { }')).toMatch(/^Mend the text first: line 1/);
    expect(wgsl('out vec4 pixel; void main() { pixel = vec4(gl_FragCoord.y); }')).toMatch(/rows count upwards/);
    expect(wgsl('vec4 paint(Surface s) { return vec4(inverse(mat3(1.0))[0], 1.0); }')).toBe(
      'WGSL has no way to write this: inverse of a matrix.',
    );
  });
});
