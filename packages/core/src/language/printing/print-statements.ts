import { constant } from '../../ir/build';
import type { Expression, IrFunction, Statement, SwitchCase } from '../../ir/ir';
import type { Origin } from '../../ir/origin';
import type { Type } from '../../ir/types';
import type { LineWriter } from './line-writer';
import { printDeclarator, printExpression, printType, printValue, type PrintedNames } from './print-expression';

/** `vec3 name(vec3 a, out float b)` */
export function functionHead({ signature, parameters, result }: IrFunction, names: PrintedNames): string {
  const list = parameters.map(
    ({ direction, type, name }) => `${direction === 'in' ? '' : `${direction} `}${printDeclarator(type, names.local(name), names)}`,
  );
  return `${printType(result, names)} ${names.functionOf(signature)}(${list.join(', ')})`;
}

/** Told of each statement before it is written: what stands before it in the text, comments above all. */
type Before = (origin: Origin | undefined) => void;

/** Statements, one to a line, with what each was made of. */
export function printStatements(statements: readonly Statement[], names: PrintedNames, out: LineWriter, before?: Before): void {
  for (const statement of statements) {
    before?.(statement.origin);
    printStatement(statement, names, out, before);
  }
}

function printStatement(statement: Statement, names: PrintedNames, out: LineWriter, before?: Before): void {
  const write = (expression: Expression): string => printValue(expression, names);
  const { origin } = statement;
  const braces = (head: string, body: readonly Statement[], tail = '}'): void => {
    out.line(`${head} {`, origin);
    out.indented(() => {
      printStatements(body, names, out, before);
      if (tail === '}' && origin?.range) before?.({ path: origin.path, range: { from: origin.range.to, to: origin.range.to } });
    });
    out.line(tail);
  };
  switch (statement.op) {
    case 'declare': {
      const value = statement.value ? ` = ${write(statement.value)}` : '';
      out.line(`${printDeclarator(statement.type, names.local(statement.name), names)}${value};`, origin);
      return;
    }
    case 'assign':
      out.line(`${write(statement.target)} = ${write(statement.value)};`, origin);
      return;
    case 'evaluate':
      out.line(`${write(statement.value)};`, origin);
      return;
    case 'if':
      braces(`if (${write(statement.condition)})`, statement.then, statement.else.length > 0 ? '} else {' : '}');
      if (statement.else.length > 0) {
        out.indented(() => printStatements(statement.else, names, out, before));
        out.line('}');
      }
      return;
    case 'switch':
      out.line(`switch (${write(statement.selector)}) {`, origin);
      out.indented(() => statement.cases.forEach((each) => printCase(each, statement.selector.type, names, out, before)));
      out.line('}');
      return;
    case 'loop': {
      // "continue" must still reach the steps, so they stand in the head of a "for".
      const steps = statement.step.map((step) => printStep(step, names)).join(', ');
      if (statement.testFirst) braces(`for (; ${write(statement.condition)}; ${steps})`, statement.body);
      else braces('do', statement.body, `} while (${write(statement.condition)});`);
      return;
    }
    case 'block':
      out.line('{', origin);
      out.indented(() => printStatements(statement.body, names, out, before));
      out.line('}');
      return;
    case 'return':
      out.line(statement.value ? `return ${write(statement.value)};` : 'return;', origin);
      return;
    default:
      out.line(`${statement.op};`, origin);
  }
}

function printCase({ values, otherwise, body }: SwitchCase, type: Type, names: PrintedNames, out: LineWriter, before?: Before): void {
  for (const value of values) out.line(`case ${printValue(constant(type, [value]), names)}:`);
  if (otherwise) out.line('default:');
  out.indented(() => printStatements(body, names, out, before));
  // The last label of all needs a statement behind it (GLSL ES 3.00 section 6.2).
  if (body.length === 0) out.indented(() => out.line('break;'));
}

/** A step of a `for` without its semicolon; the parser allows only assignments and calls there. */
function printStep(step: Statement, names: PrintedNames): string {
  if (step.op === 'assign') return `${printExpression(step.target, names)} = ${printValue(step.value, names)}`;
  if (step.op === 'evaluate') return printExpression(step.value, names);
  throw new TypeError(`${step.op} cannot be a step of a loop`);
}
