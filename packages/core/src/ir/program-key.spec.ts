import { libraryProgram } from '../catalogue/library';
import { elaborate } from '../language';
import { linkProgram } from './program';
import { programKey } from './program-key';

function keyOf(text: string): string {
  const { module, diagnostics } = elaborate('mine.frag', `out vec4 pixel;\n${text}`);
  expect(diagnostics).toEqual([]);
  return programKey(linkProgram(libraryProgram('full_screen.vert'), module));
}

describe('The key of a program', () => {
  it('is equal wherever its text stands, and whatever main does not reach', () => {
    const plain = keyOf('void main() { pixel = vec4(1.0); }');
    expect(keyOf('\n\n// A remark.\nvoid main()\n{\n  pixel = vec4(1.0);\n}')).toBe(plain);
    expect(keyOf('float idle() { return 2.0; } void main() { pixel = vec4(1.0); }')).toBe(plain);
    expect(plain).toMatch(/^[0-9a-f]{16}$/);
  });

  it('differs with every part of what is computed', () => {
    const bodies = [
      'float a = 1.0; pixel = vec4(a);',
      'float a = 2.0; pixel = vec4(a);',
      'float a = 0.0; pixel = vec4(a);',
      'float a = -0.0; pixel = vec4(a);',
      'int a = 1; pixel = vec4(a);',
      'vec2 a = vec2(1.0, 2.0); pixel = a.xyxy;',
      'vec2 a = vec2(1.0, 2.0); pixel = a.yxyx;',
      'vec2 a = vec2(12.0); pixel = a.xyxy;',
      'vec2 a = vec2(1.0, 2.0); pixel = vec4(a[0]);',
      'vec2 a = vec2(1.0, 2.0); pixel = vec4(a[1]);',
      'float a = 1.0 + pixel.x; pixel = vec4(a);',
      'float a = 1.0 - pixel.x; pixel = vec4(a);',
      'float a = sin(pixel.x); pixel = vec4(a);',
      'float a = cos(pixel.x); pixel = vec4(a);',
      'float a = -pixel.x; pixel = vec4(a);',
      'float a = pixel.x > 0.0 ? 1.0 : 2.0; pixel = vec4(a);',
      'float a = pixel.x > 0.0 ? 2.0 : 1.0; pixel = vec4(a);',
      'if (pixel.x > 0.0) pixel = vec4(1.0); else pixel = vec4(2.0);',
      'if (pixel.x > 0.0) { pixel = vec4(1.0); pixel = vec4(2.0); }',
      'while (pixel.x > 0.0) { pixel.x -= 1.0; }',
      'do { pixel.x -= 1.0; } while (pixel.x > 0.0);',
      'for (int i = 0; i < 4; i++) { pixel.x -= 1.0; }',
      'while (pixel.x > 0.0) { break; }',
      'while (pixel.x > 0.0) { continue; }',
      'discard;',
      'return;',
    ];
    expect(new Set(bodies.map((body) => keyOf(`void main() { ${body} }`))).size).toBe(bodies.length);
  });

  it('differs with what is declared around it', () => {
    const read = 'void main() { pixel = vec4(given); }';
    const around = [
      `uniform A { float given; }; ${read}`,
      `uniform A { float given; float more; }; ${read}`,
      `uniform B { float given; }; ${read}`,
      `in float given; ${read}`,
      `flat in int given; ${read}`,
      `const float given = 1.0; ${read}`,
      'struct Two { float a; float b; }; void main() { Two two = Two(1.0, 2.0); pixel = vec4(two.a); }',
      'struct Two { float a; float b; }; void main() { Two two = Two(1.0, 2.0); pixel = vec4(two.b); }',
      'struct Two { float b; float a; }; void main() { Two two = Two(1.0, 2.0); pixel = vec4(two.a); }',
      'float f(in float x) { return x; } void main() { pixel = vec4(f(1.0)); }',
      'float f(inout float x) { return x; } void main() { float y = 1.0; pixel = vec4(f(y)); }',
      'float f(out float x) { x = 0.0; return x; } void main() { float y = 1.0; pixel = vec4(f(y)); }',
    ];
    expect(new Set(around.map(keyOf)).size).toBe(around.length);
  });
});
