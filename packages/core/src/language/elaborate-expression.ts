import { BUILTIN_FUNCTIONS, needsNeighbours } from '../ir/builtins/table';
import { construct as buildConstruct, constant, global, local } from '../ir/build';
import type { Expression, IrFunction } from '../ir/ir';
import type { Range } from '../ir/origin';
import { fold } from '../ir/passes';
import { BOOL, FLOAT, INT, UINT, NAMED_TYPES, componentCount, ofSize, sameType, scalarOf, typeName, type Type } from '../ir/types';
import { mapOperands } from '../ir/walk';
import { functionWords } from './function-words';
import { BUILTINS, findBuiltin } from './builtins';
import type { ControlFlow } from './control-flow';
import { KnownTrouble, LanguageError, write, type CodeMend } from './diagnostics';
import { binaryType, logicHint } from './binary-type';
import { EffectElaborator } from './elaborate-effects';
import type { ElaboratesExpressions, ExpressionContext } from './expression-context';
import { arrayOf, type Environment } from './environment';
import { adviseBuiltin, adviseDirection, type Advice } from './call-advice';
import { conversionMend } from './mends';
import { nameAlike, nearestMend } from './nearest-name';
import { oldVariable } from './old-spellings';
import type { FunctionScope } from './scope';
import type { SourceText } from './source';
import type { ExpressionSyntax } from './syntax';
import type { WrittenDirection } from './direction-kind';
import { writtenDirection } from './written-directions';
import { wrongCall } from './wrong-call';

type Of<Op extends ExpressionSyntax['op']> = Extract<ExpressionSyntax, { op: Op }>;

/** Constant expressions call nothing but built-ins. */
const NO_FUNCTIONS = { functions: new Map<string, IrFunction>() };

const SWIZZLE_SETS = ['xyzw', 'rgba', 'stpq'];

/** Types an expression and turns it into IR. */
export class ExpressionElaborator implements ElaboratesExpressions {
  private readonly environment: Environment;
  private readonly source: SourceText;
  readonly effects: EffectElaborator;
  private isPlace = false;

  constructor(
    private readonly context: ExpressionContext,
    private readonly scope: FunctionScope,
    private readonly flow?: ControlFlow,
  ) {
    [this.environment, this.source] = [context.environment, context.source];
    this.effects = new EffectElaborator(this, context, scope, flow);
  }

  elaborate(syntax: ExpressionSyntax): Expression {
    switch (syntax.op) {
      case 'number':
        return constant(syntax.kind === 'float' ? FLOAT : syntax.kind === 'int' ? INT : UINT, [syntax.value]);
      case 'boolean':
        return constant(BOOL, [syntax.value ? 1 : 0]);
      case 'name':
        return this.name(syntax);
      case 'call':
        return this.call(syntax);
      case 'member':
        return this.member(syntax);
      case 'index':
        return this.index(syntax);
      case 'unary':
        return this.unary(syntax);
      case 'binary':
        return this.binary(syntax);
      case 'conditional':
        return this.conditional(syntax);
      case 'method':
        return this.method(syntax);
      case 'assignment':
        return this.effects.assignment(syntax);
      case 'increment':
        return this.effects.increment(syntax);
      case 'sequence':
        return this.effects.sequence(syntax);
    }
  }

  /** @throws LanguageError when the value is not of this type; where it can be brought to it, with the mend, and another way out */
  expectType(value: Expression, type: Type, syntax: ExpressionSyntax, what: string, other?: CodeMend): void {
    if (sameType(value.type, type)) return;
    throw new LanguageError(`${what} must be ${typeName(type)}, but this is ${typeName(value.type)}.`, syntax, {
      mends: [conversionMend(value, type, syntax), other],
    });
  }

