import { constant } from './build';
import { evaluate, NotEvaluable, type EvaluationContext } from './evaluate';
import type { Declare, Expression, IrFunction, Statement } from './ir';
import { componentCount, typeName } from './types';
import { components } from './value';
import { mapOperands, operands, walkExpression } from './walk';

/**
 * Passes over a straight line of immutable declarations, which is what a graph lowers to. Each takes and gives
 * a list in which everything is declared before it is used.
 */
export type Line = readonly Declare[];

/**
 * Replaces what is known now by its value. Values that are not finite stay code, so that no constant
 * expression without a value reaches a driver.
 */
export function fold(expression: Expression, context: EvaluationContext): Expression {
  const folded = mapOperands(expression, (operand) => fold(operand, context));
  if (folded.op === 'constant' || folded.op === 'reference' || componentCount(folded.type) === 0) return folded;
  if (!allConstant(folded)) return folded;
  try {
    const value = components(evaluate(folded, context));
    return value.every(Number.isFinite) ? constant(folded.type, value) : folded;
  } catch (error) {
    if (error instanceof NotEvaluable) return folded;
    throw error;
  }
}

function allConstant(expression: Expression): boolean {
  if (expression.op === 'reference' || expression.op === 'member') return false;
  if (expression.op === 'call' || expression.op === 'builtin' || expression.op === 'construct') {
    return expression.args.every((arg) => arg.op === 'constant' || (arg.op === 'construct' && allConstant(arg)));
  }
  let all = true;
  walkExpression(expression, (each) => {
    if (each !== expression && each.op !== 'constant') all = false;
  });
  return all;
}

/** The line with every value changed; declarations whose value stays are kept as they are. */
export function mapValues(line: Line, change: (value: Expression) => Expression): Line {
  return line.map((declared) => {
    const value = declared.value && change(declared.value);
    return value === declared.value ? declared : { ...declared, value };
  });
}

/** Puts expressions in the place of names of this scope. */
export function substitute(expression: Expression, scope: 'local' | 'global', replaced: ReadonlyMap<string, Expression>): Expression {
  if (replaced.size === 0) return expression;
  const put = (each: Expression): Expression =>
    each.op === 'reference' && each.scope === scope ? (replaced.get(each.name) ?? each) : mapOperands(each, put);
  return put(expression);
}

/** Gives two declarations of the same expression one name; constants and plain references are put in place. */
export function shareCommon(line: Line): { line: Line; replaced: ReadonlyMap<string, Expression> } {
  const byKey = new Map<string, string>();
  const replaced = new Map<string, Expression>();
  const kept: Declare[] = [];
  for (const declared of line) {
    const value = declared.value && substitute(declared.value, 'local', replaced);
    if (!value) {
      kept.push(declared);
      continue;
    }
    if (value.op === 'constant' || value.op === 'reference') {
      replaced.set(declared.name, value);
      continue;
    }
    const key = expressionKey(value);
    const before = byKey.get(key);
    if (before) replaced.set(declared.name, { op: 'reference', name: before, type: declared.type, scope: 'local' });
    else {
      byKey.set(key, declared.name);
      kept.push(value === declared.value ? declared : { ...declared, value });
    }
  }
  return { line: kept, replaced };
}

/** Two expressions have the same key when they are the same but for where they came from. */
export function expressionKey(expression: Expression): string {
  const inner = (): string => operands(expression).map(expressionKey).join(',');
  switch (expression.op) {
    case 'constant':
      return `${typeName(expression.type)}[${expression.value.map((each) => (Object.is(each, -0) ? '-0' : each)).join(' ')}]`;
    case 'reference':
      return `${expression.scope === 'local' ? '%' : '@'}${expression.name}`;
    case 'call':
      return `${expression.callee}:(${inner()})`;
    case 'builtin':
      return `${expression.name}(${inner()})`;
    case 'unary':
    case 'binary':
      return `(${expression.operator} ${inner()})`;
    case 'construct':
      return `${typeName(expression.type)}(${inner()})`;
    case 'member':
      return `${inner()}.${expression.field}`;
    case 'swizzle':
      return `${inner()}.${expression.components.join('')}`;
    case 'index':
    case 'conditional':
      return `${expression.op}(${inner()})`;
  }
}

/** Leaves out declarations that nothing in `results` needs. */
export function dropDead(line: Line, results: readonly Expression[]): Line {
  const needed = new Set<string>();
  const need = (expression: Expression): void =>
    walkExpression(expression, (each) => {
      if (each.op === 'reference' && each.scope === 'local') needed.add(each.name);
    });
  results.forEach(need);
  const kept: Declare[] = [];
  for (let index = line.length - 1; index >= 0; index--) {
    const declared = line[index];
    if (!declared || !needed.has(declared.name)) continue;
    if (declared.value) need(declared.value);
    kept.push(declared);
  }
  return kept.reverse();
}

/** A function body made of a line and a result. */
export function returning(line: Line, result: Expression): Statement[] {
  return [...line, { op: 'return', value: result }];
}

/** Signatures of the functions that are reached from `roots`, callees before callers. */
export function reachableFunctions(
  roots: readonly string[],
  functions: ReadonlyMap<string, IrFunction>,
  calleesOf: (declared: IrFunction) => readonly string[],
): IrFunction[] {
  const order: IrFunction[] = [];
  const seen = new Set<string>();
  const enter = (signature: string): void => {
    if (seen.has(signature)) return;
    seen.add(signature);
    const declared = functions.get(signature);
    if (!declared) throw new ReferenceError(`the program calls ${signature}, which no module defines`);
    calleesOf(declared).forEach(enter);
    order.push(declared);
  };
  roots.forEach(enter);
  return order;
}
