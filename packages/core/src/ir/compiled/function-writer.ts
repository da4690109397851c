import type { Binary, Builtin, Call, Conditional, Construct, Expression, IrFunction, Reference, Statement, Switch } from '../ir';
import { componentCount, scalarCount, scalarOf, type ScalarName, type Type } from '../types';
import { anyExpression, expressionsOf } from '../walk';
import { arithmetic, converted } from './arithmetic';
import { CODE, EMPTY_BLOCK, F32, I32, LIMITS, unsigned, type Kind, type Shape, type Written } from './encoding';
import { fieldSpan, kindOf, kindsOf, NotCompilable, scalarsOf } from './flat';
import { dotProduct, NATIVE } from './native-builtins';
import { isCell, isSame, known, read, write, type Cell, type Operand } from './operand';

/** What a function may name outside of itself. */
export interface Surroundings {
  readonly callee: (signature: string) => { readonly index: number; readonly declared: IrFunction };
  readonly builtin: (name: string, args: readonly Type[], result: Type) => number;
  readonly global: (name: string, type: Type) => readonly Operand[];
  /** Whether there are variables outside of functions, that any of them may write to. */
  readonly keepsVariables: boolean;
}

type Label = 'break' | 'continue' | 'other';

/** What a function takes and gives: its result, then what it writes to its parameters. */
export function shapeOf({ parameters, result }: IrFunction): Shape {
  const takes = parameters.flatMap(({ direction, type }) => (direction === 'out' ? [] : kindsOf(type)));
  const outs = parameters.flatMap(({ direction, type }) => (direction === 'in' ? [] : kindsOf(type)));
  const gives = [...kindsOf(result), ...outs];
  if (takes.length > LIMITS.takes || gives.length > LIMITS.gives) throw new NotCompilable('more numbers than a function can hand over');
  return { takes, gives };
}

export function writtenFunction(declared: IrFunction, around: Surroundings): Written {
  return new FunctionWriter(declared, around).written();
}

/**
 * Every number has a variable of its own, vectors and structs as many as they have numbers; an index that is only known at run
 * time chooses among them.
 */
class FunctionWriter {
  private readonly code: number[] = [];
  private readonly locals: Kind[] = [];
  private readonly names = new Map<string, readonly Cell[]>();
  private readonly labels: Label[] = [];
  /** Variables of expressions that are computed, to be used again: what is in them is read within its statement. */
  private readonly free: Readonly<Record<Kind, Cell['index'][]>> = { [F32]: [], [I32]: [] };
  private taken: { readonly kind: Kind; readonly index: number }[] = [];
  private readonly shape: Shape;
  private readonly outs: readonly Cell[];
  /** Whether what is read must be set aside, as something that is written in the same statement may change it. */
  private setAside = false;

  constructor(
    private readonly declared: IrFunction,
    private readonly around: Surroundings,
  ) {
    this.shape = shapeOf(declared);
    let count = 0;
    for (const { name, type, direction } of declared.parameters)
      if (direction !== 'out')
        this.names.set(
          name,
          scalarsOf(type).map((scalar) => ({ scalar, scope: 'local', index: count++ })),
        );
    for (const { name, type, direction } of declared.parameters) if (direction === 'out') this.declare(name, type);
    this.outs = declared.parameters.flatMap(({ name, direction }) => (direction === 'in' ? [] : (this.names.get(name) ?? [])));
  }

  written(): Written {
    this.statements(this.declared.body);
    // Where a path has no “return”, as after an endless loop.
    this.give(scalarsOf(this.declared.result).map((scalar) => known(scalar, 0)));
    if (this.code.length > LIMITS.codeBytes) throw new NotCompilable('more code than a function may have');
    return { shape: this.shape, locals: this.locals, code: this.code };
  }

  private give(values: readonly Operand[]): void {
    this.push(...[...values, ...this.outs].flatMap(read), CODE.return);
  }