  /** Something that can be assigned to; marks the variable as changing. */
  place(syntax: ExpressionSyntax): Expression {
    let root = syntax;
    while (root.op === 'member' || root.op === 'index') root = root.object;
    if (root.op !== 'name') throw new LanguageError('Only a variable can be assigned to.', syntax);
    if (this.environment.instances.has(root.name) && !this.scope.find(root.name))
      throw new LanguageError(`"${root.name}" is a block of uniforms and can only be read.`, root);
    const variable = this.scope.find(root.name);
    const read = variable?.read ?? false;
    if (variable) {
      if (variable.readOnly) {
        throw new LanguageError(`"${root.name}" is const and keeps its value.`, root, { declared: variable.declared });
      }
      variable.assigned = true;
    } else {
      const found = this.environment.global(root.name);
      if (found && !this.environment.isWritable(found)) {
        const { path, range } = found.origin ?? {};
        const words =
          found.storage === 'const' ? 'is const and keeps its value' : `comes from outside (${found.storage}) and can only be read`;
        throw new LanguageError(`"${root.name}" ${words}.`, root, { declared: path === this.source.path ? range : undefined });
      }
    }
    const place = this.asPlace(syntax);
    // To be given a value is not to be read.
    if (variable && syntax.op === 'name') variable.read = read;
    if (place.op === 'swizzle' && new Set(place.components).size < place.components.length) {
      throw new LanguageError('A component may stand only once in what is assigned to.', syntax);
    }
    return place;
  }

  /** Reads a place that is written to: what holds it must not be copied, whatever its indexes do on the way. */
  private asPlace(syntax: ExpressionSyntax): Expression {
    const outer = this.isPlace;
    this.isPlace = true;
    try {
      return this.elaborate(syntax);
    } finally {
      this.isPlace = outer;
    }
  }

  private asValue(syntax: ExpressionSyntax): Expression {
    const outer = this.isPlace;
    this.isPlace = false;
    try {
      return this.elaborate(syntax);
    } finally {
      this.isPlace = outer;
    }
  }

  private name(syntax: Of<'name'>): Expression {
    const { name } = syntax;
    const variable = this.scope.find(name);
    if (variable) {
      variable.read = true;
      this.environment.note(syntax, () => {
        const type = typeName(variable.type);
        return {
          kind: 'variable',
          name,
          signature: `${type} ${name}`,
          type,
          declared: { path: this.source.path, range: variable.declared },
        };
      });
      return local(variable.name, variable.type);
    }
    const found = this.environment.global(name);
    if (found) {
      this.environment.note(syntax, () => {
        const type = typeName(found.type);
        const words = found.storage === 'builtin' ? '' : `${found.storage === 'sampler' ? 'uniform' : found.storage} `;
        const kind = found.storage === 'builtin' ? 'builtin' : 'variable';
        return { kind, name, signature: `${words}${type} ${name}`, type, declared: found.origin };
      });
      return found.storage === 'const' && found.value ? found.value : global(found.name, found.type);
    }
    if (this.scope.troubled.has(name)) throw new KnownTrouble(syntax);
    const old = oldVariable(name, syntax, this.source);
    if (old) throw old;
    if (this.environment.overloadsOf(name).length > 0 || BUILTINS.has(name)) {
      throw new LanguageError(`"${name}" is a function. Write ${name}( … ) to call it.`, syntax);
    }
    const mend =
      this.fieldMend(syntax) ??
      this.calledMend(syntax) ??
      nearestMend(name, syntax, [...this.scope.names(), ...this.environment.globalNames()]);
    throw new LanguageError(`Nothing here is called "${name}".`, syntax, { mends: [mend] });
  }

  /** `stageTime()` for `time`, where no variable means the same. */
  private calledMend({ name, ...range }: Of<'name'>): CodeMend | undefined {
    if (nameAlike(name, [...this.scope.names(), ...this.environment.globalNames()])) return undefined;
    const called = nameAlike(name, this.environment.callableNames());
    const plain = called !== undefined && this.environment.overloadsOf(called).some(({ parameters }) => parameters.length === 0);
    return plain ? write(`${called}()`, range) : undefined;
  }

  /** `uv` where there is an `s.uv`. */
  private fieldMend({ name, ...range }: Of<'name'>): CodeMend | undefined {
    const owner = this.scope.names().find((each) => {
      const type = this.scope.find(each)?.type;
      return type?.kind === 'struct' && type.fields.some((field) => field.name === name);
    });
    return owner === undefined ? undefined : write(`${owner}.${name}`, range);
  }

