import { constant } from '../ir/build';
import type { Expression, Loop, Statement } from '../ir/ir';
import { MOST_PLAIN_STEPS, MOST_STEPS, turnsOf } from '../ir/loop-guard';
import type { Origin } from '../ir/origin';
import { BOOL, FLOAT, ofSize, sameType, scalarOf, typeName, UINT, type Type } from '../ir/types';
import { ControlFlow } from './control-flow';
import { LanguageError, write } from './diagnostics';
import { ExpressionElaborator, type ExpressionContext } from './elaborate-expression';
import { mayEnd } from './endless-loops';
import { conversionMend } from './mends';
import type { FunctionScope, Variable } from './scope';
import type { DeclareSyntax, ExpressionSyntax, StatementSyntax } from './syntax';

type Of<Op extends StatementSyntax['op']> = Extract<StatementSyntax, { op: Op }>;

/** Turns the statements of one function into IR. */
export class StatementElaborator {
  readonly flow: ControlFlow;
  private readonly expressions: ExpressionElaborator;
  private readonly variables: Variable[] = [];
  private loops = 0;

  constructor(
    private readonly context: ExpressionContext,
    private readonly scope: FunctionScope,
    private readonly result: Type,
  ) {
    this.flow = new ControlFlow(scope, (name) => context.environment.globals.get(name));
    this.expressions = new ExpressionElaborator(context, scope, this.flow);
  }

  /** Names in the IR of locals that change. */
  assigned(): Set<string> {
    return new Set(this.variables.filter((variable) => variable.assigned).map((variable) => variable.name));
  }

  list(statements: readonly StatementSyntax[]): Statement[] {
    return statements.flatMap((statement) => this.context.diagnostics.guard(() => this.statement(statement), []));
  }

  /** Warns of what nobody reads; with an error nearby, that may be the reason. */
  advise(): void {
    const { diagnostics, environment, source } = this.context;
    if (!environment.options.advice || diagnostics.items.some(({ severity }) => severity === 'error')) return;
    for (const { read, declared } of this.variables) {
      if (!read) diagnostics.add('warning', `Nothing uses "${source.slice(declared)}".`, declared);
    }
  }

  private block(syntax: StatementSyntax): Statement[] {
    return this.scope.inside(syntax.to, () => this.list(syntax.op === 'block' ? syntax.body : [syntax]));
  }

  private statement(syntax: StatementSyntax): Statement[] {
    const origin = { path: this.context.source.path, range: { from: syntax.from, to: syntax.to } };
    switch (syntax.op) {
      case 'declare':
        return this.declare(syntax, origin);
      case 'assign':
        return [this.assign(syntax, origin)];
      case 'evaluate': {
        const value = this.expressions.elaborate(syntax.value);
        if (value.op !== 'call') this.context.diagnostics.add('warning', 'The result of this is not used.', syntax);
        else this.adviseUnused(value, syntax);
        return [{ op: 'evaluate', value, origin }];
      }
      case 'if': {
        const condition = this.condition(syntax.condition);
        const yes = this.flow.branch(condition, () => this.block(syntax.yes));
        const { no } = syntax;
        return [{ op: 'if', condition, then: yes, else: no ? this.flow.branch(condition, () => this.block(no)) : [], origin }];
      }
      case 'for':
        return this.for(syntax, origin);
      case 'while':
        return [this.while(syntax, origin)];
      case 'block':
        return [{ op: 'block', body: this.block(syntax), origin }];
      case 'return':
        this.flow.leave();
        return [this.return(syntax, origin)];
      case 'break':
      case 'continue':
        if (this.loops === 0) throw new LanguageError(`"${syntax.op}" only makes sense inside a loop.`, syntax);
        return [{ op: syntax.op, origin }];
      case 'discard':
        return [{ op: 'discard', origin }];
      case 'broken':
        for (const name of syntax.names) this.scope.troubled.add(name);
        return [];
    }
  }

