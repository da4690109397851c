import type { Expression, Statement } from './ir';
import { mapOperands } from './walk';

/** The same statements with every expression changed as a whole; `change` goes inside by itself. */
export function mapBody(body: readonly Statement[], change: (expression: Expression) => Expression): Statement[] {
  return body.map((statement): Statement => {
    switch (statement.op) {
      case 'declare':
      case 'return':
        return statement.value ? { ...statement, value: change(statement.value) } : statement;
      case 'assign':
        return { ...statement, target: change(statement.target), value: change(statement.value) };
      case 'evaluate':
        return { ...statement, value: change(statement.value) };
      case 'if':
        return {
          ...statement,
          condition: change(statement.condition),
          then: mapBody(statement.then, change),
          else: mapBody(statement.else, change),
        };
      case 'switch':
        return {
          ...statement,
          selector: change(statement.selector),
          cases: statement.cases.map((each) => ({ ...each, body: mapBody(each.body, change) })),
        };
      case 'loop':
        return {
          ...statement,
          condition: change(statement.condition),
          body: mapBody(statement.body, change),
          step: mapBody(statement.step, change),
        };
      case 'block':
        return { ...statement, body: mapBody(statement.body, change) };
      default:
        return statement;
    }
  });
}

/** The same statements, each changed by itself, those inside of it first. */
export function mapStatements(body: readonly Statement[], change: (statement: Statement) => Statement): Statement[] {
  const inside = (list: readonly Statement[]): Statement[] => mapStatements(list, change);
  return body.map((statement): Statement => {
    switch (statement.op) {
      case 'if':
        return change({ ...statement, then: inside(statement.then), else: inside(statement.else) });
      case 'switch':
        return change({ ...statement, cases: statement.cases.map((each) => ({ ...each, body: inside(each.body) })) });
      case 'loop':
        return change({ ...statement, body: inside(statement.body), step: inside(statement.step) });
      case 'block':
        return change({ ...statement, body: inside(statement.body) });
      default:
        return change(statement);
    }
  });
}

/** The same statements with other things in the place of globals. */
export function replaceGlobals(body: readonly Statement[], replaced: ReadonlyMap<string, Expression>): readonly Statement[] {
  if (replaced.size === 0) return body;
  const put = (each: Expression): Expression =>
    each.op === 'reference' && each.scope === 'global' ? (replaced.get(each.name) ?? each) : mapOperands(each, put);
  return mapBody(body, put);
}
