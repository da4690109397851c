import { library } from '../../catalogue/library';
import { withEdits, type Diagnostic } from '../../language';
import { compileCode } from './compile-code';
import { newCodeMaterial } from './new-code';

const PAINT = (body: string): string => `vec4 paint(Surface s) {\n${body}\n}`;

function said(text: string): readonly Diagnostic[] {
  return compileCode(newCodeMaterial('m', {}, { text }) as Parameters<typeof compileCode>[0], library()).diagnostics ?? [];
}

/** Each with what is said, and what stands there after its mend. */
const MISTAKES: Readonly<Record<string, readonly [body: string, message: RegExp, mended: string | undefined]>> = {
  'the direction towards the light mirrored': [
    'vec3 l = directionToSun();\nreturn vec4(reflect(l, s.normal), 1.0);',
    /reflect takes a direction that travels to the surface, but this is a direction towards the light/,
    'reflect(-l, s.normal)',
  ],
  'the view direction mirrored': ['return vec4(reflect(s.toEye, s.normal), 1.0);', /towards the eye/, 'reflect(-s.toEye, s.normal)'],
  'the view direction bent': [
    'return vec4(refract(s.toEye, s.normal, 0.66), 1.0);',
    /towards the eye/,
    'refract(-s.toEye, s.normal, 0.66)',
  ],
  'the arguments of reflect swapped': [
    'return vec4(reflect(s.normal, -s.toEye), 1.0);',
    /travels to the surface first, then the normal/,
    'reflect(-s.toEye, s.normal)',
  ],
  'a turned normal': [
    'vec3 n = -normalize(s.normal);\nreturn vec4(reflect(-s.toEye, n), 1.0);',
    /reflect wants the surface’s normal here, but this is turned round/,
    'reflect(-s.toEye, -n)',
  ],
  'a turned normal given to a function of the library': [
    'return vec4(totalLight(lambert(vec3(0.5), -s.normal)), 1.0);',
    /lambert wants the surface’s normal here, but this is turned round/,
    'lambert(vec3(0.5), s.normal)',
  ],
  'the eye where the normal is wanted': [
    'return vec4(totalLight(lambert(vec3(0.5), s.toEye)), 1.0);',
    /lambert wants the surface’s normal here, but this is a direction towards the eye/,
    undefined,
  ],
  'the value of smoothstep first': ['return vec4(smoothstep(s.uv.x, 0.2, 0.8));', /two edges first/, 'smoothstep(0.2, 0.8, s.uv.x)'],
  'the value of clamp last': ['return vec4(clamp(0.0, 1.0, s.uv.x));', /the value first/, 'clamp(s.uv.x, 0.0, 1.0)'],
  'the amount of mix first': [
    'return vec4(mix(s.uv.x, vec3(0.1), vec3(0.9)), 1.0);',
    /another order: mix\(vec3, vec3, float\)/,
    'mix(vec3(0.1), vec3(0.9), s.uv.x)',
  ],
};

describe('Advice on calls', () => {
  for (const [name, [body, message, mended]] of Object.entries(MISTAKES))
    it(`${name}: is said where it stands, and mended`, () => {
      const text = PAINT(body);
      const [first, ...others] = said(text);
      expect(others).toEqual([]);
      expect(first?.message).toMatch(message);
      const [mend] = first?.mends ?? [];
      if (mended === undefined) {
        expect(mend).toBeUndefined();
        return;
      }
      const after = withEdits(text, mend!.edits);
      expect(after).toContain(mended);
      expect(said(after)).toEqual([]);
    });

  for (const body of [
    'return vec4(reflect(-s.toEye, s.normal), 1.0);',
    'vec3 d = s.toEye;\nd = -d;\nreturn vec4(reflect(d, s.normal), 1.0);',
    'return vec4(reflect(s.position, s.normal), 1.0);',
    'return vec4(smoothstep(0.2, 0.8, s.uv.x) + smoothstep(s.uv.x, s.uv.y, 0.5) + clamp(0.5, 0.0, s.uv.x));',
    'return vec4(max(dot(-s.normal, directionToSun()), 0.0));',
  ])
    it(`says nothing of what is right: ${body.slice(0, 40)}`, () => expect(said(PAINT(body)).map(({ message }) => message)).toEqual([]));

  it('knows the names of whole programs', () => {
    const text = `in vec3 normal;
uniform vec3 sunDirection;
out vec4 colour;
void main() { colour = vec4(reflect(sunDirection, normal), 1.0); }`;
    expect(said(text).map(({ message }) => message)).toEqual([jasmine.stringContaining('towards the light')]);
  });
});