  private call(syntax: Of<'call'>): Expression {
    const { name } = syntax.callee;
    const nameRange = { from: syntax.callee.from, to: syntax.callee.from + name.length };
    const { length, open } = syntax.callee;
    if (length || open || NAMED_TYPES.has(name) || this.scope.struct(name) || this.environment.struct(name)) return this.construct(syntax);
    const overloads = this.environment.overloadsOf(name);
    const variable = this.scope.find(name);
    if (variable) {
      throw new LanguageError(`"${name}" is a variable here, so it cannot be called.`, nameRange, { declared: variable.declared });
    }
    const candidate = overloads.find((each) => each.parameters.length === syntax.args.length);
    if (name === 'modf' && syntax.args.length === 2 && overloads.length === 0) return this.effects.modf(syntax);
    const writes = (index: number): boolean => candidate !== undefined && candidate.parameters[index]?.direction !== 'in';
    const args = this.effects.inOrder(
      syntax.args.map((arg, index) => () => (candidate && writes(index) ? this.written(arg, candidate, index) : this.elaborate(arg))),
      writes,
    );
    const types = args.map((arg) => arg.type);
    const declared = this.environment.functionOf(name, types);
    if (declared) {
      this.environment.note(nameRange, () => {
        const kind = this.environment.importedNames.has(name) ? 'function of the Library' : 'function';
        const { path, range } = declared.origin;
        return { kind, name, signature: functionWords(declared, name), declared: { path, range: declared.nameRange ?? range } };
      });
      this.flow?.call(name, declared, syntax);
      this.adviseDirections(declared, args, syntax);
      return { op: 'call', callee: declared.signature, args, type: declared.result };
    }
    const builtin = findBuiltin(name, types);
    if (builtin) {
      this.environment.note(nameRange, () => {
        const given = builtin.parameters.map(typeName).join(', ');
        return { kind: 'builtin', name, signature: `${typeName(builtin.result)} ${name}(${given})` };
      });
      if (needsNeighbours(name)) this.flow?.call(name, undefined, syntax, this.explicitLevel(syntax));
      this.checkOffset(name, args, syntax);
      if (name === 'mod') this.adviseZero(args[1], syntax.args[1] ?? syntax);
      const directions = args.map((each) => this.directionOf(each));
      this.say(adviseBuiltin(name, args, syntax.args, directions, this.source));
      return { op: 'builtin', name, args, type: builtin.result };
    }
    throw wrongCall(this.context, syntax, args);
  }

  /** Offsets in texels are constants of a small range (GLSL ES 3.00 section 8.8). */
  private checkOffset(name: string, args: readonly Expression[], syntax: Of<'call'>): void {
    const at = BUILTIN_FUNCTIONS.get(name)?.offset;
    const [offset, place] = at === undefined ? [] : [args[at], syntax.args[at]];
    if (!offset || !place) return;
    const known = this.known(offset);
    const values = known.op === 'constant' ? known.value : undefined;
    if (!values?.every((each) => each >= -8 && each <= 7)) throw new LanguageError('An offset is a constant from −8 to 7.', place);
  }

  /** The direction that a value is, where it can be followed back to one that is known. */
  directionOf(value: Expression): WrittenDirection | undefined {
    const { directions } = this.environment.options;
    return directions && writtenDirection(value, this.scope, directions, (name) => this.environment.plainGlobal(name));
  }

  private adviseDirections({ signature }: IrFunction, args: readonly Expression[], syntax: Of<'call'>): void {
    const wanted = this.environment.options.directions?.wanted.get(signature);
    wanted?.forEach((kind, index) => {
      const [arg, at] = [args[index], syntax.args[index]];
      const direction = kind && arg && this.directionOf(arg);
      if (kind && direction && at) this.say(adviseDirection(syntax.callee.name, kind, direction, at, this.source));
    });
  }

  private say(advice: Advice | undefined): void {
    if (advice && this.environment.options.advice) this.context.diagnostics.add('warning', advice.message, advice.at, advice.more);
  }

  /** An argument that the function writes to. */
  private written(arg: ExpressionSyntax, { parameters, name }: IrFunction, index: number): Expression {
    let root = arg;
    while (root.op === 'member' || root.op === 'index') root = root.object;
    const { direction } = parameters[index] ?? {};
    if (root.op !== 'name') {
      throw new LanguageError(`"${name}" writes to this (${direction}), so it must be a variable.`, arg);
    }
    const place = this.place(arg);
    const variable = this.scope.find(root.name);
    if (variable) {
      variable.read = true;
      variable.uniform = false;
    }
    return place;
  }

