import { constant, local, zeroOf } from '../../ir/build';
import type { Expression, Statement, SwitchCase, Loop } from '../../ir/ir';
import type { Origin, Range } from '../../ir/origin';
import { BOOL, INT, sameType, scalarOf, UINT, type Type } from '../../ir/types';
import { ControlFlow } from '../control-flow';
import { LanguageError, write } from '../diagnostics';
import { adviseEnd, adviseLength } from '../loop-advice';
import type { Variable } from '../scope';
import type { WgslContext } from './wgsl-context';
import { WgslExpressions } from './wgsl-expressions';
import type { WgslScope } from './wgsl-scope';
import type { WgslDeclare, WgslExpression, WgslStatement } from './wgsl-syntax';
import { as, settled } from './wgsl-value';

type Of<Op extends WgslStatement['op']> = Extract<WgslStatement, { op: Op }>;

/** Turns the statements of one function of WGSL into IR. */
export class WgslStatements {
  readonly flow: ControlFlow;
  private readonly expressions: WgslExpressions;
  private readonly variables: Variable[] = [];
  private loops = 0;
  private switches = 0;
  private inContinuing = false;

  constructor(
    private readonly context: WgslContext,
    private readonly scope: WgslScope,
    private readonly result: Type,
  ) {
    this.flow = new ControlFlow(scope.names, (name) => context.environment.globals.get(name));
    this.expressions = new WgslExpressions(context, scope, this.flow);
  }

  /** Names in the IR of locals that change. */
  assigned(): Set<string> {
    return new Set([...this.scope.names.all].filter((variable) => variable.assigned).map((variable) => variable.name));
  }

  list(statements: readonly WgslStatement[]): Statement[] {
    return statements.flatMap((statement) => this.context.diagnostics.guard(() => this.statement(statement), []));
  }

  /** Warns of what nobody reads; with an error in the function, that may be the reason. */
  advise(whole: Range): void {
    const { diagnostics, environment, source } = this.context;
    if (!environment.options.advice || diagnostics.hasErrorIn(whole)) return;
    for (const { read, declared } of this.variables)
      if (!read) diagnostics.add('warning', `Nothing uses "${source.slice(declared)}".`, declared);
  }

  private block(statements: readonly WgslStatement[], end: number): Statement[] {
    return this.scope.names.inside(end, () => this.list(statements));
  }

  private statement(syntax: WgslStatement): Statement[] {
    const origin: Origin = { path: this.context.source.path, range: { from: syntax.from, to: syntax.to } };
    switch (syntax.op) {
      case 'declare':
        return this.declare(syntax, origin);
      case 'assign':
        return [this.assign(syntax, origin)];
      case 'increment':
        return [this.increment(syntax, origin)];
      case 'evaluate':
        return [this.evaluate(syntax.value, origin)];
      case 'if': {
        const condition = this.condition(syntax.condition);
        const yes = this.flow.branch(condition, () => this.block(syntax.yes, syntax.to));
        const { no } = syntax;
        return [{ op: 'if', condition, then: yes, else: no ? this.flow.branch(condition, () => this.block(no, syntax.to)) : [], origin }];
      }
      case 'switch':
        return [this.switch(syntax, origin)];
      case 'loop':
        return this.loop(syntax, origin);
      case 'for':
        return this.for(syntax, origin);
      case 'while': {
        const condition = this.condition(syntax.condition);
        const body = this.loopBody(condition, syntax.body, syntax.to);
        adviseEnd(this.context, condition, body, syntax, 'while');
        return [{ op: 'loop', condition, testFirst: true, body, step: [], origin }];
      }
      case 'block':
        return [{ op: 'block', body: this.block(syntax.body, syntax.to), origin }];
      case 'return':
        if (this.inContinuing) throw new LanguageError('No “return” inside of “continuing”.', syntax);
        this.flow.leave();
        return [this.return(syntax, origin)];
      case 'assert':
        this.assert(syntax.value);
        return [];
      case 'break':
        if (this.loops === 0 && this.switches === 0) throw new LanguageError('"break" only makes sense inside a loop or a switch.', syntax);
        return [{ op: 'break', origin }];
      case 'continue':
        if (this.loops === 0 || this.inContinuing) throw new LanguageError('"continue" only makes sense inside a loop.', syntax);
        return [{ op: 'continue', origin }];
      case 'discard':
        return [{ op: 'discard', origin }];
      case 'broken':
        for (const name of syntax.names) this.scope.names.troubled.add(name);
        return [];
    }
  }

