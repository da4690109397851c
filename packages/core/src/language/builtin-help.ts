import { BUILTIN_FUNCTIONS } from '../ir/builtins/table';
import { typeName } from '../ir/types';
import { BUILTINS } from './builtins';

/** What can be read about a built-in function. */
export interface BuiltinHelp {
  readonly name: string;
  readonly signatures: readonly string[];
  readonly help: string;
  readonly source: string;
}

export function builtinHelp(name: string): BuiltinHelp | undefined {
  const overloads = BUILTINS.get(name);
  const known = BUILTIN_FUNCTIONS.get(name);
  if (!overloads || !known) return undefined;
  const { help, section } = known;
  const signatures = overloads.map(({ result, parameters }) => `${typeName(result)} ${name}(${parameters.map(typeName).join(', ')})`);
  return { name, signatures, help, source: `GLSL ES 3.00 specification, section ${section}` };
}

export const BUILTIN_NAMES: readonly string[] = [...BUILTINS.keys()];
