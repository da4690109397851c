import type { Expression, Statement } from './ir';

const NONE: readonly never[] = [];

/** The direct operands of an expression, in order of evaluation. */
export function operands(expression: Expression): readonly Expression[] {
  switch (expression.op) {
    case 'constant':
    case 'reference':
      return NONE;
    case 'call':
    case 'builtin':
    case 'construct':
      return expression.args;
    case 'unary':
      return [expression.value];
    case 'binary':
      return [expression.left, expression.right];
    case 'member':
    case 'swizzle':
      return [expression.object];
    case 'index':
      return [expression.object, expression.index];
    case 'conditional':
      return [expression.condition, expression.then, expression.else];
  }
}

/** The same expression with its operands replaced; itself when none changed. */
export function mapOperands(expression: Expression, change: (operand: Expression) => Expression): Expression {
  const list = (args: readonly Expression[]): readonly Expression[] => {
    const next = args.map(change);
    return next.every((each, index) => each === args[index]) ? args : next;
  };
  switch (expression.op) {
    case 'constant':
    case 'reference':
      return expression;
    case 'call':
    case 'builtin':
    case 'construct': {
      const args = list(expression.args);
      return args === expression.args ? expression : { ...expression, args };
    }
    case 'unary': {
      const value = change(expression.value);
      return value === expression.value ? expression : { ...expression, value };
    }
    case 'binary': {
      const left = change(expression.left);
      const right = change(expression.right);
      return left === expression.left && right === expression.right ? expression : { ...expression, left, right };
    }
    case 'member':
    case 'swizzle': {
      const object = change(expression.object);
      return object === expression.object ? expression : { ...expression, object };
    }
    case 'index': {
      const object = change(expression.object);
      const index = change(expression.index);
      return object === expression.object && index === expression.index ? expression : { ...expression, object, index };
    }
    case 'conditional': {
      const condition = change(expression.condition);
      const yes = change(expression.then);
      const no = change(expression.else);
      return condition === expression.condition && yes === expression.then && no === expression.else
        ? expression
        : { ...expression, condition, then: yes, else: no };
    }
  }
}

/** Calls `visit` for every expression below `expression`, outermost first. */
export function walkExpression(expression: Expression, visit: (expression: Expression) => void): void {
  visit(expression);
  for (const operand of operands(expression)) walkExpression(operand, visit);
}

/** Whether this holds for an expression or any below it; asks no further once it does. */
export function anyExpression(expression: Expression, holds: (expression: Expression) => boolean): boolean {
  return holds(expression) || operands(expression).some((each) => anyExpression(each, holds));
}

/** The statements directly inside a statement. */
export function inner(statement: Statement): readonly Statement[] {
  switch (statement.op) {
    case 'if':
      return both(statement.then, statement.else);
    case 'switch':
      return statement.cases.flatMap((each) => each.body);
    case 'loop':
      return both(statement.body, statement.step);
    case 'block':
      return statement.body;
    default:
      return NONE;
  }
}

function both(first: readonly Statement[], second: readonly Statement[]): readonly Statement[] {
  return second.length === 0 ? first : [...first, ...second];
}

/** The expressions directly inside a statement. */
export function expressionsOf(statement: Statement): readonly Expression[] {
  switch (statement.op) {
    case 'declare':
      return statement.value ? [statement.value] : NONE;
    case 'assign':
      return [statement.target, statement.value];
    case 'evaluate':
      return [statement.value];
    case 'switch':
      return [statement.selector];
    case 'if':
    case 'loop':
      return [statement.condition];
    case 'return':
      return statement.value ? [statement.value] : NONE;
    default:
      return NONE;
  }
}

/** Whether this holds for any of the statements or any within them; asks no further once it does. */
export function anyStatement(statements: readonly Statement[], holds: (statement: Statement) => boolean): boolean {
  return statements.some((each) => holds(each) || anyStatement(inner(each), holds));
}

export function walkStatements(statements: readonly Statement[], visit: (statement: Statement) => void): void {
  for (const statement of statements) {
    visit(statement);
    walkStatements(inner(statement), visit);
  }
}

/** Calls `visit` for every expression anywhere in the statements. */
export function walkBody(statements: readonly Statement[], visit: (expression: Expression) => void): void {
  walkStatements(statements, (statement) => {
    for (const expression of expressionsOf(statement)) walkExpression(expression, visit);
  });
}
