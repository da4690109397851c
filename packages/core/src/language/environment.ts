import { signatureOf } from '../ir/build';
import { EMPTY_MODULE, type Global, type IrFunction, type Module, type UniformBlock } from '../ir/ir';
import { NAMED_TYPES, sameType, scalarCount, typeName, type ArrayType, type StructType, type Type } from '../ir/types';
import { BUILTIN_VARIABLES, WRITABLE_BUILTINS } from './builtin-variables';
import { BUILTINS } from './builtins';
import { LanguageError } from './diagnostics';
import type { ImportedFunction, Importer } from './imports';
import { nearestMend } from './nearest-name';
import type { FunctionScope } from './scope';
import { oldType } from './old-spellings';
import type { CodeSymbol, SymbolIndex } from './symbols';
import type { ExpressionSyntax, TypeSyntax } from './syntax';
import type { KnownDirections } from './written-directions';
import { LayeredMap } from '../ir/layered-map';
import type { Range } from '../ir/origin';

/** Scalars that one variable may hold: what devices can be expected to keep for each pixel. */
const LARGEST_TYPE = 16_384;

/** How a text's own names are told apart from those that it may use. */
export interface OwnNames {
  /** Stands behind a name, with an underscore. */
  readonly mark: string;
  /** Marks all own functions and structs but one; without it only those that hide one of the same name. */
  readonly allBut?: string;
  /** Names that are taken elsewhere, in what the text is linked with later. */
  readonly taken?: ReadonlySet<string>;
}

export interface ElaborationOptions {
  /** Also warn of what is allowed but most likely not meant. */
  readonly advice?: boolean;
  /** Uniforms may stand outside of blocks: they are parameters. */
  readonly parameters?: boolean;
  readonly names?: OwnNames;
  readonly importer?: Importer;
  /** Where directions come from and where they are wanted; calls are advised by it. */
  readonly directions?: KnownDirections;
  /** Of WGSL: which entry point is read as `main`. */
  readonly stage?: 'vertices' | 'pixels';
  /** Uniforms that are given by their names, also as members of blocks. */
  readonly systemUniforms?: ReadonlySet<string>;
  /** What a stage may take in by name. */
  readonly systemInputs?: (stage: 'vertices' | 'pixels') => ReadonlySet<string>;
  /** Collects what the names of the text stand for. */
  readonly index?: SymbolIndex;
}

/** What is declared outside functions: the imported module and this text's own declarations, which hide the former. */
export class Environment implements Module {
  readonly structs: LayeredMap<string, StructType>;
  readonly globals: LayeredMap<string, Global>;
  readonly blocks: LayeredMap<string, UniformBlock>;
  readonly functions: LayeredMap<string, IrFunction>;
  private readonly ownStructs = new Map<string, StructType>();
  private readonly ownGlobals = new Map<string, Global>();
  /** Members of blocks that have a name of their own, by that name. */
  readonly instances = new Map<string, ReadonlyMap<string, Global>>();
  private readonly ownOverloads = new Map<string, IrFunction[]>();
  /** Names of the functions of the text, whether or not they were read already. */
  readonly functionsOfText = new Set<string>();
  /** Signatures of functions with a body, in the text so far. */
  readonly defined = new Set<string>();
  /** Functions that could not be imported: what calls them is not to blame. */
  readonly troubled = new Set<string>();
  /** Names that `import` lines brought. */
  readonly importedNames = new Set<string>();
  /** A body that was read calls a function whose own was not: only then can functions come round to themselves. */
  callsAhead = false;

  constructor(
    readonly imported: Module = EMPTY_MODULE,
    readonly options: ElaborationOptions = {},
  ) {
    this.structs = new LayeredMap(imported.structs);
    this.globals = new LayeredMap(imported.globals);
    this.blocks = new LayeredMap(imported.blocks);
    this.functions = new LayeredMap(imported.functions);
    for (const each of BUILTIN_VARIABLES.values()) this.globals.set(each.name, each);
  }

