import { BUILTIN_FUNCTIONS } from '../../ir/builtins/table';

/** Built-in function names of GLSL ES 3.00 that a program's own names must not hide. */
export const BUILTIN_FUNCTION_NAMES: ReadonlySet<string> = new Set(BUILTIN_FUNCTIONS.keys());
