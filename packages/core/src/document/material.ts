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

/** `hull`: the mesh, grown, behind itself. `edges`: where depth, direction or part breaks in the picture. */
export const OUTLINE_METHODS = ['hull', 'edges'] as const;
export const OUTLINE_UNITS = ['pixels', 'metres'] as const;

/** A line round what wears the material; its colour comes from the dock. */
export interface Outline {
  readonly method: (typeof OUTLINE_METHODS)[number];
  readonly width: number;
  /** CSS pixels of the full-size picture, or metres. */
  readonly unit: (typeof OUTLINE_UNITS)[number];
  /** Whether it is also seen through what stands in front. */
  readonly hidden: boolean;
}

export const FIRST_OUTLINE: Outline = { method: 'hull', width: 2, unit: 'pixels', hidden: false };

/** How what runs into the dock's opacity is used: cut away below one half, laid over what is behind, or added to it. */
export const OPACITY_MODES = ['blend', 'cut', 'add'] as const;
export type OpacityMode = (typeof OPACITY_MODES)[number];

export interface Material {
  readonly format: 'brelvin-material';
  readonly version: number;
  readonly name: string;
  readonly tags: readonly string[];
  readonly surface: Graph;
  readonly groups: Readonly<Record<string, NodeGroup>>;
  readonly parameters: Readonly<Record<string, MaterialParameter>>;
  readonly images: Readonly<Record<string, MaterialImage>>;
  readonly outline?: Outline;
  /** `blend` when absent. */
  readonly opacity?: OpacityMode;
  readonly variants: Readonly<Record<string, Variant>>;
  /** Checks that somebody switched off for a place, by check and place. */
  readonly silenced: Readonly<Record<string, boolean>>;
  readonly notes: string;
  /** The set and light rig it was last seen in. */
  readonly seenIn: { readonly set?: string; readonly rig?: string };
}

/** What the compiler reads of a material. */
export type MaterialSource = Pick<Material, 'surface' | 'groups' | 'parameters' | 'images' | 'outline' | 'opacity'>;
