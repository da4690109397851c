import type { MaterialImage } from '@brelvin/contract';

/** Triangles of one material as a file has them, before anything is made for them. */
export interface ImportedPiece {
  /** Name of the part. */
  readonly name: string;
  /** Number of its material among those of the scene. */
  readonly material?: number;
  readonly positions: Float32Array;
  readonly normals?: Float32Array;
  /** x y z, and the handedness of the frame in w. */
  readonly tangents?: Float32Array;
  readonly uvs?: Float32Array;
  readonly uvs2?: Float32Array;
  /** Scene-linear red, green, blue and alpha. */
  readonly colours?: Float32Array;
  /** Three a triangle; without them vertices follow one another. */
  readonly indices?: Uint32Array;
  /** World from object, column by column (glTF 2.0, section 3.5.3). */
  readonly matrix?: readonly number[];
  /** Without normals, whether faces are to look flat, each for itself. */
  readonly flat: boolean;
}

/** An image as a material of a file reads it. */
export interface ImportedMap {
  readonly image: number;
  readonly uvSet: number;
  readonly wrapX: MaterialImage['wrapX'];
  readonly wrapY: MaterialImage['wrapY'];
  readonly filter: MaterialImage['filter'];
  /** KHR_texture_transform. */
  readonly offset: readonly [number, number];
  readonly scale: readonly [number, number];
  /** Radians, counter-clockwise. */
  readonly rotation: number;
}

/** A material as a file tells it: metal-rough with what the KHR extensions add. Colours scene-linear. */
export interface ImportedMaterial {
  readonly name: string;
  readonly baseColour: readonly number[];
  readonly opacity: number;
  readonly metallic: number;
  readonly roughness: number;
  readonly normalScale: number;
  readonly occlusionStrength: number;
  readonly emission: readonly number[];
  readonly emissionStrength: number;
  readonly alpha: 'opaque' | 'cut' | 'blend';
  readonly cutoff: number;
  readonly doubleSided: boolean;
  /** Shows its colour, whatever the light (KHR_materials_unlit). */
  readonly unlit: boolean;
  readonly maps: Readonly<
    Partial<
      Record<'baseColour' | 'metallicRoughness' | 'normal' | 'occlusion' | 'emission' | 'specularColour' | 'transmission', ImportedMap>
    >
  >;
  /** Numbers of features of the physical surface that are on, by inlet, in its units. */
  readonly features: Readonly<Record<string, Readonly<Record<string, number | readonly number[]>>>>;
}

export interface ImportedImage {
  readonly name: string;
  readonly bytes: Uint8Array<ArrayBuffer>;
}

/** What a file holds. */
export interface ImportedScene {
  readonly name: string;
  readonly pieces: readonly ImportedPiece[];
  readonly materials: readonly ImportedMaterial[];
  readonly images: readonly ImportedImage[];
  /** What was left out or mended on the way, in sentences. */
  readonly words: readonly string[];
}

/** The file cannot be used; the message is for the user. */
export class ImportRefused extends Error {}

/** Corners of triangles of one mesh, at most: what a device and a page can hold. */
export const MOST_CORNERS = 12_000_000;

export const PLAIN_IMPORT: ImportedMaterial = {
  name: 'Material',
  baseColour: [1, 1, 1],
  opacity: 1,
  metallic: 0,
  roughness: 0.8,
  normalScale: 1,
  occlusionStrength: 1,
  emission: [0, 0, 0],
  emissionStrength: 1,
  alpha: 'opaque',
  cutoff: 0.5,
  doubleSided: false,
  unlit: false,
  maps: {},
  features: {},
};
