export const FUNCTION_VERSION = 1;

/** A function of the Library: shading code under the name by which it is imported. */
export interface LibraryFunction {
  readonly format: 'brelvin-function';
  readonly version: number;
  readonly name: string;
  readonly tags: readonly string[];
  readonly text: string;
  /** What it was called before: these names go on working. */
  readonly formerNames: readonly string[];
}
