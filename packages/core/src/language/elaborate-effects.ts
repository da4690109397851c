import { constant, local } from '../ir/build';
import type { Binary, Expression, Statement } from '../ir/ir';
import type { Origin } from '../ir/origin';
import { BOOL, isFloatLike, ofSize, sameType, scalarOf, typeName, VOID, type Type } from '../ir/types';
import { anyExpression, expressionsOf, walkStatements } from '../ir/walk';
import type { ControlFlow } from './control-flow';
import { LanguageError } from './diagnostics';
import type { ElaboratesExpressions, ExpressionContext } from './expression-context';
import { conversionMend } from './mends';
import type { FunctionScope, Variable } from './scope';
import type { AssignmentSyntax, ExpressionSyntax, IncrementSyntax } from './syntax';

type Of<Op extends ExpressionSyntax['op']> = Extract<ExpressionSyntax, { op: Op }>;

/**
 * Expressions that change something while they are computed. Expressions of the IR change nothing, so what they do becomes
 * statements that stand before: `a[i++] = f(i)` becomes `kept = i; i = i + 1; a[kept] = f(i)`. What is read before such a
 * change keeps its value, from left to right.
 */
export class EffectElaborator {
  /** Statements that come before the one that is read now; none where nothing can stand before. */
  private before: Statement[] | undefined;

  constructor(
    private readonly expressions: ElaboratesExpressions,
    private readonly context: ExpressionContext,
    private readonly scope: FunctionScope,
    private readonly flow?: ControlFlow,
  ) {}

  /** What `work` comes to, and the statements that have to stand before. */
  collect<T>(work: () => T): { readonly result: T; readonly before: readonly Statement[] } {
    const outer = this.before;
    const before: Statement[] = [];
    this.before = before;
    try {
      return { result: work(), before };
    } finally {
      this.before = outer;
    }
  }

  /**
   * Values from left to right: what one of them changes does not change those before it.
   *
   * @param isPlace which of them are written to, and so cannot be kept
   */
  inOrder(parts: readonly (() => Expression)[], isPlace: (index: number) => boolean = () => false): Expression[] {
    const values: Expression[] = [];
    for (const part of parts) {
      const mark = this.before?.length ?? 0;
      const value = part();
      if (this.before && this.before.length > mark) {
        const kept: Statement[] = [];
        const changed = changedBy(this.before.slice(mark));
        values.forEach((each, index) => (values[index] = isPlace(index) || !readsAny(each, changed) ? each : this.kept(each, kept)));
        this.before.splice(mark, 0, ...kept);
      }
      values.push(value);
    }
    return values;
  }

  /** `a && b` and `a || b`: what the right side does, it does only where it is asked. */
  eitherOr(syntax: Of<'binary'>, operator: '&&' | '||'): Expression {
    const left = this.expressions.elaborate(syntax.left);
    const { result: right, before } = this.collect(() => this.expressions.elaborate(syntax.right));
    const whole = this.expressions.combined(syntax, left, right);
    if (before.length === 0) return whole;
    const result = this.variable(BOOL, left, syntax);
    const condition: Expression = operator === '&&' ? result : { op: 'unary', operator: '!', value: result, type: BOOL };
    this.emit({ op: 'if', condition, then: [...before, { op: 'assign', target: result, value: right }], else: [] }, syntax);
    return result;
  }

  /** `condition ? yes : no`: only what is chosen is done. */
  choice(syntax: Of<'conditional'>, condition: Expression, check: (no: Expression, type: Type) => void): Expression {
    const yes = this.collect(() => this.expressions.elaborate(syntax.yes));
    const no = this.collect(() => this.expressions.elaborate(syntax.no));
    const { type } = yes.result;
    check(no.result, type);
    if (yes.before.length === 0 && no.before.length === 0) {
      if (type.kind === 'array') throw new LanguageError('“?” does not choose between arrays. Use “if”.', syntax);
      return { op: 'conditional', condition, then: yes.result, else: no.result, type };
    }
    const result = this.variable(type, undefined, syntax);
    const branch = ({ result: value, before }: typeof yes): Statement[] => [...before, { op: 'assign', target: result, value }];
    this.emit({ op: 'if', condition, then: branch(yes), else: branch(no) }, syntax);
    return result;
  }

