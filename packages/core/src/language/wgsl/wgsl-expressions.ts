import { constant, global, local } from '../../ir/build';
import type { BinaryOperator, Expression, IrFunction } from '../../ir/ir';
import type { Range } from '../../ir/origin';
import { fold } from '../../ir/passes';
import { BOOL, FLOAT, INT, ofSize, sameType, scalarOf, UINT, vector, type Type } from '../../ir/types';
import { mapOperands } from '../../ir/walk';
import type { ControlFlow } from '../control-flow';
import { KnownTrouble, LanguageError, write, type CodeMend } from '../diagnostics';
import type { Environment } from '../environment';
import { nearestMend } from '../nearest-name';
import { wgslConversion } from './wgsl-mends';
import { LACKED, WGSL_BUILTIN_NAMES } from './wgsl-calls';
import { WgslBuiltinCalls } from './wgsl-builtin-calls';
import { WgslConstructors } from './wgsl-constructors';
import type { ReadsWgsl, WgslContext } from './wgsl-context';
import { abstractResult, lowered, shiftBy, wgslBinaryType } from './wgsl-operators';
import { WgslPlaces } from './wgsl-places';
import type { WgslScope } from './wgsl-scope';
import type { WgslExpression } from './wgsl-syntax';
import { wgslTypeName } from './wgsl-types';
import { abstractNumber, as, concrete, numbersOf, settled, withScalar, type WgslValue } from './wgsl-value';

type Of<Op extends WgslExpression['op']> = Extract<WgslExpression, { op: Op }>;

const NO_FUNCTIONS = { functions: new Map<string, IrFunction>() };
const LETTERS = ['xyzw', 'rgba'];

/** Types an expression of WGSL and turns it into IR. */
export class WgslExpressions implements ReadsWgsl {
  private readonly environment: Environment;
  readonly places: WgslPlaces;
  private readonly constructors: WgslConstructors;
  private readonly builtins: WgslBuiltinCalls;

  constructor(
    private readonly context: WgslContext,
    private readonly scope: WgslScope | undefined,
    private readonly flow?: ControlFlow,
  ) {
    this.environment = context.environment;
    this.places = new WgslPlaces(this, context, scope);
    this.constructors = new WgslConstructors(this);
    this.builtins = new WgslBuiltinCalls(this, context, scope, flow);
  }

  /** A value; what is abstract stays so. */
  value(syntax: WgslExpression): WgslValue {
    switch (syntax.op) {
      case 'number':
        return this.number(syntax);
      case 'boolean':
        return concrete(constant(BOOL, [syntax.value ? 1 : 0]));
      case 'name':
        return this.name(syntax);
      case 'type':
        throw new LanguageError('A type is no value. Put its parts in brackets behind it.', syntax);
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
    }
  }

  /** A value of a type that is wanted. */
  wanted(syntax: WgslExpression, type: Type, what: string): Expression {
    const given = this.value(syntax);
    const value = as(given, type);
    if (value) return value;
    throw new LanguageError(`${what} must be ${this.words(type)}, but this is ${this.wordsOf(given)}.`, syntax, {
      mends: [wgslConversion(given, type, syntax)],
    });
  }

  settledValue(syntax: WgslExpression): Expression {
    return settled(this.value(syntax));
  }

  /** A value as far as it is known now. */
  known(value: Expression): Expression {
    const put = (each: Expression): Expression =>
      each.op === 'reference' && each.scope === 'local' ? (this.scope?.names.ofIr(each.name)?.constant ?? each) : mapOperands(each, put);
    return fold(put(value), NO_FUNCTIONS);
  }

  words(type: Type): string {
    return wgslTypeName(type);
  }

  wordsOf({ value, abstract }: WgslValue): string {
    if (!abstract) return value.type.kind === 'void' ? 'nothing' : this.words(value.type);
    return value.type.kind === 'scalar' ? (abstract === 'int' ? 'a whole number' : 'a number with a point') : this.words(value.type);
  }

