import { evaluateBuiltin } from './builtins/table';
import type { Binary, Expression, IrFunction, Statement, Switch } from './ir';
import { componentCount, scalarOf, type MatrixType, type ScalarName, type Type } from './types';
import { components, isArrayValue, isStruct, sameValue, zero, type Value } from './value';

/** What an evaluation may look up. */
export interface EvaluationContext {
  readonly functions: ReadonlyMap<string, IrFunction>;
  /** Values of globals by name: uniforms, stage inputs. */
  readonly globals?: ReadonlyMap<string, Value>;
}

/** The expression cannot be known without a device or an input that was not given. */
export class NotEvaluable extends Error {}

const MOST_STEPS = 100_000;

/**
 * Evaluates an expression on the CPU with 32-bit float arithmetic. Derivatives are 0.
 *
 * @throws NotEvaluable for textures, missing globals, `discard`, or more than 100,000 steps
 */
export function evaluate(expression: Expression, context: EvaluationContext, locals: ReadonlyMap<string, Value> = new Map()): Value {
  return new Evaluator(context).expression(expression, new Map(locals));
}

/** Calls a function with `in` arguments; `out` and `inout` parameters come back in `outs` by name. */
export function evaluateCall(
  callee: IrFunction,
  args: readonly Value[],
  context: EvaluationContext,
): { result: Value; outs: Record<string, Value> } {
  return new Evaluator(context).call(callee, args);
}

type Locals = Map<string, Value>;
type Flow = { readonly kind: 'next' | 'break' | 'continue' } | { readonly kind: 'return'; readonly value: Value };
const NEXT: Flow = { kind: 'next' };

class Evaluator {
  private steps = 0;

  constructor(private readonly context: EvaluationContext) {}

  expression(expression: Expression, locals: Locals): Value {
    switch (expression.op) {
      case 'constant':
        return expression.value;
      case 'reference':
        return this.lookUp(
          expression.scope === 'local' ? locals.get(expression.name) : this.context.globals?.get(expression.name),
          expression.name,
        );
      case 'call': {
        const callee = this.context.functions.get(expression.callee);
        if (!callee) throw new NotEvaluable(expression.callee);
        const args = expression.args.map((arg, index) =>
          callee.parameters[index]?.direction === 'out' ? zero(arg.type) : this.expression(arg, locals),
        );
        const { result, outs } = this.call(callee, args);
        callee.parameters.forEach((parameter, index) => {
          const target = expression.args[index];
          const written = outs[parameter.name];
          if (target && written !== undefined) this.assign(target, written, locals);
        });
        return result;
      }
      case 'builtin': {
        const args = expression.args.map((arg) => components(this.expression(arg, locals)));
        // How many columns it has tells what the numbers of a matrix are.
        const [first] = expression.args;
        if (first?.type.kind === 'matrix') args.push([first.type.columns]);
        const result = evaluateBuiltin(expression.name, args, scalarOf(expression.type) === 'float');
        if (!result) throw new NotEvaluable(expression.name);
        return result;
      }
      case 'unary': {
        const value = components(this.expression(expression.value, locals));
        return rounded(value.map(SIGNS[expression.operator]), expression.type);
      }
      case 'binary':
        return this.binary(expression, locals);
      case 'construct':
        return this.construct(
          expression.type,
          expression.args.map((arg) => this.expression(arg, locals)),
          expression.args.map((arg) => arg.type),
        );
      case 'member': {
        const object = this.expression(expression.object, locals);
        if (!isStruct(object)) throw new TypeError('a field is read from a struct');
        return this.lookUp(object.fields[expression.field], expression.field);
      }
      case 'swizzle': {
        const object = components(this.expression(expression.object, locals));
        return expression.components.map((component) => object[component] ?? 0);
      }
      case 'index':
        return this.index(
          this.expression(expression.object, locals),
          components(this.expression(expression.index, locals))[0] ?? 0,
          expression.type,
        );
      case 'conditional':
        return this.expression(this.truth(expression.condition, locals) ? expression.then : expression.else, locals);
    }
  }

  call(callee: IrFunction, args: readonly Value[]): { result: Value; outs: Record<string, Value> } {
    const locals: Locals = new Map();
    callee.parameters.forEach(({ name, type }, index) => locals.set(name, args[index] ?? zero(type)));
    const flow = this.statements(callee.body, locals);
    const outs: Record<string, Value> = {};
    for (const { name, type, direction } of callee.parameters) if (direction !== 'in') outs[name] = locals.get(name) ?? zero(type);
    return { result: flow.kind === 'return' ? flow.value : [], outs };
  }

