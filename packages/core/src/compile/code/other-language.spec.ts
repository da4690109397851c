import type { Material, MaterialCode } from '@brelvin/contract';
import { library } from '../../catalogue/library';
import { DEMO_DOCUMENTS } from '../../demo/demo-documents';
import { demoLibrary } from '../../demo/demo-library';
import { RIGHT_PROGRAMS } from '../../testing/right-programs';
import { isWgsl } from '../../language';
import { graphAsCode } from './graph-to-code';
import { inOtherLanguage } from './other-language';
import { isWhole, readCode } from './read-code';

describe('A text in the other language', () => {
  const wgsl = (text: string): string => {
    const made = inOtherLanguage({ text }, library());
    return 'text' in made ? made.text : made.problem;
  };

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
    const parameters = (text: string): string =>
      JSON.stringify(readCode({ text }, from).parameters.map(({ uniform, type }) => [uniform, type]));
    let { text } = code;
    for (const step of ['there', 'back']) {
      const made = inOtherLanguage({ text }, from);
      if (!('text' in made)) return [`${name} ${step}: ${made.problem}`];
      const errors = readCode({ text: made.text }, from).diagnostics.filter(({ severity }) => severity === 'error');
      for (const { line, message } of errors)
        said.push(`${name} ${step}, line ${line}: ${message}\n${made.text.split('\n')[line - 1] ?? ''}`);
      if (parameters(made.text) !== parameters(text)) said.push(`${name} ${step}: other parameters`);
      if (isWgsl(made.text) === isWgsl(text)) said.push(`${name} ${step}: the same language`);
      text = made.text;
    }
    return said;
  }

  it('is read again, there and back, for all right programs', () => {
    const said = RIGHT_PROGRAMS.filter(([, code]) => !isWhole(code)).flatMap(([name, code]) => thereAndBack(name, code));
    expect(said.filter((each) => !/WGSL has no way|nested more than/.test(each))).toEqual([]);
    expect(said.length).toBeLessThan(10);
  });

  it('is read again, there and back, for every demo', () => {
    const materials = DEMO_DOCUMENTS.map(({ document }) => document).filter((each): each is Material => each.format === 'brelvin-material');
    const said = materials.flatMap((material) => {
      const made = material.code ? { material } : graphAsCode(material, demoLibrary());
      const code = 'material' in made ? made.material.code : undefined;
      return code && !isWhole(code) ? thereAndBack(material.name, code, demoLibrary()) : [];
    });
    expect(said).toEqual([]);
    expect(materials.length).toBeGreaterThan(15);
  });

  it('says why not', () => {
    expect(wgsl('float f( { }')).toMatch(/^Mend the text first: line 1/);
    expect(wgsl('out vec4 pixel; void main() { pixel = vec4(1.0); }')).toMatch(/entry points/);
    expect(wgsl('vec4 paint(Surface s) { return vec4(inverse(mat3(1.0))[0], 1.0); }')).toBe(
      'WGSL has no way to write this: inverse of a matrix.',
    );
  });
});
