import { BUILTIN_FUNCTIONS } from '../ir/builtins/table';
import { NAMED_TYPES, sameType, type Type } from '../ir/types';

const SCALAR_OF_LETTER: Readonly<Record<string, string>> = { F: 'float', I: 'int', U: 'uint', B: 'bool' };
const SIZES: Readonly<Record<string, readonly string[]>> = {
  F: ['float', 'vec2', 'vec3', 'vec4'],
  I: ['int', 'ivec2', 'ivec3', 'ivec4'],
  U: ['uint', 'uvec2', 'uvec3', 'uvec4'],
  B: ['bool', 'bvec2', 'bvec3', 'bvec4'],
  M: ['mat2', 'mat3', 'mat4'],
};

export interface BuiltinOverload {
  readonly result: Type;
  readonly parameters: readonly Type[];
}

/** Every overload of every built-in, the letters written out. */
export const BUILTINS: ReadonlyMap<string, readonly BuiltinOverload[]> = new Map(
  [...BUILTIN_FUNCTIONS].map(([name, { signatures, vectorsOnly }]) => [name, signatures.flatMap((each) => expand(each, vectorsOnly))]),
);

function expand(pattern: string, vectorsOnly = false): BuiltinOverload[] {
  const match = /^(\w+)\((.*)\)$/.exec(pattern);
  if (!match) throw new SyntaxError(`malformed signature ${pattern}`);
  const words = [match[1] ?? '', ...(match[2] ?? '').split(',')];
  const generic = words.some((word) => word in SIZES);
  const all = [...Array(words.includes('M') ? 3 : 4).keys()];
  const sizes = generic ? (vectorsOnly ? all.slice(1) : all) : [0];
  return sizes.map((size) => {
    const [result, ...parameters] = words.map((word) => namedType(SIZES[word]?.[size] ?? word));
    if (!result) throw new SyntaxError(`malformed signature ${pattern}`);
    return { result, parameters };
  });
}

function namedType(name: string): Type {
  const type = NAMED_TYPES.get(SCALAR_OF_LETTER[name] ?? name);
  if (!type) throw new SyntaxError(`unknown type ${name} in the table of built-ins`);
  return type;
}

export function findBuiltin(name: string, args: readonly Type[]): BuiltinOverload | undefined {
  return BUILTINS.get(name)?.find(
    ({ parameters }) =>
      parameters.length === args.length && parameters.every((parameter, index) => sameType(parameter, args[index] ?? parameter)),
  );
}
