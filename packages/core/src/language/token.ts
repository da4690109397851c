import type { Range } from '../ir/origin';

/** A word of a text. */
export interface Token extends Range {
  readonly kind: 'name' | 'float' | 'int' | 'uint' | 'operator' | 'end';
  readonly text: string;
  /** The documentation comment that stands directly before this token. */
  readonly documentation?: Range;
}
