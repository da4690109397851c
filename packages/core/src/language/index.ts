export { elaborate, elaborateAll, importsOf } from './elaborate';
export type { ElaboratedSource } from './elaborated-source';
export type { DeclaredUniform } from './declared-uniform';
export { uniformsOf } from './uniforms-of';
export { isWgsl } from './wgsl/is-wgsl';
export {
  DiagnosticList,
  formatDiagnostic,
  withEdits,
  type CodeMend,
  type Diagnostic,
  type RelatedPlace,
  type TextEdit,
} from './diagnostics';
export { goodMends } from './good-mends';
export { nearestName } from './nearest-name';
export { LineWriter, originOfLine, type EmittedSource } from './printing/line-writer';
export { printDeclarator, printExpression, printType, printValue, type PrintedNames } from './printing/print-expression';
export { functionHead, printStatements } from './printing/print-statements';
export { camelName } from './printing/camel-name';
export { writtenName } from './printing/written-name';
export { writtenGlobal } from './builtin-variables';
export { alwaysReturns } from './finished-body';
export { readDocumentation, type Documentation } from './documentation';
export type { ElaborationOptions } from './environment';
export type { ImportedFunction, Importer, ImportProblem } from './imports';
export { SymbolIndex, type CodeSymbol, type SymbolUse } from './symbols';
export { renamedIn, tokensOf } from './tokens-of';
export { SourceText } from './source';
export type { DirectionKind } from './direction-kind';
export type { KnownDirections } from './written-directions';
export { withoutComments } from './without-comments';
export { bare as printWgslValue } from './printing/wgsl/print-wgsl-expression';
export { NotInWgsl } from './printing/wgsl/not-in-wgsl';
export { WgslStatementWriter, type WgslFunctionContext } from './printing/wgsl/print-wgsl-statements';
export { wgslName } from './printing/wgsl/wgsl-name';
export { wgslTypeName } from './wgsl/wgsl-types';
export { WGSL_BUILTIN_NAMES } from './wgsl/wgsl-calls';
