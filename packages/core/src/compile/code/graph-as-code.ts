import type { Material } from '@brelvin/contract';
import type { EmittedSource } from '../../language';

/** A graph written as code: the text with the node that each line is made of, and the material that it makes. */
export interface GraphAsCode {
  readonly source: EmittedSource;
  readonly material: Material;
}