  private number({ kind, text, from, to }: Of<'number'>): WgslValue {
    if (/h$/.test(text) && !/^0x/i.test(text))
      throw new LanguageError('f16 is an extension that not every device has. Take f32.', { from, to });
    if (kind === 'float') {
      const value = floatOf(text);
      if (!Number.isFinite(Math.fround(value)))
        throw new LanguageError(`The number ${text.slice(0, 40)} is too large for f32.`, { from, to });
      return text.endsWith('f') && !/^0x/i.test(text) ? concrete(constant(FLOAT, [Math.fround(value)])) : abstractNumber('float', [value]);
    }
    const value = Number(text.replace(/[iu]$/, ''));
    const suffix = /[iu]$/.exec(text)?.[0];
    if (value > (suffix === 'i' ? 2 ** 31 - 1 : suffix === 'u' ? 2 ** 32 - 1 : Number.MAX_SAFE_INTEGER))
      throw new LanguageError(`The number ${text.slice(0, 40)} is too large for ${suffix === 'u' ? 'u32' : 'i32'}.`, { from, to });
    if (!suffix) return abstractNumber('int', [value]);
    return concrete(constant(suffix === 'u' ? UINT : INT, [value]));
  }

  private name(syntax: Of<'name'>): WgslValue {
    const { name } = syntax;
    const variable = this.scope?.names.find(name);
    const { source } = this.context;
    if (variable) {
      variable.read = true;
      const type = this.words(variable.type);
      this.environment.note(syntax, () => ({
        kind: 'variable',
        name,
        signature: `${name}: ${type}`,
        type,
        declared: { path: source.path, range: variable.declared },
      }));
      const pointed = this.scope?.pointers.get(variable.name);
      if (pointed) return concrete(pointed);
      return variable.abstract && variable.constant
        ? { value: variable.constant, abstract: variable.abstract }
        : concrete(local(variable.name, variable.type));
    }
    const known = this.context.module.global(name);
    if (known) {
      const type = this.words(known.type);
      this.environment.note(syntax, () => ({ kind: 'variable', name, signature: `${name}: ${type}`, type, declared: known.origin }));
      if (known.storage === 'const' && known.value) return { value: known.value, abstract: this.context.module.abstractOf(name) };
      return concrete(global(known.name, known.type));
    }
    if (this.scope?.names.troubled.has(name) || this.context.module.isTroubled(name)) throw new KnownTrouble(syntax);
    if (this.environment.instances.has(name)) throw new LanguageError(`Take a member of "${name}": it is a block of uniforms.`, syntax);
    if (this.scope?.samplers.has(name) || this.context.module.samplers.has(name))
      throw new LanguageError(`"${name}" is a sampler, which only reads images.`, syntax);
    if (this.environment.overloadsOf(name).length > 0 || WGSL_BUILTIN_NAMES.includes(name))
      throw new LanguageError(`"${name}" is a function. Write ${name}( … ) to call it.`, syntax);
    throw new LanguageError(`Nothing here is called "${name}".`, syntax, { mends: [nearestMend(name, syntax, this.valueNames())] });
  }

  private valueNames(): string[] {
    return [...(this.scope?.names.names() ?? []), ...this.context.module.globalNames(), ...this.environment.globalNames()];
  }

  private call(syntax: Of<'call'>): WgslValue {
    const { callee } = syntax;
    const { name, nameRange } = callee;
    const variable = this.scope?.names.find(name);
    if (variable)
      throw new LanguageError(`"${name}" is a variable here, so it cannot be called.`, nameRange, { declared: variable.declared });
    if (name === 'bitcast') return this.builtins.bitcast(syntax);
    const type = this.context.module.typeNamed(callee, this.scope);
    if (type) return this.constructors.construct(syntax, type);
    if (name === 'array' || /^(?:vec[234]|mat[234]x[234])$/.test(name)) return this.constructors.inferred(syntax);
    if (Object.hasOwn(LACKED, name)) throw new LanguageError(`“${name}” ${LACKED[name]}.`, nameRange);
    const own = this.ownCall(syntax);
    if (own) return own;
    return this.builtins.call(syntax);
  }