  /** `a, b`: all are done, the last one is the value. */
  sequence({ parts }: Of<'sequence'>): Expression {
    const values = parts.map((part, index) => {
      const value = this.expressions.elaborate(part);
      if (index < parts.length - 1 && hasCall(value)) this.emit({ op: 'evaluate', value }, part);
      return value;
    });
    return values.at(-1) ?? constant(BOOL, [0]);
  }

  assignment(syntax: AssignmentSyntax): Expression {
    const statement = this.assign(syntax);
    this.emit(statement, syntax);
    return this.readBack(statement.target);
  }

  increment(syntax: IncrementSyntax): Expression {
    const statement = this.step(syntax);
    const before = syntax.before ? undefined : this.variable(statement.target.type, this.readBack(statement.target), syntax);
    this.emit(statement, syntax);
    return before ?? this.readBack(statement.target);
  }

  /** The statement that an assignment is. */
  assign(syntax: AssignmentSyntax, origin = this.originOf(syntax)): Extract<Statement, { op: 'assign' }> {
    const { operator } = syntax;
    const target = this.steady(this.expressions.place(syntax.target), syntax.target, operator !== undefined);
    const given = this.expressions.elaborate(syntax.value);
    if (operator) this.matchScalars(given, syntax.value, target.type);
    const value = operator ? this.combined(syntax, operator, target, given) : given;
    if (operator && !sameType(value.type, target.type)) {
      const { source } = this.context;
      const message = `“${operator}=” would make a ${typeName(value.type)} of this, but "${source.slice(syntax.target)}" is ${typeName(target.type)}.`;
      throw new LanguageError(message, syntax.value);
    }
    this.expressions.expectType(value, target.type, syntax.value, 'The new value');
    this.changed(target, value);
    return { op: 'assign', target, value, origin };
  }

  private combined(syntax: AssignmentSyntax, operator: Binary['operator'], left: Expression, right: Expression): Expression {
    const { from, to } = syntax;
    return this.expressions.combined({ op: 'binary', operator, left: syntax.target, right: syntax.value, from, to }, left, right);
  }

  /** The statement that an increment is. */
  step(whole: IncrementSyntax, origin = this.originOf(whole)): Extract<Statement, { op: 'assign' }> {
    const { target: syntax, operator } = whole;
    const target = this.steady(this.expressions.place(syntax), syntax, true);
    const scalar = scalarOf(target.type);
    if (!scalar || scalar === 'bool') {
      throw new LanguageError(`"${operator}${operator}" counts numbers, but this is ${typeName(target.type)}.`, syntax);
    }
    const one = constant(ofSize(scalar, 1), [1]);
    const value: Expression = { op: 'binary', operator, left: target, right: one, type: target.type };
    this.changed(target, value);
    return { op: 'assign', target, value, origin };
  }

  /** `modf(x, whole)`, section 8.3: `whole` is given what stands before the point. */
  modf(syntax: Of<'call'>): Expression {
    const [numberSyntax, placeSyntax] = syntax.args;
    if (!numberSyntax || !placeSyntax) throw new LanguageError('“modf” takes a number and a variable for its whole part.', syntax);
    const given = this.expressions.elaborate(numberSyntax);
    const target = this.expressions.place(placeSyntax);
    if (!isFloatLike(given.type))
      throw new LanguageError(`"modf" takes a float or a vector of floats, but this is ${typeName(given.type)}.`, numberSyntax);
    if (!sameType(given.type, target.type)) {
      throw new LanguageError(`"modf" writes a ${typeName(given.type)} here, but this is ${typeName(target.type)}.`, placeSyntax);
    }
    const { type } = given;
    const name = { from: syntax.callee.from, to: syntax.callee.from + 4 };
    const words = typeName(type);
    this.context.environment.note(name, () => ({ kind: 'builtin', name: 'modf', signature: `${words} modf(${words}, out ${words})` }));
    const number = this.variable(type, given, syntax);
    const value: Expression = { op: 'builtin', name: 'trunc', args: [number], type };
    this.changed(target, value);
    const variable = this.variableOf(target);
    if (variable) variable.read = true;
    this.emit({ op: 'assign', target, value }, syntax);
    return { op: 'binary', operator: '-', left: number, right: value, type };
  }

