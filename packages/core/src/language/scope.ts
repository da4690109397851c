import type { Range } from '../ir/origin';
import type { Expression } from '../ir/ir';
import type { StructType, Type } from '../ir/types';
import type { WrittenDirection } from './direction-kind';

export interface Variable {
  /** Its name in the IR, unique within the function. */
  readonly name: string;
  readonly type: Type;
  readonly readOnly: boolean;
  /** Where in the text its name stands. */
  readonly declared: Range;
  assigned: boolean;
  read: boolean;
  /** Whether it is the same for neighbouring pixels, as far as was seen. */
  uniform: boolean;
  /** Of a constant: what it is. */
  constant?: Expression;
  /** Of a constant of WGSL: whether it is a number without a type of its own. */
  abstract?: 'int' | 'float';
  /** The direction it holds, as far as was seen. */
  direction?: WrittenDirection;
}

/** The names visible inside one function; inner blocks may hide outer names. */
export class FunctionScope {
  private readonly blocks: Map<string, Variable>[] = [new Map<string, Variable>()];
  private readonly structs: Map<string, StructType>[] = [new Map<string, StructType>()];
  private readonly byIrName = new Map<string, Variable>();
  /** Ends of the open blocks in the text. */
  private readonly ends: number[] = [];

  constructor(end = 0) {
    this.ends.push(end);
  }

  find(name: string): Variable | undefined {
    for (let depth = this.blocks.length - 1; depth >= 0; depth--) {
      const variable = this.blocks[depth]?.get(name);
      if (variable) return variable;
    }
    return undefined;
  }

  /** Names whose declaration is in trouble: what uses them is not to blame. */
  readonly troubled = new Set<string>();

  /** By its name in the IR. */
  ofIr(name: string): Variable | undefined {
    return this.byIrName.get(name);
  }

  /** Where the innermost open block ends. */
  get end(): number {
    return this.ends.at(-1) ?? 0;
  }

  declaredHere(name: string): Variable | undefined {
    return this.blocks.at(-1)?.get(name);
  }

  declare(name: string, type: Type, readOnly: boolean, declared: Range): Variable {
    let unique = name;
    for (let count = 2; this.byIrName.has(unique); count++) unique = `${name}${count}`;
    const variable: Variable = { name: unique, type, readOnly, declared, assigned: false, read: false, uniform: false };
    this.byIrName.set(unique, variable);
    this.blocks.at(-1)?.set(name, variable);
    return variable;
  }

  /** A variable of ours, which the text cannot name. */
  temporary(type: Type, at: Range): Variable {
    let unique = 'kept';
    for (let count = 2; this.byIrName.has(unique); count++) unique = `kept${count}`;
    const variable: Variable = { name: unique, type, readOnly: false, declared: at, assigned: false, read: true, uniform: false };
    this.byIrName.set(unique, variable);
    return variable;
  }

  declareStruct(name: string, struct: StructType): void {
    this.structs.at(-1)?.set(name, struct);
  }

  struct(name: string): StructType | undefined {
    for (let depth = this.structs.length - 1; depth >= 0; depth--) {
      const struct = this.structs[depth]?.get(name);
      if (struct) return struct;
    }
    return undefined;
  }

  structDeclaredHere(name: string): StructType | undefined {
    return this.structs.at(-1)?.get(name);
  }

  inside<T>(end: number, work: () => T): T {
    this.blocks.push(new Map());
    this.structs.push(new Map());
    this.ends.push(end);
    try {
      return work();
    } finally {
      this.blocks.pop();
      this.structs.pop();
      this.ends.pop();
    }
  }

  names(): string[] {
    return this.blocks.flatMap((block) => [...block.keys()]);
  }

  get all(): Iterable<Variable> {
    return this.byIrName.values();
  }
}
