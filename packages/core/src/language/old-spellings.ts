import type { Range } from '../ir/origin';
import { LanguageError, write, type CodeMend, type TextEdit } from './diagnostics';
import type { SourceText } from './source';

/** Functions of GLSL ES 1.00 and of other shading languages, with today's spelling. */
const FUNCTIONS: Readonly<Record<string, string>> = {
  texture2D: 'texture',
  textureCube: 'texture',
  texture2DLod: 'textureLod',
  texture2DLodEXT: 'textureLod',
  textureCubeLod: 'textureLod',
  textureCubeLodEXT: 'textureLod',
  texture2DGradEXT: 'textureGrad',
  texture2DProj: 'textureProj',
  lerp: 'mix',
  frac: 'fract',
  ddx: 'dFdx',
  ddy: 'dFdy',
  dpdx: 'dFdx',
  dpdy: 'dFdy',
  rsqrt: 'inversesqrt',
  atan2: 'atan',
  fmod: 'mod',
  faceForward: 'faceforward',
  matrixcompmult: 'matrixCompMult',
};

const TYPES: Readonly<Record<string, string>> = {
  float2: 'vec2',
  float3: 'vec3',
  float4: 'vec4',
  int2: 'ivec2',
  int3: 'ivec3',
  int4: 'ivec4',
  float2x2: 'mat2',
  float3x3: 'mat3',
  float4x4: 'mat4',
  vec2f: 'vec2',
  vec3f: 'vec3',
  vec4f: 'vec4',
  f32: 'float',
  i32: 'int',
  u32: 'uint',
  double: 'float',
  half: 'float',
  Texture2D: 'sampler2D',
};

/** Variables that GLSL ES 1.00 or desktop GL knew, and what stands for them in a whole program today. */
const VARIABLES: Readonly<Record<string, string>> = {
  gl_Vertex: 'vec4(position, 1.0)',
  gl_Normal: 'normal',
  gl_Color: 'colour',
  gl_MultiTexCoord0: 'vec4(uv, 0.0, 1.0)',
  gl_ModelViewProjectionMatrix: 'clipFromObject',
  gl_ModelViewMatrix: 'viewFromObject',
  gl_NormalMatrix: 'viewNormalFromObject',
};

const COLOUR_OUTPUTS = new Set(['gl_FragColor', 'gl_FragData']);

export function oldFunction(name: string, range: Range): LanguageError | undefined {
  if (name === 'ftransform') {
    const mend = write('clipFromObject * vec4(position, 1.0)', range);
    return new LanguageError('“ftransform” is from an older version of the language.', range, { mends: [mend] });
  }
  if (name === 'saturate') {
    return new LanguageError('There is no “saturate” here. Write clamp(value, 0.0, 1.0).', range);
  }
  const today = Object.hasOwn(FUNCTIONS, name) ? FUNCTIONS[name] : undefined;
  if (today === undefined) return undefined;
  const old = /^texture|EXT$/.test(name) ? 'an older version of the language' : 'another language';
  return new LanguageError(`“${name}” is from ${old}; today it is “${today}”.`, range, { mends: [write(today, range)] });
}

export function oldType(name: string, range: Range): LanguageError | undefined {
  const today = Object.hasOwn(TYPES, name) ? TYPES[name] : undefined;
  return today === undefined
    ? undefined
    : new LanguageError(`“${name}” is from another language; here it is “${today}”.`, range, { mends: [write(today, range)] });
}

export function oldVariable(name: string, range: Range, source: SourceText): LanguageError | undefined {
  if (COLOUR_OUTPUTS.has(name)) {
    const message = `“${name}” is from an older version of the language. Declare an output of your own: out vec4 pixel;`;
    return new LanguageError(message, range, { mends: [ownOutput(name, source)] });
  }
  const today = Object.hasOwn(VARIABLES, name) ? VARIABLES[name] : undefined;
  if (today === undefined) return undefined;
  const mend = write(today, range);
  return new LanguageError(`“${name}” is from an older version of the language; today it is “${today}”.`, range, { mends: [mend] });
}

/** Declares an output and writes it wherever the old one stood. */
function ownOutput(name: string, { text }: SourceText): CodeMend {
  const edits: TextEdit[] = [];
  if (!/\bout\s+vec4\s+pixel\b/.test(text)) {
    const after = /^(?:\s*(?:#version[^\n]*|precision\s[^;]*;)[ \t]*\n?)*/.exec(text)?.[0].length ?? 0;
    edits.push({ from: after, to: after, text: 'out vec4 pixel;\n' });
  }
  const old = name === 'gl_FragData' ? /\bgl_FragData\s*\[\s*0\s*\]/g : /\bgl_FragColor\b/g;
  for (const match of text.matchAll(old)) edits.push({ from: match.index, to: match.index + match[0].length, text: 'pixel' });
  return { label: 'Declare “out vec4 pixel” and write it instead', edits };
}

/** Words before a variable outside functions that mean something else today. What varies goes out of the vertices and into the pixels. */
export function oldStorage(word: string, stage: 'vertices' | 'pixels'): 'in' | 'out' | undefined {
  if (word === 'attribute') return 'in';
  return word === 'varying' ? (stage === 'pixels' ? 'in' : 'out') : undefined;
}
