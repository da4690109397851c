import type { IrFunction } from '../ir/ir';
import { typeName } from '../ir/types';

/** A function's head as one would write it. */
export function functionWords({ parameters, result, name: irName }: IrFunction, name = irName): string {
  const list = parameters.map((each) => `${each.direction === 'in' ? '' : `${each.direction} `}${typeName(each.type)} ${each.name}`);
  return `${typeName(result)} ${name}(${list.join(', ')})`;
}
