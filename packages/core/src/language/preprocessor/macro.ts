import type { Range } from '../../ir/origin';
import type { Token } from '../token';

/** What `#define` gives a name to. */
export interface Macro {
  readonly name: string;
  /** Names of its parameters; absent where it takes none and stands alone. */
  readonly parameters?: readonly string[];
  readonly body: readonly Token[];
  /** Where its name is defined; built-in ones are defined nowhere. */
  readonly defined?: Range;
}

/** Where a macro was put in place in the text. */
export interface Expansion extends Range {
  readonly macro: Macro;
}
