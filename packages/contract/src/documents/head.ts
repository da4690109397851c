import { inert, oneOf, version, type Field, type Schema } from '../schema/schema';
import { name, tags } from './names';

/** What every document begins with. */
export interface Head<F extends string> {
  readonly format: Schema<F>;
  readonly version: Schema<number>;
  readonly name: Field<string, false>;
  readonly tags: Field<readonly string[], false>;
}

export function head<F extends string>(format: F, present: number): Head<F> {
  return { format: oneOf([format]), version: version(present), name: inert(name), tags: inert(tags) };
}