  /** The name under which something of this text's own stands in the IR. */
  irName(name: string, hides: boolean): string {
    const { names } = this.options;
    if (!names || name === 'main') return name;
    const collides = hides || names.taken?.has(name);
    const marked = names.allBut === undefined ? collides : collides || name !== names.allBut;
    return marked ? `${name}_${names.mark}` : name;
  }

  addStruct(name: string, make: (irName: string) => StructType): void {
    const struct = make(this.irName(name, this.imported.structs.has(name)));
    this.ownStructs.set(name, struct);
    this.structs.set(struct.name, struct);
  }

  addGlobal(name: string, make: (irName: string) => Global): Global {
    const { names } = this.options;
    const global = make(names && (this.imported.globals.has(name) || names.taken?.has(name)) ? `${name}_${names.mark}` : name);
    this.ownGlobals.set(name, global);
    this.globals.set(global.name, global);
    return global;
  }

  addBlock(block: UniformBlock): void {
    this.blocks.set(block.name, block);
  }

  /** Declares a function, or gives it its body. @returns it under its name in the IR */
  addFunction(sourceName: string, declared: IrFunction): void {
    const own = this.ownOverloads.get(sourceName) ?? [];
    this.ownOverloads.set(sourceName, [...own.filter((each) => each.signature !== declared.signature), declared]);
    this.functions.set(declared.signature, declared);
  }

  addImport(name: string, { visible, structs, functions }: ImportedFunction): void {
    this.importedNames.add(name);
    for (const each of functions) this.functions.set(each.signature, each);
    for (const [source, struct] of structs) {
      this.ownStructs.set(source, struct);
      this.structs.set(struct.name, struct);
    }
    for (const each of visible) this.addFunction(name, each);
  }

  struct(name: string): StructType | undefined {
    return this.ownStructs.get(name) ?? this.imported.structs.get(name);
  }

  /** A struct of one function, under a name in the IR that no other has. */
  addLocalStruct(name: string, make: (irName: string) => StructType): StructType {
    const wanted = this.irName(name, this.structs.has(name));
    let unique = wanted;
    for (let count = 2; this.structs.has(unique); count++) unique = `${wanted}${count}`;
    const struct = make(unique);
    this.structs.set(unique, struct);
    return struct;
  }

  hasOwnStruct(name: string): boolean {
    return this.ownStructs.has(name);
  }

  global(name: string): Global | undefined {
    return this.ownGlobals.get(name) ?? BUILTIN_VARIABLES.get(name) ?? this.globals.get(name);
  }

  ownGlobal(name: string): Global | undefined {
    return this.ownGlobals.get(name);
  }

  globalNames(): string[] {
    const imported = [...this.imported.globals.values()].filter(({ storage }) => storage !== 'builtin').map(({ name }) => name);
    return [...new Set([...this.ownGlobals.keys(), ...imported, ...BUILTIN_VARIABLES.keys()])];
  }

  /** Own functions first. */
  overloadsOf(name: string): readonly IrFunction[] {
    const own = this.ownOverloads.get(name) ?? [];
    const others = overloadIndex(this.imported).get(name) ?? [];
    return own.length === 0 ? others : [...own, ...others];
  }

  ownFunction(name: string, types: readonly Type[]): IrFunction | undefined {
    return this.ownOverloads
      .get(name)
      ?.find(
        ({ parameters }) => parameters.length === types.length && parameters.every(({ type }, at) => sameType(type, types[at] ?? type)),
      );
  }

  functionOf(name: string, types: readonly Type[]): IrFunction | undefined {
    return this.ownFunction(name, types) ?? this.imported.functions.get(signatureOf(name, types));
  }

  /** What a global of this text is called in it. */
  plainGlobal(irName: string): { readonly storage: string; readonly name: string } | undefined {
    for (const [name, each] of this.ownGlobals) if (each.name === irName) return { storage: each.storage, name };
    return undefined;
  }

