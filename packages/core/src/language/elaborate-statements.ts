import { constant, local } from '../ir/build';
import type { Expression, Loop, Statement, SwitchCase } from '../ir/ir';
import type { Origin, Range } from '../ir/origin';
import { BOOL, INT, sameType, typeName, UINT, type Type } from '../ir/types';
import { walkExpression } from '../ir/walk';
import { ControlFlow } from './control-flow';
import { LanguageError, write } from './diagnostics';
import { ExpressionElaborator } from './elaborate-expression';
import type { ExpressionContext } from './expression-context';
import { adviseEnd, adviseLength } from './loop-advice';
import { arrayOf } from './environment';
import { retypeMend, type conversionMend } from './mends';
import type { FunctionScope, Variable } from './scope';
import { refuseName } from './reserved-names';
import { structOf } from './struct-of';
import type { DeclaredSyntax, DeclareSyntax, ExpressionSyntax, StatementSyntax, StructSyntax } from './syntax';

type Of<Op extends StatementSyntax['op']> = Extract<StatementSyntax, { op: Op }>;

/** Turns the statements of one function into IR. */
export class StatementElaborator {
  readonly flow: ControlFlow;
  private readonly expressions: ExpressionElaborator;
  private readonly variables: Variable[] = [];
  private loops = 0;
  private switches = 0;

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
    return new Set([...this.scope.all].filter((variable) => variable.assigned).map((variable) => variable.name));
  }

  list(statements: readonly StatementSyntax[]): Statement[] {
    const read: Statement[] = [];
    for (const each of statements) read.push(...this.context.diagnostics.guard(() => this.statement(each), []));
    return read;
  }

  /** Warns of what nobody reads; with an error in the function, that may be the reason. */
  advise(whole: Range): void {
    const { diagnostics, environment, source } = this.context;
    if (!environment.options.advice || diagnostics.hasErrorIn(whole)) return;
    for (const { read, declared } of this.variables)
      if (!read) diagnostics.add('warning', `Nothing uses "${source.slice(declared)}".`, declared);
  }

  private block(syntax: StatementSyntax): Statement[] {
    return this.scope.inside(syntax.to, () => this.list(syntax.op === 'block' ? syntax.body : [syntax]));
  }

  /** A statement, after what its expressions do on the way. */
  private statement(syntax: StatementSyntax): Statement[] {
    const { result, before } = this.expressions.effects.collect(() => this.single(syntax));
    return before.length === 0 ? result : [...before, ...result];
  }

  private single(syntax: StatementSyntax): Statement[] {
    const origin = { path: this.context.source.path, range: { from: syntax.from, to: syntax.to } };
    switch (syntax.op) {
      case 'declare':
        return this.declare(syntax, origin);
      case 'evaluate':
        return this.evaluate(syntax.value, origin);
      case 'switch':
        return this.switch(syntax, origin);
      case 'if': {
        const condition = this.condition(syntax.condition);
        const yes = this.flow.branch(condition, () => this.block(syntax.yes));
        const { no } = syntax;
        return [{ op: 'if', condition, then: yes, else: no ? this.flow.branch(condition, () => this.block(no)) : [], origin }];
      }
      case 'for':
        return this.for(syntax, origin);
      case 'while':
        return this.while(syntax, origin);
      case 'block':
        return [{ op: 'block', body: this.block(syntax), origin }];
      case 'return':
        this.flow.leave();
        return [this.return(syntax, origin)];
      case 'break':
        if (this.loops === 0 && this.switches === 0) throw new LanguageError('"break" only makes sense inside a loop or a switch.', syntax);
        return [{ op: 'break', origin }];
      case 'continue':
        if (this.loops === 0) throw new LanguageError('"continue" only makes sense inside a loop.', syntax);
        return [{ op: 'continue', origin }];
      case 'discard':
        return [{ op: 'discard', origin }];
      case 'broken':
        for (const name of syntax.names) this.scope.troubled.add(name);
        return [];
    }
  }

  /** An expression for what it does. */
  private evaluate(syntax: ExpressionSyntax, origin: Origin): Statement[] {
    const { effects } = this.expressions;
    if (syntax.op === 'assignment') return [effects.assign(syntax, origin)];
    if (syntax.op === 'increment') return [effects.step(syntax, origin)];
    if (syntax.op === 'sequence')
      return syntax.parts.flatMap((part) => this.statement({ op: 'evaluate', value: part, from: part.from, to: part.to }));
    const { result: value, before } = effects.collect(() => this.expressions.elaborate(syntax));
    const calls = value.op === 'call';
    if (!calls && before.length === 0) this.context.diagnostics.add('warning', 'The result of this is not used.', syntax);
    if (calls) this.adviseUnused(value, syntax);
    return [...before, ...(calls || before.length === 0 ? [{ op: 'evaluate' as const, value, origin }] : [])];
  }

  private adviseUnused(value: Expression, syntax: ExpressionSyntax): void {
    if (value.op !== 'call' || value.type.kind === 'void' || !this.context.environment.options.advice) return;
    const callee = this.context.environment.functions.get(value.callee);
    if (callee?.parameters.every(({ direction }) => direction === 'in')) {
      this.context.diagnostics.add('warning', 'The result of this is not used.', syntax);
    }
  }

  private for(syntax: Of<'for'>, origin: Origin): Statement[] {
    return this.scope.inside(syntax.to, () => {
      const start = syntax.start ? this.statement(syntax.start) : [];
      const { result: condition, before } = this.asked(syntax);
      const { step: written } = syntax;
      const step = written ? this.flow.loop(() => this.statement(written)) : [];
      const body = this.loopBody(condition, syntax.body);
      if (before.length === 0) adviseEnd(this.context, condition, [...body, ...step], syntax, 'for');
      const loop = this.looped({ condition, before, step, body, testFirst: true, origin }, syntax);
      const [only] = loop;
      if (loop.length === 1 && only?.op === 'loop') adviseLength(this.context, only, start.at(-1), syntax);
      return [{ op: 'block', body: [...start, ...loop], origin }];
    });
  }

  private while(syntax: Of<'while'>, origin: Origin): Statement[] {
    return this.scope.inside(syntax.to, () => {
      const { result: condition, before } = this.asked(syntax);
      const body = this.loopBody(condition, syntax.body);
      if (before.length === 0) adviseEnd(this.context, condition, body, syntax, syntax.testFirst ? 'while' : 'do');
      return this.looped({ condition, before, step: [], body, testFirst: syntax.testFirst, origin }, syntax);
    });
  }

  /** What a loop asks before each turn, and what is done on the way to the answer. */
  private asked({ condition, declares }: Pick<Of<'for'>, 'condition' | 'declares'>): { result: Expression; before: readonly Statement[] } {
    return this.expressions.effects.collect(() => {
      if (!condition) return constant(BOOL, [1]);
      if (!declares) return this.condition(condition);
      const declared = this.expressions.effects.collect(() => this.declare(declares, { path: this.context.source.path, range: declares }));
      this.expressions.effects.put([...declared.before, ...declared.result]);
      return this.condition(condition);
    });
  }

  /** A loop; what asking does, and steps that are more than assignments, become statements of its body. */
  private looped(parts: Omit<Loop, 'op'> & { readonly before: readonly Statement[] }, syntax: StatementSyntax): Statement[] {
    const { condition, before, step, body, testFirst, origin } = parts;
    const plainSteps = step.every(({ op }) => op === 'assign' || op === 'evaluate');
    if (before.length === 0 && plainSteps) return [{ op: 'loop', condition, testFirst, body, step, origin }];
    const always = constant(BOOL, [1]);
    const leave: Statement = {
      op: 'if',
      condition: { op: 'unary', operator: '!', value: condition, type: BOOL },
      then: [{ op: 'break' }],
      else: [],
      origin,
    };
    if (testFirst && plainSteps) return [{ op: 'loop', condition: always, testFirst, body: [...before, leave, ...body], step, origin }];
    // “continue” must still reach the steps and the question, so they stand before the body, but for the first turn.
    const first = this.scope.temporary(BOOL, syntax);
    first.assigned = true;
    const isFirst = local(first.name, BOOL);
    const again: Expression = { op: 'unary', operator: '!', value: isFirst, type: BOOL };
    const turn: Statement[] = [
      { op: 'if', condition: again, then: testFirst ? [...step] : [...before, leave], else: [] },
      { op: 'assign', target: isFirst, value: constant(BOOL, [0]) },
      ...(testFirst ? [...before, leave] : []),
      ...body,
    ];
    return [
      { op: 'declare', name: first.name, type: BOOL, value: always, mutable: true },
      { op: 'loop', condition: always, testFirst: true, body: turn, step: [], origin },
    ];
  }

  private switch(syntax: Of<'switch'>, origin: Origin): Statement[] {
    const selector = this.expressions.elaborate(syntax.selector);
    if (!sameType(selector.type, INT) && !sameType(selector.type, UINT)) {
      throw new LanguageError(`“switch” chooses by an int or uint, but this is ${typeName(selector.type)}.`, syntax.selector);
    }
    const seen = new Map<number, Range>();
    let other: Range | undefined;
    const labelled = syntax.cases.map(({ labels }) => {
      const values: number[] = [];
      for (const label of labels) {
        if (label.value) values.push(this.caseValue(label.value, selector.type, seen));
        else if (other) throw new LanguageError('A “switch” has one “default”.', label, { declared: other });
        else other = label;
      }
      return { values, otherwise: labels.some(({ value }) => !value) };
    });
    const last = syntax.cases.at(-1);
    if (last?.body.length === 0)
      throw new LanguageError('A statement is missing behind the last label. Write “break;”.', last.labels.at(-1) ?? last);
    this.switches++;
    try {
      const bodies = this.scope.inside(syntax.to, () => syntax.cases.map(({ body }) => this.flow.branch(selector, () => this.list(body))));
      const cases = labelled.map((each, index): SwitchCase => ({ ...each, body: bodies[index] ?? [] }));
      return [cases.length > 0 ? { op: 'switch', selector, cases, origin } : { op: 'evaluate', value: selector, origin }];
    } finally {
      this.switches--;
    }
  }

  private caseValue(syntax: ExpressionSyntax, type: Type, seen: Map<number, Range>): number {
    const value = this.expressions.known(this.expressions.elaborate(syntax));
    this.expressions.expectType(value, type, syntax, 'What is chosen by');
    const number = value.op === 'constant' ? value.value[0] : undefined;
    if (number === undefined) throw new LanguageError('A “case” needs a constant.', syntax);
    const before = seen.get(number);
    if (before) throw new LanguageError(`The case ${number} stands twice.`, syntax, { declared: before });
    seen.set(number, syntax);
    return number;
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
    if (syntax.op === 'assignment' && !syntax.operator) this.adviseAssigned(condition, syntax.sign);
    if (!sameType(condition.type, BOOL)) {
      const scalar = condition.type.kind === 'scalar' ? (condition.type.scalar === 'float' ? ' != 0.0' : ' != 0') : undefined;
      const mend = scalar === undefined ? undefined : write(scalar, { from: syntax.to, to: syntax.to }, `Compare with zero:${scalar}`);
      throw new LanguageError(`A condition must be bool, but this is ${typeName(condition.type)}.`, syntax, { mends: [mend] });
    }
    return condition;
  }

  /** `if (a = b)` where `==` is most likely meant. */
  private adviseAssigned(condition: Expression, sign: Range): void {
    const message = '"=" gives a variable a value. To compare, write "==".';
    if (!sameType(condition.type, BOOL)) throw new LanguageError(message, sign, { mends: [write('==', sign)] });
    if (this.context.environment.options.advice) this.context.diagnostics.add('warning', message, sign, { mends: [write('==', sign)] });
  }

  private declare(syntax: DeclareSyntax, origin: Origin): Statement[] {
    const { struct } = syntax.type;
    if (struct) this.struct(struct);
    return syntax.variables.flatMap((variable) => {
      const { result, before } = this.expressions.effects.collect(() => this.declareOne(syntax, variable, origin));
      return [...before, result];
    });
  }

  private struct(syntax: StructSyntax): void {
    const before = this.scope.structDeclaredHere(syntax.name);
    if (before)
      throw new LanguageError(`"${syntax.name}" is already declared in this block.`, syntax.nameRange, { declared: before.origin?.range });
    const struct = structOf(syntax, this.context, this.expressions, this.scope, (make) =>
      this.context.environment.addLocalStruct(syntax.name, make),
    );
    this.scope.declareStruct(syntax.name, struct);
  }

  private declareOne(syntax: DeclareSyntax, variable: DeclaredSyntax, origin: Origin): Statement {
    const { environment, source } = this.context;
    this.scope.troubled.add(variable.name);
    const { name } = variable;
    let value: Expression | undefined;
    const open = variable.open ?? syntax.type.open;
    if (open) value = this.openValue(variable, open);
    const type = value
      ? arrayOf(environment.element(syntax.type, this.scope), lengthOf(value), open ?? variable)
      : environment.resolve(syntax.type, (length) => this.expressions.constantLength(length), variable, this.scope);
    refuseName(name, variable, source);
    if (type.kind === 'void' || type.kind === 'sampler') {
      throw new LanguageError(`A variable cannot be of type ${typeName(type)}.`, syntax.type);
    }
    const range = { from: variable.from, to: variable.to };
    const before = this.scope.declaredHere(name);
    if (before) throw new LanguageError(`"${name}" is already declared in this block.`, variable, { declared: before.declared });
    let trouble: Error | undefined;
    try {
      value ??= variable.value && this.expressions.elaborate(variable.value);
      const other = value && syntax.variables.length === 1 && !syntax.constant ? retypeMend(value, type, syntax.type) : undefined;
      if (value && variable.value) this.expressions.expectType(value, type, variable.value, `The value of "${name}"`, other);
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
    if (syntax.constant && value) declared.constant = constantIn(this.expressions.known(value));
    this.variables.push(declared);
    environment.note(range, () => {
      const words = typeName(type);
      return { kind: 'variable', name, signature: `${words} ${name}`, type: words, declared: { path: source.path, range } };
    });
    environment.options.index?.visible({ name, type: typeName(type), from: syntax.to, to: this.scope.end });
    if (trouble) throw trouble;
    return { op: 'declare', name: declared.name, type, value, mutable: true, origin };
  }

  /** What an array is given whose length is left open. */
  private openValue({ name, value: syntax }: DeclaredSyntax, open: Range): Expression {
    if (!syntax) throw new LanguageError(`Give the array a length, as in "float ${name}[4]", or its values.`, open);
    const value = this.expressions.elaborate(syntax);
    if (value.type.kind !== 'array')
      throw new LanguageError(`The value of "${name}" must be an array, but this is ${typeName(value.type)}.`, syntax);
    return value;
  }
}

function lengthOf({ type }: Expression): number {
  return type.kind === 'array' ? type.length : 1;
}

/** Only what reads nothing may stand wherever the constant is named. */
function constantIn(value: Expression): Expression | undefined {
  let reads = false;
  walkExpression(value, ({ op }) => (reads ||= op === 'reference' || op === 'call'));
  return reads ? undefined : value;
}

function conversionMendOf(at: number, type: Type): ReturnType<typeof conversionMend> {
  return type.kind === 'scalar'
    ? write(type.scalar === 'float' ? ' = 0.0' : type.scalar === 'bool' ? ' = false' : ' = 0', { from: at, to: at }, 'Give it a value')
    : undefined;
}