  private assert(syntax: WgslExpression): void {
    const value = this.expressions.known(this.expressions.wanted(syntax, BOOL, 'What is asserted'));
    if (value.op !== 'constant') throw new LanguageError('Only what is known beforehand can be asserted.', syntax);
    if (!value.value[0]) throw new LanguageError('This does not hold.', syntax);
  }

  private evaluate(syntax: WgslExpression, origin: Origin): Statement {
    const { value } = this.expressions.value(syntax);
    if (value.op !== 'call')
      throw new LanguageError('The result of this is not used. Write “_ = …” where that is meant.', syntax, {
        mends: [write('_ = ', { from: syntax.from, to: syntax.from })],
      });
    const callee = this.context.environment.functions.get(value.callee);
    const pure = callee?.parameters.every(({ direction }) => direction === 'in');
    if (pure && value.type.kind !== 'void' && this.context.environment.options.advice)
      this.context.diagnostics.add('warning', 'The result of this is not used.', syntax);
    return { op: 'evaluate', value, origin };
  }

  private assign(syntax: Of<'assign'>, origin: Origin): Statement {
    if (!syntax.target) {
      const value = this.expressions.settledValue(syntax.value);
      return { op: 'evaluate', value, origin };
    }
    const { operator } = syntax;
    const target = this.expressions.places.place(syntax.target);
    if (!operator) return { op: 'assign', target, value: this.expressions.wanted(syntax.value, target.type, 'The new value'), origin };
    const given = this.expressions.value(syntax.value);
    const range = { from: syntax.from, to: syntax.value.to, left: syntax.target, right: syntax.value };
    const value = settled(this.expressions.combined(operator, { value: target }, given, range));
    if (!sameType(value.type, target.type)) {
      const { source } = this.context;
      const message = `“${operator}=” would make a ${this.expressions.words(value.type)} of this, but "${source.slice(syntax.target)}" is ${this.expressions.words(target.type)}.`;
      throw new LanguageError(message, syntax.value);
    }
    return { op: 'assign', target, value, origin };
  }

  private increment({ target: syntax, operator }: Of<'increment'>, origin: Origin): Statement {
    const target = this.expressions.places.place(syntax);
    if (!sameType(target.type, INT) && !sameType(target.type, UINT))
      throw new LanguageError(`"${operator}${operator}" counts i32 or u32, but this is ${this.expressions.words(target.type)}.`, syntax);
    const one = constant(target.type, [1]);
    return { op: 'assign', target, value: { op: 'binary', operator, left: target, right: one, type: target.type }, origin };
  }

  private for(syntax: Of<'for'>, origin: Origin): Statement[] {
    return this.scope.names.inside(syntax.to, () => {
      const start = syntax.start ? this.statement(syntax.start) : [];
      const condition = syntax.condition ? this.condition(syntax.condition) : constant(BOOL, [1]);
      const { step: written } = syntax;
      const step = written ? this.flow.loop(() => this.statement(written)) : [];
      const body = this.loopBody(condition, syntax.body, syntax.to);
      adviseEnd(this.context, condition, [...body, ...step], syntax, 'for');
      const loop: Loop = { op: 'loop', condition, testFirst: true, body, step, origin };
      adviseLength(this.context, loop, start.at(-1), syntax);
      return [{ op: 'block', body: [...start, loop], origin }];
    });
  }

  private loop(syntax: Of<'loop'>, origin: Origin): Statement[] {
    const always = constant(BOOL, [1]);
    return this.scope.names.inside(syntax.to, () => {
      this.loops++;
      const body = this.flow.loop(() => this.list(syntax.body));
      const switches = this.switches;
      [this.inContinuing, this.switches] = [true, 0];
      const continuing = this.flow.loop(() => this.block(syntax.continuing, syntax.to));
      const leaves = syntax.breakIf && this.condition(syntax.breakIf);
      [this.inContinuing, this.switches] = [false, switches];
      this.loops--;
      adviseEnd(this.context, leaves ?? always, [...body, ...continuing, ...(leaves ? [{ op: 'break' } as const] : [])], syntax, 'loop');
      const steps = continuing.every(({ op }) => op === 'assign' || op === 'evaluate');
      if (!leaves && steps) return [{ op: 'loop', condition: always, testFirst: true, body, step: continuing, origin }];
      return this.withContinuing(body, continuing, leaves, origin);
    });
  }