  /** `texture(image, uv)` as `textureLod(image, uv, 0.0)`. */
  private explicitLevel({ callee, to, args }: Of<'call'>): CodeMend | undefined {
    if (callee.name !== 'texture' || args.length !== 2) return undefined;
    return {
      label: 'Read the finest size: textureLod( … , 0.0)',
      edits: [
        { from: callee.from, to: callee.from + callee.name.length, text: 'textureLod' },
        { from: to - 1, to: to - 1, text: ', 0.0' },
      ],
    };
  }

  private construct(syntax: Of<'call'>): Expression {
    const { callee } = syntax;
    const type = callee.open
      ? arrayOf(this.environment.element(callee, this.scope), Math.max(1, syntax.args.length), callee)
      : this.environment.resolve(callee, (length) => this.constantLength(length), {}, this.scope);
    const args = this.effects.inOrder(syntax.args.map((arg) => () => this.elaborate(arg)));
    if (type.kind === 'void' || type.kind === 'sampler') throw new LanguageError(`${typeName(type)} cannot be made from values.`, syntax);
    if (type.kind === 'struct')
      return this.constructEach(
        syntax,
        type,
        type.fields.map((field) => field.type),
        args,
      );
    if (type.kind === 'array') return this.constructEach(syntax, type, Array<Type>(type.length).fill(type.element), args);
    return this.constructNumeric(syntax, type, args);
  }

  private constructEach(syntax: Of<'call'>, type: Type, wanted: readonly Type[], args: readonly Expression[]): Expression {
    if (wanted.length !== args.length) {
      throw new LanguageError(`${typeName(type)} takes ${wanted.length} values, ${args.length} are given.`, syntax);
    }
    args.forEach((arg, index) => this.expectType(arg, wanted[index] ?? arg.type, syntax.args[index] ?? syntax, 'This value'));
    return buildConstruct(type, args);
  }

  private constructNumeric(syntax: Of<'call'>, type: Type, args: readonly Expression[]): Expression {
    const wanted = componentCount(type);
    const counts = args.map((arg) => componentCount(arg.type));
    const bad = counts.indexOf(0);
    if (wanted === 0 || bad >= 0) {
      throw new LanguageError(`${typeName(type)} cannot be made from this.`, syntax.args[bad] ?? syntax);
    }
    const given = counts.reduce((sum, count) => sum + count, 0);
    const [first] = args;
    const fromOne = args.length === 1 && first !== undefined;
    const spreads = fromOne && first.type.kind === 'scalar';
    const shortens = fromOne && given >= wanted && type.kind !== 'matrix';
    const resizes = fromOne && type.kind === 'matrix' && first.type.kind === 'matrix';
    if (type.kind === 'matrix' && !fromOne && args.some((arg) => arg.type.kind === 'matrix')) {
      throw new LanguageError('A matrix is made from one matrix alone, or from numbers and vectors.', syntax);
    }
    // The last argument may be longer than needed, but none may be wholly unused (GLSL ES 3.00 section 5.4.2).
    const fits = given >= wanted && given - (counts.at(-1) ?? 0) < wanted && !(fromOne && type.kind === 'matrix');
    if (!(spreads || shortens || resizes || fits)) {
      throw new LanguageError(`${typeName(type)} needs ${wanted} components, ${given} are given.`, syntax);
    }
    return buildConstruct(type, args);
  }

  private member(syntax: Of<'member'>): Expression {
    const inBlock = this.blockMember(syntax);
    if (inBlock) return inBlock;
    const object = this.elaborate(syntax.object);
    if (object.type.kind === 'struct') {
      const field = object.type.fields.find((each) => each.name === syntax.field);
      if (field) {
        this.environment.note(syntax.fieldRange, () => {
          const type = typeName(field.type);
          return { kind: 'field', name: field.name, signature: `${type} ${typeName(object.type)}.${field.name}`, type };
        });
        return { op: 'member', object, field: field.name, type: field.type };
      }
      const names = object.type.fields.map((each) => each.name);
      const { origin } = object.type;
      throw new LanguageError(`${typeName(object.type)} has no field "${syntax.field}". It has ${names.join(', ')}.`, syntax.fieldRange, {
        mends: [nearestMend(syntax.field, syntax.fieldRange, names)],
        declared: origin?.path === this.source.path ? origin.range : undefined,
      });
    }
    const set = SWIZZLE_SETS.find((each) => [...syntax.field].every((letter) => each.includes(letter)));
    if (object.type.kind === 'vector' && !set && [...syntax.field].every((letter) => SWIZZLE_SETS.join('').includes(letter))) {
      throw new LanguageError('Components are named by one set of letters at a time: xyzw, rgba or stpq.', syntax.fieldRange);
    }
    if (object.type.kind !== 'vector' || !set || syntax.field.length > 4) {
      throw new LanguageError(`${typeName(object.type)} has no component "${syntax.field}".`, syntax.fieldRange);
    }
    const { size, scalar } = object.type;
    const components = [...syntax.field].map((letter) => set.indexOf(letter));
    if (components.some((component) => component >= size)) {
      const names = set.slice(0, size).split('').join(', ');
      throw new LanguageError(`${typeName(object.type)} has only ${size} components: ${names}.`, syntax.fieldRange);
    }
    return { op: 'swizzle', object, components, type: ofSize(scalar, components.length) };
  }