  private assign(syntax: Of<'assign'>, origin: Origin): Statement {
    const target = this.expressions.place(syntax.target);
    const { operator } = syntax;
    if (operator) this.matchScalars(syntax, target.type);
    const combined = operator ? { ...syntax, op: 'binary' as const, operator, left: syntax.target, right: syntax.value } : syntax.value;
    const value = this.expressions.elaborate(this.matchOne(combined, target.type));
    if (operator && !sameType(value.type, target.type)) {
      const message = `“${operator}=” would make a ${typeName(value.type)} of this, but "${this.context.source.slice(syntax.target)}" is ${typeName(target.type)}.`;
      throw new LanguageError(message, syntax.value);
    }
    this.expressions.expectType(value, target.type, syntax.value, 'The new value');
    let root = target;
    while (root.op === 'member' || root.op === 'swizzle' || root.op === 'index') root = root.object;
    const variable = root.op === 'reference' && root.scope === 'local' ? this.scope.ofIr(root.name) : undefined;
    if (variable) variable.direction = undefined;
    if (variable) variable.uniform &&= this.flow.where !== 'branch' && this.flow.isUniform(value);
    return { op: 'assign', target, value, origin };
  }

  /** `i += 1.0` for an int: what is added must change, not the variable. */
  private matchScalars({ value: syntax, from }: Of<'assign'>, type: Type): void {
    // The one of `i++` is ours.
    if (syntax.op === 'number' && syntax.from === from) return;
    const value = this.expressions.elaborate(syntax);
    const [wanted, given] = [scalarOf(type), scalarOf(value.type)];
    if (!wanted || !given || wanted === given || value.type.kind === 'matrix' || given === 'bool' || wanted === 'bool') return;
    const to = value.type.kind === 'vector' ? ofSize(wanted, value.type.size) : ofSize(wanted, 1);
    throw new LanguageError(`Whole numbers and floats do not mix. This is ${typeName(value.type)}.`, syntax, {
      mends: [conversionMend(value, to, syntax)],
    });
  }

  private adviseUnused(value: Expression, syntax: Of<'evaluate'>): void {
    if (value.op !== 'call' || value.type.kind === 'void' || !this.context.environment.options.advice) return;
    const callee = this.context.environment.functions.get(value.callee);
    if (callee?.parameters.every(({ direction }) => direction === 'in')) {
      this.context.diagnostics.add('warning', 'The result of this is not used.', syntax);
    }
  }

  private for(syntax: Of<'for'>, origin: Origin): Statement[] {
    return this.scope.inside(syntax.to, () => {
      const start = syntax.start ? this.statement(syntax.start) : [];
      const condition = syntax.condition ? this.condition(syntax.condition) : constant(BOOL, [1]);
      const step = this.flow.loop(() => this.list(syntax.step));
      const body = this.loopBody(condition, syntax.body);
      this.adviseEnd(condition, [...body, ...step], syntax);
      const loop: Loop = { op: 'loop', condition, testFirst: true, body, step, origin };
      this.adviseLength(loop, start.at(-1), syntax);
      return [{ op: 'block', body: [...start, loop], origin }];
    });
  }

  private while(syntax: Of<'while'>, origin: Origin): Statement {
    const condition = this.condition(syntax.condition);
    const body = this.loopBody(condition, syntax.body);
    this.adviseEnd(condition, body, syntax);
    return { op: 'loop', condition, testFirst: syntax.testFirst, body, step: [], origin };
  }

  private adviseEnd(condition: Expression, body: readonly Statement[], syntax: StatementSyntax): void {
    const { diagnostics, environment } = this.context;
    if (!environment.options.advice || diagnostics.hasErrorIn(syntax) || mayEnd(condition, body, environment.functions)) return;
    const message = 'Nothing in this loop brings it to an end. It is broken off after 4,096 steps.';
    diagnostics.add('warning', message, {
      from: syntax.from,
      to: syntax.from + (syntax.op === 'for' ? 3 : syntax.op === 'while' && !syntax.testFirst ? 2 : 5),
    });
  }

  private adviseLength(loop: Loop, start: Statement | undefined, { from }: Of<'for'>): void {
    const turns = turnsOf(loop, start);
    if (turns === undefined || turns <= MOST_PLAIN_STEPS || !this.context.environment.options.advice) return;
    const message = `This loop goes round ${inThousands(turns)} times at each pixel; devices can be expected to do ${inThousands(MOST_PLAIN_STEPS)}. It is broken off after ${inThousands(MOST_STEPS)} steps.`;
    this.context.diagnostics.add('warning', message, { from, to: from + 3 });
  }

