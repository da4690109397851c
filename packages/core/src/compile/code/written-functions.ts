import type { IrFunction, Module, Statement } from '../../ir/ir';
import type { StructType, Type } from '../../ir/types';
import { expressionsOf, walkExpression, walkStatements } from '../../ir/walk';
import { functionHead, printStatements, printType, type LineWriter, type PrintedNames } from '../../language';

/** Functions that came with nodes, with the structs that the library does not have. */
export function writeFunctions(
  own: readonly IrFunction[],
  { structs: known }: Pick<Module, 'structs'>,
  names: PrintedNames,
  out: LineWriter,
): void {
  const structs = new Map<string, StructType>();
  const note = (type: Type): void => {
    const element = type.kind === 'array' ? type.element : type;
    if (element.kind !== 'struct' || known.has(element.name)) return;
    element.fields.forEach((field) => note(field.type));
    structs.set(element.name, element);
  };
  for (const { body, parameters, result } of own) {
    [result, ...parameters.map(({ type }) => type)].forEach(note);
    walkStatements(body, (statement) => {
      if (statement.op === 'declare') note(statement.type);
      for (const expression of expressionsOf(statement)) walkExpression(expression, ({ type }) => note(type));
    });
  }
  for (const struct of structs.values()) {
    out.line(`struct ${struct.name} {`);
    out.indented(() => struct.fields.forEach(({ type, name }) => out.line(`${printType(type, names)} ${name};`)));
    out.line('};');
  }
  own.forEach((each) => writeFunction(functionHead(each, names), each.body, names, out, each.origin.path));
}

/** @param path of the node that it is made of */
export function writeFunction(head: string, body: readonly Statement[], names: PrintedNames, out: LineWriter, path?: string): void {
  out.line('');
  out.line(`${head} {`, path === undefined ? undefined : { path });
  out.indented(() => printStatements(body, names, out));
  out.line('}');
}
