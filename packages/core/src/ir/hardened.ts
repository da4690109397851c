import { boundIndexes } from './bound-indexes';
import type { IrFunction } from './ir';
import { guardLoops } from './loop-guard';

/** Functions of users so that they always end, and never look outside of what there is. */
export function hardened(own: readonly IrFunction[], functions: ReadonlyMap<string, IrFunction>): IrFunction[] {
  return guardLoops(own, functions).map(boundIndexes);
}
