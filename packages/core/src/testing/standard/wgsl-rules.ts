import { WGSL_BUILTIN_NAMES } from '../../language/wgsl/wgsl-calls';
import type { Row, Rule } from './rule';
import { WGSL_BUILTIN_RULES } from './wgsl-builtin-rules';
import { wgslRules } from './wgsl-rule';

const SCALARS = [
  ['f32', '1.5'],
  ['i32', '2i'],
  ['u32', '2u'],
  ['bool', 'true'],
] as const;

const CONVERSIONS: Row[] = SCALARS.flatMap(([to]) =>
  SCALARS.map(([from, value]): Row => [
    `${to}(${from})`,
    `let a: ${to} = ${to}(${value}); _ = a;`,
    `let a: ${to} = ‹${to}(${value}, ${value}); _ = a;`,
    'needs 1',
  ]),
);

const VECTORS: Row[] = [2, 3, 4].flatMap((size) =>
  [
    ['f32', 'f', '1.0'],
    ['i32', 'i', '1'],
    ['u32', 'u', '1u'],
  ].map(([scalar = '', letter = '', one = '']): Row => [
    `vec${size}<${scalar}> and vec${size}${letter}`,
    `var a: vec${size}<${scalar}> = vec${size}${letter}(${Array(size).fill(one).join(', ')}); a = vec${size}(${one}); _ = a;`,
    `let a: vec${size}${letter} = ‹vec${size === 4 ? 2 : size + 1}${letter}(${one}); _ = a;`,
    'must be',
  ]),
);

const MATRICES: Row[] = [2, 3, 4].flatMap((columns) =>
  [2, 3, 4].map((rows): Row => [
    `mat${columns}x${rows}`,
    `let a = mat${columns}x${rows}f(${Array(columns).fill(`vec${rows}f(1.0)`).join(', ')}); let b: vec${rows}f = a[${columns - 1}]; _ = b;`,
    `let a = mat${columns}x${rows}f(${Array(columns).fill(`vec${rows}f(1.0)`).join(', ')}); let b = a[‹${columns}]; _ = b;`,
    'from 0',
  ]),
);

const ARITHMETIC: Row[] = ['+', '-', '*', '/', '%'].flatMap((operator): Row[] => [
  [
    `f32 ${operator} f32`,
    `var a = 1.0; let b = a ${operator} 2.0; _ = b;`,
    `var a = 1.0; let b = ‹a ${operator} 2i; _ = b;`,
    'does not work between',
  ],
  [
    `i32 ${operator} i32`,
    `var a = 1i; let b = a ${operator} 2; _ = b;`,
    `var a = 1i; let b = ‹a ${operator} 2u; _ = b;`,
    'does not work between',
  ],
  [
    `vector ${operator} number`,
    `var a = vec3f(1.0); let b = a ${operator} 2.0; _ = b;`,
    `var a = vec3f(1.0); let b = ‹a ${operator} vec2f(1.0); _ = b;`,
    'does not work between',
  ],
  [
    `abstract ${operator} abstract`,
    `const a = 7 ${operator} 2; const b = 7.0 ${operator} 2; _ = a; _ = b;`,
    `const a = ‹7 ${operator} true; _ = a;`,
    'does not work between',
  ],
]);

const BITS: Row[] = ['&', '|', '^'].map((operator): Row => [
  `a ${operator} b`,
  `var a = 6u; let b = a ${operator} 3u; let c = vec2i(1) ${operator} vec2i(3); _ = b; _ = c;`,
  `var a = 6.0; let b = ‹a ${operator} 3.0; _ = b;`,
  'does not work between',
]);

const COMPARED: Row[] = ['<', '>', '<=', '>=', '==', '!='].map((operator): Row => [
  `a ${operator} b`,
  `var a = 1.0; let b: bool = a ${operator} 2.0; let c: vec2<bool> = vec2f(a) ${operator} vec2f(1.0); _ = b; _ = c;`,
  `var a = 1.0; let b = ‹a ${operator} 2u; _ = b;`,
  'does not work between',
]);