  private lookUp(value: Value | undefined, name: string): Value {
    if (value === undefined) throw new NotEvaluable(name);
    return value;
  }

  private truth(condition: Expression, locals: Locals): boolean {
    return Boolean(components(this.expression(condition, locals))[0]);
  }

  private statements(statements: readonly Statement[], locals: Locals): Flow {
    for (const statement of statements) {
      if (++this.steps > MOST_STEPS) throw new NotEvaluable('too many steps');
      const flow = this.statement(statement, locals);
      if (flow.kind !== 'next') return flow;
    }
    return NEXT;
  }

  private statement(statement: Statement, locals: Locals): Flow {
    switch (statement.op) {
      case 'declare':
        locals.set(statement.name, statement.value ? this.expression(statement.value, locals) : zero(statement.type));
        return NEXT;
      case 'assign':
        this.assign(statement.target, this.expression(statement.value, locals), locals);
        return NEXT;
      case 'evaluate':
        this.expression(statement.value, locals);
        return NEXT;
      case 'if':
        return this.statements(this.truth(statement.condition, locals) ? statement.then : statement.else, locals);
      case 'block':
        return this.statements(statement.body, locals);
      case 'switch':
        return this.switch(statement, locals);
      case 'loop': {
        let first = !statement.testFirst;
        while (first || this.truth(statement.condition, locals)) {
          first = false;
          if (++this.steps > MOST_STEPS) throw new NotEvaluable('too many steps');
          const flow = this.statements(statement.body, locals);
          if (flow.kind === 'return') return flow;
          if (flow.kind === 'break') break;
          this.statements(statement.step, locals);
        }
        return NEXT;
      }
      case 'return':
        return { kind: 'return', value: statement.value ? this.expression(statement.value, locals) : [] };
      case 'discard':
        throw new NotEvaluable('discard');
      default:
        return { kind: statement.op };
    }
  }

  /** From the label that fits, or `default`, through all that follows up to a `break`. */
  private switch({ selector, cases }: Switch, locals: Locals): Flow {
    const [value] = components(this.expression(selector, locals));
    const fits = cases.findIndex((each) => each.values.includes(value ?? 0));
    const start = fits >= 0 ? fits : cases.findIndex((each) => each.otherwise);
    for (const { body } of start < 0 ? [] : cases.slice(start)) {
      const flow = this.statements(body, locals);
      if (flow.kind === 'break') return NEXT;
      if (flow.kind !== 'next') return flow;
    }
    return NEXT;
  }

  private assign(target: Expression, value: Value, locals: Locals): void {
    switch (target.op) {
      case 'reference':
        locals.set(target.name, value);
        return;
      case 'member': {
        const object = this.expression(target.object, locals);
        if (isStruct(object)) this.assign(target.object, { fields: { ...object.fields, [target.field]: value } }, locals);
        return;
      }
      case 'swizzle': {
        const next = [...components(this.expression(target.object, locals))];
        target.components.forEach((component, index) => (next[component] = components(value)[index] ?? 0));
        this.assign(target.object, next, locals);
        return;
      }
      case 'index': {
        const object = this.expression(target.object, locals);
        const at = components(this.expression(target.index, locals))[0] ?? 0;
        if (isArrayValue(object)) {
          this.assign(target.object, { items: object.items.map((item, index) => (index === at ? value : item)) }, locals);
          return;
        }
        const next = [...components(object)];
        const size = componentCount(target.type);
        components(value).forEach((component, index) => (next[at * size + index] = component));
        this.assign(target.object, next, locals);
        return;
      }
      default:
        throw new TypeError(`${target.op} is no place to assign to`);
    }
  }

  private index(object: Value, at: number, type: Type): Value {
    if (isArrayValue(object)) return this.lookUp(object.items[at], `[${at}]`);
    const size = componentCount(type);
    return components(object).slice(at * size, at * size + size);
  }

  private construct(type: Type, args: readonly Value[], argTypes: readonly Type[]): Value {
    if (type.kind === 'struct')
      return { fields: Object.fromEntries(type.fields.map((field, index) => [field.name, this.lookUp(args[index], field.name)])) };
    if (type.kind === 'array') return { items: args };
    const given: number[] = [];
    for (const arg of args) given.push(...components(arg));
    const count = componentCount(type);
    const [only] = argTypes;
    if (type.kind === 'matrix' && args.length === 1) return resizeMatrix(given, type, only?.kind === 'matrix' ? only : undefined);
    const spread = given.length === 1 ? Array<number>(count).fill(given[0] ?? 0) : given.slice(0, count);
    return rounded(spread, type);
  }

