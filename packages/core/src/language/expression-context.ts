import type { Expression } from '../ir/ir';
import type { Type } from '../ir/types';
import type { DiagnosticList } from './diagnostics';
import type { Environment } from './environment';
import type { SourceText } from './source';
import type { ExpressionSyntax } from './syntax';

/** What an elaborator of expressions is given: the text, what it may name, and where it tells. */
export interface ExpressionContext {
  readonly source: SourceText;
  readonly environment: Environment;
  readonly diagnostics: DiagnosticList;
}

/** What parts of the elaborator of expressions ask of the whole. */
export interface ElaboratesExpressions {
  elaborate(syntax: ExpressionSyntax): Expression;
  /** Something that can be assigned to; marks the variable as changing. */
  place(syntax: ExpressionSyntax): Expression;
  /** Two values under an operator, where it works between them. */
  combined(syntax: Extract<ExpressionSyntax, { op: 'binary' }>, left: Expression, right: Expression): Expression;
  expectType(value: Expression, type: Type, syntax: ExpressionSyntax, what: string): void;
  constantLength(syntax: ExpressionSyntax): number;
}
