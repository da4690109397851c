import { constant, construct } from '../ir/build';
import { CLIP_POSITION, FRONT_FACING, INSTANCE_NUMBER, PIXEL_DEPTH, PIXEL_PLACE, POINT_SIZE, VERTEX_NUMBER } from '../ir/builtin-variables';
import type { Expression, Global } from '../ir/ir';
import { BOOL, FLOAT, INT, VEC2, VEC4, type StructType, type Type } from '../ir/types';

const builtin = (written: string, name: string, type: Type): [string, Global] => [written, { name, type, storage: 'builtin' }];

const known = (name: string, value: Expression): [string, Global] => [name, { name, type: value.type, storage: 'const', value }];

/** What every device has at least, GLSL ES 3.00 section 7.3: the same everywhere, so that pictures are. */
const LEAST: Readonly<Record<string, number>> = {
  gl_MaxVertexAttribs: 16,
  gl_MaxVertexUniformVectors: 256,
  gl_MaxVertexOutputVectors: 16,
  gl_MaxFragmentInputVectors: 15,
  gl_MaxVertexTextureImageUnits: 16,
  gl_MaxCombinedTextureImageUnits: 32,
  gl_MaxTextureImageUnits: 16,
  gl_MaxFragmentUniformVectors: 224,
  gl_MaxDrawBuffers: 4,
  gl_MinProgramTexelOffset: -8,
  gl_MaxProgramTexelOffset: 7,
};

/** Section 7.4. */
const DEPTH_RANGE: StructType = {
  kind: 'struct',
  name: 'gl_DepthRangeParameters',
  fields: ['near', 'far', 'diff'].map((name) => ({ name, type: FLOAT })),
};

/** Built-in variables by their names in texts, GLSL ES 3.00 section 7. */
export const BUILTIN_VARIABLES: ReadonlyMap<string, Global> = new Map([
  builtin('gl_Position', CLIP_POSITION, VEC4),
  builtin('gl_PointSize', POINT_SIZE, FLOAT),
  builtin('gl_VertexID', VERTEX_NUMBER, INT),
  builtin('gl_InstanceID', INSTANCE_NUMBER, INT),
  builtin('gl_FragCoord', PIXEL_PLACE, VEC4),
  builtin('gl_FrontFacing', FRONT_FACING, BOOL),
  builtin('gl_FragDepth', PIXEL_DEPTH, FLOAT),
  known('gl_PointCoord', constant(VEC2, [0.5, 0.5])),
  known('gl_DepthRange', construct(DEPTH_RANGE, [constant(FLOAT, [0]), constant(FLOAT, [1]), constant(FLOAT, [1])])),
  ...Object.entries(LEAST).map(([name, value]) => known(name, constant(INT, [value]))),
]);

export const WRITABLE_BUILTINS: ReadonlySet<string> = new Set([CLIP_POSITION, POINT_SIZE, PIXEL_DEPTH]);

const WRITTEN = new Map([...BUILTIN_VARIABLES].map(([written, { name }]) => [name, written]));

/** How a global is called in a text: a built-in variable by the language's name, all others as they are. */
export function writtenGlobal(name: string): string {
  return WRITTEN.get(name) ?? name;
}
