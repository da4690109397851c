import type { Expression, Global } from '../../ir/ir';
import type { Origin, Range } from '../../ir/origin';
import type { Type } from '../../ir/types';
import type { DiagnosticList } from '../diagnostics';
import type { Environment } from '../environment';
import type { SourceText } from '../source';
import type { WgslScope } from './wgsl-scope';
import type { WgslExpression, WgslType } from './wgsl-syntax';
import type { WgslValue } from './wgsl-value';

/** What functions know of the text around them. */
export interface WgslNames {
  readonly samplers: ReadonlyMap<string, Origin>;
  isTroubled(name: string): boolean;
  global(name: string): Global | undefined;
  globalNames(): string[];
  /** Whether a constant is a number without a type of its own. */
  abstractOf(name: string): 'int' | 'float' | undefined;
  /** Reads a function's head, should it not be known yet. */
  readFunction(name: string): void;
  /** How many samplers a function of the text takes; nothing for one that is not of the text. */
  samplersTakenBy(name: string): number | undefined;
  /** The type of a call's head, where it is one. */
  typeNamed(syntax: WgslType, scope: WgslScope | undefined): Type | undefined;
  typeOf(syntax: WgslExpression, scope: WgslScope | undefined): Type | undefined;
  resolve(syntax: WgslType, scope: WgslScope | undefined): Type;
}

export interface WgslContext {
  readonly source: SourceText;
  readonly diagnostics: DiagnosticList;
  readonly environment: Environment;
  readonly module: WgslNames;
}

/** What parts of the reader of expressions ask of the whole. */
export interface ReadsWgsl {
  value(syntax: WgslExpression): WgslValue;
  wanted(syntax: WgslExpression, type: Type, what: string): Expression;
  settledValue(syntax: WgslExpression): Expression;
  words(type: Type): string;
  wordsOf(value: WgslValue): string;
  isSampler(arg: WgslExpression): boolean;
  /** Two values of one type, for functions that choose between them. */
  alike(a: WgslValue, b: WgslValue, syntax: Range): [Expression, Expression];
  /** A member of a block of uniforms, where that is what is named. */
  blockMember(syntax: Extract<WgslExpression, { op: 'member' }>): WgslValue | undefined;
}
