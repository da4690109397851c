import { constant, signatureOf } from './build';
import type { Expression, IrFunction, Statement } from './ir';
import { mapBody } from './map-body';
import { BOOL } from './types';
import { expressionsOf, inner, mapOperands, walkExpression } from './walk';

/**
 * A function for known values of some of its switches: what they switch off is gone from it, with the parameters and
 * locals that only that needed.
 *
 * @param known values of parameters of type bool, by name; these are no longer parameters
 * @param name of the function that is made; its callers give only the parameters that are left
 */
export function specialised(declared: IrFunction, known: ReadonlyMap<string, boolean>, name: string): IrFunction {
  const put = (each: Expression): Expression => {
    if (each.op === 'reference' && each.scope === 'local' && known.has(each.name)) return constant(BOOL, [known.get(each.name) ? 1 : 0]);
    return simplified(mapOperands(each, put));
  };
  const body = withoutUnread(pruned(mapBody(declared.body, put)));
  const read = namesRead(body);
  const parameters = declared.parameters.filter((each) => !known.has(each.name) && (each.direction !== 'in' || read.has(each.name)));
  const signature = signatureOf(
    name,
    parameters.map(({ type }) => type),
  );
  return { ...declared, name, signature, parameters, body };
}

function simplified(expression: Expression): Expression {
  if (expression.op === 'unary' && expression.operator === '!' && expression.value.op === 'constant')
    return constant(BOOL, [expression.value.value[0] ? 0 : 1]);
  if (expression.op === 'conditional' && expression.condition.op === 'constant')
    return expression.condition.value[0] ? expression.then : expression.else;
  if (expression.op === 'binary' && (expression.operator === '&&' || expression.operator === '||')) {
    const { left, right, operator } = expression;
    for (const [one, other] of [
      [left, right],
      [right, left],
    ] as const) {
      if (one.op !== 'constant') continue;
      const decides = operator === '&&' ? !one.value[0] : one.value[0];
      return decides ? one : other;
    }
  }
  return expression;
}

/** Leaves of an `if` whose answer is known only what is done. Names are unique in a function, so it needs no block. */
function pruned(body: readonly Statement[]): Statement[] {
  return body.flatMap((statement): Statement[] => {
    switch (statement.op) {
      case 'if':
        if (statement.condition.op === 'constant') return pruned(statement.condition.value[0] ? statement.then : statement.else);
        return [{ ...statement, then: pruned(statement.then), else: pruned(statement.else) }];
      case 'switch':
        return [{ ...statement, cases: statement.cases.map((each) => ({ ...each, body: pruned(each.body) })) }];
      case 'loop':
        return [{ ...statement, body: pruned(statement.body), step: pruned(statement.step) }];
      case 'block':
        return [{ ...statement, body: pruned(statement.body) }];
      default:
        return [statement];
    }
  });
}

function withoutUnread(body: readonly Statement[]): readonly Statement[] {
  const read = namesRead(body);
  let dropped = false;
  const kept = (statements: readonly Statement[]): Statement[] =>
    statements.flatMap((statement): Statement[] => {
      if (statement.op === 'declare' && !read.has(statement.name)) {
        dropped = true;
        return [];
      }
      if (statement.op === 'if') return [{ ...statement, then: kept(statement.then), else: kept(statement.else) }];
      if (statement.op === 'loop') return [{ ...statement, body: kept(statement.body), step: kept(statement.step) }];
      if (statement.op === 'switch') return [{ ...statement, cases: statement.cases.map((each) => ({ ...each, body: kept(each.body) })) }];
      return statement.op === 'block' ? [{ ...statement, body: kept(statement.body) }] : [statement];
    });
  const left = kept(body);
  return dropped ? withoutUnread(left) : body;
}

function namesRead(body: readonly Statement[]): ReadonlySet<string> {
  const names = new Set<string>();
  const visit = (statement: Statement): void => {
    for (const expression of expressionsOf(statement))
      walkExpression(expression, (each) => {
        if (each.op === 'reference' && each.scope === 'local') names.add(each.name);
      });
    inner(statement).forEach(visit);
  };
  body.forEach(visit);
  return names;
}
