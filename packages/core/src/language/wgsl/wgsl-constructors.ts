import { construct, zeroOf } from '../../ir/build';
import type { Expression } from '../../ir/ir';
import { BOOL, componentCount, matrix, ofSize, scalarOf, vector, type Type } from '../../ir/types';
import { LanguageError } from '../diagnostics';
import { wgslConversion } from './wgsl-mends';
import type { ReadsWgsl } from './wgsl-context';
import type { WgslExpression } from './wgsl-syntax';
import { abstractNumber, as, concrete, numbersOf, settled, withScalar, type WgslValue } from './wgsl-value';

type Call = Extract<WgslExpression, { op: 'call' }>;

/** Values made of parts (section 17.1). */
export class WgslConstructors {
  constructor(private readonly expressions: ReadsWgsl) {}

  construct(syntax: Call, type: Type): WgslValue {
    const { args } = syntax;
    if (type.kind === 'sampler' || type.kind === 'void')
      throw new LanguageError(`${this.expressions.words(type)} cannot be made from values.`, syntax);
    if (args.length === 0) return concrete(zeroOf(type));
    if (type.kind === 'struct')
      return this.constructEach(
        syntax,
        type,
        type.fields.map((field) => field.type),
      );
    if (type.kind === 'array') return this.constructEach(syntax, type, Array<Type>(type.length).fill(type.element));
    const given = args.map((arg) => this.expressions.value(arg));
    return concrete(this.constructNumeric(syntax, type, given));
  }

  private constructEach(syntax: Call, type: Type, wanted: readonly Type[]): WgslValue {
    const { args } = syntax;
    if (wanted.length !== args.length)
      throw new LanguageError(`${this.expressions.words(type)} takes ${wanted.length} values, ${args.length} are given.`, syntax);
    return concrete(
      construct(
        type,
        args.map((arg, index) => this.expressions.wanted(arg, wanted[index] ?? BOOL, 'This value')),
      ),
    );
  }

  private constructNumeric(syntax: Call, type: Type, given: readonly WgslValue[]): Expression {
    const scalar = scalarOf(type) ?? 'float';
    const wanted = componentCount(type);
    const [first] = given;
    const bad = given.findIndex(({ value }) => componentCount(value.type) === 0);
    if (bad >= 0) throw new LanguageError(`${this.expressions.words(type)} cannot be made from this.`, syntax.args[bad] ?? syntax);
    if (type.kind === 'scalar' && given.length > 1)
      throw new LanguageError(`${this.expressions.words(type)} needs 1 value, ${given.length} are given.`, syntax);
    if (given.length === 1 && first) {
      // One value of as many components is turned into the type; one number stands for all.
      const { value } = first;
      const same = componentCount(value.type) === wanted && value.type.kind === type.kind;
      if (same || type.kind === 'scalar') {
        if (componentCount(value.type) !== wanted)
          throw new LanguageError(`${this.expressions.words(type)} needs 1 value, ${componentCount(value.type)} are given.`, syntax);
        return as(first, type) ?? construct(type, [settled(first)]);
      }
      if (type.kind === 'vector' && value.type.kind === 'scalar') {
        const part = withScalar(first, scalar);
        if (part) return construct(type, [part]);
        throw new LanguageError(
          `The parts of ${this.expressions.words(type)} are ${this.expressions.words(ofSize(scalar, 1))}, but this is ${this.expressions.wordsOf(first)}.`,
          syntax.args[0] ?? syntax,
          {
            mends: [wgslConversion(first, ofSize(scalar, 1), syntax.args[0] ?? syntax)],
          },
        );
      }
    }
    const wrong = given.filter((each) => !withScalar(each, scalar)).length;
    const parts = given.map((each, index) => {
      const part = withScalar(each, scalar);
      const at = syntax.args[index] ?? syntax;
      if (!part)
        throw new LanguageError(
          `The parts of ${this.expressions.words(type)} are ${this.expressions.words(ofSize(scalar, 1))}, but this is ${this.expressions.wordsOf(each)}.`,
          at,
          {
            mends: wrong === 1 ? [wgslConversion(each, ofSize(scalar, componentCount(each.value.type)), at)] : [],
          },
        );
      return part;
    });
    const count = parts.reduce((sum, each) => sum + componentCount(each.type), 0);
    const byColumns =
      type.kind === 'matrix' &&
      parts.every((each) => each.type.kind === 'vector' && each.type.size === type.rows) &&
      parts.length === type.columns;
    const byNumbers = parts.every((each) => each.type.kind === 'scalar') && count === wanted;
    if (type.kind === 'matrix' ? !byColumns && !byNumbers : count !== wanted) {
      throw new LanguageError(`${this.expressions.words(type)} needs ${wanted} numbers, ${count} are given.`, syntax);
    }
    return construct(type, parts);
  }

  /** `vec3(1, 2, x)` and `array(a, b)`: the type comes from the parts. */
  inferred(syntax: Call): WgslValue {
    const { name, args: template } = syntax.callee;
    if (template.length > 0)
      throw new LanguageError(`There is no type like this. Write “${name === 'array' ? 'array<f32, 4>' : `${name}<f32>`}”.`, syntax.callee);
    const given = syntax.args.map((arg) => this.expressions.value(arg));
    const [first] = given;
    const zeros = /^vec([234])$/.exec(name);
    if (!first && zeros) return abstractNumber('int', Array<number>(Number(zeros[1])).fill(0));
    const typed = name === 'array' ? 'array<f32, 4>()' : `${name}f()`;
    if (!first) throw new LanguageError(`“${name}()” needs its parts, or the type of them: ${typed}.`, syntax);
    const settledOne = given.find((each) => !each.abstract);
    const lean = given.some(({ abstract }) => abstract === 'float') ? 'float' : 'int';
    if (name === 'array') {
      const element = settledOne?.value.type ?? (lean === 'float' ? ofSize('float', componentCount(first.value.type)) : first.value.type);
      const type: Type = { kind: 'array', element, length: given.length };
      return this.constructEach(syntax, type, Array<Type>(given.length).fill(element));
    }
    const size = /^(?:vec|mat)([234])(?:x([234]))?$/.exec(name);
    const scalar = name.startsWith('mat') ? 'float' : ((settledOne && scalarOf(settledOne.value.type)) ?? lean);
    const type = size?.[2] ? matrix(Number(size[1]), Number(size[2])) : vector(Number(size?.[1] ?? 2), scalar);
    const value = this.constructNumeric(syntax, type, given);
    const numbers = given.every(({ abstract }) => abstract) && type.kind === 'vector' ? given.flatMap(numbersOf) : [];
    if (numbers.length === 0) return concrete(value);
    return abstractNumber(lean, numbers.length === 1 ? Array<number>(componentCount(type)).fill(numbers[0] ?? 0) : numbers);
  }
}
