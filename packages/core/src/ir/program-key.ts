import { hashText } from './hash';
import type { Expression, Global, IrFunction, Statement } from './ir';
import type { Program, StageProgram } from './program';
import { typeName, type Type } from './types';

/** Equal for programs that compute the same in the same way, wherever their text came from. */
export function programKey({ vertex, fragment }: Program): string {
  return hashText(`${stageText(vertex)}\n${stageText(fragment)}`);
}

function stageText({ structs, blocks, inputs, outputs, samplers, privates, functions }: StageProgram): string {
  const list = <T>(all: readonly T[], text: (each: T) => string): string => all.map(text).join(';');
  const field = ({ name, type }: { readonly name: string; readonly type: Type }): string => `${typeName(type)} ${name}`;
  const variable = (each: Global): string =>
    `${each.flat ? 'flat ' : ''}${field(each)}${each.value ? `=${expressionText(each.value)}` : ''}`;
  return [
    list(structs, ({ name, fields }) => `${name}{${list(fields, field)}}`),
    list(blocks, ({ name, members }) => `${name}{${list(members, field)}}`),
    ...[inputs, outputs, samplers, privates].map((all) => list(all, variable)),
    list(functions, functionKey),
  ].join('\n');
}

/** The library's functions are the same objects in every program: each is gone through once. */
const known = new WeakMap<IrFunction, string>();

function functionKey(declared: IrFunction): string {
  const found = known.get(declared);
  if (found !== undefined) return found;
  const { signature, result, parameters, body } = declared;
  const head = parameters.map(({ direction, name }) => `${direction} ${name}`).join();
  const key = hashText(`${typeName(result)} ${signature} ${head}${statementsText(body)}`);
  known.set(declared, key);
  return key;
}

function statementsText(body: readonly Statement[]): string {
  return `{${body.map(statementText).join('')}}`;
}

function statementText(statement: Statement): string {
  switch (statement.op) {
    case 'declare':
      return `${typeName(statement.type)} ${statement.name}${statement.value ? `=${expressionText(statement.value)}` : ''};`;
    case 'assign':
      return `${expressionText(statement.target)}=${expressionText(statement.value)};`;
    case 'evaluate':
      return `${expressionText(statement.value)};`;
    case 'if':
      return `if ${expressionText(statement.condition)}${statementsText(statement.then)}${statementsText(statement.else)}`;
    case 'switch': {
      const cases = statement.cases.map(({ values, otherwise, body }) => `${values.join()}${otherwise ? '*' : ''}${statementsText(body)}`);
      return `switch ${expressionText(statement.selector)}{${cases.join('')}}`;
    }
    case 'loop': {
      const { testFirst, condition, step, body } = statement;
      return `${testFirst ? 'while' : 'do'} ${expressionText(condition)}${statementsText(step)}${statementsText(body)}`;
    }
    case 'block':
      return statementsText(statement.body);
    case 'return':
      return `return ${statement.value ? expressionText(statement.value) : ''};`;
    default:
      return `${statement.op};`;
  }
}

function expressionText(expression: Expression): string {
  const list = (args: readonly Expression[]): string => `(${args.map(expressionText).join()})`;
  switch (expression.op) {
    case 'constant':
      return `${typeName(expression.type)}[${expression.value.map((each) => (Object.is(each, -0) ? '-0' : String(each))).join()}]`;
    case 'reference':
      return expression.scope === 'global' ? `:${expression.name}` : expression.name;
    case 'call':
      return `:${expression.callee}${list(expression.args)}`;
    case 'builtin':
      return expression.name + list(expression.args);
    case 'unary':
      return `(${expression.operator}${expressionText(expression.value)})`;
    case 'binary':
      return `(${expressionText(expression.left)}${expression.operator}${expressionText(expression.right)})`;
    case 'construct':
      return `new ${typeName(expression.type)}${list(expression.args)}`;
    case 'member':
      return `${expressionText(expression.object)}.${expression.field}`;
    case 'swizzle':
      return `${expressionText(expression.object)}@${expression.components.join('')}`;
    case 'index':
      return `${expressionText(expression.object)}[${expressionText(expression.index)}]`;
    case 'conditional':
      return `(${expressionText(expression.condition)}?${expressionText(expression.then)}:${expressionText(expression.else)})`;
  }
}