  /**
   * A loop whose end of a turn is more than a few assignments: “continue” must still reach it, so it stands at the beginning, but
   * for the first turn. What the body declares is declared before, since the end of the turn may read it.
   */
  private withContinuing(
    body: readonly Statement[],
    continuing: readonly Statement[],
    leaves: Expression | undefined,
    origin: Origin,
  ): Statement[] {
    const first = this.scope.names.temporary(BOOL, { from: 0, to: 0 });
    first.assigned = true;
    const isFirst = local(first.name, BOOL);
    const again: Expression = { op: 'unary', operator: '!', value: isFirst, type: BOOL };
    const leave: Statement[] = leaves ? [{ op: 'if', condition: leaves, then: [{ op: 'break' }], else: [], origin }] : [];
    const declared: Statement[] = [];
    const turn = body.map((statement): Statement => {
      if (statement.op !== 'declare') return statement;
      const { name, type } = statement;
      const variable = this.scope.names.ofIr(name);
      if (variable) variable.assigned = true;
      declared.push({ op: 'declare', name, type, value: zeroOf(type), mutable: true });
      return { op: 'assign', target: local(name, type), value: statement.value ?? zeroOf(type), origin: statement.origin };
    });
    return [
      ...declared,
      { op: 'declare', name: first.name, type: BOOL, value: constant(BOOL, [1]), mutable: true },
      {
        op: 'loop',
        condition: constant(BOOL, [1]),
        testFirst: true,
        body: [
          { op: 'if', condition: again, then: [...continuing, ...leave], else: [] },
          { op: 'assign', target: isFirst, value: constant(BOOL, [0]) },
          ...turn,
        ],
        step: [],
        origin,
      },
    ];
  }

  private switch(syntax: Of<'switch'>, origin: Origin): Statement {
    const given = this.expressions.value(syntax.selector);
    const selector = as(given, INT) ?? as(given, UINT);
    if (!selector)
      throw new LanguageError(`“switch” chooses by i32 or u32, but this is ${this.expressions.words(given.value.type)}.`, syntax.selector);
    const seen = new Map<number, Range>();
    let other: Range | undefined;
    this.switches++;
    try {
      const cases = syntax.cases.map(({ labels, body, to }): SwitchCase => {
        const values: number[] = [];
        for (const label of labels) {
          if (!label.value) {
            if (other) throw new LanguageError('A “switch” has one “default”.', label, { declared: other });
            other = label;
            continue;
          }
          const value = this.expressions.known(this.expressions.wanted(label.value, selector.type, 'What is chosen by'));
          const number = value.op === 'constant' ? value.value[0] : undefined;
          if (number === undefined) throw new LanguageError('A “case” needs a constant.', label.value);
          const before = seen.get(number);
          if (before) throw new LanguageError(`The case ${number} stands twice.`, label.value, { declared: before });
          seen.set(number, label);
          values.push(number);
        }
        const inside = this.flow.branch(selector, () => this.block(body, to));
        return { values, otherwise: labels.some(({ value }) => !value), body: [{ op: 'block', body: inside }, { op: 'break' }] };
      });
      if (!other)
        throw new LanguageError(
          'A “switch” of WGSL needs a “default”.',
          { from: syntax.from, to: syntax.from + 6 },
          { mends: [write('  default: {}\n', { from: syntax.to - 1, to: syntax.to - 1 }, 'Add “default: {}”')] },
        );
      return { op: 'switch', selector, cases, origin };
    } finally {
      this.switches--;
    }
  }

  private return(syntax: Of<'return'>, origin: Origin): Statement {
    if (!syntax.value) {
      if (this.result.kind !== 'void') throw new LanguageError(`Expected a ${this.expressions.words(this.result)} after "return".`, syntax);
      return { op: 'return', origin };
    }
    if (this.result.kind === 'void') throw new LanguageError('This function returns nothing, so no value can stand here.', syntax.value);
    return { op: 'return', value: this.expressions.wanted(syntax.value, this.result, 'What the function returns'), origin };
  }