  private ownCall(syntax: Of<'call'>): WgslValue | undefined {
    const { name, nameRange } = syntax.callee;
    this.context.module.readFunction(name);
    const overloads = this.environment.overloadsOf(name);
    if (overloads.length === 0) return undefined;
    const written = syntax.args.filter((arg) => !this.isSampler(arg));
    const given = written.map((arg) => (arg.op === 'unary' && arg.operator === '&' ? undefined : this.value(arg)));
    const fits = overloads.find(
      ({ parameters }) =>
        parameters.length === written.length &&
        parameters.every(({ type, direction }, index) => {
          const value = given[index];
          // A pointer by its name stands for what it points to.
          return value ? as(value, type) !== undefined : direction !== 'in';
        }),
    );
    if (!fits) throw this.noOverload(syntax, overloads, given);
    const args = fits.parameters.map(({ type, direction }, index): Expression => {
      const arg = written[index];
      if (!arg) throw new LanguageError(`"${name}" takes more than is given.`, syntax);
      if (direction === 'in') return as(given[index] ?? this.value(arg), type) ?? this.settledValue(arg);
      const place = arg.op === 'unary' && arg.operator === '&' ? this.places.place(arg.value) : this.places.pointed(arg);
      if (!sameType(place.type, type))
        throw new LanguageError(
          `"${name}" takes a pointer to ${this.words(type)} here, but this points to ${this.words(place.type)}.`,
          arg,
        );
      return place;
    });
    const [taken, handed] = [this.context.module.samplersTakenBy(name), syntax.args.length - written.length];
    if (taken !== undefined && taken !== handed)
      throw new LanguageError(
        `"${name}" takes ${taken} ${taken === 1 ? 'sampler' : 'samplers'} here, but ${handed} ${handed === 1 ? 'is' : 'are'} given. An image is handed on with its sampler.`,
        nameRange,
      );
    const kind = this.environment.importedNames.has(name) ? 'function of the Library' : 'function';
    const { path, range } = fits.origin;
    this.environment.note(nameRange, () => ({
      kind,
      name,
      signature: this.headOf(fits, name),
      declared: { path, range: fits.nameRange ?? range },
    }));
    this.flow?.call(name, fits, syntax);
    return concrete({ op: 'call', callee: fits.signature, args, type: fits.result });
  }

  private headOf({ parameters, result }: IrFunction, name: string): string {
    const list = parameters.map(
      (each) => `${each.name}: ${each.direction === 'in' ? this.words(each.type) : `ptr<function, ${this.words(each.type)}>`}`,
    );
    return `fn ${name}(${list.join(', ')})${result.kind === 'void' ? '' : ` -> ${this.words(result)}`}`;
  }

  private noOverload(syntax: Of<'call'>, overloads: readonly IrFunction[], given: readonly (WgslValue | undefined)[]): LanguageError {
    const { name, nameRange } = syntax.callee;
    const [first] = overloads;
    const declared = first && first.origin.path === this.context.source.path ? (first.nameRange ?? first.origin.range) : undefined;
    const [only, second] = overloads.filter(({ parameters }) => parameters.length === given.length);
    if (only && !second) {
      const wrong = only.parameters.findIndex(({ type }, index) => as(given[index] ?? concrete(constant(BOOL, [0])), type) === undefined);
      const [arg, value, parameter] = [syntax.args[wrong], given[wrong], only.parameters[wrong]];
      if (arg && value && parameter?.direction !== 'in' && parameter)
        return new LanguageError(`"${name}" writes to this, so it takes a pointer: &name.`, arg, {
          mends: [write('&', { from: arg.from, to: arg.from })],
          declared,
        });
      if (arg && value && parameter)
        return new LanguageError(`"${name}" takes ${this.words(parameter.type)} here, but this is ${this.wordsOf(value)}.`, arg, {
          mends: [wgslConversion(value, parameter.type, arg)],
          declared,
        });
    }
    const forms = overloads.slice(0, 4).map((each) => `${name}(${each.parameters.map(({ type }) => this.words(type)).join(', ')})`);
    const words = given.map((each) => (each ? this.wordsOf(each) : 'a pointer')).join(', ');
    return new LanguageError(`"${name}" does not take (${words}). It takes ${forms.join(' or ')}.`, declared ? syntax : nameRange, {
      declared,
    });
  }

  isSampler(arg: WgslExpression): boolean {
    return (
      arg.op === 'name' &&
      !this.scope?.names.find(arg.name) &&
      (this.scope?.samplers.has(arg.name) || this.context.module.samplers.has(arg.name)) === true
    );
  }

