import type { Range } from '../ir/origin';
import { scalarCount, typeName, type StructField, type StructType } from '../ir/types';
import { LanguageError } from './diagnostics';
import type { ElaboratesExpressions, ExpressionContext } from './expression-context';
import { refuseName } from './reserved-names';
import type { FunctionScope } from './scope';
import type { DeclareSyntax, StructSyntax } from './syntax';

const LARGEST_STRUCT = 16_384;

/**
 * The struct that is declared.
 *
 * @param add makes it known under a name in the IR
 * @throws LanguageError for fields that cannot be
 */
export function structOf<T>(
  syntax: StructSyntax,
  context: ExpressionContext,
  expressions: ElaboratesExpressions,
  scope: FunctionScope,
  add: (make: (irName: string) => StructType) => T,
): T {
  const { name, nameRange } = syntax;
  refuseName(name, nameRange, context.source);
  const fields = syntax.fields.flatMap((field) => membersOf(field, context, expressions, scope));
  if (fields.length === 0) throw new LanguageError('A struct needs at least one field.', nameRange);
  refuseTwice(fields, nameRange);
  const odd = fields.find(({ type }) => type.kind === 'void' || type.kind === 'sampler');
  if (odd) throw new LanguageError(`A field cannot be of type ${typeName(odd.type)}.`, nameRange);
  const size = fields.reduce((sum, field) => sum + scalarCount(field.type), 0);
  if (size > LARGEST_STRUCT)
    throw new LanguageError(`This struct holds ${size} numbers; at most ${LARGEST_STRUCT} are possible.`, nameRange);
  const origin = { path: context.source.path, range: nameRange };
  context.environment.note(nameRange, () => ({ kind: 'struct', name, signature: `struct ${name}`, declared: origin }));
  return add((irName) => ({ kind: 'struct', name: irName, fields, origin }));
}

function refuseTwice(fields: readonly StructField[], range: Range): void {
  const twice = fields.find((field, index) => fields.findIndex((each) => each.name === field.name) < index);
  if (twice) throw new LanguageError(`The struct has two fields "${twice.name}".`, range);
}

/** What one line of a struct or block declares. */
export function membersOf(
  syntax: DeclareSyntax,
  { environment }: ExpressionContext,
  expressions: ElaboratesExpressions,
  scope?: FunctionScope,
): StructField[] {
  return syntax.variables.map((variable) => {
    if (variable.value) throw new LanguageError('A member has no value of its own.', variable.value);
    return { name: variable.name, type: environment.resolve(syntax.type, (length) => expressions.constantLength(length), variable, scope) };
  });
}
