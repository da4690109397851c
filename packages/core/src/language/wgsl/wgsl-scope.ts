import type { Expression } from '../../ir/ir';
import type { FunctionScope } from '../scope';

/** The names of one function, and what its pointers point to. */
export interface WgslScope {
  readonly names: FunctionScope;
  /** Places by the IR name of the pointer. */
  readonly pointers: Map<string, Expression>;
  /** Names of samplers, which mean nothing here: an image brings its own. */
  readonly samplers: ReadonlySet<string>;
}