  private return(syntax: Of<'return'>, origin: Origin): Statement {
    if (!syntax.value) {
      if (this.result.kind !== 'void') throw new LanguageError(`Expected a ${typeName(this.result)} after "return".`, syntax);
      return { op: 'return', origin };
    }
    const value = this.expressions.elaborate(syntax.value);
    if (this.result.kind === 'void')
      throw new LanguageError('This function returns nothing (void), so no value can stand here.', syntax.value);
    this.expressions.expectType(value, this.result, syntax.value, 'What the function returns');
    return { op: 'return', value, origin };
  }

  /** `i++` on a float adds 1.0: the one is written by us, not by the user. */
  private matchOne(syntax: ExpressionSyntax, type: Type): ExpressionSyntax {
    if (syntax.op !== 'binary' || syntax.right.op !== 'number' || syntax.right.from !== syntax.from) return syntax;
    const kind = type.kind === 'vector' ? type.scalar : sameType(type, FLOAT) ? 'float' : sameType(type, UINT) ? 'uint' : 'int';
    return kind === 'int' || kind === 'bool' ? syntax : { ...syntax, right: { ...syntax.right, kind } };
  }

  private loopBody(condition: Expression, syntax: StatementSyntax): Statement[] {
    this.loops++;
    try {
      return this.flow.loop(() => this.flow.branch(condition, () => this.block(syntax)));
    } finally {
      this.loops--;
    }
  }

  private condition(syntax: ExpressionSyntax): Expression {
    const condition = this.expressions.elaborate(syntax);
    if (!sameType(condition.type, BOOL)) {
      const scalar = condition.type.kind === 'scalar' ? (condition.type.scalar === 'float' ? ' != 0.0' : ' != 0') : undefined;
      const mend = scalar === undefined ? undefined : write(scalar, { from: syntax.to, to: syntax.to }, `Compare with zero:${scalar}`);
      throw new LanguageError(`A condition must be bool, but this is ${typeName(condition.type)}.`, syntax, { mends: [mend] });
    }
    return condition;
  }

  private declare(syntax: DeclareSyntax, origin: Origin): Statement[] {
    const { environment, source } = this.context;
    return syntax.variables.map((variable): Statement => {
      this.scope.troubled.add(variable.name);
      const type = environment.resolve(
        syntax.type,
        (length) => this.expressions.constantLength(length),
        variable.length ?? syntax.type.length,
      );
      const { name } = variable;
      if (type.kind === 'void' || type.kind === 'sampler') {
        throw new LanguageError(`A variable cannot be of type ${typeName(type)}.`, syntax.type);
      }
      const range = { from: variable.from, to: variable.to };
      const before = this.scope.declaredHere(name);
      if (before) throw new LanguageError(`"${name}" is already declared in this block.`, variable, { declared: before.declared });
      let value: Expression | undefined;
      let trouble: Error | undefined;
      try {
        value = variable.value && this.expressions.elaborate(variable.value);
        if (value && variable.value) this.expressions.expectType(value, type, variable.value, `The value of "${name}"`);
        else if (syntax.constant) {
          throw new LanguageError(`The constant "${name}" needs a value.`, variable, { mends: [conversionMendOf(variable.to, type)] });
        }
      } catch (error) {
        // What follows may use it, whatever is wrong with its value.
        trouble = error as Error;
      }
      this.scope.troubled.delete(name);
      const declared = this.scope.declare(name, type, syntax.constant, range);
      declared.direction = value && this.expressions.directionOf(value);
      declared.uniform = value !== undefined && this.flow.where === undefined && this.flow.isUniform(value);
      if (!value) declared.assigned = true;
      this.variables.push(declared);
      const words = typeName(type);
      const symbol = { kind: 'variable', name, signature: `${words} ${name}`, type: words } as const;
      environment.note(range, { ...symbol, declared: { path: source.path, range } });
      environment.options.index?.visible({ name, type: words, from: syntax.to, to: this.scope.end });
      if (trouble) throw trouble;
      return { op: 'declare', name: declared.name, type, value, mutable: true, origin };
    });
  }
}

function conversionMendOf(at: number, type: Type): ReturnType<typeof conversionMend> {
  return type.kind === 'scalar'
    ? write(type.scalar === 'float' ? ' = 0.0' : type.scalar === 'bool' ? ' = false' : ' = 0', { from: at, to: at }, 'Give it a value')
    : undefined;
}

function inThousands(count: number): string {
  return String(count).replace(/\B(?=(\d{3})+$)/g, ',');
}
