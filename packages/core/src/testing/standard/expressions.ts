import { rules, type Row } from './rule';

const SCALARS = [
  ['float', '1.5'],
  ['int', '2'],
  ['uint', '2u'],
  ['bool', 'true'],
] as const;

/** Each scalar out of each. */
const CONVERSIONS: Row[] = SCALARS.flatMap(([to]) =>
  SCALARS.map(([from, value]): Row => [`${to}(${from})`, `${to} a = ${to}(${value});`, `${to} a = ‹${to}();`, 'needs']),
);

const ARITHMETIC: Row[] = ['+', '-', '*', '/'].flatMap((operator): Row[] => [
  [`float ${operator} float`, `float a = 1.0 ${operator} 2.0;`, `float a = 1.0 ${operator} ‹2;`, 'do not mix'],
  [`int ${operator} int`, `int a = 7 ${operator} 2;`, `int a = ‹7 ${operator} 2u;`, 'does not work between'],
  [
    `vector ${operator} vector`,
    `vec2 a = vec2(1.0) ${operator} vec2(2.0);`,
    `vec2 a = ‹vec2(1.0) ${operator} vec3(2.0);`,
    'does not work between',
  ],
  [`vector ${operator} number`, `vec3 a = vec3(1.0) ${operator} 2.0;`, `vec3 a = vec3(1.0) ${operator} ‹2;`, 'do not mix'],
  [`number ${operator} vector`, `ivec3 a = 2 ${operator} ivec3(1);`, `ivec3 a = ‹2u ${operator} ivec3(1);`, 'does not work between'],
  [`matrix ${operator} number`, `mat2x3 a = mat2x3(1.0) ${operator} 2.0;`, `mat2x3 a = mat2x3(1.0) ${operator} ‹2;`, 'do not mix'],
  [`no bool ${operator}`, `float a = 1.0 ${operator} float(true);`, `float a = ‹1.0 ${operator} true;`, 'does not work between'],
]);

const INTEGERS: Row[] = ['%', '&', '|', '^'].flatMap((operator): Row[] => [
  [`int ${operator} int`, `int a = 7 ${operator} 2;`, `float a = ‹7.0 ${operator} 2.0;`, 'does not work between'],
  [`uint ${operator} uint`, `uint a = 7u ${operator} 2u;`, `uint a = ‹7u ${operator} 2;`, 'does not work between'],
  [`vector ${operator} number`, `ivec2 a = ivec2(7) ${operator} 2;`, `ivec2 a = ‹ivec2(7) ${operator} ivec3(2);`, 'does not work between'],
]);

const COMPARED: Row[] = ['<', '>', '<=', '>='].flatMap((operator): Row[] => [
  [
    `numbers ${operator}`,
    `bool a = 1.0 ${operator} 2.0; bool b = 1 ${operator} 2;`,
    `bool a = ‹1.0 ${operator} 2;`.replace('‹1.0', '1.0').replace(` 2;`, ' ‹2;'),
    'do not mix',
  ],
  [
    `no vectors ${operator}`,
    `bvec2 a = lessThan(vec2(1.0), vec2(2.0));`,
    `bool a = ‹vec2(1.0) ${operator} vec2(2.0);`,
    'does not work between',
  ],
]);

const ASSIGNED: Row[] = ['+=', '-=', '*=', '/='].map((operator): Row => [
  `a ${operator} b`,
  `float a = 1.0; a ${operator} 2.0; vec2 b = vec2(1.0); b ${operator} 2.0; b ${operator} b;`,
  `float a = 1.0; a ${operator} ‹vec2(2.0);`,
  'would make a vec2',
]);

const ASSIGNED_BITS: Row[] = ['%=', '&=', '|=', '^=', '<<=', '>>='].map((operator): Row => [
  `a ${operator} b`,
  `int a = 7; a ${operator} 2; ivec2 b = ivec2(1); b ${operator} 1; b ${operator} b;`,
  `float a = 1.0; ‹a ${operator} 2.0;`,
  'does not work between',
]);

