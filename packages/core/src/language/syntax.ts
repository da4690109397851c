import type { BinaryOperator, Direction, Unary } from '../ir/ir';
import type { Range } from '../ir/origin';
import type { Token } from './lexer';

/** Syntax as written; nothing is resolved or typed yet. */
export interface TypeSyntax extends Range {
  readonly name: string;
  /** Array length, `vec4[8]` or on the declared name. */
  readonly length?: ExpressionSyntax;
  /** `[]`: as long as what it is given. */
  readonly open?: Range;
  /** A struct that is declared where it is used: `struct Ray { vec3 from; } ray;`. */
  readonly struct?: StructSyntax;
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
    })
  | (Range & { readonly op: 'method'; readonly object: ExpressionSyntax; readonly name: Token; readonly args: readonly ExpressionSyntax[] })
  | AssignmentSyntax
  | IncrementSyntax
  /** `a, b`: the last one is its value. */
  | (Range & { readonly op: 'sequence'; readonly parts: readonly ExpressionSyntax[] });

/** `a = b` and `a += b`; its value is what `a` holds then. */
export interface AssignmentSyntax extends Range {
  readonly op: 'assignment';
  readonly target: ExpressionSyntax;
  /** For `+=` and its kin the arithmetic to do first. */
  readonly operator?: BinaryOperator;
  /** Where `=` stands. */
  readonly sign: Range;
  readonly value: ExpressionSyntax;
}
/** `++a`, whose value is what `a` holds then, or `a++`, whose value is what it held before. */
export interface IncrementSyntax extends Range {
  readonly op: 'increment';
  readonly target: ExpressionSyntax;
  readonly operator: '+' | '-';
  readonly before: boolean;
}

export interface DeclareSyntax extends Range {
  readonly op: 'declare';
  readonly type: TypeSyntax;
  readonly constant: boolean;
  readonly variables: readonly DeclaredSyntax[];
}
export interface DeclaredSyntax extends Range {
  readonly name: string;
  readonly length?: ExpressionSyntax;
  readonly open?: Range;
  readonly value?: ExpressionSyntax;
}
/** The statements behind one or several labels of a `switch`. */
export interface CaseSyntax extends Range {
  /** Absent for `default`. */
  readonly labels: readonly (Range & { readonly value?: ExpressionSyntax })[];
  readonly body: readonly StatementSyntax[];
}
export type StatementSyntax =
  | DeclareSyntax
  | (Range & { readonly op: 'switch'; readonly selector: ExpressionSyntax; readonly cases: readonly CaseSyntax[] })
  | (Range & { readonly op: 'evaluate'; readonly value: ExpressionSyntax })
  | (Range & { readonly op: 'if'; readonly condition: ExpressionSyntax; readonly yes: StatementSyntax; readonly no?: StatementSyntax })
  | (Range & {
      readonly op: 'for';
      readonly start?: StatementSyntax;
      readonly condition?: ExpressionSyntax;
      /** What the condition declares. */
      readonly declares?: DeclareSyntax;
      readonly step?: StatementSyntax;
      readonly body: StatementSyntax;
    })
  | (Range & {
      readonly op: 'while';
      readonly condition: ExpressionSyntax;
      readonly declares?: DeclareSyntax;
      readonly body: StatementSyntax;
      readonly testFirst: boolean;
    })
  | (Range & { readonly op: 'block'; readonly body: readonly StatementSyntax[] })
  | (Range & { readonly op: 'return'; readonly value?: ExpressionSyntax })
  | (Range & { readonly op: 'break' | 'continue' | 'discard' })
  /** Could not be read; what it seems to declare is known to be in trouble. */
  | (Range & { readonly op: 'broken'; readonly names: readonly string[] });

export interface ParameterSyntax extends Range {
  readonly name: string;
  readonly type: TypeSyntax;
  readonly direction: Direction;
  readonly constant: boolean;
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
  /** The name through which its members are read: `uniform Wind { … } wind;`. */
  readonly instance?: Range & { readonly name: string };
  readonly members: readonly DeclareSyntax[];
  readonly documentation?: Range;
}
export interface GlobalSyntax extends Range {
  readonly op: 'global';
  /** `private`: a variable of its own that functions may change. */
  readonly storage: 'in' | 'out' | 'uniform' | 'const' | 'private';
  readonly flat: boolean;
  /** `layout(location = n)`. */
  readonly location?: number;
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
