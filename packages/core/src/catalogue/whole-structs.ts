import type { StructType, Type } from '../ir/types';

/** What travels along one ribbon as a whole; other structs have an outlet for each of their fields. */
const WHOLE: ReadonlySet<string> = new Set(['Lit', 'Field']);

/** Whether a value of this type has outlets of its own. */
export function isTakenApart(type: Type): type is StructType {
  return type.kind === 'struct' && !WHOLE.has(type.name);
}