  private push(...code: readonly number[]): void {
    for (const each of code) this.code.push(each);
  }

  private variable(scalar: ScalarName): Cell {
    const index = this.shape.takes.length + this.locals.push(kindOf(scalar)) - 1;
    if (index >= LIMITS.locals) throw new NotCompilable('more numbers than a function may have');
    return { scalar, scope: 'local', index };
  }

  /** A variable until the end of the statement. */
  private cell(scalar: ScalarName): Cell {
    const kind = kindOf(scalar);
    const index = this.free[kind].pop() ?? this.variable(scalar).index;
    this.taken.push({ kind, index });
    return { scalar, scope: 'local', index };
  }

  private kept(scalar: ScalarName, code: readonly number[]): Cell {
    const cell = this.cell(scalar);
    this.push(...code, ...write(cell));
    return cell;
  }

  private declare(name: string, type: Type): readonly Cell[] {
    const cells = scalarsOf(type).map((scalar) => this.variable(scalar));
    this.names.set(name, cells);
    return cells;
  }

  /** All at once: what is written may be read for what is written beside it. */
  private set(cells: readonly Cell[], values: readonly Operand[]): void {
    const changed = cells.flatMap((cell, index) => {
      const value = values[index];
      return value && !isSame(cell, value) ? [{ cell, value }] : [];
    });
    for (const { value } of changed) this.push(...read(value));
    for (const { cell } of changed.reverse()) this.push(...write(cell));
  }

  private inside(label: Label, opening: readonly number[], work: () => void): void {
    this.push(...opening, EMPTY_BLOCK);
    this.labels.push(label);
    work();
    this.labels.pop();
    this.push(CODE.end);
  }

  private jump(label: Label): void {
    this.push(CODE.br, ...unsigned(this.labels.length - 1 - this.labels.lastIndexOf(label)));
  }

  private choose(condition: Operand, then: () => void, otherwise?: () => void): void {
    this.inside('other', [...read(condition), CODE.if], () => {
      then();
      if (!otherwise) return;
      this.push(CODE.else);
      otherwise();
    });
  }

  private statements(statements: readonly Statement[]): void {
    for (const each of statements) {
      const before = this.taken;
      this.taken = [];
      this.look(each);
      this.statement(each);
      for (const { kind, index } of this.taken) this.free[kind].push(index);
      this.taken = before;
    }
  }

  private look(statement: Statement): void {
    this.setAside = expressionsOf(statement).some((root) => anyExpression(root, (each) => each.op === 'call' && this.changes(each)));
  }

  private changes({ callee }: Call): boolean {
    return this.around.keepsVariables || this.around.callee(callee).declared.parameters.some(({ direction }) => direction !== 'in');
  }

  private statement(statement: Statement): void {
    switch (statement.op) {
      case 'declare': {
        const values = statement.value ? this.value(statement.value) : scalarsOf(statement.type).map((scalar) => known(scalar, 0));
        this.set(this.declare(statement.name, statement.type), values);
        return;
      }
      case 'assign':
        this.assign(statement.target, this.value(statement.value));
        return;
      case 'evaluate':
        this.value(statement.value);
        return;
      case 'if':
        this.choose(
          this.single(statement.condition),
          () => this.statements(statement.then),
          statement.else.length > 0 ? () => this.statements(statement.else) : undefined,
        );
        return;
      case 'block':
        this.statements(statement.body);
        return;
      case 'switch':
        this.switch(statement);
        return;
      case 'loop': {
        const leave = (): void => {
          this.look(statement);
          const condition = this.single(statement.condition);
          this.push(...read(condition), CODE.i32Eqz, CODE.brIf, ...unsigned(1));
        };
        this.inside('break', [CODE.block], () =>
          this.inside('other', [CODE.loop], () => {
            if (statement.testFirst) leave();
            this.inside('continue', [CODE.block], () => this.statements(statement.body));
            this.statements(statement.step);
            if (!statement.testFirst) leave();
            this.push(CODE.br, ...unsigned(0));
          }),
        );
        return;
      }
      case 'return':
        this.give(statement.value ? this.value(statement.value) : []);
        return;
      case 'discard':
        throw new NotCompilable('discard');
      default:
        this.jump(statement.op);
    }
  }

