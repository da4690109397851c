import type { MaterialCode } from '@brelvin/contract';
import { typeName } from '../ir/types';
import { BUILTIN_FUNCTIONS } from '../ir/builtins/table';
import { BUILTINS } from '../language/builtins';

const VALUES: Readonly<Record<string, string>> = {
  float: 's.uv.x',
  vec2: 's.uv',
  vec3: 's.normal',
  vec4: 's.colour',
  int: 'int(s.uv.x)',
  ivec2: 'ivec2(s.uv)',
  ivec3: 'ivec3(s.normal)',
  ivec4: 'ivec4(s.colour)',
  uint: 'uint(s.uv.x)',
  uvec2: 'uvec2(s.uv)',
  uvec3: 'uvec3(abs(s.normal))',
  uvec4: 'uvec4(s.colour)',
  bool: '(s.uv.x > 0.5)',
  bvec2: 'greaterThan(s.uv, vec2(0.5))',
  bvec3: 'greaterThan(s.normal, vec3(0.5))',
  bvec4: 'greaterThan(s.colour, vec4(0.5))',
  mat2: 'mat2(s.uv, s.uv.yx)',
  mat3: 'mat3(s.normal, s.tangent, s.toEye)',
  mat4: 'mat4(s.colour, s.colour.yzwx, s.colour.zwxy, s.colour.wxyz)',
  sampler2D: 'map',
};

/** Every built-in with every overload that a material can call, one program each. */
function builtinPrograms(): [string, MaterialCode][] {
  return [...BUILTINS].map(([name, overloads]) => {
    const { offset, writes } = BUILTIN_FUNCTIONS.get(name) ?? {};
    const lines = overloads
      .map(({ result, parameters }) => ({ result: typeName(result), types: parameters.map(typeName) }))
      .filter(({ types }) => !types.some((type) => type.includes('sampler') && type !== 'sampler2D'))
      .map(({ result, types }, index) => {
        const args = types.map((type, at) =>
          at === offset ? `${type}(1)` : at === writes ? `w${index}` : (VALUES[type] ?? `${type}(s.uv.x)`),
        );
        const before = writes === undefined ? '' : `  ${types[writes]} w${index};\n`;
        return `${before}  ${result} v${index} = ${name}(${args.join(', ')});\n  if (v${index} != v${index}) { sum += 1.0; }`;
      });
    return [
      `built-in ${name}`,
      { text: `uniform sampler2D map;\nvec4 paint(Surface s) {\n  float sum = 0.0;\n${lines.join('\n')}\n  return vec4(sum);\n}` },
    ];
  });
}

const paint = (body: string, before = ''): MaterialCode => ({ text: `${before}\nvec4 paint(Surface s) { ${body} }` });
const whole = (pixels: string, vertices?: string): MaterialCode => ({ text: pixels, ...(vertices === undefined ? {} : { vertices }) });

