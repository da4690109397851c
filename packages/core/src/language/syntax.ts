import type { BinaryOperator, Direction, Unary } from '../ir/ir';
import type { Range } from '../ir/origin';

/** Syntax as written; nothing is resolved or typed yet. */
export interface TypeSyntax extends Range {
  readonly name: string;
  /** Array length, `vec4[8]` or on the declared name. */
  readonly length?: ExpressionSyntax;
}

export type ExpressionSyntax =
  | (Range & { readonly op: 'number'; readonly kind: 'float' | 'int' | 'uint'; readonly value: number })
  | (Range & { readonly op: 'boolean'; readonly value: boolean })
  | (Range & { readonly op: 'name'; readonly name: string })
  | (Range & {
      readonly op: 'call';
      readonly callee: TypeSyntax;
      readonly args: readonly ExpressionSyntax[];
    })
  | (Range & { readonly op: 'member'; readonly object: ExpressionSyntax; readonly field: string; readonly fieldRange: Range })
  | (Range & { readonly op: 'index'; readonly object: ExpressionSyntax; readonly index: ExpressionSyntax })
  | (Range & { readonly op: 'unary'; readonly operator: Unary['operator'] | '+'; readonly value: ExpressionSyntax })
  | (Range & {
      readonly op: 'binary';
      readonly operator: BinaryOperator;
      readonly left: ExpressionSyntax;
      readonly right: ExpressionSyntax;
    })
  | (Range & {
      readonly op: 'conditional';
      readonly condition: ExpressionSyntax;
      readonly yes: ExpressionSyntax;
      readonly no: ExpressionSyntax;
    });

export interface AssignSyntax extends Range {
  readonly op: 'assign';
  readonly target: ExpressionSyntax;
  /** For `+=` and its kin the arithmetic to do first. */
  readonly operator?: BinaryOperator;
  readonly value: ExpressionSyntax;
}
export interface DeclareSyntax extends Range {
  readonly op: 'declare';
  readonly type: TypeSyntax;
  readonly constant: boolean;
  readonly variables: readonly (Range & { readonly name: string; readonly length?: ExpressionSyntax; readonly value?: ExpressionSyntax })[];
}
export type StatementSyntax =
  | DeclareSyntax
  | AssignSyntax
  | (Range & { readonly op: 'evaluate'; readonly value: ExpressionSyntax })
  | (Range & { readonly op: 'if'; readonly condition: ExpressionSyntax; readonly yes: StatementSyntax; readonly no?: StatementSyntax })
  | (Range & {
      readonly op: 'for';
      readonly start?: StatementSyntax;
      readonly condition?: ExpressionSyntax;
      readonly step: readonly StatementSyntax[];
      readonly body: StatementSyntax;
    })
  | (Range & { readonly op: 'while'; readonly condition: ExpressionSyntax; readonly body: StatementSyntax; readonly testFirst: boolean })
  | (Range & { readonly op: 'block'; readonly body: readonly StatementSyntax[] })
  | (Range & { readonly op: 'return'; readonly value?: ExpressionSyntax })
  | (Range & { readonly op: 'break' | 'continue' | 'discard' })
  /** Could not be read; what it seems to declare is known to be in trouble. */
  | (Range & { readonly op: 'broken'; readonly names: readonly string[] });

export interface ParameterSyntax extends Range {
  readonly name: string;
  readonly type: TypeSyntax;
  readonly direction: Direction;
}
export interface FunctionSyntax extends Range {
  readonly op: 'function';
  readonly name: string;
  readonly nameRange: Range;
  readonly result: TypeSyntax;
  readonly parameters: readonly ParameterSyntax[];
  /** Absent for a prototype: somebody else supplies the body. */
  readonly body?: readonly StatementSyntax[];
  readonly documentation?: Range;
}
export interface StructSyntax extends Range {
  readonly op: 'struct';
  readonly name: string;
  readonly nameRange: Range;
  readonly documentation?: Range;
  readonly fields: readonly DeclareSyntax[];
}
export interface BlockSyntax extends Range {
  readonly op: 'uniformBlock';
  readonly name: string;
  readonly members: readonly DeclareSyntax[];
}
export interface GlobalSyntax extends Range {
  readonly op: 'global';
  readonly storage: 'in' | 'out' | 'uniform' | 'const';
  readonly flat: boolean;
  readonly declaration: DeclareSyntax;
  readonly documentation?: Range;
}
/** `import name;`: takes a function of the Library into use. */
export interface ImportSyntax extends Range {
  readonly op: 'import';
  readonly name: string;
  readonly nameRange: Range;
}
export type DeclarationSyntax = FunctionSyntax | StructSyntax | BlockSyntax | GlobalSyntax | ImportSyntax;