  private loopBody(condition: Expression, body: readonly WgslStatement[], end: number): Statement[] {
    this.loops++;
    const [inContinuing, switches] = [this.inContinuing, this.switches];
    [this.inContinuing, this.switches] = [false, 0];
    try {
      return this.flow.loop(() => this.flow.branch(condition, () => this.block(body, end)));
    } finally {
      this.loops--;
      [this.inContinuing, this.switches] = [inContinuing, switches];
    }
  }

  private condition(syntax: WgslExpression): Expression {
    const given = this.expressions.value(syntax);
    const value = as(given, BOOL);
    if (value) return value;
    const scalar = given.value.type.kind === 'scalar' ? (scalarOf(given.value.type) === 'float' ? ' != 0.0' : ' != 0') : undefined;
    const mend = scalar === undefined ? undefined : write(scalar, { from: syntax.to, to: syntax.to }, `Compare with zero:${scalar}`);
    throw new LanguageError(`A condition must be bool, but this is ${this.expressions.words(given.value.type)}.`, syntax, {
      mends: [mend],
    });
  }

  private declare(syntax: WgslDeclare, origin: Origin): Statement[] {
    const { names } = this.scope;
    const { environment, source, module } = this.context;
    const { name, nameRange, kind } = syntax;
    names.troubled.add(name);
    const before = names.declaredHere(name);
    if (before) throw new LanguageError(`"${name}" is already declared in this block.`, nameRange, { declared: before.declared });
    if (kind !== 'var' && !syntax.value) throw new LanguageError(`"${name}" needs a value.`, nameRange);
    const pointer = syntax.value?.op === 'unary' && syntax.value.operator === '&';
    if (pointer && syntax.value) return this.pointer(syntax, this.expressions.places.pointed(syntax.value));
    const written = syntax.type && module.resolve(syntax.type, this.scope);
    if (written?.kind === 'sampler')
      throw new LanguageError(
        'An image stands outside of functions: @group(0) @binding(0) var name: texture_2d<f32>;',
        syntax.type ?? nameRange,
      );
    const given = syntax.value && this.expressions.value(syntax.value);
    const value =
      syntax.value && (written ? this.expressions.wanted(syntax.value, written, `The value of "${name}"`) : given && settled(given));
    const type = written ?? value?.type;
    if (!type) throw new LanguageError(`"${name}" needs a type or a value.`, nameRange);
    if (type.kind === 'void' || type.kind === 'sampler')
      throw new LanguageError('This gives nothing that could be kept.', syntax.value ?? nameRange);
    const known = kind === 'const' && value ? this.expressions.known(value) : undefined;
    if (kind === 'const' && known?.op !== 'constant' && known?.op !== 'construct')
      throw new LanguageError('A “const” is known beforehand. Take “let”.', syntax.value ?? nameRange, {
        mends: [write('let', { from: syntax.from, to: syntax.from + 5 })],
      });
    names.troubled.delete(name);
    const declared = names.declare(name, type, kind !== 'var', nameRange);
    declared.uniform = value !== undefined && this.flow.where === undefined && this.flow.isUniform(value);
    if (known) declared.constant = !written && given?.abstract ? given.value : known;
    if (known && !written) declared.abstract = given?.abstract;
    this.variables.push(declared);
    const words = this.expressions.words(type);
    environment.note(nameRange, () => ({
      kind: 'variable',
      name,
      signature: `${name}: ${words}`,
      type: words,
      declared: { path: source.path, range: nameRange },
    }));
    environment.options.index?.visible({ name, type: words, from: syntax.to, to: names.end });
    // A variable without a value begins at 0 (section 7.3), where GLSL leaves that open.
    return [{ op: 'declare', name: declared.name, type, value: value ?? zeroOf(type), mutable: true, origin }];
  }

  /** `let p = &x;`: another name for a place. */
  private pointer({ name, nameRange, to }: WgslDeclare, place: Expression): Statement[] {
    const { names, pointers } = this.scope;
    const { environment, source } = this.context;
    names.troubled.delete(name);
    const declared = names.declare(name, place.type, true, nameRange);
    pointers.set(declared.name, place);
    this.variables.push(declared);
    const words = `ptr<function, ${this.expressions.words(place.type)}>`;
    environment.note(nameRange, () => ({
      kind: 'variable',
      name,
      signature: `${name}: ${words}`,
      type: words,
      declared: { path: source.path, range: nameRange },
    }));
    environment.options.index?.visible({ name, type: words, from: to, to: names.end });
    return [];
  }
}