  /** `i += 1.0` for an int: what is added must change, not the variable. */
  private matchScalars(value: Expression, syntax: ExpressionSyntax, type: Type): void {
    const [wanted, given] = [scalarOf(type), scalarOf(value.type)];
    if (!wanted || !given || wanted === given || value.type.kind === 'matrix' || given === 'bool' || wanted === 'bool') return;
    const whole = wanted !== 'float' && given !== 'float';
    if (whole) return;
    const to = value.type.kind === 'vector' ? ofSize(wanted, value.type.size) : ofSize(wanted, 1);
    throw new LanguageError(`Whole numbers and floats do not mix. This is ${typeName(value.type)}.`, syntax, {
      mends: [conversionMend(value, to, syntax)],
    });
  }

  /** A place whose indexes are computed once, though it is read and written. */
  private steady(place: Expression, syntax: ExpressionSyntax, isReadToo: boolean): Expression {
    switch (place.op) {
      case 'member':
      case 'swizzle':
        return { ...place, object: this.steady(place.object, syntax, isReadToo) };
      case 'index': {
        const index = isReadToo && hasCall(place.index) ? this.variable(place.index.type, place.index, syntax) : place.index;
        return { ...place, object: this.steady(place.object, syntax, isReadToo), index };
      }
      default:
        return place;
    }
  }

  /** What is known of a variable no longer holds. */
  private changed(target: Expression, value: Expression): void {
    const variable = this.variableOf(target);
    if (!variable) return;
    variable.direction = undefined;
    if (this.flow) variable.uniform &&= this.flow.where !== 'branch' && this.flow.isUniform(value);
  }

  private variableOf(place: Expression): Variable | undefined {
    let root = place;
    while (root.op === 'member' || root.op === 'swizzle' || root.op === 'index') root = root.object;
    return root.op === 'reference' && root.scope === 'local' ? this.scope.ofIr(root.name) : undefined;
  }

  private readBack(place: Expression): Expression {
    const variable = this.variableOf(place);
    if (variable) variable.read = true;
    return place;
  }

  private kept(value: Expression, into: Statement[]): Expression {
    if (value.op === 'constant' || value.type.kind === 'sampler' || value.type.kind === 'void') return value;
    const { name } = this.scope.temporary(value.type, { from: 0, to: 0 });
    into.push({ op: 'declare', name, type: value.type, value, mutable: false });
    return local(name, value.type);
  }

  /** A variable of ours, declared before the statement that is read now. */
  private variable(type: Type, value: Expression | undefined, syntax: ExpressionSyntax): Expression {
    if (type.kind === VOID.kind) throw new LanguageError('Nothing (void) has no value.', syntax);
    const variable = this.scope.temporary(type, syntax);
    variable.assigned = true;
    variable.uniform = value !== undefined && this.flow?.isUniform(value) === true;
    this.emit({ op: 'declare', name: variable.name, type, value, mutable: true }, syntax);
    return local(variable.name, type);
  }

  /** Puts statements before the one that is read now. */
  put(statements: readonly Statement[]): void {
    this.before?.push(...statements);
  }

  private emit(statement: Statement, syntax: ExpressionSyntax): void {
    if (!this.before) throw new LanguageError('Nothing can be changed here: this value is known beforehand.', syntax);
    this.before.push(statement.origin ? statement : { origin: this.originOf(syntax), ...statement });
  }

  private originOf({ from, to }: ExpressionSyntax): Origin {
    return { path: this.context.source.path, range: { from, to } };
  }
}

/** What statements may change: locals and globals by name; nothing where that may be anything. */
function changedBy(statements: readonly Statement[]): ReadonlySet<string> | undefined {
  const names = new Set<string>();
  let anything = false;
  walkStatements(statements, (statement) => {
    if (statement.op === 'assign') names.add(rootName(statement.target));
    for (const expression of expressionsOf(statement)) if (hasCall(expression)) anything = true;
  });
  return anything ? undefined : names;
}

function rootName(place: Expression): string {
  let root = place;
  while (root.op === 'member' || root.op === 'swizzle' || root.op === 'index') root = root.object;
  return root.op === 'reference' ? root.name : '';
}

function readsAny(value: Expression, names: ReadonlySet<string> | undefined): boolean {
  // A call may read whatever was changed.
  return anyExpression(value, (each) => each.op === 'call' || (each.op === 'reference' && (names === undefined || names.has(each.name))));
}

function hasCall(value: Expression): boolean {
  return anyExpression(value, (each) => each.op === 'call');
}
