import { evaluateBuiltin, BUILTIN_FUNCTIONS } from '../builtins/table';
import { evaluate, NotEvaluable, type EvaluationContext } from '../evaluate';
import type { Global, IrFunction } from '../ir';
import { scalarCount, scalarOf, typeName, type Type } from '../types';
import { encodeModule, EXPORTED, NAMESPACE, type Imported, type Variable, type Written } from './encoding';
import { kindOf, kindsOf, NotCompilable, numbersOf, scalarsOf } from './flat';
import { shapeOf, writtenFunction, type Surroundings } from './function-writer';
import { known, type Operand } from './operand';

/** What of WebAssembly's interface is needed; all hosts have it (WebAssembly JavaScript Interface 2.0, section 5). */
declare const WebAssembly: {
  readonly Module: new (bytes: Uint8Array<ArrayBuffer>) => object;
  readonly Instance: new (module: object, imports: object) => { readonly exports: Readonly<Record<string, unknown>> };
};

/**
 * Numbers in, numbers out: the components of all parameters but those with `out`, in order; given are the result's, then those
 * of `out` and `inout` parameters. Booleans are 0 and 1; a `uint` is the `int` of the same bits.
 */
export type CompiledFunction = (...numbers: readonly number[]) => readonly number[];

/** As WebAssembly hands numbers out: nothing, one by itself, several as a list. */
type Exported = (...numbers: readonly number[]) => undefined | number | readonly number[];

/** Larger tables are not written out. */
const MOST_NUMBERS = 4096;

/**
 * A function as machine code, hundreds of times faster than `evaluateCall` and with the same arithmetic: 32-bit floats, whole
 * numbers that wrap. Derivatives are 0. It does not end by itself: loops that may be endless have to be guarded.
 *
 * @param privates variables outside of functions, which keep their values from call to call
 * @returns nothing for what only a device can do, what reads what is not given, and what is too large for a host
 */
export function compileFunction(
  callee: IrFunction,
  context: EvaluationContext,
  privates: readonly Global[] = [],
): CompiledFunction | undefined {
  try {
    return new Compilation(context, privates).function(callee);
  } catch (error) {
    if (error instanceof NotCompilable || error instanceof NotEvaluable) return undefined;
    throw error;
  }
}

class Compilation {
  private readonly reached: IrFunction[] = [];
  private readonly imports: Imported[] = [];
  private readonly builtins: Record<string, (...numbers: number[]) => unknown> = {};
  private readonly variables: Variable[] = [];
  private readonly globals = new Map<string, readonly Operand[]>();

  constructor(
    private readonly context: EvaluationContext,
    privates: readonly Global[],
  ) {
    for (const { name, type, value } of privates) {
      const start = value ? numbersOf(evaluate(value, context)) : [];
      const cells = scalarsOf(type).map((scalar, index): Operand => {
        this.variables.push({ kind: kindOf(scalar), start: start[index] ?? 0 });
        return { scalar, scope: 'global', index: this.variables.length - 1 };
      });
      this.globals.set(name, cells);
    }
  }

  function(callee: IrFunction): CompiledFunction {
    // Built-ins that are called are numbered before our own functions: all of them must be known.
    let functions: Written[];
    let known: number;
    do {
      known = this.imports.length;
      functions = this.write(callee);
    } while (this.imports.length !== known);
    const bytes = encodeModule(this.imports, functions, this.variables);
    const { exports } = new WebAssembly.Instance(new WebAssembly.Module(bytes), { [NAMESPACE]: this.builtins });
    const exported = exports[EXPORTED] as Exported;
    if (shapeOf(callee).gives.length > 1) return exported as CompiledFunction;
    return (...numbers) => {
      const given = exported(...numbers);
      return typeof given === 'number' ? [given] : [];
    };
  }

  private write(callee: IrFunction): Written[] {
    this.reached.length = 0;
    this.reached.push(callee);
    const around: Surroundings = {
      callee: (signature) => {
        const declared = this.context.functions.get(signature);
        if (!declared) throw new NotCompilable(signature);
        const before = this.reached.findIndex((each) => each.signature === signature);
        const own = before < 0 ? this.reached.push(declared) - 1 : before;
        return { index: this.imports.length + own, declared };
      },
      builtin: (name, args, result) => this.builtin(name, args, result),
      global: (name, type) => this.global(name, type),
      keepsVariables: this.variables.length > 0,
    };
    const written: Written[] = [];
    for (let index = 0; index < this.reached.length; index++) {
      const declared = this.reached[index];
      if (declared) written.push(writtenFunction(declared, around));
    }
    return written;
  }

  /** What does not change is written in its place. */
  private global(name: string, type: Type): readonly Operand[] {
    const variable = this.globals.get(name);
    if (variable) return variable;
    const value = this.context.globals?.get(name);
    if (value === undefined || scalarCount(type) > MOST_NUMBERS) throw new NotCompilable(name);
    const numbers = numbersOf(value);
    return scalarsOf(type).map((scalar, index) => known(scalar, numbers[index] ?? 0));
  }

  /** A built-in of the table, called with numbers. */
  private builtin(name: string, args: readonly Type[], result: Type): number {
    if (!BUILTIN_FUNCTIONS.get(name)?.evaluate) throw new NotCompilable(name);
    const key = `${name}(${args.map(typeName).join()})`;
    const known = this.imports.findIndex((each) => each.name === key);
    if (known >= 0) return known;
    const counts = args.map(scalarCount);
    const isUnsigned = args.map((type) => scalarOf(type) === 'uint');
    const [first] = args;
    const isFloat = scalarOf(result) === 'float';
    const single = scalarCount(result) === 1;
    this.builtins[key] = (...numbers) => {
      let from = 0;
      const lists = counts.map((count, index) => {
        const list = numbers.slice(from, (from += count));
        return isUnsigned[index] ? list.map((each) => each >>> 0) : list;
      });
      if (first?.kind === 'matrix') lists.push([first.columns]);
      const found = evaluateBuiltin(name, lists, isFloat) ?? [];
      return single ? found[0] : found;
    };
    return this.imports.push({ name: key, shape: { takes: args.flatMap(kindsOf), gives: kindsOf(result) } }) - 1;
  }
}
