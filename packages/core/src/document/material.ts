import type { Graph, InletValue } from './graph';
import type { NodeGroup } from './group';
import type { MaterialImage } from './image';
import type { LiveInput } from './live-input';

export const MATERIAL_VERSION = 2;

/** A number or colour under a name of its own, shown as a control; changing it never compiles. */
export interface MaterialParameter {
  readonly name: string;
  readonly type: 'number' | 'colour';
  readonly value: InletValue;
  /** The range of a number's track. */
  readonly low?: number;
  readonly high?: number;
  readonly order: number;
  /** Parameters of one heading stand together in the panel. */
  readonly heading?: string;
  readonly help?: string;
  readonly unit?: string;
  /** What moves it, in place of its value. */
  readonly live?: LiveInput;
}

/** Parameter values kept under a name; a parameter that is not listed stays as it is. */
export interface Variant {
  readonly name: string;
  readonly order: number;
  readonly values: Readonly<Record<string, InletValue>>;
}

export interface Material {
  readonly format: 'brelvin-material';
  readonly version: number;
  readonly name: string;
  readonly tags: readonly string[];
  readonly surface: Graph;
  readonly groups: Readonly<Record<string, NodeGroup>>;
  readonly parameters: Readonly<Record<string, MaterialParameter>>;
  readonly images: Readonly<Record<string, MaterialImage>>;
  readonly variants: Readonly<Record<string, Variant>>;
  /** Checks that somebody switched off for a place, by check and place. */
  readonly silenced: Readonly<Record<string, boolean>>;
  readonly notes: string;
  /** The set and light rig it was last seen in. */
  readonly seenIn: { readonly set?: string; readonly rig?: string };
}

/** What the compiler reads of a material. */
export type MaterialSource = Pick<Material, 'surface' | 'groups' | 'parameters' | 'images'>;
