import type { Type } from '../ir/types';

export interface Variable {
  /** Its name in the IR, unique within the function. */
  readonly name: string;
  readonly type: Type;
  readonly readOnly: boolean;
  assigned: boolean;
}

/** The names visible inside one function; inner blocks may hide outer names. */
export class FunctionScope {
  private readonly blocks: Map<string, Variable>[] = [new Map<string, Variable>()];
  private readonly taken = new Set<string>();

  find(name: string): Variable | undefined {
    for (let depth = this.blocks.length - 1; depth >= 0; depth--) {
      const variable = this.blocks[depth]?.get(name);
      if (variable) return variable;
    }
    return undefined;
  }

  declaredHere(name: string): boolean {
    return this.blocks.at(-1)?.has(name) ?? false;
  }

  declare(name: string, type: Type, readOnly: boolean): Variable {
    let unique = name;
    for (let count = 2; this.taken.has(unique); count++) unique = `${name}${count}`;
    this.taken.add(unique);
    const variable: Variable = { name: unique, type, readOnly, assigned: false };
    this.blocks.at(-1)?.set(name, variable);
    return variable;
  }

  inside<T>(work: () => T): T {
    this.blocks.push(new Map());
    try {
      return work();
    } finally {
      this.blocks.pop();
    }
  }

  names(): string[] {
    return this.blocks.flatMap((block) => [...block.keys()]);
  }
}