  private member(syntax: Of<'member'>): WgslValue {
    const inBlock = this.blockMember(syntax);
    if (inBlock) return inBlock;
    const { field, fieldRange } = syntax;
    const parted = this.modf(syntax);
    if (parted) return parted;
    const given = this.value(syntax.object);
    const object = given.value;
    if (object.type.kind === 'struct') {
      const found = object.type.fields.find((each) => each.name === field);
      if (!found) {
        const names = object.type.fields.map((each) => each.name);
        const { origin } = object.type;
        throw new LanguageError(`${this.words(object.type)} has no member "${field}". It has ${names.join(', ')}.`, fieldRange, {
          mends: [nearestMend(field, fieldRange, names)],
          declared: origin?.path === this.context.source.path ? origin.range : undefined,
        });
      }
      const type = this.words(found.type);
      this.environment.note(fieldRange, () => ({
        kind: 'field',
        name: field,
        signature: `${this.words(object.type)}.${field}: ${type}`,
        type,
      }));
      return concrete({ op: 'member', object, field, type: found.type });
    }
    const set = LETTERS.find((each) => [...field].every((letter) => each.includes(letter)));
    if (object.type.kind === 'vector' && !set && [...field].every((letter) => LETTERS.join('').includes(letter)))
      throw new LanguageError('Components are named by one set of letters at a time: xyzw or rgba.', fieldRange);
    if (object.type.kind !== 'vector' || !set || field.length > 4)
      throw new LanguageError(`${this.wordsOf(given)} has no component "${field}".`, fieldRange);
    const { size, scalar } = object.type;
    const components = [...field].map((letter) => set.indexOf(letter));
    if (components.some((each) => each >= size))
      throw new LanguageError(
        `${this.words(object.type)} has only ${size} components: ${set.slice(0, size).split('').join(', ')}.`,
        fieldRange,
      );
    if (given.abstract)
      return abstractNumber(
        given.abstract,
        components.map((each) => numbersOf(given)[each] ?? 0),
      );
    return concrete({ op: 'swizzle', object, components, type: ofSize(scalar, components.length) });
  }

  /** `modf(x).fract` and `modf(x).whole`. */
  private modf({ object, field, fieldRange }: Of<'member'>): WgslValue | undefined {
    if (object.op !== 'call' || object.callee.name !== 'modf' || this.environment.overloadsOf('modf').length > 0) return undefined;
    const [arg] = object.args;
    const x = arg && this.settledValue(arg);
    if (!x || object.args.length !== 1 || scalarOf(x.type) !== 'float')
      throw new LanguageError('“modf” takes a number or a vector of numbers.', object);
    const whole: Expression = { op: 'builtin', name: 'trunc', args: [x], type: x.type };
    if (field === 'whole') return concrete(whole);
    if (field !== 'fract') throw new LanguageError('What “modf” gives has the parts “fract” and “whole”.', fieldRange);
    return concrete({ op: 'binary', operator: '-', left: x, right: whole, type: x.type });
  }

  blockMember({ object, field, fieldRange }: Of<'member'>): WgslValue | undefined {
    if (object.op !== 'name' || this.scope?.names.find(object.name)) return undefined;
    this.context.module.global(object.name);
    const members = this.environment.instances.get(object.name);
    if (!members) return undefined;
    const found = members.get(field);
    if (!found) {
      const names = [...members.keys()];
      throw new LanguageError(`"${object.name}" has no member "${field}". It has ${names.join(', ')}.`, fieldRange, {
        mends: [nearestMend(field, fieldRange, names)],
      });
    }
    const type = this.words(found.type);
    this.environment.note(fieldRange, () => ({
      kind: 'variable',
      name: field,
      signature: `${field}: ${type}`,
      type,
      declared: found.origin,
    }));
    return concrete(global(found.name, found.type));
  }

  private index(syntax: Of<'index'>): WgslValue {
    const object = this.settledValue(syntax.object);
    const { type } = object;
    const element =
      type.kind === 'array'
        ? type.element
        : type.kind === 'vector'
          ? ofSize(type.scalar, 1)
          : type.kind === 'matrix'
            ? vector(type.rows)
            : undefined;
    if (!element) throw new LanguageError(`${this.words(type)} cannot be indexed.`, syntax.object);
    const given = this.value(syntax.index);
    const index = as(given, INT) ?? as(given, UINT);
    if (!index) throw new LanguageError(`An index must be i32 or u32, but this is ${this.wordsOf(given)}.`, syntax.index);
    const length = type.kind === 'array' ? type.length : type.kind === 'vector' ? type.size : type.kind === 'matrix' ? type.columns : 0;
    const known = this.known(index);
    const at = known.op === 'constant' ? (known.value[0] ?? 0) : 0;
    if (at < 0 || at >= length) throw new LanguageError(`The index goes from 0 to ${length - 1}.`, syntax.index);
    return concrete({ op: 'index', object, index, type: element });
  }

