import type { IrFunction } from '../ir/ir';
import type { StructType } from '../ir/types';

/** A function of the Library, read. */
export interface ImportedFunction {
  /** What can be called: all overloads of the name. */
  readonly visible: readonly IrFunction[];
  /** Structs that their signatures speak of, by the name in their text. */
  readonly structs: ReadonlyMap<string, StructType>;
  /** All functions that come with it. */
  readonly functions: readonly IrFunction[];
}

/** Why a function cannot be used; `today` is what it is called now. */
export interface ImportProblem {
  readonly problem: string;
  readonly today?: string;
}

/** Where `import` lines find functions. */
export interface Importer {
  import(name: string): ImportedFunction | ImportProblem;
  /** Names that can be imported. */
  readonly names: Iterable<string>;
}