  private binary({ operator, left, right, type }: Binary, locals: Locals): Value {
    if (operator === '&&') return [Number(this.truth(left, locals) && this.truth(right, locals))];
    if (operator === '||') return [Number(this.truth(left, locals) || this.truth(right, locals))];
    const [one, other] = [this.expression(left, locals), this.expression(right, locals)];
    if (operator === '==' || operator === '!=') return [Number(sameValue(one, other) === (operator === '=='))];
    const [a, b] = [components(one), components(other)];
    if (operator === '*' && (left.type.kind === 'matrix' || right.type.kind === 'matrix') && a.length > 1 && b.length > 1) {
      return multiplyMatrices(a, left.type, b, right.type).map(Math.fround);
    }
    const work = ARITHMETIC[operator];
    const scalar = scalarOf(left.type) ?? 'float';
    const size = Math.max(a.length, b.length);
    const result: number[] = [];
    // A scalar stands for as many components as there are on the other side.
    for (let index = 0; index < size; index++) {
      const x = (a.length === 1 ? a[0] : a[index]) ?? 0;
      const y = (b.length === 1 ? b[0] : b[index]) ?? 0;
      result.push(work(x, y, scalar));
    }
    return rounded(result, type);
  }
}

const SIGNS = { '-': (x: number) => -x, '!': (x: number) => Number(!x), '~': (x: number) => ~x };

const ARITHMETIC: Readonly<
  Record<Exclude<Binary['operator'], '&&' | '||' | '==' | '!='>, (a: number, b: number, scalar: ScalarName) => number>
> = {
  '+': (a, b) => a + b,
  '-': (a, b) => a - b,
  '*': (a, b, scalar) => (scalar === 'float' ? a * b : Math.imul(a, b)),
  '/': (a, b, scalar) => (scalar === 'float' ? a / b : b === 0 ? 0 : Math.trunc(a / b)),
  '%': (a, b) => (b === 0 ? 0 : a % b),
  '<': (a, b) => Number(a < b),
  '>': (a, b) => Number(a > b),
  '<=': (a, b) => Number(a <= b),
  '>=': (a, b) => Number(a >= b),
  '^^': (a, b) => Number(Boolean(a) !== Boolean(b)),
  '&': (a, b) => a & b,
  '|': (a, b) => a | b,
  '^': (a, b) => a ^ b,
  '<<': (a, b) => a << b,
  '>>': (a, b, scalar) => (scalar === 'uint' ? a >>> b : a >> b),
};

const ROUNDING: Readonly<Record<ScalarName, (value: number) => number>> = {
  float: Math.fround,
  int: (value) => value | 0,
  uint: (value) => value >>> 0,
  bool: (value) => Number(Boolean(value)),
};

/** Rounds the numbers of a list as the type holds them, in place. */
function rounded(values: number[], type: Type): number[] {
  const round = ROUNDING[scalarOf(type) ?? 'bool'];
  for (let index = 0; index < values.length; index++) values[index] = round(values[index] ?? 0);
  return values;
}

function multiplyMatrices(a: readonly number[], typeA: Type, b: readonly number[], typeB: Type): number[] {
  const rows = typeA.kind === 'matrix' ? typeA.rows : 1;
  const columns = typeB.kind === 'matrix' ? typeB.columns : 1;
  const size = a.length / rows;
  const result: number[] = [];
  for (let column = 0; column < columns; column++) {
    for (let row = 0; row < rows; row++) {
      let sum = 0;
      for (let index = 0; index < size; index++) sum += (a[index * rows + row] ?? 0) * (b[column * size + index] ?? 0);
      result.push(sum);
    }
  }
  return result;
}

/** `matN(x)`: a number on the diagonal, or a matrix cut or padded with the unit matrix (GLSL ES 3.00 section 5.4.2). */
function resizeMatrix(given: readonly number[], { columns, rows }: MatrixType, from: MatrixType | undefined): number[] {
  return Array.from({ length: columns * rows }, (_, index) => {
    const column = Math.floor(index / rows);
    const row = index % rows;
    if (!from) return column === row ? (given[0] ?? 0) : 0;
    return column < from.columns && row < from.rows ? (given[column * from.rows + row] ?? 0) : Number(column === row);
  });
}