  private switch({ selector, cases }: Switch): void {
    const chosen = this.single(selector);
    const start = this.cell('int');
    const other = cases.findIndex((each) => each.otherwise);
    this.push(...read(known('int', other < 0 ? cases.length : other)), ...write(start));
    cases.forEach(({ values }, index) => {
      for (const value of values) {
        const fits = arithmetic('==', chosen.scalar, chosen, known(chosen.scalar, value));
        this.push(...read(known('int', index)), ...read(start), ...fits, CODE.select, ...write(start));
      }
    });
    this.inside('break', [CODE.block], () =>
      cases.forEach(({ body }, index) => {
        const reached = this.kept('bool', arithmetic('<=', 'int', start, known('int', index)));
        this.choose(reached, () => this.statements(body));
      }),
    );
  }

  private assign(target: Expression, values: readonly Operand[]): void {
    switch (target.op) {
      case 'reference':
        this.set(this.named(target).filter(isCell), values);
        return;
      case 'member': {
        const [from, count] = fieldSpan(target.object.type, target.field);
        const next = this.there(target.object).map((each, index) => (index >= from && index < from + count ? values[index - from] : each));
        this.assign(target.object, defined(next));
        return;
      }
      case 'swizzle': {
        const next = [...this.there(target.object)];
        target.components.forEach((component, index) => (next[component] = values[index] ?? known('float', 0)));
        this.assign(target.object, next);
        return;
      }
      case 'index': {
        const at = this.single(target.index);
        const size = scalarCount(target.type);
        const next = this.there(target.object).map((each, index) => {
          const value = values[index % size] ?? each;
          const element = Math.floor(index / size);
          if (!isCell(at)) return at.value === element ? value : each;
          return this.kept(each.scalar, [
            ...read(value),
            ...read(each),
            ...arithmetic('==', 'int', at, known('int', element)),
            CODE.select,
          ]);
        });
        this.assign(target.object, next);
        return;
      }
      default:
        throw new NotCompilable(target.op);
    }
  }

  /** A place as it is now, to be written back at once. */
  private there(place: Expression): readonly Operand[] {
    const before = this.setAside;
    this.setAside = false;
    const values = this.value(place);
    this.setAside = before;
    return values;
  }

  private named({ name, scope, type }: Reference): readonly Operand[] {
    if (scope === 'global') return this.around.global(name, type);
    const cells = this.names.get(name);
    if (!cells) throw new NotCompilable(name);
    return cells;
  }

  private single(expression: Expression): Operand {
    const [only] = this.value(expression);
    if (!only) throw new NotCompilable(expression.op);
    return only;
  }

  private value(expression: Expression): readonly Operand[] {
    switch (expression.op) {
      case 'constant': {
        const scalar = scalarOf(expression.type) ?? 'float';
        return expression.value.map((each) => known(scalar, each));
      }
      case 'reference': {
        const values = this.named(expression);
        return this.setAside ? values.map((each) => (isCell(each) ? this.kept(each.scalar, read(each)) : each)) : values;
      }
      case 'call':
        return this.call(expression);
      case 'builtin':
        return this.builtin(expression);
      case 'unary': {
        const { operator } = expression;
        return this.value(expression.value).map((each) => {
          if (operator === '!') return this.kept('bool', [...read(each), CODE.i32Eqz]);
          if (operator === '~') return this.kept(each.scalar, arithmetic('^', each.scalar, each, known(each.scalar, -1)));
          if (each.scalar === 'float') return isCell(each) ? this.kept('float', [...read(each), CODE.f32Neg]) : known('float', -each.value);
          return this.kept(each.scalar, arithmetic('-', each.scalar, known(each.scalar, 0), each));
        });
      }
      case 'binary':
        return this.binary(expression);
      case 'construct':
        return this.construct(expression);
      case 'member': {
        const [from, count] = fieldSpan(expression.object.type, expression.field);
        return this.value(expression.object).slice(from, from + count);
      }
      case 'swizzle': {
        const object = this.value(expression.object);
        return defined(expression.components.map((component) => object[component]));
      }
      case 'index': {
        const object = this.value(expression.object);
        return this.element(object, this.single(expression.index), scalarCount(expression.type));
      }
      case 'conditional':
        return this.conditional(expression);
    }
  }

