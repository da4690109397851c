import type { RibbonType } from '@brelvin/contract';
import type { IrFunction } from '../ir/ir';

/** What a value means; decides its type on a ribbon, its control, and which conversions make sense. */
export type Meaning =
  | 'number'
  | 'fraction'
  /** Index of refraction; its control is linked with how much such a substance mirrors head on. */
  | 'ior'
  | 'count'
  | 'seconds'
  | 'uv'
  | 'vector'
  | 'position'
  | 'normal'
  | 'directionToLight'
  | 'directionToEye'
  | 'colour'
  | 'light'
  | 'field'
  | 'stops'
  | 'image'
  /** Six images of a cube, read by direction. */
  | 'cubeImage'
  | 'choice';

/** What an inlet takes when no ribbon runs into it: numbers, or the outlet of another kind evaluated at the same point. */
export type InletDefault = { readonly value: readonly number[] } | { readonly surface: string };

export interface InletSpec {
  readonly name: string;
  readonly label: string;
  readonly meaning: Meaning;
  readonly default: InletDefault;
  readonly low?: number;
  readonly high?: number;
  readonly unit?: string;
  /** Whether its number stays when a map runs into it, as a factor of the map. */
  readonly scales?: boolean;
  /** Of a choice: what its numbers stand for, from 0. */
  readonly choices?: readonly string[];
  readonly help: string;
  /** Fixed, for kinds without functions. */
  readonly type?: RibbonType;
}

export interface OutletSpec {
  /** `result`, or the field of the struct that the function returns. */
  readonly name: string;
  readonly label: string;
  readonly meaning: Meaning;
  readonly help: string;
  /** Fixed, for kinds without functions. */
  readonly type?: RibbonType;
}

/** A part of a kind that nodes switch on and off; a parameter of type bool of its function. */
export interface FeatureSpec {
  readonly name: string;
  /** A word or two. */
  readonly label: string;
  readonly help: string;
}

/** A kind of node: a documented function of the shader library, with all its overloads. */
export interface NodeKind {
  readonly id: string;
  readonly rev: number;
  readonly title: string;
  readonly family: string;
  readonly help: string;
  readonly source: string;
  /** Further words it can be found by. */
  readonly words: readonly string[];
  readonly inlets: readonly InletSpec[];
  readonly outlets: readonly OutletSpec[];
  readonly features?: readonly FeatureSpec[];
  /** Signatures under which the library itself has what the kind is with all features off. */
  readonly featureless?: readonly string[];
  /** Empty for kinds that read the document instead of calling something: `parameter`, `group`. */
  readonly overloads: readonly IrFunction[];
  /** Of a kind that brings functions along which the library does not have: all of them. */
  readonly functions?: readonly IrFunction[];
}

export interface Catalogue {
  readonly kinds: ReadonlyMap<string, NodeKind>;
}

export const PARAMETER_KIND = 'parameter';
export const GROUP_KIND = 'group';
/** 1 while the pointer is over the part; reads no function but what the Stage knows. */
export const POINTER_KIND = 'pointerOver';
/** Its function is typed into the node. */
export const CODE_KIND = 'code';
/** Stands only in groups that run once for each light; its function is given the light's number. */
export const THIS_LIGHT_KIND = 'thisLight';
/** Names what runs into it; its function is given the region's number. */
export const REGION_KIND = 'fieldRegion';
/** What runs into it is computed at the vertices, and comes to the pixels in between. */
export const CARRY_KIND = 'carry';
/** Inlets of this meaning take the image that their node names. */
export const IMAGE_KIND = 'image';
export const CUBE_IMAGE_KIND = 'cubeImage';
