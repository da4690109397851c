import { CLIP_POSITION, FRONT_FACING, INSTANCE_NUMBER, PIXEL_PLACE, POINT_SIZE, VERTEX_NUMBER } from '../ir/builtin-variables';
import type { Global } from '../ir/ir';
import { BOOL, FLOAT, INT, VEC4, type Type } from '../ir/types';

const builtin = (written: string, name: string, type: Type): [string, Global] => [written, { name, type, storage: 'builtin' }];

/** Built-in variables by their names in texts, GLSL ES 3.00 section 7. */
export const BUILTIN_VARIABLES: ReadonlyMap<string, Global> = new Map([
  builtin('gl_Position', CLIP_POSITION, VEC4),
  builtin('gl_PointSize', POINT_SIZE, FLOAT),
  builtin('gl_VertexID', VERTEX_NUMBER, INT),
  builtin('gl_InstanceID', INSTANCE_NUMBER, INT),
  builtin('gl_FragCoord', PIXEL_PLACE, VEC4),
  builtin('gl_FrontFacing', FRONT_FACING, BOOL),
]);

export const WRITABLE_BUILTINS: ReadonlySet<string> = new Set([CLIP_POSITION, POINT_SIZE]);

const WRITTEN = new Map([...BUILTIN_VARIABLES].map(([written, { name }]) => [name, written]));

/** How a global is called in a text: a built-in variable by the language's name, all others as they are. */
export function writtenGlobal(name: string): string {
  return WRITTEN.get(name) ?? name;
}
