import { componentCount, type Type } from './types';

/** A value at run time: flat components (column-major for matrices), a struct, or an array. */
export type Value = readonly number[] | StructValue | ArrayValue;
export interface StructValue {
  readonly fields: Readonly<Record<string, Value>>;
}
export interface ArrayValue {
  readonly items: readonly Value[];
}

function isNumbers(value: Value): value is readonly number[] {
  return Array.isArray(value);
}

export function isStruct(value: Value): value is StructValue {
  return !isNumbers(value) && 'fields' in value;
}

export function isArrayValue(value: Value): value is ArrayValue {
  return !isNumbers(value) && 'items' in value;
}

/** @throws TypeError when the value is a struct or an array. */
export function components(value: Value): readonly number[] {
  if (!isNumbers(value)) throw new TypeError('expected numbers, found a struct or an array');
  return value;
}

/** Whether all numbers of two values of one type are equal; NaN equals nothing. */
export function sameValue(a: Value, b: Value): boolean {
  if (isStruct(a)) return isStruct(b) && Object.entries(a.fields).every(([name, value]) => sameValue(value, b.fields[name] ?? []));
  if (isArrayValue(a)) return isArrayValue(b) && a.items.every((value, index) => sameValue(value, b.items[index] ?? []));
  return isNumbers(b) && a.every((value, index) => value === b[index]);
}

/** All components 0. */
export function zero(type: Type): Value {
  if (type.kind === 'struct') return { fields: Object.fromEntries(type.fields.map((field) => [field.name, zero(field.type)])) };
  if (type.kind === 'array') return { items: Array.from({ length: type.length }, () => zero(type.element)) };
  return Array<number>(componentCount(type)).fill(0);
}
