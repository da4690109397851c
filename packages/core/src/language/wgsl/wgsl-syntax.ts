import type { BinaryOperator } from '../../ir/ir';
import type { Range } from '../../ir/origin';

/** Syntax of WGSL as written; nothing is resolved or typed yet. */
export interface WgslType extends Range {
  readonly name: string;
  /** Where its name stands. */
  readonly nameRange: Range;
  /** What stands between `<` and `>`: types, numbers, words. */
  readonly args: readonly WgslExpression[];
}

export type WgslExpression =
  | (Range & { readonly op: 'number'; readonly kind: 'float' | 'int' | 'uint'; readonly text: string })
  | (Range & { readonly op: 'boolean'; readonly value: boolean })
  | (Range & { readonly op: 'name'; readonly name: string })
  /** A type or a call's head that has a template: `vec3<f32>`. */
  | (Range & { readonly op: 'type'; readonly type: WgslType })
  | (Range & { readonly op: 'call'; readonly callee: WgslType; readonly args: readonly WgslExpression[] })
  | (Range & { readonly op: 'member'; readonly object: WgslExpression; readonly field: string; readonly fieldRange: Range })
  | (Range & { readonly op: 'index'; readonly object: WgslExpression; readonly index: WgslExpression })
  | (Range & { readonly op: 'unary'; readonly operator: '-' | '!' | '~' | '&' | '*'; readonly value: WgslExpression })
  | (Range & { readonly op: 'binary'; readonly operator: BinaryOperator; readonly left: WgslExpression; readonly right: WgslExpression });

export interface WgslAttribute extends Range {
  readonly name: string;
  readonly args: readonly WgslExpression[];
}

export interface WgslDeclare extends Range {
  readonly op: 'declare';
  readonly kind: 'let' | 'var' | 'const';
  readonly name: string;
  readonly nameRange: Range;
  readonly type?: WgslType;
  readonly value?: WgslExpression;
}

export type WgslStatement =
  | WgslDeclare
  /** Without a target for `_ = …`, which is computed and thrown away. */
  | (Range & {
      readonly op: 'assign';
      readonly target?: WgslExpression;
      readonly operator?: BinaryOperator;
      readonly value: WgslExpression;
    })
  | (Range & { readonly op: 'increment'; readonly target: WgslExpression; readonly operator: '+' | '-' })
  | (Range & { readonly op: 'evaluate'; readonly value: WgslExpression })
  | (Range & {
      readonly op: 'if';
      readonly condition: WgslExpression;
      readonly yes: readonly WgslStatement[];
      readonly no?: readonly WgslStatement[];
    })
  | (Range & { readonly op: 'switch'; readonly selector: WgslExpression; readonly cases: readonly WgslCase[] })
  | (Range & {
      readonly op: 'loop';
      readonly body: readonly WgslStatement[];
      readonly continuing: readonly WgslStatement[];
      readonly breakIf?: WgslExpression;
    })
  | (Range & {
      readonly op: 'for';
      readonly start?: WgslStatement;
      readonly condition?: WgslExpression;
      readonly step?: WgslStatement;
      readonly body: readonly WgslStatement[];
    })
  | (Range & { readonly op: 'while'; readonly condition: WgslExpression; readonly body: readonly WgslStatement[] })
  | (Range & { readonly op: 'block'; readonly body: readonly WgslStatement[] })
  | (Range & { readonly op: 'return'; readonly value?: WgslExpression })
  | (Range & { readonly op: 'assert'; readonly value: WgslExpression })
  | (Range & { readonly op: 'break' | 'continue' | 'discard' })
  /** Could not be read; what it seems to declare is known to be in trouble. */
  | (Range & { readonly op: 'broken'; readonly names: readonly string[] });

export interface WgslCase extends Range {
  /** An absent value is `default`. */
  readonly labels: readonly (Range & { readonly value?: WgslExpression })[];
  readonly body: readonly WgslStatement[];
}

/** A parameter, or a member of a struct. */
export interface WgslMember extends Range {
  readonly name: string;
  readonly nameRange: Range;
  readonly type: WgslType;
  readonly attributes: readonly WgslAttribute[];
  readonly documentation?: Range;
}

export interface WgslFunction extends Range {
  readonly op: 'function';
  readonly name: string;
  readonly nameRange: Range;
  readonly attributes: readonly WgslAttribute[];
  readonly parameters: readonly WgslMember[];
  readonly result?: WgslType;
  readonly resultAttributes: readonly WgslAttribute[];
  readonly body: readonly WgslStatement[];
  readonly documentation?: Range;
}
export interface WgslStruct extends Range {
  readonly op: 'struct';
  readonly name: string;
  readonly nameRange: Range;
  readonly members: readonly WgslMember[];
}
export interface WgslGlobal extends Range {
  readonly op: 'global';
  readonly kind: 'const' | 'override' | 'var';
  /** `uniform`, `private` and so on. */
  readonly space?: string;
  readonly name: string;
  readonly nameRange: Range;
  readonly type?: WgslType;
  readonly value?: WgslExpression;
  readonly documentation?: Range;
}
export interface WgslAlias extends Range {
  readonly op: 'alias';
  readonly name: string;
  readonly nameRange: Range;
  readonly type: WgslType;
}
export interface WgslAssert extends Range {
  readonly op: 'assert';
  readonly value: WgslExpression;
}
export interface WgslImport extends Range {
  readonly op: 'import';
  readonly name: string;
  readonly nameRange: Range;
}
export type WgslDeclaration = WgslFunction | WgslStruct | WgslGlobal | WgslAlias | WgslAssert | WgslImport;
