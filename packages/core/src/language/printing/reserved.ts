import { BUILTIN_FUNCTIONS } from '../../ir/builtins/table';

/** Functions of the standard that the language does not have; the text of a target does. */
const LACKED = `modf packSnorm2x16 unpackSnorm2x16 packUnorm2x16 unpackUnorm2x16 packHalf2x16 unpackHalf2x16 textureOffset textureProjOffset
  textureLodOffset textureProjLod textureProjLodOffset textureGradOffset textureProjGrad textureProjGradOffset texelFetchOffset`.split(
  /\s+/,
);

/** Built-in function names of GLSL ES 3.00 that a program's own names must not hide. */
export const BUILTIN_FUNCTION_NAMES: ReadonlySet<string> = new Set([...BUILTIN_FUNCTIONS.keys(), ...LACKED]);
