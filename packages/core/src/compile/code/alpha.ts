import type { Expression, IrFunction } from '../../ir/ir';
import { componentCount } from '../../ir/types';
import { BUILTIN_FUNCTIONS } from '../../ir/builtins/table';
import { expressionsOf, walkExpression, walkStatements } from '../../ir/walk';

/**
 * Finds out, from the text alone, whether the fourth component of colours is always 1. Numbers that may change are not
 * looked at: a colour whose alpha comes from one may be seen through.
 */
class AlwaysOpaque {
  /** Results of functions; one that is asked for while it is found out counts as 1, so that what only passes it on does too. */
  private readonly results = new Map<string, boolean>();

  constructor(private readonly functions: ReadonlyMap<string, IrFunction>) {}

  result(signature: string): boolean {
    const known = this.results.get(signature);
    if (known !== undefined) return known;
    const declared = this.functions.get(signature);
    if (!declared) return false;
    this.results.set(signature, true);
    let always = true;
    walkStatements(declared.body, (statement) => {
      if (statement.op === 'return' && statement.value && !this.of(statement.value, declared, new Set())) always = false;
    });
    this.results.set(signature, always);
    return always;
  }

  /** Whether every write to a variable leaves its alpha 1. */
  written(name: string, within: readonly IrFunction[], looked: ReadonlySet<string> = new Set()): boolean {
    let [writes, always] = [0, true];
    for (const declared of within) {
      if (declared.parameters.some((each) => each.name === name)) return false;
      walkStatements(declared.body, (statement) => {
        if (statement.op === 'declare' && statement.name === name) {
          writes++;
          if (statement.value && !this.of(statement.value, declared, looked)) always = false;
        }
        if (statement.op === 'assign') {
          const { target, value } = statement;
          if (isNamed(target, name)) {
            writes++;
            if (!this.of(value, declared, looked)) always = false;
          } else if (reaches(target, name)) {
            const part = target.op === 'swizzle' && isNamed(target.object, name) ? target.components.indexOf(3) : 0;
            const isOne = part >= 0 && value.op === 'constant' && value.value[part] === 1;
            if (part >= 0 && isOne && target.op === 'swizzle') writes++;
            else if (part >= 0) always = false;
          }
        }
        for (const expression of expressionsOf(statement))
          walkExpression(expression, (each) => {
            // A function may write through what it is handed.
            if (each.op === 'call' && each.args.some((arg) => reaches(arg, name)) && this.writesThrough(each.callee)) always = false;
          });
      });
    }
    return always && writes > 0;
  }

  private writesThrough(callee: string): boolean {
    return this.functions.get(callee)?.parameters.some(({ direction }) => direction !== 'in') ?? false;
  }

  private of(expression: Expression, within: IrFunction, looked: ReadonlySet<string>): boolean {
    switch (expression.op) {
      case 'constant':
        return expression.value[3] === 1;
      case 'construct': {
        const last = expression.args.at(-1);
        if (!last) return false;
        if (componentCount(last.type) === 4) return this.of(last, within, looked);
        return last.op === 'constant' && last.value.at(-1) === 1;
      }
      case 'conditional':
        return this.of(expression.then, within, looked) && this.of(expression.else, within, looked);
      case 'binary':
        return (
          expression.operator === '*' &&
          [expression.left, expression.right].every((each) =>
            componentCount(each.type) === 4 ? this.of(each, within, looked) : each.op === 'constant' && each.value[0] === 1,
          )
        );
      case 'builtin': {
        const first = expression.args.slice(0, BUILTIN_FUNCTIONS.get(expression.name)?.keepsOne ?? 0);
        return first.length > 0 && first.every((each) => componentCount(each.type) === 4 && this.of(each, within, looked));
      }
      case 'call':
        return this.result(expression.callee);
      case 'reference':
        if (expression.scope !== 'local') return false;
        // What is made of itself is as the rest of what it is made of.
        return looked.has(expression.name) || this.written(expression.name, [within], new Set([...looked, expression.name]));
      default:
        return false;
    }
  }
}

/** Whether what a function gives always has alpha 1. */
export function givesOpaque(declared: IrFunction, functions: ReadonlyMap<string, IrFunction>): boolean {
  return new AlwaysOpaque(functions).result(declared.signature);
}

/** Whether an output, wherever some functions write it, always has alpha 1. */
export function writesOpaque(output: string, own: readonly IrFunction[], functions: ReadonlyMap<string, IrFunction>): boolean {
  return new AlwaysOpaque(functions).written(output, own);
}

function isNamed(expression: Expression, name: string): boolean {
  return expression.op === 'reference' && expression.name === name;
}

function reaches(expression: Expression, name: string): boolean {
  let root = expression;
  while (root.op === 'member' || root.op === 'swizzle' || root.op === 'index') root = root.object;
  return isNamed(root, name);
}
