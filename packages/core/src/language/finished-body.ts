import type { Statement, Switch } from '../ir/ir';
import { inner } from '../ir/walk';

/** Declarations that nothing assigns to become immutable: passes may then move and share them. */
export function markMutable(statements: readonly Statement[], assigned: ReadonlySet<string>): Statement[] {
  return statements.map((statement): Statement => {
    switch (statement.op) {
      case 'declare':
        return { ...statement, mutable: assigned.has(statement.name) };
      case 'if':
        return { ...statement, then: markMutable(statement.then, assigned), else: markMutable(statement.else, assigned) };
      case 'switch':
        return { ...statement, cases: statement.cases.map((each) => ({ ...each, body: markMutable(each.body, assigned) })) };
      case 'loop':
        return { ...statement, body: markMutable(statement.body, assigned) };
      case 'block':
        return { ...statement, body: markMutable(statement.body, assigned) };
      default:
        return statement;
    }
  });
}

/** Whether every way through statements returns something. */
export function alwaysReturns(statements: readonly Statement[]): boolean {
  return statements.some(
    (statement) =>
      statement.op === 'return' ||
      statement.op === 'discard' ||
      (statement.op === 'block' && alwaysReturns(statement.body)) ||
      (statement.op === 'if' && alwaysReturns(statement.then) && alwaysReturns(statement.else)) ||
      (statement.op === 'switch' && switchReturns(statement)),
  );
}

/** Whether each way through returns: one that falls through does so with the last. */
function switchReturns({ cases }: Switch): boolean {
  const leaves = (statements: readonly Statement[]): boolean =>
    statements.some((each) => each.op === 'break' || (each.op !== 'loop' && each.op !== 'switch' && leaves(inner(each))));
  const [last] = cases.slice(-1);
  return (
    cases.some(({ otherwise }) => otherwise) && !cases.some(({ body }) => leaves(body)) && last !== undefined && alwaysReturns(last.body)
  );
}
