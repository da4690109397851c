import { constant } from '../../ir/build';
import type { Expression } from '../../ir/ir';
import { FLOAT, INT, ofSize, sameType, scalarOf, vector, type ScalarName, type Type } from '../../ir/types';

/**
 * A value of WGSL. Numbers without a suffix are abstract (section 6.2.1): whole ones become i32, u32 or f32 where they are used,
 * others f32. An abstract value is always known; its constant has type int or float, and its numbers are not rounded yet.
 */
export interface WgslValue {
  readonly value: Expression;
  readonly abstract?: 'int' | 'float';
}

export function concrete(value: Expression): WgslValue {
  return { value };
}

export function abstractNumber(kind: 'int' | 'float', numbers: readonly number[]): WgslValue {
  const scalar = kind === 'int' ? INT : FLOAT;
  return { value: constant(numbers.length === 1 ? scalar : vector(numbers.length, scalar.scalar), numbers), abstract: kind };
}

export function numbersOf({ value }: WgslValue): readonly number[] {
  return value.op === 'constant' ? value.value : [];
}

const RANGES: Readonly<Record<'int' | 'uint', readonly [number, number]>> = { int: [-(2 ** 31), 2 ** 31 - 1], uint: [0, 2 ** 32 - 1] };

/** A value as a type; nothing where it is none. Only abstract numbers change. */
export function as(given: WgslValue, type: Type): Expression | undefined {
  const { value, abstract } = given;
  if (!abstract) return sameType(value.type, type) ? value : undefined;
  const scalar = scalarOf(type);
  if (!scalar || scalar === 'bool' || (abstract === 'float' && scalar !== 'float')) return undefined;
  const wanted = value.type.kind === 'matrix' ? value.type : ofSize(scalar, numbersOf(given).length);
  if (!sameType(wanted, type)) return undefined;
  if (scalar !== 'float' && !numbersOf(given).every((each) => each >= RANGES[scalar][0] && each <= RANGES[scalar][1])) return undefined;
  return constant(type, scalar === 'float' ? numbersOf(given).map(Math.fround) : numbersOf(given));
}

/** What an abstract number is where nothing says otherwise: i32 or f32. */
export function settled(given: WgslValue): Expression {
  if (!given.abstract) return given.value;
  return as(given, given.value.type) ?? given.value;
}

/** How far a value is from a type: 0 where it has it; nothing where it cannot become it. */
export function distanceTo(given: WgslValue, type: Type): number | undefined {
  if (as(given, type) === undefined) return undefined;
  if (!given.abstract) return 0;
  const scalar = scalarOf(type);
  if (given.abstract === 'float') return 1;
  return scalar === 'int' ? 1 : scalar === 'uint' ? 2 : 3;
}

/** A value with another scalar in the place of the abstract one: for `2 * i` where `i` is an i32. */
export function withScalar(given: WgslValue, scalar: ScalarName): Expression | undefined {
  const { type } = given.value;
  if (type.kind === 'matrix') return as(given, type);
  return as(given, ofSize(scalar, type.kind === 'vector' ? type.size : 1));
}
