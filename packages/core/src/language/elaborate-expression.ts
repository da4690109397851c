import { construct as buildConstruct, constant, global, local, signatureOf } from '../ir/build';
import type { Expression } from '../ir/ir';
import type { Range } from '../ir/origin';
import { BOOL, FLOAT, INT, UINT, NAMED_TYPES, componentCount, ofSize, sameType, scalarOf, typeName, type Type } from '../ir/types';
import { BUILTINS, findBuiltin } from './builtins';
import { LanguageError, nearestName } from './diagnostics';
import type { Environment } from './environment';
import type { FunctionScope } from './scope';
import type { ExpressionSyntax } from './syntax';

type Of<Op extends ExpressionSyntax['op']> = Extract<ExpressionSyntax, { op: Op }>;

const SWIZZLE_SETS = ['xyzw', 'rgba', 'stpq'];

/** Types an expression and turns it into IR. */
export class ExpressionElaborator {
  constructor(
    private readonly environment: Environment,
    private readonly scope: FunctionScope,
  ) {}

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
      case 'choose':
        return this.choose(syntax);
    }
  }

  /** @throws LanguageError when the value is not of this type; a whole number where a float is due can be mended. */
  expectType(value: Expression, type: Type, range: Range, what: string): void {
    if (sameType(value.type, type)) return;
    const wholeNumber = value.op === 'constant' && sameType(value.type, INT) && sameType(type, FLOAT);
    const mend = wholeNumber ? `${value.value[0]}.0` : undefined;
    throw new LanguageError(`${what} must be ${typeName(type)}, but this is ${typeName(value.type)}.`, range, mend);
  }

  /** Something that can be assigned to; marks the variable as changing. */
  place(syntax: ExpressionSyntax): Expression {
    let root = syntax;
    while (root.op === 'member' || root.op === 'index') root = root.object;
    if (root.op !== 'name') throw new LanguageError('Only a variable can be assigned to.', syntax);
    const variable = this.scope.find(root.name);
    if (variable) {
      if (variable.readOnly) throw new LanguageError(`"${root.name}" is const and keeps its value.`, root);
      variable.assigned = true;
    } else {
      const found = this.environment.globals.get(root.name);
      if (found && !this.environment.isWritable(found)) {
        throw new LanguageError(`"${root.name}" comes from outside (${found.storage}) and can only be read.`, root);
      }
    }
    const place = this.elaborate(syntax);
    if (place.op === 'swizzle' && new Set(place.components).size < place.components.length) {
      throw new LanguageError('A component may stand only once in what is assigned to.', syntax);
    }
    return place;
  }

  private name(syntax: Of<'name'>): Expression {
    const variable = this.scope.find(syntax.name);
    if (variable) return local(variable.name, variable.type);
    const found = this.environment.globals.get(syntax.name);
    if (found) return found.storage === 'const' && found.value ? found.value : global(found.name, found.type);
    const near = nearestName(syntax.name, [...this.scope.names(), ...this.environment.globals.keys()]);
    throw new LanguageError(`Nothing here is called "${syntax.name}".`, syntax, near);
  }

  private call(syntax: Of<'call'>): Expression {
    const { name } = syntax.callee;
    const nameRange = { from: syntax.callee.from, to: syntax.callee.from + name.length };
    if (syntax.callee.length || NAMED_TYPES.has(name) || this.environment.structs.has(name)) return this.construct(syntax);
    const overloads = this.environment.overloadsOf(name);
    const candidate = overloads.find((each) => each.parameters.length === syntax.args.length);
    const args = syntax.args.map((arg, index) =>
      candidate && candidate.parameters[index]?.direction !== 'in' ? this.place(arg) : this.elaborate(arg),
    );
    const types = args.map((arg) => arg.type);
    const declared = this.environment.functions.get(signatureOf(name, types));
    if (declared) return { op: 'call', callee: declared.signature, args, type: declared.result };
    const builtin = findBuiltin(name, types);
    if (builtin) return { op: 'builtin', name, args, type: builtin.result };
    throw this.noOverload(syntax, nameRange, types);
  }

  private noOverload(syntax: Of<'call'>, nameRange: Range, types: readonly Type[]): LanguageError {
    const { name } = syntax.callee;
    const known = [
      ...this.environment.overloadsOf(name).map((each) => each.parameters.map((parameter) => parameter.type)),
      ...(BUILTINS.get(name) ?? []).map((each) => each.parameters),
    ];
    if (known.length === 0) {
      return new LanguageError(`There is no function "${name}".`, nameRange, nearestName(name, this.environment.callableNames()));
    }
    const given = types.map(typeName).join(', ');
    const sameCount = known.filter((parameters) => parameters.length === types.length);
    const [only] = sameCount;
    if (sameCount.length === 1 && only) {
      const wrong = only.findIndex((parameter, index) => !sameType(parameter, types[index] ?? parameter));
      const arg = syntax.args[wrong];
      const expected = only[wrong];
      if (arg && expected) {
        const mend = arg.op === 'number' && arg.kind === 'int' && sameType(expected, FLOAT) ? `${arg.value}.0` : undefined;
        return new LanguageError(
          `"${name}" takes ${typeName(expected)} here, but this is ${typeName(types[wrong] ?? expected)}.`,
          arg,
          mend,
        );
      }
    }
    const forms = known.slice(0, 4).map((parameters) => `${name}(${parameters.map(typeName).join(', ')})`);
    return new LanguageError(`"${name}" does not take (${given}). It takes ${forms.join(' or ')}.`, syntax);
  }

  private construct(syntax: Of<'call'>): Expression {
    const type = this.environment.resolve(syntax.callee, (length) => this.constantLength(length));
    const args = syntax.args.map((arg) => this.elaborate(arg));
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
      throw new LanguageError(`${typeName(type)} can not be made from this.`, syntax.args[bad] ?? syntax);
    }
    const given = counts.reduce((sum, count) => sum + count, 0);
    const [first] = args;
    const fromOne = args.length === 1 && first !== undefined;
    const spreads = fromOne && first.type.kind === 'scalar';
    const shortens = fromOne && given >= wanted && type.kind !== 'matrix';
    const resizes = fromOne && type.kind === 'matrix' && first.type.kind === 'matrix';
    // The last argument may be longer than needed, but none may be wholly unused (GLSL ES 3.00 section 5.4.2).
    const fits = given >= wanted && given - (counts.at(-1) ?? 0) < wanted && type.kind !== 'matrix';
    if (!(spreads || shortens || resizes || fits || (type.kind === 'matrix' && given === wanted))) {
      throw new LanguageError(`${typeName(type)} needs ${wanted} components, ${given} are given.`, syntax);
    }
    return buildConstruct(type, args);
  }

  private member(syntax: Of<'member'>): Expression {
    const object = this.elaborate(syntax.object);
    if (object.type.kind === 'struct') {
      const field = object.type.fields.find((each) => each.name === syntax.field);
      if (field) return { op: 'member', object, field: field.name, type: field.type };
      const near = nearestName(
        syntax.field,
        object.type.fields.map((each) => each.name),
      );
      throw new LanguageError(`${typeName(object.type)} has no field "${syntax.field}".`, syntax.fieldRange, near);
    }
    const set = SWIZZLE_SETS.find((each) => [...syntax.field].every((letter) => each.includes(letter)));
    if (object.type.kind !== 'vector' || !set || syntax.field.length > 4) {
      throw new LanguageError(`${typeName(object.type)} has no component "${syntax.field}".`, syntax.fieldRange);
    }
    const { size, scalar } = object.type;
    const components = [...syntax.field].map((letter) => set.indexOf(letter));
    if (components.some((component) => component >= size)) {
      throw new LanguageError(`${typeName(object.type)} has only ${size} components.`, syntax.fieldRange);
    }
    return { op: 'swizzle', object, components, type: ofSize(scalar, components.length) };
  }

  private index(syntax: Of<'index'>): Expression {
    const object = this.elaborate(syntax.object);
    const index = this.elaborate(syntax.index);
    if (!sameType(index.type, INT) && !sameType(index.type, UINT)) this.expectType(index, INT, syntax.index, 'An index');
    const { type } = object;
    const element =
      type.kind === 'array'
        ? type.element
        : type.kind === 'vector'
          ? ofSize(type.scalar, 1)
          : type.kind === 'matrix'
            ? ofSize('float', type.size)
            : undefined;
    if (!element) throw new LanguageError(`${typeName(type)} can not be indexed.`, syntax.object);
    const length = type.kind === 'array' ? type.length : type.kind === 'vector' || type.kind === 'matrix' ? type.size : 0;
    const known = index.op === 'constant' ? (index.value[0] ?? 0) : 0;
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
    if (syntax.operator === '+') return value;
    if (value.op === 'constant' && syntax.operator === '-')
      return constant(
        value.type,
        value.value.map((each) => -each),
      );
    return { op: 'unary', operator: syntax.operator, value, type: value.type };
  }

  private binary(syntax: Of<'binary'>): Expression {
    const left = this.elaborate(syntax.left);
    const right = this.elaborate(syntax.right);
    const { operator } = syntax;
    const result = binaryType(operator, left.type, right.type);
    if (result) return { op: 'binary', operator, left, right, type: result };
    for (const [each, other, side] of [
      [left, right, syntax.left],
      [right, left, syntax.right],
    ] as const) {
      if (each.op === 'constant' && sameType(each.type, INT) && scalarOf(other.type) === 'float') {
        throw new LanguageError(`Whole numbers and floats do not mix. Write ${each.value[0]}.0.`, side, `${each.value[0]}.0`);
      }
    }
    throw new LanguageError(`"${operator}" does not work between ${typeName(left.type)} and ${typeName(right.type)}.`, syntax);
  }

  private choose(syntax: Of<'choose'>): Expression {
    const condition = this.elaborate(syntax.condition);
    this.expectType(condition, BOOL, syntax.condition, 'What stands before "?"');
    const yes = this.elaborate(syntax.yes);
    const no = this.elaborate(syntax.no);
    this.expectType(no, yes.type, syntax.no, 'The result after ":"');
    return { op: 'choose', condition, yes, no, type: yes.type };
  }

  constantLength(syntax: ExpressionSyntax): number {
    const length = this.elaborate(syntax);
    const value = length.op === 'constant' ? length.value[0] : undefined;
    if (value === undefined || !Number.isInteger(value) || value < 1 || value > 4096) {
      throw new LanguageError('The length of an array must be a constant whole number from 1 to 4096.', syntax);
    }
    return value;
  }
}

