import type { Call, Constant, Construct, Expression, IrFunction, Member, Reference, Swizzle } from './ir';
import { componentCount, FLOAT, ofSize, scalarOf, typeName, type StructType, type Type } from './types';

export function signatureOf(name: string, parameterTypes: readonly Type[]): string {
  return `${name}(${parameterTypes.map(typeName).join(',')})`;
}

export function constant(type: Type, value: readonly number[]): Constant {
  return { op: 'constant', type, value };
}

export function float(value: number): Constant {
  return constant(FLOAT, [value]);
}

export function local(name: string, type: Type): Reference {
  return { op: 'reference', name, type, scope: 'local' };
}

export function global(name: string, type: Type): Reference {
  return { op: 'reference', name, type, scope: 'global' };
}

export function call(callee: IrFunction, args: readonly Expression[]): Call {
  return { op: 'call', callee: callee.signature, args, type: callee.result };
}

export function construct(type: Type, args: readonly Expression[]): Construct {
  return { op: 'construct', type, args };
}

/** @throws RangeError when the struct has no such field. */
export function member(object: Expression, field: string): Member {
  const type = (object.type as StructType).fields?.find((each) => each.name === field)?.type;
  if (!type) throw new RangeError(`${typeName(object.type)} has no field ${field}`);
  return { op: 'member', object, field, type };
}

export function swizzle(object: Expression, components: readonly number[]): Swizzle {
  return { op: 'swizzle', object, components, type: ofSize(scalarOf(object.type) ?? 'float', components.length) };
}

/** A value of any type but void and samplers, all components 0. */
export function zeroOf(type: Type): Expression {
  if (type.kind === 'struct')
    return construct(
      type,
      type.fields.map((field) => zeroOf(field.type)),
    );
  if (type.kind === 'array')
    return construct(
      type,
      Array.from({ length: type.length }, () => zeroOf(type.element)),
    );
  return constant(type, Array<number>(componentCount(type)).fill(0));
}
