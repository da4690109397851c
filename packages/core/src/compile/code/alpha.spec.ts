import { compileMaterial } from '../compile-material';
import { newCodeMaterial } from './new-code';
import { isWhole } from './read-code';

function opacityOf(text: string): string | undefined {
  const { compiled, problems } = compileMaterial(newCodeMaterial('m', {}, { text }));
  if (!compiled) throw new Error(problems.map(({ message }) => message).join());
  return compiled.opacity;
}
const paint = (body: string): string => `uniform float glow; uniform sampler2D map; vec4 paint(Surface s) { ${body} }`;
const whole = (body: string): string => `uniform float glow; in vec2 uv; out vec4 pixel; void main() { ${body} }`;

describe('The alpha of a code material', () => {
  const opaque: Readonly<Record<string, string>> = {
    'a written 1': paint('return vec4(s.normal, 1.0);'),
    'one number for all': paint('return vec4(1.0);'),
    'a variable': paint('vec4 c = vec4(s.normal, 1.0); c.rgb *= glow; return c;'),
    'a component put to 1': paint('vec4 c; c.rgb = s.normal; c.a = 1.0; return c;'),
    'a choice and a mix': paint('vec4 a = vec4(0.0, 0.0, 0.0, 1); return glow > 0.5 ? a : mix(a, vec4(1.0), glow);'),
    'a function': `vec4 tint(vec3 c) { return vec4(c, 1.0); } ${paint('return tint(s.normal);')}`,
    'a whole program': whole('pixel = vec4(uv, glow, 1.0); pixel.rgb *= 2.0;'),
    'a colour without one': 'vec3 paint(Surface s) { return s.normal; }',
  };
  for (const [what, text] of Object.entries(opaque))
    it(`hides what is behind: ${what}`, () => {
      expect(opacityOf(text)).toBeUndefined();
    });

  const seenThrough: Readonly<Record<string, string>> = {
    'a number below 1': paint('return vec4(s.normal, 0.5);'),
    'a parameter': paint('return vec4(s.normal, glow);'),
    'an image': paint('return texture(map, s.uv);'),
    'a variable of which one write is not 1': paint('vec4 c = vec4(1.0); if (glow > 0.5) c = vec4(s.normal, 0.2); return c;'),
    'a component below 1': paint('vec4 c = vec4(1.0); c.w = glow; return c;'),
    'one of two returns': paint('if (s.uv.x > 0.5) return vec4(0.0); return vec4(1.0);'),
    'a function for it': 'float opacity(Surface s) { return 0.5; } vec3 paint(Surface s) { return s.normal; }',
    'what a call may write': `void fade(inout vec4 c) { c.a = 0.5; } ${paint('vec4 c = vec4(1.0); fade(c); return c;')}`,
    'a whole program': whole('pixel = vec4(uv, 0.0, glow);'),
    'a sum': paint('return vec4(1.0) + vec4(0.0, 0.0, 0.0, -0.5);'),
  };
  for (const [what, text] of Object.entries(seenThrough))
    it(`is seen through without a further switch: ${what}`, () => {
      expect(opacityOf(text)).toBe('blend');
    });
});

describe('Words in comments', () => {
  it('make no whole program, and import nothing', () => {
    const text = '/* void main() { } */\n// void main()\n/*\nimport nothing;\n*/\nvec3 paint(Surface s) { return s.normal; }';
    expect(isWhole({ text })).toBeFalse();
    expect(opacityOf(text)).toBeUndefined();
    expect(isWhole({ text: 'out vec4 pixel; void /* here */ main() { pixel = vec4(1.0); }' })).toBeTrue();
  });
});