  private element(object: readonly Operand[], at: Operand, size: number): readonly Operand[] {
    const element = (index: number): readonly Operand[] => object.slice(index * size, index * size + size);
    if (!isCell(at)) return defined(Array.from({ length: size }, (_, index) => element(at.value)[index]));
    const found = element(0).map((each) => this.kept(each.scalar, read(each)));
    for (let index = 1; index < object.length / size; index++) {
      const here = this.kept('bool', arithmetic('==', 'int', at, known('int', index)));
      element(index).forEach((each, component) => {
        const cell = found[component];
        if (cell) this.push(...read(each), ...read(cell), ...read(here), CODE.select, ...write(cell));
      });
    }
    return found;
  }

  private conditional({ condition, then, else: otherwise, type }: Conditional): readonly Operand[] {
    const chosen = scalarsOf(type).map((scalar) => this.cell(scalar));
    this.choose(
      this.single(condition),
      () => this.set(chosen, this.value(then)),
      () => this.set(chosen, this.value(otherwise)),
    );
    return chosen;
  }

  private binary({ operator, left, right, type }: Binary): readonly Operand[] {
    if (operator === '&&' || operator === '||') {
      const result = this.kept('bool', read(this.single(left)));
      const more = (): void => this.set([result], [this.single(right)]);
      if (operator === '&&') this.choose(result, more);
      else this.choose(this.kept('bool', [...read(result), CODE.i32Eqz]), more);
      return [result];
    }
    const [a, b] = [this.value(left), this.value(right)];
    const scalar = a[0]?.scalar ?? 'float';
    if (operator === '==' || operator === '!=') {
      const equal = a.flatMap((each, index) => [
        ...arithmetic('==', each.scalar, each, b[index] ?? each),
        ...(index > 0 ? [CODE.i32And] : []),
      ]);
      return [this.kept('bool', operator === '==' ? equal : [...equal, CODE.i32Eqz])];
    }
    if (operator === '*' && (left.type.kind === 'matrix' || right.type.kind === 'matrix') && a.length > 1 && b.length > 1)
      return this.product(a, left.type, b, right.type);
    const result = scalarOf(type) ?? 'float';
    const size = Math.max(a.length, b.length);
    return Array.from({ length: size }, (_, index) => {
      const [x, y] = [a.length === 1 ? a[0] : a[index], b.length === 1 ? b[0] : b[index]];
      if (!x || !y) throw new NotCompilable(operator);
      return this.kept(result, arithmetic(operator, scalar, x, y));
    });
  }

  /** Column by column; a vector on the left is a row, on the right a column. */
  private product(a: readonly Operand[], typeA: Type, b: readonly Operand[], typeB: Type): readonly Operand[] {
    const rows = typeA.kind === 'matrix' ? typeA.rows : 1;
    const columns = typeB.kind === 'matrix' ? typeB.columns : 1;
    const size = a.length / rows;
    return Array.from({ length: rows * columns }, (_, index) => {
      const [row, column] = [index % rows, Math.floor(index / rows)];
      const along = defined(Array.from({ length: size }, (__, at) => a[at * rows + row]));
      return this.kept('float', dotProduct(along, b.slice(column * size, column * size + size)));
    });
  }

