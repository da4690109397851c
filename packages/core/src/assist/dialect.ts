import { isWhole } from '../compile/code/read-code';
import type { IrFunction } from '../ir/ir';
import { NAMED_TYPES, typeName, type Type } from '../ir/types';
import { isWgsl } from '../language';
import { BUILTIN_NAMES, builtinHelp, type BuiltinHelp } from '../language/builtin-help';
import { functionWords } from '../language/function-words';
import { WGSL_BUILTIN_NAMES } from '../language/wgsl/wgsl-calls';
import { wgslBuiltinHelp } from '../language/wgsl/wgsl-help';
import { plainType, wgslTypeName } from '../language/wgsl/wgsl-types';

/** How one of the two languages writes what both have. */
export interface Dialect {
  readonly words: readonly string[];
  readonly types: readonly string[];
  readonly builtins: readonly string[];
  builtinHelp(name: string): BuiltinHelp | undefined;
  /** `float x` or `x: f32`. */
  variable(name: string, type: string): string;
  uniform(name: string, type: Type): string;
  head(declared: IrFunction): string;
  typeNamed(name: string): Type | undefined;
  typeWords(type: Type): string;
  /** Whether a text is a whole program, with entry points. */
  isWhole(text: string): boolean;
}

const GLSL: Dialect = {
  words:
    'if else for while do switch case default return break continue discard const in out inout uniform struct true false import flat'.split(
      ' ',
    ),
  types: [...NAMED_TYPES.keys()],
  builtins: BUILTIN_NAMES,
  builtinHelp,
  variable: (name, type) => `${type} ${name}`,
  uniform: (name, type) => `uniform ${typeName(type)} ${name}`,
  head: (declared) => functionWords(declared),
  typeNamed: (name) => NAMED_TYPES.get(name),
  typeWords: typeName,
  isWhole: (text) => isWhole({ text }),
};

const SHORT_TYPES = ['f32', 'i32', 'u32', 'bool'].concat(
  ...['f', 'i', 'u'].map((letter) => [2, 3, 4].map((size) => `vec${size}${letter}`)),
  ...[2, 3, 4].map((columns) => [2, 3, 4].map((rows) => `mat${columns}x${rows}f`)),
);

const WGSL: Dialect = {
  words:
    'if else for while loop continuing switch case default return break continue discard const let var override alias struct fn true false import uniform private function'.split(
      ' ',
    ),
  types: [...SHORT_TYPES, 'array', 'ptr', 'sampler', 'texture_2d', 'texture_cube'],
  builtins: WGSL_BUILTIN_NAMES,
  builtinHelp: wgslBuiltinHelp,
  variable: (name, type) => `${name}: ${type}`,
  uniform: (name, type) => (type.kind === 'sampler' ? `var ${name}: ${wgslTypeName(type)}` : `var<uniform> ${name}: ${wgslTypeName(type)}`),
  head: ({ name, parameters, result }) => {
    const list = parameters.map(
      (each) => `${each.name}: ${each.direction === 'in' ? wgslTypeName(each.type) : `ptr<function, ${wgslTypeName(each.type)}>`}`,
    );
    return `fn ${name}(${list.join(', ')})${result.kind === 'void' ? '' : ` -> ${wgslTypeName(result)}`}`;
  },
  typeNamed: plainType,
  typeWords: (type) => wgslTypeName(type),
  isWhole: (text) => isWhole({ text }),
};

/** The language that a text is written in. */
export function dialectOf(text: string): Dialect {
  return isWgsl(text) ? WGSL : GLSL;
}