  /** `wind.strength`, where `wind` is the name of a block of uniforms. */
  private blockMember({ object, field, fieldRange }: Of<'member'>): Expression | undefined {
    if (object.op !== 'name' || this.scope.find(object.name)) return undefined;
    const members = this.environment.instances.get(object.name);
    if (!members) return undefined;
    const found = members.get(field);
    if (!found) {
      const names = [...members.keys()];
      throw new LanguageError(`The block "${object.name}" has no member "${field}". It has ${names.join(', ')}.`, fieldRange, {
        mends: [nearestMend(field, fieldRange, names)],
      });
    }
    const type = typeName(found.type);
    this.environment.note(fieldRange, () => ({
      kind: 'variable',
      name: field,
      signature: `uniform ${type} ${field}`,
      type,
      declared: found.origin,
    }));
    return global(found.name, found.type);
  }

  private method({ object, name, args }: Of<'method'>): Expression {
    const value = this.elaborate(object);
    if (name.text !== 'length') throw new LanguageError(`There is no method “${name.text}”; arrays have “length()”.`, name);
    if (value.type.kind !== 'array') {
      const hint = value.type.kind === 'vector' && scalarOf(value.type) === 'float' ? ' The length of a vector is length(v).' : '';
      throw new LanguageError(`Only an array has “length()”, but this is ${typeName(value.type)}.${hint}`, name);
    }
    if (args[0]) throw new LanguageError('“length()” takes nothing.', args[0]);
    return constant(INT, [value.type.length]);
  }

  private index(syntax: Of<'index'>): Expression {
    const { isPlace } = this;
    const parts = [() => this.elaborate(syntax.object), () => this.asValue(syntax.index)];
    const [object, index] = this.effects.inOrder(parts, (at) => isPlace && at === 0) as [Expression, Expression];
    if (!sameType(index.type, INT) && !sameType(index.type, UINT)) this.expectType(index, INT, syntax.index, 'An index');
    const { type } = object;
    const element =
      type.kind === 'array'
        ? type.element
        : type.kind === 'vector'
          ? ofSize(type.scalar, 1)
          : type.kind === 'matrix'
            ? ofSize('float', type.rows)
            : undefined;
    if (!element) throw new LanguageError(`${typeName(type)} cannot be indexed.`, syntax.object);
    const length = type.kind === 'array' ? type.length : type.kind === 'vector' ? type.size : type.kind === 'matrix' ? type.columns : 0;
    const value = this.known(index);
    const known = value.op === 'constant' ? (value.value[0] ?? 0) : 0;
    if (known < 0 || known >= length) throw new LanguageError(`The index goes from 0 to ${length - 1}.`, syntax.index);
    return { op: 'index', object, index, type: element };
  }

  private unary(syntax: Of<'unary'>): Expression {
    const value = this.elaborate(syntax.value);
    if (syntax.operator === '!') {
      this.expectType(value, BOOL, syntax.value, 'What "!" turns round');
      return { op: 'unary', operator: '!', value, type: BOOL };
    }
    const scalar = scalarOf(value.type);
    if (!scalar || scalar === 'bool')
      throw new LanguageError(`"${syntax.operator}" needs a number, but this is ${typeName(value.type)}.`, syntax);
    if (syntax.operator === '~' && scalar === 'float')
      throw new LanguageError(`"~" turns round the bits of a whole number, but this is ${typeName(value.type)}.`, syntax);
    if (syntax.operator === '+') return value;
    if (value.op === 'constant' && syntax.operator === '-')
      return fold({ op: 'unary', operator: '-', value, type: value.type }, NO_FUNCTIONS);
    return { op: 'unary', operator: syntax.operator, value, type: value.type };
  }

