import { signatureOf } from '../../ir/build';
import type { IrFunction, Statement } from '../../ir/ir';
import type { Type } from '../../ir/types';

/** A name that no text can give, so that nothing else has it. */
export function ownName(name: string): string {
  return `wgsl.${name}`;
}

/** A function that the target adds to a program. */
export function ownFunction(
  called: string,
  parameters: readonly (readonly [name: string, type: Type])[],
  result: Type,
  body: readonly Statement[],
): IrFunction {
  const name = ownName(called);
  return {
    name,
    signature: signatureOf(
      name,
      parameters.map(([, type]) => type),
    ),
    parameters: parameters.map(([each, type]) => ({ name: each, type, direction: 'in' })),
    result,
    body,
    origin: { path: 'wgsl' },
  };
}