  private construct({ type, args }: Construct): readonly Operand[] {
    const given = args.flatMap((arg) => this.value(arg));
    if (type.kind === 'struct' || type.kind === 'array') return given;
    const scalar = scalarOf(type) ?? 'float';
    const as = (operand: Operand): Operand => (operand.scalar === scalar ? operand : this.kept(scalar, converted(operand, scalar)));
    const [first] = given;
    const [only] = args;
    if (!first || !only) throw new NotCompilable('construct');
    if (type.kind === 'matrix' && args.length === 1) {
      // GLSL ES 3.00 section 5.4.2: a number on the diagonal, or a matrix cut or padded with the unit matrix.
      const from = only.type.kind === 'matrix' ? only.type : undefined;
      return Array.from({ length: type.columns * type.rows }, (_, index) => {
        const [column, row] = [Math.floor(index / type.rows), index % type.rows];
        if (!from) return column === row ? as(first) : known('float', 0);
        const inside = column < from.columns && row < from.rows ? given[column * from.rows + row] : undefined;
        return inside ?? known('float', Number(column === row));
      });
    }
    const count = componentCount(type);
    if (given.length === 1) return Array<Operand>(count).fill(as(first));
    return given.slice(0, count).map(as);
  }

  private call({ callee, args }: Call): readonly Operand[] {
    const { index, declared } = this.around.callee(callee);
    const given = args.map((arg, at) => (declared.parameters[at]?.direction === 'out' ? [] : this.value(arg)));
    this.push(...given.flat().flatMap(read), CODE.call, ...unsigned(index));
    const result = scalarsOf(declared.result).map((scalar) => this.cell(scalar));
    const outs = declared.parameters.map(({ direction, type }) =>
      direction === 'in' ? [] : scalarsOf(type).map((each) => this.cell(each)),
    );
    for (const cell of [...result, ...outs.flat()].reverse()) this.push(...write(cell));
    args.forEach((arg, at) => {
      const written = outs[at] ?? [];
      if (written.length > 0) this.assign(arg, written);
    });
    return result;
  }

  private builtin({ name, args, type }: Builtin): readonly Operand[] {
    const given = args.map((arg) => this.value(arg));
    const [a = [], b = []] = given;
    const scalar = scalarOf(type) ?? 'float';
    if (a[0]?.scalar === 'float') {
      const work = NATIVE[name];
      if (work && scalar === 'float' && args[0]?.type.kind !== 'matrix')
        return Array.from({ length: Math.max(...given.map((each) => each.length)) }, (_, index) =>
          this.kept('float', work(...defined(given.map((each) => (each.length === 1 ? each[0] : each[index]))))),
        );
      if (name === 'dot') return [this.kept('float', dotProduct(a, b))];
      if (name === 'length') return [this.length(a)];
      if (name === 'distance')
        return [this.length(a.map((each, index) => this.kept('float', arithmetic('-', 'float', each, b[index] ?? each))))];
      if (name === 'normalize') {
        const factor = this.kept('float', arithmetic('/', 'float', known('float', 1), this.length(a)));
        return a.map((each) => this.kept('float', arithmetic('*', 'float', each, factor)));
      }
    }
    const types = args.map((arg) => arg.type);
    this.push(...given.flat().flatMap(read), CODE.call, ...unsigned(this.around.builtin(name, types, type)));
    const result = scalarsOf(type).map((each) => this.cell(each));
    for (const cell of [...result].reverse()) this.push(...write(cell));
    return result;
  }

  private length(vector: readonly Operand[]): Cell {
    return this.kept('float', [...dotProduct(vector, vector), CODE.f32Sqrt]);
  }
}

function defined(operands: readonly (Operand | undefined)[]): Operand[] {
  return operands.map((each) => {
    if (!each) throw new NotCompilable('an index beyond the end');
    return each;
  });
}