  private unary(syntax: Of<'unary'>): WgslValue {
    const { operator } = syntax;
    if (operator === '*') return concrete(this.places.pointed(syntax.value));
    if (operator === '&') throw new LanguageError('A pointer is given to a function, or to a “let”: let p = &name;', syntax);
    const given = this.value(syntax.value);
    const scalar = scalarOf(given.value.type);
    if (operator === '!') {
      if (scalar !== 'bool') throw new LanguageError(`"!" turns round a bool, but this is ${this.wordsOf(given)}.`, syntax.value);
      const { value } = given;
      if (sameType(value.type, BOOL)) return concrete({ op: 'unary', operator, value, type: value.type });
      return concrete({ op: 'builtin', name: 'not', args: [value], type: value.type });
    }
    if (!scalar || scalar === 'bool' || (operator === '-' && scalar === 'uint') || (operator === '~' && scalar === 'float'))
      throw new LanguageError(`"${operator}" does not work on ${this.wordsOf(given)}.`, syntax);
    if (given.abstract)
      return abstractNumber(
        given.abstract,
        numbersOf(given).map((each) => (operator === '-' ? -each : ~each)),
      );
    return concrete({ op: 'unary', operator, value: given.value, type: given.value.type });
  }

  private binary(syntax: Of<'binary'>): WgslValue {
    return this.combined(syntax.operator, this.value(syntax.left), this.value(syntax.right), syntax);
  }

  /** Two values under an operator (section 8.7 to 8.9). */
  combined(
    operator: BinaryOperator,
    left: WgslValue,
    right: WgslValue,
    syntax: Range & { readonly left: WgslExpression; readonly right: WgslExpression },
  ): WgslValue {
    if (left.abstract && right.abstract) {
      const value = abstractResult(operator, left, right);
      if (value) return value;
    }
    const isShift = operator === '<<' || operator === '>>';
    const [a, b] = isShift ? [settled(left), shiftBy(right)] : this.sided(left, right);
    const type = a && b ? wgslBinaryType(operator, a.type, b.type) : undefined;
    if (a && b && type) return concrete(lowered(operator, a, b, type));
    const mends = [this.sideMend(left, right, syntax)];
    const words = `"${operator}" does not work between ${this.wordsOf(left)} and ${this.wordsOf(right)}.`;
    const scalars =
      scalarOf(left.value.type) !== scalarOf(right.value.type) && mends[0] ? ' WGSL turns nothing into another type by itself.' : '';
    throw new LanguageError(words + scalars, syntax, { mends });
  }

  private sideMend(
    left: WgslValue,
    right: WgslValue,
    syntax: { readonly left: WgslExpression; readonly right: WgslExpression },
  ): CodeMend | undefined {
    const [a, b] = [left.value.type, right.value.type];
    if (a.kind !== 'scalar' || b.kind !== 'scalar' || a.scalar === b.scalar || a.scalar === 'bool' || b.scalar === 'bool') return undefined;
    return a.scalar === 'float'
      ? wgslConversion(right, FLOAT, syntax.right)
      : b.scalar === 'float'
        ? wgslConversion(left, FLOAT, syntax.left)
        : undefined;
  }

  /** Both with one scalar, where one of them is abstract. */
  private sided(left: WgslValue, right: WgslValue): [Expression | undefined, Expression | undefined] {
    if (left.abstract && right.abstract) {
      const lean = left.abstract === 'float' || right.abstract === 'float' ? 'float' : 'int';
      return [withScalar(left, lean), withScalar(right, lean)];
    }
    const of = (given: WgslValue, other: WgslValue): Expression | undefined =>
      given.abstract ? withScalar(given, scalarOf(other.value.type) ?? 'float') : given.value;
    return [of(left, right), of(right, left)];
  }

  /** Two values of one type, for functions that choose between them. */
  alike(a: WgslValue, b: WgslValue, syntax: Range): [Expression, Expression] {
    const [one, other] = this.sided(a, b);
    if (!one || !other || !sameType(one.type, other.type))
      throw new LanguageError(`Both values must be of one type, but these are ${this.wordsOf(a)} and ${this.wordsOf(b)}.`, syntax);
    return [one, other];
  }

  constantLength(syntax: WgslExpression): number {
    const length = this.known(settled(this.value(syntax)));
    const value = length.op === 'constant' && scalarOf(length.type) !== 'float' ? length.value[0] : undefined;
    if (value === undefined || !Number.isInteger(value) || value < 1 || value > 4096)
      throw new LanguageError('The length of an array must be a constant whole number from 1 to 4096.', syntax);
    return value;
  }
}

function floatOf(text: string): number {
  const digits = text.replace(/^(0[xX])/, '');
  if (digits === text) return parseFloat(text);
  const [, whole = '', part = '', power = '0'] = /^([0-9a-fA-F]*)\.?([0-9a-fA-F]*)(?:[pP]([+-]?\d+))?/.exec(digits) ?? [];
  const mantissa = whole + part === '' ? 0 : parseInt(whole + part, 16);
  return mantissa * 2 ** (Number(power) - 4 * part.length);
}