/** Chapter 5: operators and expressions. */
export const EXPRESSION_RULES = [
  ...rules('5.1', [
    ['brackets', 'float a = (1.0 + 2.0) * 3.0;', 'float a = (1.0 + 2.0 * 3.0‹;', 'Expected ")"'],
    ['precedence', 'bool a = 1 + 2 * 3 == 7 && 1 << 2 > 3 || false;'],
    ['a value on both sides', 'float a = 1.0 + 2.0;', 'float a = 1.0 + ‹;', 'Expected a value'],
    [
      'unary operators',
      'float a = -1.0; float b = +a; bool c = !true; int d = ~1;',
      'bool a = ‹!1.0;'.replace('‹!1.0', '!‹1.0'),
      'must be bool',
    ],
    ['~ is for whole numbers', 'int a = ~1; uvec2 b = ~uvec2(1u);', 'float a = ‹~1.0;', 'whole number'],
    ['− is for numbers', 'mat2 a = -mat2(1.0);', 'bool a = ‹-true;', 'needs a number'],
  ]),
  ...rules('5.2', [
    ['an index', 'vec3 a = vec3(1.0); a[2] = 1.0;', 'vec3 a = vec3(1.0); a[‹3] = 1.0;', 'from 0 to 2'],
    ['an index of a matrix', 'mat2x3 a = mat2x3(1.0); a[1][2] = 1.0;', 'mat2x3 a = mat2x3(1.0); a[‹2][0] = 1.0;', 'from 0 to 1'],
    ['a number has no index', 'vec2 a = vec2(1.0); float b = a[0];', 'float a = 1.0; float b = ‹a[0];', 'cannot be indexed'],
  ]),
  ...rules('5.4.1', CONVERSIONS),
  ...rules('5.4.2', [
    ['a vector from one number', 'vec3 a = vec3(1); ivec2 b = ivec2(1.5);', 'vec3 a = ‹vec3();', 'needs 3'],
    ['a vector from parts', 'vec4 a = vec4(vec2(1.0), 2, true);', 'vec4 a = ‹vec4(vec2(1.0), 2.0);', 'needs 4'],
    ['a vector from a longer one', 'vec2 a = vec2(vec4(1.0));', 'vec4 a = ‹vec4(vec2(1.0));', 'needs 4'],
    ['no argument is left over', 'vec3 a = vec3(vec2(1.0), vec2(2.0));', 'vec2 a = ‹vec2(vec2(1.0), 2.0);', 'needs 2'],
    ['a number from a vector', 'float a = float(vec3(1.0));', 'float a = ‹float(1.0, 2.0);', 'needs 1'],
    ['a matrix from one number', 'mat3 a = mat3(2.0);', 'mat3 a = ‹mat3();', 'needs 9'],
    ['a matrix from columns', 'mat2x3 a = mat2x3(vec3(1.0), vec3(2.0));', 'mat2x3 a = ‹mat2x3(vec3(1.0));', 'needs 6'],
    ['a matrix from numbers', 'mat2 a = mat2(1, 2.0, 3u, 4.0);', 'mat2 a = ‹mat2(1.0, 2.0, 3.0);', 'needs 4'],
    ['a matrix from a matrix', 'mat2 a = mat2(mat4(1.0)); mat4x2 b = mat4x2(a);', 'mat2 a = ‹mat2(mat4(1.0), 1.0);', 'one matrix alone'],
    ['a vector from a matrix', 'vec4 a = vec4(mat2(1.0));', 'vec3 a = ‹vec3(true, mat2(1.0), 1.0, 2.0);', 'needs 3'],
    ['whole numbers from floats', 'ivec2 a = ivec2(vec2(1.5)); uvec2 b = uvec2(1.5, 2);'],
    ['bools from numbers', 'bvec2 a = bvec2(0.0, 3); float b = float(a.y);'],
  ]),
  ...rules('5.4.3', [
    [
      'a struct from its fields',
      'struct S { float a; vec2 b; }; S s = S(1.0, vec2(2.0));',
      'struct S { float a; vec2 b; }; S s = ‹S(1.0);',
      'takes 2 values',
    ],
    ['each of its type', 'struct S { float a; }; S s = S(1.0);', 'struct S { float a; }; S s = S(‹1);', 'must be float'],
  ]),
  ...rules('5.4.4', [
    ['an array from its elements', 'float a[2] = float[2](1.0, 2.0);', 'float a[2] = ‹float[2](1.0);', 'takes 2 values'],
    ['each of its type', 'vec2 a[2] = vec2[](vec2(1.0), vec2(2.0));', 'vec2 a[2] = vec2[](vec2(1.0), ‹2.0);', 'must be vec2'],
  ]),
  ...rules('5.5', [
    [
      'components by letters',
      'vec4 a = vec4(1.0); vec3 b = a.xyz; vec2 c = a.rg; float d = a.q;',
      'vec4 a = vec4(1.0); vec2 b = a.‹xg;',
      'one set of letters',
    ],
    [
      'they may be turned round and repeated',
      'vec2 a = vec2(1.0); vec4 b = a.yxxy;',
      'vec2 a = vec2(1.0); float b = a.‹z;',
      'only 2 components',
    ],
    ['they may be written', 'vec3 a = vec3(1.0); a.zx = vec2(2.0);', 'vec3 a = vec3(1.0); ‹a.xx = vec2(2.0);', 'only once'],
    ['at most four', 'vec2 a = vec2(1.0); vec4 b = a.xyxy;', 'vec2 a = vec2(1.0); float b = a.‹xyxyx;', 'no component'],
    ['of a component', 'vec4 a = vec4(1.0); float b = a.zyx.y;', 'vec4 a = vec4(1.0); float b = a.x.‹x;', 'no component'],
  ]),
  ...rules('5.6', [
    ['columns', 'mat2x3 a = mat2x3(1.0); vec3 b = a[1];', 'mat2x3 a = mat2x3(1.0); vec2 b = ‹a[1];', 'must be vec2'],
    ['a component', 'mat3 a = mat3(1.0); float b = a[1][2]; a[0].y = b;', 'mat3 a = mat3(1.0); float b = a.‹x;', 'no component'],
  ]),
  ...rules('5.7', [
    [
      'structs are assigned',
      'struct S { float a[2]; }; S s; s.a[0] = 1.0; S t = s; t = s;',
      'struct S { float a; }; struct T { float a; }; S s; T t; s = ‹t;',
      'must be S',
    ],
    [
      'structs are compared',
      'struct S { float a; vec2 b; }; S s = S(1.0, vec2(2.0)); bool c = s == s; bool d = s != s;',
      'struct S { float a; }; S s = S(1.0); bool c = ‹s < s;',
      'does not work between',
    ],
    ['arrays are assigned', 'float a[2] = float[2](1.0, 2.0); float b[2]; b = a;', 'float a[2]; float b[3]; b = ‹a;', 'must be float[3]'],
    [
      'arrays are compared',
      'float a[2] = float[2](1.0, 2.0); bool b = a == a;',
      'float a[2]; float b[3]; bool c = ‹a == b;',
      'does not work between',
    ],
  ]),
  ...rules('5.8', [
    ['a variable is assigned to', 'float a; a = 1.0;', 'float a = 1.0; ‹1.0 = a;', 'Only a variable'],
    [
      'an assignment is a value',
      'float a; float b; a = b = 1.0;',
      'float a; float b; ‹(a = b) = 1.0;'.replace('‹(', '(‹'),
      'Only a variable',
    ],
    ['of its own type', 'float a; a = 1.0;', 'float a; a = ‹1;', 'must be float'],
    ['in a condition', 'bool a; if (a = true) pixel.x = 1.0;', 'int a; if (a ‹= 1) pixel.x = 1.0;', 'To compare'],
    [
      'what is called is no place',
      'float f() { return 1.0; }\n¦ pixel.x = f();',
      'float f() { return 1.0; }\n¦ ‹f() = 1.0;',
      'Only a variable',
    ],
    ...ASSIGNED,
    ...ASSIGNED_BITS,
    [
      'a matrix by a matrix',
      'mat2 a = mat2(1.0); a *= mat2(2.0); vec2 b = vec2(1.0); b *= a;',
      'mat2x3 a = mat2x3(1.0); ‹a *= a;',
      'does not work between',
    ],
  ]),
  ...rules('5.9', [
    ...ARITHMETIC,
    ...INTEGERS,
    ...COMPARED,
    ['matrix times vector', 'vec3 a = mat2x3(1.0) * vec2(1.0);', 'vec3 a = ‹mat2x3(1.0) * vec3(1.0);', 'does not work between'],
    ['vector times matrix', 'vec2 a = vec3(1.0) * mat2x3(1.0);', 'vec2 a = ‹vec2(1.0) * mat2x3(1.0);', 'does not work between'],
    ['matrix times matrix', 'mat4x3 a = mat2x3(1.0) * mat4x2(1.0);', 'mat4x3 a = ‹mat2x3(1.0) * mat4x3(1.0);', 'does not work between'],
    ['matrix plus matrix', 'mat2x3 a = mat2x3(1.0) + mat2x3(2.0);', 'mat2x3 a = ‹mat2x3(1.0) + mat3x2(2.0);', 'does not work between'],
    ['shifts', 'int a = 1 << 3; uint b = 8u >> 1;', 'float a = ‹1.0 << 2.0;', 'does not work between'],
    [
      'shifts by the other sign',
      'int a = 1 << 3u; uint b = 8u >> 1; ivec2 c = ivec2(1) << 2u;',
      'int a = ‹1 << vec2(1.0);'.replace('vec2(1.0)', 'ivec2(1)'),
      'does not work between',
    ],
    ['shifts of each component', 'ivec2 a = ivec2(1) << uvec2(1u, 2u);', 'ivec2 a = ‹ivec2(1) << ivec3(1);', 'does not work between'],
    [
      'equality',
      'bool a = 1.0 == 2.0; bool b = vec2(1.0) != vec2(2.0); bool c = mat2(1.0) == mat2(1.0);',
      'bool a = ‹vec2(1.0) == vec3(1.0);',
      'does not work between',
    ],
    ['equality of one type', 'bool a = 1 == 1;', 'bool a = 1.0 == ‹1;', 'do not mix'],
    ['and', 'bool a = true && false;', 'bool a = ‹1 && 2;', 'does not work between'],
    ['or', 'bool a = true || false;', 'bool a = ‹1.0 || true;', 'does not work between'],
    ['either', 'bool a = true ^^ false;', 'bool a = ‹bvec2(true) ^^ true;', 'does not work between'],
    ['counting up', 'int i = 0; i++; ++i; float f = 0.0; f++; vec2 v = vec2(0.0); v++;', 'bool b = true; ‹b++;', 'counts numbers'],
    ['counting down', 'int i = 0; i--; --i; mat2 m = mat2(1.0); m--;', 'bool b = true; --‹b;', 'counts numbers'],
    ['counting in an expression', 'int i = 0; int j = i++ + ++i; float a[3]; a[i--] = 1.0;', 'int j = ‹3++;', 'Only a variable'],
    ['a const is not counted', 'int i = 0; i++;', 'const int i = 0; ‹i++;', 'const'],
    ['a choice', 'float a = true ? 1.0 : 2.0;', 'float a = true ? 1.0 : ‹2;', 'must be float'],
    ['a choice by a bool', 'float a = 1 < 2 ? 1.0 : 2.0;', 'float a = ‹1 ? 1.0 : 2.0;', 'must be bool'],
    ['a choice is whole', 'float a = true ? 1.0 : false ? 2.0 : 3.0;', 'float a = true ? 1.0‹;', 'Expected ":"'],
    [
      'a row of expressions',
      'int a = 0; int b = (a++, a + 1); for (int i = 0, j = 3; i < j; i++, j--) { }',
      'float a = (true, ‹1);'.replace('(true, ‹1)', '‹(true, 1)').replace('‹(', '(‹'),
      'must be float',
    ],
  ]),
  ...rules('5.10', [['a mean of places', 'vec3 a = vec3(1.0); a.xy = a.yx; a[0] += a.z;']]),
];