  isWritable(global: Global): boolean {
    return global.storage === 'out' || global.storage === 'private' || WRITABLE_BUILTINS.has(global.name);
  }

  callableNames(): string[] {
    const structs = [...this.ownStructs.keys(), ...this.imported.structs.keys()];
    return [...BUILTINS.keys(), ...this.ownOverloads.keys(), ...overloadIndex(this.imported).keys(), ...structs, ...NAMED_TYPES.keys()];
  }

  /** @param symbol worked out only where somebody collects symbols */
  note(range: Range, symbol: () => CodeSymbol): void {
    this.options.index?.use(range, symbol());
  }

  /**
   * The type that is written, without the length that may stand behind it.
   *
   * @param scope of the function it stands in: structs may be declared there
   * @throws LanguageError for an unknown type, with the nearest right name
   */
  element(syntax: TypeSyntax, scope?: FunctionScope): Type {
    const struct = scope?.struct(syntax.name) ?? this.struct(syntax.name);
    const element = NAMED_TYPES.get(syntax.name) ?? struct;
    const range = { from: syntax.from, to: syntax.from + syntax.name.length };
    if (!element) {
      const names = [...NAMED_TYPES.keys(), ...this.ownStructs.keys(), ...this.imported.structs.keys()];
      throw (
        oldType(syntax.name, range) ??
        new LanguageError(`There is no type "${syntax.name}".`, range, { mends: [nearestMend(syntax.name, range, names)] })
      );
    }
    if (!syntax.struct)
      this.note(range, () => ({
        kind: struct ? 'struct' : 'type',
        name: syntax.name,
        signature: structWords(syntax.name, struct),
        declared: struct?.origin,
      }));
    return element;
  }

  /**
   * A type with its length, which may stand behind the name that is declared.
   *
   * @throws LanguageError also for a length that is left open
   */
  resolve(syntax: TypeSyntax, constantLength: (length: ExpressionSyntax) => number, own: ArrayLength = {}, scope?: FunctionScope): Type {
    const element = this.element(syntax, scope);
    const open = own.open ?? syntax.open;
    if (open) throw new LanguageError('Give the array a length, as in "float[4]".', open);
    if (own.length && syntax.length) refuseNested(own.length);
    const length = own.length ?? syntax.length;
    return length ? arrayOf(element, constantLength(length), length) : element;
  }
}

/** `[4]` or `[]` behind a type or a name. */
export interface ArrayLength {
  readonly length?: ExpressionSyntax;
  readonly open?: Range;
}

/** @throws LanguageError for what is too large for a variable */
export function arrayOf(element: Type, length: number, range: Range): ArrayType {
  if (element.kind === 'array') refuseNested(range);
  if (element.kind === 'void') throw new LanguageError('There are no arrays of void.', range);
  const array: ArrayType = { kind: 'array', element, length };
  if (scalarCount(array) > LARGEST_TYPE) {
    throw new LanguageError(`This holds ${scalarCount(array)} numbers; a variable may hold at most ${LARGEST_TYPE}.`, range);
  }
  return array;
}

export function refuseNested(range: Range): never {
  throw new LanguageError('Arrays of arrays are not part of GLSL ES 3.00. Put the inner array into a struct.', range);
}

function structWords(name: string, struct: StructType | undefined): string {
  return struct ? `struct ${name} { ${struct.fields.map((field) => `${typeName(field.type)} ${field.name};`).join(' ')} }` : name;
}

const indexes = new WeakMap<Module, ReadonlyMap<string, readonly IrFunction[]>>();

/** Functions of a module by name. */
function overloadIndex(module: Module): ReadonlyMap<string, readonly IrFunction[]> {
  const known = indexes.get(module);
  if (known) return known;
  const made = new Map<string, IrFunction[]>();
  for (const each of module.functions.values()) {
    const list = made.get(each.name);
    if (list) list.push(each);
    else made.set(each.name, [each]);
  }
  indexes.set(module, made);
  return made;
}
