import type { Expression } from '../ir/ir';
import type { Range } from '../ir/origin';
import { walkBody } from '../ir/walk';
import type { DiagnosticList } from './diagnostics';
import type { Environment } from './environment';

/** Says of functions of a text that they call themselves. */
export function refuseRecursion(
  functions: readonly { readonly name: string; readonly nameRange: Range }[],
  environment: Environment,
  path: string,
  diagnostics: DiagnosticList,
): void {
  const callees = (signature: string): string[] => {
    const found: string[] = [];
    const visit = (expression: Expression): void => {
      if (expression.op === 'call') found.push(expression.callee);
    };
    walkBody(environment.functions.get(signature)?.body ?? [], visit);
    return found;
  };
  const state = new Map<string, 'open' | 'done'>();
  const enter = (signature: string): boolean => {
    if (state.get(signature) === 'open') return true;
    if (state.get(signature) === 'done') return false;
    state.set(signature, 'open');
    const loops = callees(signature).some(enter);
    state.set(signature, 'done');
    return loops;
  };
  for (const { name, nameRange } of functions) {
    if (environment.overloadsOf(name).some((each) => each.origin.path === path && enter(each.signature)))
      diagnostics.add('error', `"${name}" calls itself, directly or through another function. Use a loop instead.`, nameRange);
  }
}