/** The type of `left operator right`, GLSL ES 3.00 section 5.9; undefined where there is none. */
function binaryType(operator: string, left: Type, right: Type): Type | undefined {
  const equal = sameType(left, right);
  switch (operator) {
    case '==':
    case '!=':
      return equal && left.kind !== 'sampler' ? BOOL : undefined;
    case '<':
    case '>':
    case '<=':
    case '>=':
      return equal && left.kind === 'scalar' && left.scalar !== 'bool' ? BOOL : undefined;
    case '&&':
    case '||':
    case '^^':
      return sameType(left, BOOL) && equal ? BOOL : undefined;
  }
  const scalar = scalarOf(left);
  if (!scalar || scalar === 'bool' || scalar !== scalarOf(right)) return undefined;
  const integersOnly = ['%', '&', '|', '^', '<<', '>>'].includes(operator);
  if (integersOnly && scalar === 'float') return undefined;
  if (operator === '*' && left.kind === 'matrix' && right.kind === 'vector') return left.size === right.size ? right : undefined;
  if (operator === '*' && left.kind === 'vector' && right.kind === 'matrix') return left.size === right.size ? left : undefined;
  if (equal) return left;
  if (left.kind === 'scalar') return right;
  return right.kind === 'scalar' ? left : undefined;
}
