import type { IrFunction } from './ir';
import { walkBody } from './walk';

/** Operations of a function with those of all that it calls put in the place of each call, which is what drivers do. */
export function weightOf(signature: string, functions: ReadonlyMap<string, IrFunction>): number {
  const known = new Map<string, number>();
  const weigh = (each: string): number => {
    const before = known.get(each);
    if (before !== undefined) return before;
    known.set(each, 0);
    let weight = 0;
    walkBody(functions.get(each)?.body ?? [], (expression) => {
      weight += expression.op === 'call' ? 1 + weigh(expression.callee) : 1;
    });
    weight = Math.min(weight, Number.MAX_SAFE_INTEGER / 1e6);
    known.set(each, weight);
    return weight;
  };
  return weigh(signature);
}