const ASSIGNED: Row[] = ['+=', '-=', '*=', '/=', '%='].map((operator): Row => [
  `a ${operator} b`,
  `var a = 5.0; a ${operator} 2.0; var b = vec2f(5.0); b ${operator} 2.0; b.x ${operator} a;`,
  `var a = 5.0; ‹a ${operator} 2i;`,
  'does not work between',
]);

const IMAGE = '@group(0) @binding(0) var map: texture_2d<f32>;\n@group(0) @binding(1) var linear: sampler;\n¦';

/** “WebGPU Shading Language”, W3C; sections by their titles, since their numbers move. */
export const WGSL_RULES: readonly Rule[] = [
  ...wgslRules('Comments', [
    ['line comments', 'let a = 1; // § "anything"\n _ = a;', 'let a = 1; ‹§ _ = a;', 'no meaning'],
    ['block comments nest', 'let a = /* /* § */ */ 1; _ = a;', 'let a = 1; ‹/* /* */ _ = a;', 'never closed'],
  ]),
  ...wgslRules('Literals', [
    ['whole numbers', 'let a = 12; let b = 0x1F; let c = 12i; let d = 12u; _ = a; _ = b; _ = c; _ = d;', 'let a = ‹012; _ = a;', 'neither'],
    [
      'numbers with a point',
      'let a = 1.5; let b = .5; let c = 1.; let d = 1e3; let e = 1.5f; let g = 2f; _ = a; _ = b; _ = c; _ = d; _ = e; _ = g;',
      'let a = ‹1.5g; _ = a;',
      'neither',
    ],
    ['hexadecimal floats', 'let a = 0x1.8p1; let b = 0x.8p0; _ = a; _ = b;', 'let a: i32 = ‹0x1.8p1; _ = a;', 'must be i32'],
    ['i32 holds 31 bits', 'let a = 2147483647i; _ = a;', 'let a = ‹2147483648i; _ = a;', 'too large'],
    ['u32 holds 32 bits', 'let a = 4294967295u; _ = a;', 'let a = ‹4294967296u; _ = a;', 'too large'],
    ['bool', 'let a = true; let b = false; _ = a; _ = b;', 'let a: bool = ‹1; _ = a;', 'must be bool'],
  ]),
  ...wgslRules('Identifiers', [
    ['letters of all languages', 'let größe = 1; _ = größe;', 'let a‹§ = 1; _ = a;', 'no meaning'],
    ['declared before they are used', 'let a = 1; let b = a; _ = b;', 'let b = ‹a; let a = 1; _ = b;', 'Nothing here is called'],
    ['each once in a block', 'let a = 1; { let a = 2; _ = a; } _ = a;', 'let a = 1; let ‹a = 2; _ = a;', 'already declared'],
    ['a name ends with its block', '{ let a = 1; _ = a; }', '{ let a = 1; _ = a; } _ = ‹a;', 'Nothing here is called'],
  ]),
  ...wgslRules('Types', [
    ...CONVERSIONS,
    ...VECTORS,
    ...MATRICES,
    ['no unknown types', 'var a: f32; _ = a;', 'var a: ‹f33; _ = a;', 'no type'],
    ['types of other languages', 'var a: f32; _ = a;', 'var a: ‹float; _ = a;', 'another language'],
    ['a vector needs what it is of', 'var a: vec3<f32>; _ = a;', 'var a: ‹vec3; _ = a;', 'Say of what'],
    ['arrays', 'var a = array<f32, 3>(1.0, 2.0, 3.0); a[1] = 4.0;', 'var a = ‹array<f32, 3>(1.0, 2.0); _ = a[0];', 'takes 3'],
    [
      'arrays by their parts',
      'var a = array(1.0, 2.0); a[1] = 4.0;',
      'let a = ‹array(); _ = a;',
      'needs its parts, or the type of them: array<f32, 4>()',
    ],
    [
      'a length is constant',
      'const n = 2; var a: array<f32, n * 2>; a[3] = 1.0;',
      'let n = 2; var a: array<f32, ‹n>; _ = a[0];',
      'constant',
    ],
    ['an index is in range', 'var a: array<f32, 3>; a[2] = 1.0;', 'var a: array<f32, 3>; a[‹3] = 1.0;', 'from 0 to 2'],
    ['arrays of arrays are refused by name', 'struct Row { x: array<f32, 2> }\n¦ var a: array<Row, 2>; a[1].x[0] = 1.0;'],
    [
      'structs',
      'struct Ray { start: vec3f, along: vec3f, }\n¦ let r = Ray(vec3f(), vec3f(1.0)); pixel = vec4f(r.along, 1.0);',
      'struct Ray { start: vec3f }\n¦ let r = ‹Ray(vec3f(), 1.0); _ = r.start;',
      'takes 1',
    ],
    [
      'members by name',
      'struct S { a: f32 }\n¦ let s = S(1.0); pixel.x = s.a;',
      'struct S { a: f32 }\n¦ let s = S(1.0); pixel.x = s.‹b;',
      'no member',
    ],
    ['members are parted by commas', 'struct S { a: f32, b: f32 }\n¦', 'struct S { a: f32‹; b: f32 }\n¦', 'parted'],
    ['each member once', 'struct S { a: f32, b: f32 }\n¦', 'struct S { a: f32, ‹a: f32 }\n¦', 'two members'],
    ['at least one member', 'struct S { a: f32 }\n¦', 'struct ‹S { }\n¦', 'at least one'],
    ['alias', 'alias Colour = vec3f;\n¦ let c: Colour = Colour(1.0); _ = c;', 'alias Colour = ‹vec5f;\n¦', 'no type'],
    [
      'structs may be declared later',
      'fn f(s: S) -> f32 { return s.a; }\nstruct S { a: f32 }\n¦ pixel.x = f(S(1.0));',
      'fn f(s: ‹T) -> f32 { return s.a; }\nstruct S { a: f32 }\n¦',
      'no type',
    ],
    ['no struct in itself', 'struct S { a: f32 }\n¦', 'struct ‹S { a: S }\n¦', 'made of itself'],
    [
      'the zero value',
      'let a = vec3f(); let b = f32(); let c = array<i32, 2>(); _ = a; _ = b; _ = c;',
      'let a: vec2f = ‹vec3f(); _ = a;',
      'must be vec2f',
    ],
  ]),
  ...wgslRules('Abstract numbers', [
    [
      'a whole number becomes what is wanted',
      'let a: f32 = 1; let b: u32 = 2; let c: i32 = 3; _ = a; _ = b; _ = c;',
      'let a: u32 = ‹-1; _ = a;',
      'must be u32',
    ],
    ['one with a point becomes f32', 'let a: f32 = 1.5; _ = a;', 'let a: i32 = ‹1.5; _ = a;', 'must be i32'],
    [
      'alone they are i32 and f32',
      'let a = 1; let b: i32 = a; let c = 1.0; let d: f32 = c; _ = b; _ = d;',
      'let a = 1; let b: u32 = ‹a; _ = b;',
      'must be u32',
    ],
    [
      'vectors of them',
      'let a: vec2f = vec2(1, 2); let b: vec3u = vec3(1); _ = a; _ = b;',
      'let a: vec2u = ‹vec2(1.5, 2); _ = a;',
      'must be vec2u',
    ],
    [
      'constants keep them',
      'const a = 2; let b: f32 = a * 1.5; let c: u32 = a; _ = b; _ = c;',
      'const a = 2.5; let b: u32 = ‹a; _ = b;',
      'must be u32',
    ],
    ['beside a typed one', 'var a = 1.5; let b = 2 * a + 1; _ = b;', 'var a = 1i; let b = ‹1.5 * a; _ = b;', 'does not work between'],
  ]),
  ...wgslRules('Variables', [
    ['let', 'let a = 1.0; let b: f32 = 2.0; _ = a + b;', 'let a = 1.0; ‹a = 2.0;', 'keeps its value'],
    ['let needs a value', 'let a = 1; _ = a;', 'let ‹a: f32; _ = a;', 'needs a value'],
    ['var', 'var a: f32; a = 1.0; var b = 2.0; b = a;', 'var ‹a; _ = a;', 'needs a type or a value'],
    ['const', 'const a = 1.0; const b = a * 2.0; _ = b;', 'var x = 1.0; const a = ‹x; _ = a;', 'known beforehand'],
    [
      'const outside',
      'const a = 1.0;\nconst b: f32 = a + c;\nconst c = 3.0;\n¦ pixel.x = b;',
      'const a = 1.0;\n¦ ‹a = 2.0;',
      'only be read',
    ],
    ['a value of its type', 'let a: f32 = 1.0; _ = a;', 'let a: f32 = ‹true; _ = a;', 'must be f32'],
    ['override', 'override strength: f32 = 0.5;\n¦ pixel.x = strength;', 'override ‹strength: vec2f = vec2f();\n¦', 'override'],
    ['private variables', 'var<private> count: i32 = 3;\n¦ count += 1; pixel.x = f32(count);', 'var ‹count: i32 = 3;\n¦', 'where'],
    [
      'uniforms',
      '@group(0) @binding(0) var<uniform> glow: f32;\n¦ pixel.x = glow;',
      '@group(0) @binding(0) var<uniform> glow: f32;\n¦ ‹glow = 1.0;',
      'only be read',
    ],
    [
      'uniforms of structs',
      'struct Wind { along: vec3f, strength: f32 }\n@group(0) @binding(0) var<uniform> wind: Wind;\n¦ pixel = vec4f(wind.along * wind.strength, 1.0);',
      'struct Wind { strength: f32 }\n@group(0) @binding(0) var<uniform> wind: Wind;\n¦ pixel.x = wind.‹along;',
      'no member',
    ],
    ['each name once', 'const a = 1.0;\n¦', 'const a = 1.0;\nconst ‹a = 2.0;\n¦', 'already defined'],
    ['no let outside', 'const a = 1.0;\n¦', '‹let a = 1.0;\n¦', 'inside of functions'],
    ['made of itself', 'const a = 1.0;\n¦', 'const ‹a = b;\nconst b = a;\n¦', 'is made of itself'],
    ['const_assert', 'const_assert 1 < 2;\n¦ const_assert true;', 'const_assert ‹1 > 2;\n¦', 'does not hold'],
  ]),
  ...wgslRules('Expressions', [
    ...ARITHMETIC,
    ...BITS,
    ...COMPARED,
    ['brackets', 'let a = (1.0 + 2.0) * 3.0; _ = a;', 'let a = (1.0 + 2.0 * 3.0‹; _ = a;', 'Expected ")"'],
    [
      '− ! ~',
      'var x = 1i; let a = -x; let b = !true; let c = ~x; let d = -vec2f(1.0); _ = a; _ = b; _ = c; _ = d;',
      'var x = 1u; let a = ‹-x; _ = a;',
      'does not work on',
    ],
    ['! is for bool', 'let a = !true; _ = a;', 'var x = 1.0; let a = !‹x; _ = a;', 'turns round a bool'],
    ['~ is for whole numbers', 'let a = ~1u; _ = a;', 'var x = 1.0; let a = ‹~x; _ = a;', 'does not work on'],
    [
      '&& and ||',
      'let a = true && false; let b = true || false; _ = a; _ = b;',
      'var x = 1; let a = ‹x && true; _ = a;',
      'does not work between',
    ],
    [
      '& and | of bools',
      'var x = true; let a = x & false; let b = x | false; _ = a; _ = b;',
      'var x = true; let a = ‹x ^ false; _ = a;',
      'does not work between',
    ],
    [
      'shifts',
      'var a = 1u; let b = a << 3u; let c = a >> 1u; _ = b; _ = c;',
      'var a = 1u; let b = ‹a << 3i; _ = b;',
      'does not work between',
    ],
    ['brackets between & and |', 'var a = 1u; let b = (a & 2u) | 4u; _ = b;', 'var a = 1u; let b = a & 2u ‹| 4u; _ = b;', 'brackets'],
    ['brackets between && and ||', 'var a = true; let b = (a && a) || a; _ = b;', 'var a = true; let b = a && a ‹|| a; _ = b;', 'brackets'],
    ['one comparison', 'var a = 1.0; let b = a < 2.0; _ = b;', 'var a = 1.0; let b = a < 2.0 ‹< 3.0; _ = b;', 'brackets'],
    [
      'matrix times vector',
      'let a: vec3f = mat2x3f() * vec2f(1.0); _ = a;',
      'let a = ‹mat2x3f() * vec3f(1.0); _ = a;',
      'does not work between',
    ],
    [
      'vector times matrix',
      'let a: vec2f = vec3f(1.0) * mat2x3f(); _ = a;',
      'let a = ‹vec2f(1.0) * mat2x3f(); _ = a;',
      'does not work between',
    ],
    [
      'matrix times matrix',
      'let a: mat4x3f = mat2x3f() * mat4x2f(); _ = a;',
      'let a = ‹mat2x3f() * mat4x3f(); _ = a;',
      'does not work between',
    ],
    ['matrix plus matrix', 'let a = mat2x2f() + mat2x2f(); _ = a;', 'let a = ‹mat2x2f() + 1.0; _ = a;', 'does not work between'],
    [
      'components',
      'let a = vec4f(1.0); let b = a.xyz; let c = a.rg; let d = b.zyx.y; _ = c; _ = d;',
      'let a = vec2f(1.0); let b = a.‹z; _ = b;',
      'only 2',
    ],
    ['one set of letters', 'let a = vec4f(1.0); let b = a.rgba; _ = b;', 'let a = vec4f(1.0); let b = a.‹xg; _ = b;', 'one set'],
    [
      'an index',
      'var a = vec3f(1.0); let i = 1; let b = a[i]; let c = a[2u]; _ = b; _ = c;',
      'var a = vec3f(1.0); let b = a[‹1.5]; _ = b;',
      'An index',
    ],
    ['vectors from parts', 'let a = vec4f(vec2f(1.0), 2.0, 3.0); _ = a;', 'let a = ‹vec4f(vec2f(1.0), 2.0); _ = a;', 'needs 4'],
    ['vectors from one number', 'let a = vec3f(1.0); _ = a;', 'let a = vec3f(‹1u); _ = a;', 'parts'],
    ['vectors of another scalar', 'let a = vec2i(vec2f(1.5)); _ = a;', 'let a = vec2i(‹1.5, 2.5); _ = a;', 'parts'],
    ['a name is no function', 'let a = 1.0; _ = a;', 'let a = 1.0; let b = ‹a(1.0); _ = b;', 'is a variable'],
    ['no “?”', 'let a = select(1.0, 2.0, true); _ = a;', 'let a = true ‹? 1.0 : 2.0; _ = a;', '"?" has no meaning'],
    ['no “+” before a number', 'let a = 1.0; _ = a;', 'let a = ‹+1.0; _ = a;', 'no “+”'],
    ['pointers', 'var a = 1.0; let p = &a; *p = 2.0; pixel.x = *p;', 'var a = 1.0; let p = &‹3.0; _ = a;', 'Only a variable'],
  ]),
  ...wgslRules('Statements', [
    ['a semicolon', 'var a = 1.0; a = 2.0;', 'var a = 1.0‹\n a = 2.0;', 'Expected ";"'],
    ['assignment', 'var a = 1.0; a = 2.0;', '‹1.0 = 2.0;', 'Only a variable can be assigned to'],
    ...ASSIGNED,
    [
      'assignment to a component',
      'var a = vec2f(1.0); a.x = 2.0; a[1] = 3.0; a.yx = vec2f(1.0);',
      'var a = vec3f(1.0); a.‹xx = vec2f(1.0);',
      'only once',
    ],
    [
      'assignment to a member',
      'struct S { a: f32 }\n¦ var s = S(1.0); s.a = 2.0;',
      'struct S { a: f32 }\n¦ let s = S(1.0); ‹s.a = 2.0;',
      'keeps its value',
    ],
    ['the phony assignment', '_ = 1.0 + 2.0;', '_ = ‹1.0 + 2u;', 'does not work between'],
    ['counting', 'var i = 0; i++; i--;', 'var a = 1.0; ‹a++;', 'counts'],
    ['a value alone is no statement', 'let a = 1.0; _ = a;', 'var a = 1.0; ‹a;', 'Expected a statement'],
    [
      'if',
      'if pixel.x > 0.0 { pixel.y = 1.0; } else if (true) { pixel.y = 2.0; } else { pixel.y = 3.0; }',
      'if ‹pixel.x { pixel.y = 1.0; }',
      'must be bool',
    ],
    ['else follows an if', 'if true { }', '‹else { }', 'belongs to no'],
    [
      'switch',
      'switch i32(pixel.x) { case 0: { pixel.y = 1.0; } case 1, 2 { pixel.y = 2.0; } default: { pixel.y = 3.0; } }',
      'switch ‹pixel.x { default: { } }',
      'i32 or u32',
    ],
    ['switch has a default', 'switch 1 { case 1, default: { } }', '‹switch 1 { case 1: { } }', 'default'],
    ['one default', 'switch 1 { default: { } }', 'switch 1 { default: { } ‹default: { } }', 'one “default”'],
    ['each case once', 'switch 1 { case 1: { } default: { } }', 'switch 1 { case 1: { } case ‹1: { } default: { } }', 'twice'],
    [
      'cases are constant',
      'const one = 1; switch 1 { case one: { } default: { } }',
      'var x = 1; switch 1 { case ‹x: { } default: { } }',
      'constant',
    ],
    ['loop', 'var i = 0; loop { if i > 3 { break; } i++; }', 'var i = 0; loop { if ‹i { break; } i++; }', 'must be bool'],
    [
      'continuing',
      'var i = 0; loop { if i == 2 { continue; } pixel.x += 1.0; continuing { i++; break if i > 4; } }',
      'var i = 0; loop { continuing { i++; break if ‹i; } }',
      'must be bool',
    ],
    [
      'continuing reads what the body declares',
      'var i = 0; loop { let step = 2; continuing { i += step; break if i > 4; } }',
      'var i = 0; loop { { let pace = 2; _ = pace; } continuing { i += ‹pace; break if i > 4; } }',
      'Nothing here is called',
    ],
    ['break if', 'var i = 0; loop { continuing { i++; break if i > 3; } }', 'var i = 0; loop { ‹break if i > 3; i++; }', 'continuing'],
    ['for', 'for (var i = 0; i < 4; i++) { pixel.x += 1.0; }', 'for (var i = 0; ‹i; i++) { }', 'must be bool'],
    ['for without parts', 'var i = 0; for (;;) { i++; if i > 3 { break; } }', 'for (‹) { }', 'Expected'],
    ['while', 'var i = 0; while i < 4 { i++; }', 'var i = 0; while ‹i { i++; }', 'must be bool'],
    ['break', 'loop { break; }', '‹break;', 'inside a loop'],
    ['continue', 'for (var i = 0; i < 3; i++) { continue; }', '‹continue;', 'inside a loop'],
    ['return', 'if pixel.x > 1.0 { return pixel; }', '‹return;', 'Expected a'],
    ['of its type', 'return vec4f(1.0);', 'return ‹1.0;', 'must be vec4f'],
    ['discard', 'if pixel.x > 1.0 { discard; }', 'discard‹', 'Expected ";"'],
    ['no do', 'loop { break; }', '‹do { } while (true);', 'WGSL has no “do”'],
  ]),
  ...wgslRules('Functions', [
    [
      'functions',
      'fn twice(a: f32) -> f32 { return a * 2.0; }\n¦ pixel.x = twice(1.0);',
      'fn twice(a: f32) -> f32 { return a * 2.0; }\n¦ pixel.x = twice(‹true);',
      'takes f32',
    ],
    [
      'in any order',
      'fn a() -> f32 { return b(); }\nfn b() -> f32 { return 1.0; }\n¦ pixel.x = a();',
      'fn a() -> f32 { return ‹c(); }\nfn b() -> f32 { return 1.0; }\n¦ pixel.x = a();',
      'no function',
    ],
    [
      'the number of arguments',
      'fn f(a: f32, b: f32) -> f32 { return a + b; }\n¦ pixel.x = f(1.0, 2.0);',
      'fn f(a: f32) -> f32 { return a; }\n¦ pixel.x = ‹f(1.0, 2.0);',
      'does not take',
    ],
    [
      'abstract arguments',
      'fn f(a: f32, b: u32) -> f32 { return a + f32(b); }\n¦ pixel.x = f(1, 2);',
      'fn f(a: f32, b: u32) -> f32 { return a + f32(b); }\n¦ pixel.x = f(1, ‹2.5);',
      'takes u32',
    ],
    [
      'parameters keep their value',
      'fn f(a: f32) -> f32 { var b = a; b += 1.0; return b; }\n¦ pixel.x = f(1.0);',
      'fn f(a: f32) -> f32 { ‹a = 1.0; return a; }\n¦',
      'keeps its value',
    ],
    [
      'pointers',
      'fn f(a: ptr<function, f32>) { *a = 2.0; }\n¦ var x = 1.0; f(&x); pixel.x = x;',
      'fn f(a: ptr<function, f32>) { *a = 2.0; }\n¦ var x = 1.0; f(‹x);',
      'pointer',
    ],
    [
      'pointers handed on',
      'fn g(a: ptr<function, f32>) { *a += 1.0; }\nfn f(a: ptr<function, f32>) { g(a); }\n¦ var x = 1.0; f(&x); pixel.x = x;',
      'fn g(a: ptr<function, f32>) { *a += 1.0; }\nfn f(a: ptr<function, f32>) { g(‹*a); }\n¦ var x = 1.0; f(&x); pixel.x = x;',
      'pointer',
    ],
    [
      'a result on every way',
      'fn f(a: bool) -> f32 { if a { return 1.0; } else { return 2.0; } }\n¦ pixel.x = f(true);',
      'fn ‹f(a: bool) -> f32 { if a { return 1.0; } }\n¦ pixel.x = f(true);',
      'every way',
    ],
    ['nothing from a function without a result', 'fn f() { return; }\n¦ f();', 'fn f() { return ‹1.0; }\n¦', 'returns nothing'],
    [
      'no recursion',
      'fn f(a: f32) -> f32 { return a; }\n¦ pixel.x = f(1.0);',
      'fn ‹f(a: f32) -> f32 { return f(a); }\n¦ pixel.x = f(1.0);',
      'calls itself',
    ],
    ['each once', 'fn f() { }\n¦ f();', 'fn f() { }\nfn ‹f() { }\n¦', 'already defined'],
    ['each parameter once', 'fn f(a: f32, b: f32) { _ = a + b; }\n¦', 'fn f(a: f32, ‹a: f32) { }\n¦', 'Two parameters'],
    ['a parameter has a type', 'fn f(a: f32) { _ = a; }\n¦', 'fn f(a‹) { }\n¦', 'Expected ":"'],
    ['no unknown function', 'pixel.x = sin(1.0);', 'pixel.x = ‹sinn(1.0);', 'no function'],
    ['functions stand outside', 'fn f() { }\n¦ f();', '‹fn f() { }', 'cannot stand inside another'],
    [
      'a trailing comma',
      'fn f(a: f32, b: f32,) -> f32 { return a + b; }\n¦ pixel.x = f(1.0, 2.0,);',
      'fn f(a: f32, b: f32,) -> f32 { return a + b; }\n¦ pixel.x = f(1.0,‹,);',
      'Expected a value',
    ],
  ]),
  ...wgslRules('Images', [
    [
      'textureSample',
      `${IMAGE} pixel = textureSample(map, linear, vec2f(0.5));`,
      `${IMAGE} pixel = textureSample(map, ‹map, vec2f(0.5));`,
      'sampler',
    ],
    [
      'textureSampleLevel',
      `${IMAGE} pixel = textureSampleLevel(map, linear, vec2f(0.5), 0.0);`,
      `${IMAGE} pixel = ‹textureSampleLevel(map, linear, vec3f(0.5), 0.0);`,
      'does not read',
    ],
    [
      'textureSampleBias',
      `${IMAGE} pixel = textureSampleBias(map, linear, vec2f(0.5), 1.0);`,
      `${IMAGE} pixel = ‹textureSampleBias(map, linear, vec2f(0.5), true);`,
      'does not read',
    ],
    [
      'textureSampleGrad',
      `${IMAGE} pixel = textureSampleGrad(map, linear, vec2f(0.5), vec2f(0.1), vec2f(0.1));`,
      `${IMAGE} pixel = ‹textureSampleGrad(map, linear, vec2f(0.5), 1.0, 2.0);`,
      'does not read',
    ],
    [
      'textureLoad',
      `${IMAGE} pixel = textureLoad(map, vec2i(1, 2), 0);`,
      `${IMAGE} pixel = ‹textureLoad(map, vec3i(1), 0);`,
      'does not read',
    ],
    [
      'textureDimensions',
      `${IMAGE} let size: vec2u = textureDimensions(map); _ = size;`,
      `${IMAGE} let size: vec2i = ‹textureDimensions(map); _ = size;`,
      'must be vec2i',
    ],
    [
      'cube images',
      '@group(0) @binding(0) var sky: texture_cube<f32>;\n@group(0) @binding(1) var linear: sampler;\n¦ pixel = textureSample(sky, linear, vec3f(1.0));',
      '@group(0) @binding(0) var sky: texture_cube<f32>;\n@group(0) @binding(1) var linear: sampler;\n¦ pixel = ‹textureSample(sky, linear, vec2f(1.0));',
      'does not read',
    ],
    [
      'images handed on',
      `@group(0) @binding(0) var map: texture_2d<f32>;\n@group(0) @binding(1) var linear: sampler;\nfn read(image: texture_2d<f32>, s: sampler, at: vec2f) -> vec4f { return textureSampleLevel(image, s, at, 0.0); }\n¦ pixel = read(map, linear, vec2f(0.5));`,
      `@group(0) @binding(0) var map: texture_2d<f32>;\n@group(0) @binding(1) var linear: sampler;\nfn read(image: texture_2d<f32>, s: sampler, at: vec2f) -> vec4f { return textureSampleLevel(image, s, at, 0.0); }\n¦ pixel = ‹read(map, vec2f(0.5));`,
      'takes 1 sampler here, but 0 are given',
    ],
  ]),
  ...wgslRules('Entry points', [
    ['attributes', '@diagnostic(off, derivative_uniformity) fn f() { }\n¦ f();'],
    ['directives', 'diagnostic(off, derivative_uniformity);\n¦'],
  ]),
  ...WGSL_BUILTIN_RULES,
];

/** Names of built-in functions that a rule calls. */
export const WGSL_NAMES_TESTED = WGSL_BUILTIN_NAMES.filter((name) =>
  WGSL_RULES.some(({ right }) => right.includes(`${name}(`) || right.includes(`${name}<`)),
);