const OTHERS: readonly (readonly [string, MaterialCode])[] = [
  ['a colour', paint('return vec4(1.0, 0.5, 0.0, 1.0);')],
  ['light', { text: 'Lit paint(Surface s) { return lambert(vec3(0.8), s.normal); }' }],
  ['three numbers', { text: 'vec3 paint(Surface s) { return s.normal * 0.5 + 0.5; }' }],
  ['light put together', { text: 'Lit paint(Surface s) { Lit l = darkness(); l.diffuse = vec3(0.5); l.emission += s.place; return l; }' }],
  [
    'two models added',
    { text: 'Lit paint(Surface s) { return addValues(lambert(vec3(0.5), s.normal), rim(vec3(1.0), 1.0, 3.0, s.normal, s.toEye)); }' },
  ],
  [
    'parameters of all types',
    paint(
      'if (!on) { discard; } return vec4(a, b) * texture(map, b.xy) * float(n) * float(m) + c[0] + c[7] + d;',
      'uniform float a;\nuniform vec3 b;\nuniform vec4 c[8];\nuniform vec4 d;\nuniform int n;\nuniform uint m;\nuniform bool on;\nuniform sampler2D map;',
    ),
  ],
  [
    'a shape',
    {
      text: 'void shape(inout Shape s) { s.position += s.normal * 0.1 * sin(s.uv.x * 6.0); }\nLit paint(Surface s) { return lambert(vec3(0.5), s.normal); }',
    },
  ],
  [
    'values carried',
    {
      text: 'out float height;\nout vec3 tone;\nvoid shape(inout Shape s) { height = s.position.y; tone = s.normal; s.position.x += height; }\nvec4 paint(Surface s) { return vec4(tone * height, 1.0); }',
    },
  ],
  [
    'a whole number carried flat',
    {
      text: 'flat out int which;\nvoid shape(inout Shape s) { which = int(s.copy); }\nvec4 paint(Surface s) { return vec4(float(which)); }',
    },
  ],
  [
    'opacity and outline',
    {
      text: 'float opacity(Surface s) { return s.uv.x; }\nvec3 outline(Surface s) { return s.place; }\nLit paint(Surface s) { return lambert(vec3(0.5), s.normal); }',
    },
  ],
  [
    'overloads',
    paint(
      'return vec4(f(1.0), f(s.uv).x, f(2), 1.0);',
      'float f(float a) { return a; } vec2 f(vec2 a) { return a; } float f(int a) { return float(a); }',
    ),
  ],
  [
    'later functions',
    paint(
      'return vec4(later(1.0));',
      'float later(float a);\nfloat earlier(float a) { return later(a); }\nfloat later(float a) { return a * 2.0; }',
    ),
  ],
  [
    'out and inout',
    paint('float a; vec2 b = s.uv; f(a, b); return vec4(a, b, 1.0);', 'void f(out float a, inout vec2 b) { a = b.x; b.y += 1.0; }'),
  ],
  ['out into a component', paint('vec3 v = s.normal; f(v.x); return vec4(v, 1.0);', 'void f(out float a) { a = 1.0; }')],
  [
    'structs',
    paint(
      'P p = P(s.position, 1.0); P q = p; q.at.x = 2.0; return vec4(q.at + p.at, move(q).w);',
      'struct P { vec3 at; float w; };\nP move(P p) { p.w += 1.0; return p; }',
    ),
  ],
  [
    'structs in structs',
    paint(
      'B b = B(A(1.0, vec2(2.0)), 3.0); b.a.y.x = 4.0; return vec4(b.a.y, b.a.x, b.z);',
      'struct A { float x; vec2 y; };\nstruct B { A a; float z; };',
    ),
  ],
  ['structs compared', paint('A a = A(1.0); A b = A(s.uv.x); return vec4(a == b ? 1.0 : 0.0);', 'struct A { float x; };')],
  ['arrays', paint('float a[4]; for (int i = 0; i < 4; i++) { a[i] = float(i); } return vec4(a[0], a[1], a[2], a[3]);')],
  ['arrays made at once', paint('vec2 a[2] = vec2[2](vec2(1.0), s.uv); return vec4(a[0], a[1]);')],
  [
    'arrays as parameters',
    paint('float a[3] = float[3](1.0, 2.0, 3.0); return vec4(sum(a));', 'float sum(float a[3]) { return a[0] + a[1] + a[2]; }'),
  ],
  ['arrays in structs', paint('A a; a.w[1] = 2.0; a.w[0] = a.w[1]; a.w[2] = 0.0; return vec4(a.w[0]);', 'struct A { float w[3]; };')],
  ['lengths that are computed', paint('float a[2 * N]; a[0] = 1.0; a[2 * N - 1] = 1.0; return vec4(a[0]);', 'const int N = 3;')],
  ['constants', paint('return vec4(TINT * SCALE, 1.0);', 'const vec3 TINT = vec3(1.0, 0.5, 0.2);\nconst float SCALE = 2.0 * 0.5;')],
  [
    '#define',
    paint(
      'return vec4(AMOUNT, TWICE, 0.0, 1.0);',
      '#version 300 es\n#define AMOUNT 0.5\n#define TWICE (AMOUNT * 2.0)\nprecision highp float;',
    ),
  ],
  ['swizzles as targets', paint('vec4 v = s.colour; v.zx = v.xy; v.rgb *= 2.0; v.st += s.uv; return v.wzyx;')],
  [
    'components by number',
    paint('vec3 v = s.normal; v[1] = v[0]; mat3 m = mat3(1.0); m[2] = v; m[0][1] = 2.0; return vec4(m * v, m[1].y);'),
  ],
  [
    'for with continue and break',
    paint('float t = 0.0; for (int i = 0; i < 20; i++) { if (i % 2 == 0) continue; if (i > 9) break; t += 1.0; } return vec4(t);'),
  ],
  ['for with two steps', paint('float t = 0.0; for (int i = 0, j = 9; i < j; i++, j--) { t += float(j - i); } return vec4(t);')],
  ['while and do', paint('int i = 0; while (i < 5) { i++; } do { i += 2; } while (i < 20); return vec4(float(i));')],
  ['a loop without an end', paint('float t = 0.0; while (true) { t += 1.0; } return vec4(t);')],
  [
    'a loop up to a parameter',
    paint('float t = 0.0; for (int i = 0; i < n; i++) { for (int j = 0; j < n; j++) { t += 1.0; } } return vec4(t);', 'uniform int n;'),
  ],
  [
    'a return in a loop',
    paint(
      'return vec4(first(s.uv.x));',
      'float first(float x) { for (int i = 0; i < 10; i++) { if (float(i) > x) { return float(i); } } return 10.0; }',
    ),
  ],
  ['an early return', paint('if (s.uv.x > 0.5) return vec4(1.0); else if (s.uv.y > 0.5) return vec4(0.5); return vec4(0.0);')],
  ['discard', paint('if (s.uv.x > 0.5) discard; return vec4(1.0);')],
  [
    'names of GLSL as names',
    paint(
      'float sample_ = 1.0; float filter_ = 2.0; float lerp = 3.0; float texture2D = 4.0; return vec4(sample_, filter_, lerp, texture2D);',
    ),
  ],
  ['names with underscores', paint('float a__b = 1.0; float a_b = 2.0; float _c = 3.0; return vec4(a__b, a_b, _c, 1.0);')],
  ['a variable called like a function of the library', paint('float rim = 1.0; float lambert = 2.0; return vec4(rim, lambert, 0.0, 1.0);')],
  [
    'functions called like those of the library',
    paint(
      'return vec4(rim(1.0), luminanceOf(s.normal), 0.0, 1.0);',
      'float rim(float x) { return x; }\nfloat luminanceOf(vec3 c) { return c.g; }',
    ),
  ],
  [
    'functions called like those of programs',
    paint(
      'return vec4(linesAt(1.0), viewOf(1.0, s.normal));',
      'float linesAt(float v) { return v; }\nvec3 viewOf(float v, vec3 l) { return l * v; }',
    ),
  ],
  [
    'parameters called like what is there',
    paint('return vec4(worldPosition, pixel) * frameTime;', 'uniform vec3 worldPosition;\nuniform float pixel;\nuniform float frameTime;'),
  ],
  ['a struct called like one of the library', paint('Place p = Place(1.0); return vec4(p.a);', 'struct Place { float a; };')],
  [
    'a value carried under a name of the library',
    {
      text: 'out vec3 worldNormal;\nvoid shape(inout Shape s) { worldNormal = s.normal; }\nvec4 paint(Surface s) { return vec4(worldNormal, 1.0); }',
    },
  ],
  [
    'a long name',
    paint(`float ${'a'.repeat(300)} = 1.0; float ${'a'.repeat(299)} = 2.0; return vec4(${'a'.repeat(300)} + ${'a'.repeat(299)});`),
  ],
  [
    'numbers in all spellings',
    paint(
      'float a = 1.; float b = .5; float c = 1e3; float d = 2.5e-2; float e = 1.0f; int i = 0x1F; uint u = 7u; return vec4(a + b, c + d, e, float(i) + float(u));',
    ),
  ],
  [
    'bits',
    paint(
      'int a = 5; a &= 3; a |= 8; a ^= 1; a <<= 2; a >>= 1; a %= 7; uint b = ~0u; return vec4(float(a), float(b >> 4u), float(a << 1), 1.0);',
    ),
  ],
  ['bool arithmetic', paint('bool a = s.uv.x > 0.5; bool b = !a; bool c = a ^^ b && (a || b); return vec4(c ? 1.0 : 0.0);')],
  [
    'matrices',
    paint(
      'mat2 m = mat2(1.0, 2.0, 3.0, 4.0); mat3 n = mat3(m); mat4 o = mat4(n); o *= 2.0; return o * vec4(m * s.uv, n * s.normal * vec3(0.1));'.replace(
        'vec4(m * s.uv, n * s.normal * vec3(0.1))',
        'vec4(m * s.uv, (n * s.normal).xy)',
      ),
    ),
  ],
  [
    'textures of all kinds',
    paint(
      'ivec2 size = textureSize(map, 0); vec4 c = texelFetch(map, ivec2(s.uv * vec2(size)), 0); c += textureGrad(map, s.uv, dFdx(s.uv), dFdy(s.uv)); c += read(map, s.uv); return c;',
      'uniform sampler2D map;\nvec4 read(sampler2D image, vec2 at) { return textureLod(image, at, 1.0); }',
    ),
  ],
  ['derivatives', paint('return vec4(dFdx(s.uv), fwidth(s.uv.x), dFdy(gl_FragCoord.y));')],
  ['both sides', paint('return vec4(gl_FrontFacing ? 1.0 : 0.0);')],
  [
    'functions of the library',
    {
      text: 'Lit paint(Surface s) { vec3 c = mixValues(vec3(1.0), vec3(0.2), fractalNoise(s.position, 3.0, 4.0, 0.5, 2.0)); return blinnPhong(c, vec3(0.4), 30.0, s.normal, s.toEye); }',
    },
  ],
  ['many lines', paint(`float t = 0.0;\n${Array.from({ length: 900 }, (_, index) => `t += ${index}.0;`).join('\n')}\nreturn vec4(t);`)],
  ['deep brackets', paint(`return vec4(${'('.repeat(60)}1.0${')'.repeat(60)});`)],
  ['a long row', paint(`float t = ${Array.from({ length: 400 }, (_, index) => `${index}.0`).join(' + ')}; return vec4(t);`)],
  ['unusual letters in comments', paint('/* ñ 漢字 🜁 \u202e */ return vec4(1.0); // — ﬁ\n')],
  ['the smallest whole program', whole('out vec4 pixel;\nvoid main() { pixel = vec4(1.0); }')],
  [
    'a whole program with what comes in',
    whole('in vec3 normal;\nin vec2 uv;\nuniform float time;\nout vec4 pixel;\nvoid main() { pixel = vec4(normal * sin(time), uv.x); }'),
  ],
  [
    'a whole program in two stages',
    whole(
      '#version 300 es\nprecision highp float;\nin vec3 vNormal;\nuniform vec3 sunDirection;\nuniform vec3 tint;\nout vec4 colour;\nvoid main() { colour = vec4(tint * max(dot(normalize(vNormal), sunDirection), 0.0), 1.0); }',
      '#version 300 es\nin vec3 position;\nin vec3 normal;\nuniform mat4 clipFromObject;\nuniform mat3 worldNormalFromObject;\nout vec3 vNormal;\nvoid main() { vNormal = worldNormalFromObject * normal; gl_Position = clipFromObject * vec4(position, 1.0); }',
    ),
  ],
  [
    'a whole program with an early return',
    whole('out vec4 pixel;\nuniform float k;\nvoid main() { pixel = vec4(0.0); if (k > 0.5) { return; } pixel = vec4(1.0); }'),
  ],
  [
    'a whole program with all that is given',
    whole(
      'uniform vec3 eye;\nuniform vec2 pictureSize;\nuniform vec3 sunColour;\nuniform vec3 ambientColour;\nout vec4 pixel;\nvoid main() { pixel = vec4(eye + sunColour + ambientColour, pictureSize.x); }',
      'in vec3 position;\nin vec4 tangent;\nin vec2 uv;\nin vec2 uv2;\nin vec4 colour;\nin float copy;\nuniform mat4 worldFromObject;\nuniform mat4 viewFromWorld;\nuniform mat4 viewFromObject;\nuniform mat4 clipFromWorld;\nuniform mat3 viewNormalFromObject;\nuniform float time;\nvoid main() { vec4 p = worldFromObject * vec4(position, 1.0); p.x += uv.x + uv2.y + colour.r + copy + tangent.x + time; gl_Position = clipFromWorld * p + 0.0 * (viewFromObject * p + viewFromWorld * p) + vec4(viewNormalFromObject * position, 0.0) * 0.0; }',
    ),
  ],
];

/** Programs that are right, and that every driver must take. */
export const RIGHT_PROGRAMS: readonly (readonly [string, MaterialCode])[] = [...builtinPrograms(), ...OTHERS];
