import { EMPTY_MODULE, type Global, type IrFunction, type Module, type UniformBlock } from '../ir/ir';
import { FLOAT, NAMED_TYPES, VEC4, BOOL, INT, type ArrayType, type StructType, type Type } from '../ir/types';
import { BUILTINS } from './builtins';
import { LanguageError, nearestName } from './diagnostics';
import type { ExpressionSyntax, TypeSyntax } from './syntax';

/** Built-in variables, GLSL ES 3.00 section 7. */
const BUILTIN_VARIABLES: readonly Global[] = [
  { name: 'gl_Position', type: VEC4, storage: 'builtin' },
  { name: 'gl_PointSize', type: FLOAT, storage: 'builtin' },
  { name: 'gl_VertexID', type: INT, storage: 'builtin' },
  { name: 'gl_InstanceID', type: INT, storage: 'builtin' },
  { name: 'gl_FragCoord', type: VEC4, storage: 'builtin' },
  { name: 'gl_FrontFacing', type: BOOL, storage: 'builtin' },
];
const WRITABLE_BUILTINS = new Set(['gl_Position', 'gl_PointSize']);

/** What is declared outside functions: the imported module and this text's own declarations. */
export class Environment {
  readonly structs: Map<string, StructType>;
  readonly globals: Map<string, Global>;
  readonly blocks: Map<string, UniformBlock>;
  readonly functions: Map<string, IrFunction>;
  private readonly overloads = new Map<string, IrFunction[]>();

  constructor(imported: Module = EMPTY_MODULE) {
    this.structs = new Map(imported.structs);
    this.globals = new Map(imported.globals);
    this.blocks = new Map(imported.blocks);
    this.functions = new Map();
    for (const each of BUILTIN_VARIABLES) if (!this.globals.has(each.name)) this.globals.set(each.name, each);
    for (const each of imported.functions.values()) this.addFunction(each);
  }

  addFunction(declared: IrFunction): void {
    const before = this.functions.get(declared.signature);
    this.functions.set(declared.signature, declared);
    const list = this.overloads.get(declared.name) ?? [];
    this.overloads.set(declared.name, [...list.filter((each) => each !== before), declared]);
  }

  overloadsOf(name: string): readonly IrFunction[] {
    return this.overloads.get(name) ?? [];
  }

  isWritable(global: Global): boolean {
    return global.storage === 'out' || WRITABLE_BUILTINS.has(global.name);
  }

  callableNames(): string[] {
    return [...BUILTINS.keys(), ...this.overloads.keys(), ...this.structs.keys(), ...NAMED_TYPES.keys()];
  }

  /** @throws LanguageError for an unknown type, with the nearest right name. */
  resolve(syntax: TypeSyntax, constantLength: (length: ExpressionSyntax) => number, length = syntax.length): Type {
    const element = NAMED_TYPES.get(syntax.name) ?? this.structs.get(syntax.name);
    if (!element) {
      const near = nearestName(syntax.name, [...NAMED_TYPES.keys(), ...this.structs.keys()]);
      const range = { from: syntax.from, to: syntax.from + syntax.name.length };
      throw new LanguageError(`There is no type "${syntax.name}".`, range, near);
    }
    if (!length) return element;
    const array: ArrayType = { kind: 'array', element, length: constantLength(length) };
    return array;
  }
}
