import type { Origin, Range } from './origin';
import type { StructType, Type } from './types';

/**
 * The typed intermediate form shared by source code and graphs. Every conversion is explicit, every local
 * name is unique within its function, and functions are addressed by their signature (see `signatureOf`).
 */
export type Expression = Constant | Reference | Call | Builtin | Unary | Binary | Construct | Member | Swizzle | Index | Conditional;

interface Typed {
  readonly type: Type;
}
/** Scalar, vector or matrix known now; components in order, booleans as 0 and 1. */
export interface Constant extends Typed {
  readonly op: 'constant';
  readonly value: readonly number[];
}
/** A local, a parameter of the function, or a global (`Global.name`). */
export interface Reference extends Typed {
  readonly op: 'reference';
  readonly name: string;
  readonly scope: 'local' | 'global';
}
export interface Call extends Typed {
  readonly op: 'call';
  readonly callee: string;
  readonly args: readonly Expression[];
}
export interface Builtin extends Typed {
  readonly op: 'builtin';
  readonly name: string;
  readonly args: readonly Expression[];
}
export interface Unary extends Typed {
  readonly op: 'unary';
  readonly operator: '-' | '!' | '~';
  readonly value: Expression;
}
export type BinaryOperator =
  '+' | '-' | '*' | '/' | '%' | '<' | '>' | '<=' | '>=' | '==' | '!=' | '&&' | '||' | '^^' | '&' | '|' | '^' | '<<' | '>>';
export interface Binary extends Typed {
  readonly op: 'binary';
  readonly operator: BinaryOperator;
  readonly left: Expression;
  readonly right: Expression;
}
export interface Construct extends Typed {
  readonly op: 'construct';
  readonly args: readonly Expression[];
}
export interface Member extends Typed {
  readonly op: 'member';
  readonly object: Expression;
  readonly field: string;
}
/** Components as indices 0…3. */
export interface Swizzle extends Typed {
  readonly op: 'swizzle';
  readonly object: Expression;
  readonly components: readonly number[];
}
export interface Index extends Typed {
  readonly op: 'index';
  readonly object: Expression;
  readonly index: Expression;
}
export interface Conditional extends Typed {
  readonly op: 'conditional';
  readonly condition: Expression;
  readonly then: Expression;
  readonly else: Expression;
}

export type Statement = Declare | Assign | Evaluate | If | Switch | Loop | Block | Return | Jump;

interface Placed {
  readonly origin?: Origin;
}
/** A local. `mutable` is false when nothing assigns to it after its declaration. */
export interface Declare extends Placed {
  readonly op: 'declare';
  readonly name: string;
  readonly type: Type;
  readonly value?: Expression;
  readonly mutable: boolean;
}
export interface Assign extends Placed {
  readonly op: 'assign';
  readonly target: Expression;
  readonly value: Expression;
}
/** An expression for its effect: a call that writes through `out` parameters. */
export interface Evaluate extends Placed {
  readonly op: 'evaluate';
  readonly value: Expression;
}
export interface If extends Placed {
  readonly op: 'if';
  readonly condition: Expression;
  readonly then: readonly Statement[];
  readonly else: readonly Statement[];
}
/** Runs from the case that fits through all that follow, up to a `break`; without one that fits, from the one for all others. */
export interface Switch extends Placed {
  readonly op: 'switch';
  /** Of type int or uint. */
  readonly selector: Expression;
  readonly cases: readonly SwitchCase[];
}
export interface SwitchCase {
  readonly values: readonly number[];
  /** Whether it is also that for all other values: `default`. */
  readonly otherwise: boolean;
  readonly body: readonly Statement[];
}
/** `while`, `for` (its start stands before, in a block) and `do` (`testFirst` false). */
export interface Loop extends Placed {
  readonly op: 'loop';
  readonly condition: Expression;
  readonly testFirst: boolean;
  readonly body: readonly Statement[];
  readonly step: readonly Statement[];
}
export interface Block extends Placed {
  readonly op: 'block';
  readonly body: readonly Statement[];
}
export interface Return extends Placed {
  readonly op: 'return';
  readonly value?: Expression;
}
export interface Jump extends Placed {
  readonly op: 'break' | 'continue' | 'discard';
}

export type Direction = 'in' | 'out' | 'inout';
export interface Parameter {
  readonly name: string;
  readonly type: Type;
  readonly direction: Direction;
}
export interface IrFunction {
  /** Name and parameter types, e.g. `lambert(vec3,vec3)`; unique in a module. */
  readonly signature: string;
  readonly name: string;
  readonly parameters: readonly Parameter[];
  readonly result: Type;
  readonly body: readonly Statement[];
  readonly origin: Origin;
  /** Where in its text its name stands. */
  readonly nameRange?: Range;
}

/** A variable outside functions. Uniforms live in blocks; samplers stand alone; what is private belongs to one invocation. */
export interface Global {
  readonly name: string;
  readonly type: Type;
  readonly storage: 'in' | 'out' | 'uniform' | 'sampler' | 'const' | 'builtin' | 'private';
  /** The uniform block it belongs to, for storage `uniform`. */
  readonly block?: string;
  readonly value?: Expression;
  readonly flat?: boolean;
  /** `layout(location = n)`. */
  readonly location?: number;
  /** What it is called outside of its text, where that is another name than stands at its origin. */
  readonly called?: string;
  /** Where in its text its name stands. */
  readonly origin?: Origin;
}
export interface UniformBlock {
  readonly name: string;
  readonly members: readonly { readonly name: string; readonly type: Type }[];
}

/** Declarations that can be linked into a program. Keys are names, or signatures for functions. */
export interface Module {
  readonly structs: ReadonlyMap<string, StructType>;
  readonly globals: ReadonlyMap<string, Global>;
  readonly blocks: ReadonlyMap<string, UniformBlock>;
  readonly functions: ReadonlyMap<string, IrFunction>;
}

export const EMPTY_MODULE: Module = { structs: new Map(), globals: new Map(), blocks: new Map(), functions: new Map() };

/** A later module's declarations take the place of an earlier one's of the same key. */
export function mergeModules(...modules: readonly Module[]): Module {
  return {
    structs: new Map(modules.flatMap((module) => [...module.structs])),
    globals: new Map(modules.flatMap((module) => [...module.globals])),
    blocks: new Map(modules.flatMap((module) => [...module.blocks])),
    functions: new Map(modules.flatMap((module) => [...module.functions])),
  };
}
