import { componentCount, scalarCount, scalarOf, type ScalarName, type Type } from '../types';
import { isArrayValue, isStruct, type Value } from '../value';
import { F32, I32, type Kind } from './encoding';

/** What a value of any type is made of, number by number. @throws NotCompilable for samplers */
export function scalarsOf(type: Type): readonly ScalarName[] {
  if (type.kind === 'struct') return type.fields.flatMap((field) => scalarsOf(field.type));
  if (type.kind === 'array') {
    const element = scalarsOf(type.element);
    return Array.from({ length: type.length }, () => element).flat();
  }
  if (type.kind === 'sampler') throw new NotCompilable('images');
  return Array<ScalarName>(componentCount(type)).fill(scalarOf(type) ?? 'float');
}

export function kindOf(scalar: ScalarName): Kind {
  return scalar === 'float' ? F32 : I32;
}

export function kindsOf(type: Type): readonly Kind[] {
  return scalarsOf(type).map(kindOf);
}

/** Where a field of a struct begins among its numbers, and how many it has. */
export function fieldSpan(type: Type, name: string): readonly [from: number, count: number] {
  if (type.kind !== 'struct') throw new NotCompilable(`.${name}`);
  let from = 0;
  for (const field of type.fields) {
    const count = scalarCount(field.type);
    if (field.name === name) return [from, count];
    from += count;
  }
  throw new NotCompilable(`.${name}`);
}

/** The numbers of a value, in the order of its type. */
export function numbersOf(value: Value): readonly number[] {
  if (isStruct(value)) return Object.values(value.fields).flatMap(numbersOf);
  return isArrayValue(value) ? value.items.flatMap(numbersOf) : value;
}

/** A function reads what only a device has. */
export class NotCompilable extends Error {}
