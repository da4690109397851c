import type { Graph, InletValue } from './graph';
import type { NodeGroup } from './group';
import type { MaterialImage } from './image';
import type { LiveInput } from './live-input';

export const MATERIAL_VERSION = 2;

/** `vector`: two to four numbers; `count`: a whole number; `choice`: the number of one of `choices`; `switch`: 0 or 1; `stops`: a gradient. */
export const PARAMETER_TYPES = ['number', 'colour', 'vector', 'count', 'choice', 'switch', 'stops', 'image'] as const;
export type ParameterType = (typeof PARAMETER_TYPES)[number];

/** A value under a name of its own, shown as a control; changing it never compiles. Graphs have numbers and colours. */
export interface MaterialParameter {
  readonly name: string;
  readonly type: ParameterType;
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
  /** Of a code material: the uniform that it is, which gives it its name, type, range and words. */
  readonly uniform?: string;
  readonly choices?: readonly string[];
  /** Of type image: which of the material's images it shows. */
  readonly image?: string;
}

/** The text of a material that is written as code instead of drawn as a graph. */
export interface MaterialCode {
  /** What paints the pixels, and all else of a material with `paint`. */
  readonly text: string;
  /** The vertex stage of a whole program. */
  readonly vertices?: string;
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

/**
 * How what runs into the dock's opacity is used: laid over what is behind, the farthest first; laid over in no order, weighed
 * by how near it is; cut away below one half; or added.
 */
export const OPACITY_MODES = ['blend', 'unsorted', 'cut', 'add'] as const;
export type OpacityMode = (typeof OPACITY_MODES)[number];

export interface Material {
  readonly format: 'brelvin-material';
  readonly version: number;
  readonly name: string;
  readonly tags: readonly string[];
  /** Empty where there is code. */
  readonly surface: Graph;
  readonly code?: MaterialCode;
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
export type MaterialSource = Pick<Material, 'surface' | 'code' | 'groups' | 'parameters' | 'images' | 'outline' | 'opacity'>;
