import type { Range } from '../ir/origin';
import type { Type } from '../ir/types';

/** A uniform outside of blocks: a parameter. */
export interface DeclaredUniform {
  readonly name: string;
  /** Its name in the IR. */
  readonly irName: string;
  readonly type: Type;
  readonly nameRange: Range;
  /** What it is while nothing else is said. */
  readonly fallback?: readonly number[];
  /** The documentation comment before it. */
  readonly comment?: { readonly text: string; readonly range: Range };
}