  private binary(syntax: Of<'binary'>): Expression {
    const { operator } = syntax;
    if (operator === '&&' || operator === '||') return this.effects.eitherOr(syntax, operator);
    const [left, right] = this.effects.inOrder([() => this.elaborate(syntax.left), () => this.elaborate(syntax.right)]) as [
      Expression,
      Expression,
    ];
    return this.combined(syntax, left, right);
  }

  /** Two values under an operator, where it works between them. */
  combined(syntax: Of<'binary'>, left: Expression, right: Expression): Expression {
    const { operator } = syntax;
    const result = binaryType(operator, left.type, right.type);
    if (result) {
      this.advise(syntax, left, right);
      return { op: 'binary', operator, left, right, type: result };
    }
    for (const [each, other, side] of [
      [left, right, syntax.left],
      [right, left, syntax.right],
    ] as const) {
      if (!sameType(each.type, INT) || scalarOf(other.type) !== 'float') continue;
      const mend = conversionMend(each, FLOAT, side);
      const words = each.op === 'constant' ? `Write ${each.value[0]}.0.` : 'Turn one into the other.';
      throw new LanguageError(`Whole numbers and floats do not mix. ${words}`, side, { mends: [mend] });
    }
    const hint =
      operator === '%' && scalarOf(left.type) === 'float' ? ' Use mod(a, b) for floats.' : operator.length === 1 ? '' : logicHint(operator);
    throw new LanguageError(`"${operator}" does not work between ${typeName(left.type)} and ${typeName(right.type)}.${hint}`, syntax);
  }

  private advise({ operator, left: leftSyntax, right: rightSyntax, ...range }: Of<'binary'>, left: Expression, right: Expression): void {
    if (operator === '/' || operator === '%') this.adviseZero(right, rightSyntax);
    if ((operator === '==' || operator === '!=') && scalarOf(left.type) === 'float' && this.environment.options.advice) {
      const [one, other] = [this.source.slice(leftSyntax), this.source.slice(rightSyntax)];
      const text = `abs(${one} - ${other}) ${operator === '==' ? '<' : '>='} 0.0001`;
      const mends = left.type.kind === 'scalar' ? [write(text, range)] : [];
      const message = 'Two computed floats are hardly ever exactly equal. Ask whether they are close.';
      this.context.diagnostics.add('warning', message, range, { mends });
    }
  }

  private adviseZero(value: Expression | undefined, range: Range): void {
    const zero = (each: Expression): boolean =>
      each.op === 'constant' ? each.value.every((number) => number === 0) : each.op === 'construct' && each.args.every(zero);
    if (value && zero(value) && this.environment.options.advice) {
      this.context.diagnostics.add('warning', 'This divides by zero, which has no result. Devices differ in what they show.', range);
    }
  }

  private conditional(syntax: Of<'conditional'>): Expression {
    const condition = this.elaborate(syntax.condition);
    this.expectType(condition, BOOL, syntax.condition, 'What stands before "?"');
    return this.effects.choice(syntax, condition, (no, type) => this.expectType(no, type, syntax.no, 'The result after ":"'));
  }

  constantLength(syntax: ExpressionSyntax): number {
    const length = this.known(this.elaborate(syntax));
    const value =
      length.op === 'constant' && length.type.kind === 'scalar' && scalarOf(length.type) !== 'float' ? length.value[0] : undefined;
    if (value === undefined || !Number.isInteger(value) || value < 1 || value > 4096) {
      throw new LanguageError('The length of an array must be a constant whole number from 1 to 4096.', syntax);
    }
    return value;
  }

  /** A value as far as it is known now: constants of the function put in place, and folded. */
  known(value: Expression): Expression {
    const put = (each: Expression): Expression =>
      each.op === 'reference' && each.scope === 'local' ? (this.scope.ofIr(each.name)?.constant ?? each) : mapOperands(each, put);
    return fold(put(value), NO_FUNCTIONS);
  }
}
