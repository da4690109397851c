import type { Expression, IrFunction, Statement } from '../ir/ir';
import { expressionsOf, walkExpression, walkStatements } from '../ir/walk';

/**
 * Whether anything in a loop can end it: something leaves it, or something that its condition looks at changes. Only what
 * surely goes on for ever is found.
 */
export function mayEnd(condition: Expression, body: readonly Statement[], functions: ReadonlyMap<string, IrFunction>): boolean {
  if (condition.op === 'constant' && condition.value[0] === 0) return true;
  const looked = new Set<string>();
  let elsewhere = false;
  walkExpression(condition, (each) => {
    if (each.op === 'reference') {
      if (each.scope === 'local') looked.add(each.name);
      else elsewhere = true;
    }
    if (each.op === 'call') elsewhere = true;
  });
  let ends = elsewhere;
  const change = (target: Expression): void => {
    let root = target;
    while (root.op === 'member' || root.op === 'swizzle' || root.op === 'index') root = root.object;
    if (root.op === 'reference' && looked.has(root.name)) ends = true;
  };
  walkStatements(body, (statement) => {
    if (statement.op === 'break' || statement.op === 'return' || statement.op === 'discard') ends = true;
    if (statement.op === 'assign') change(statement.target);
    for (const expression of expressionsOf(statement)) {
      walkExpression(expression, (each) => {
        if (each.op !== 'call') return;
        functions.get(each.callee)?.parameters.forEach(({ direction }, index) => {
          const arg = each.args[index];
          if (direction !== 'in' && arg) change(arg);
        });
      });
    }
  });
  return ends;
}
