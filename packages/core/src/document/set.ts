import type { OrbitCamera } from './orbit-camera';

export const SET_VERSION = 3;

export const MESH_SHAPE_NAMES = [
  'sphere',
  'geodesic',
  'cube',
  'roundedBox',
  'plane',
  'sheet',
  'cylinder',
  'cone',
  'capsule',
  'torus',
  'torusKnot',
  'lamp',
  'oilFiller',
  'jar',
  'puppetHead',
  'room',
  'height',
  'surface',
  'imported',
] as const;
export type MeshShape = (typeof MESH_SHAPE_NAMES)[number];

/** World space; radians about x, then y, then z; a negative scale mirrors. */
export interface MeshPlacing {
  readonly position: readonly number[];
  readonly turn: readonly number[];
  readonly scale: readonly number[];
}

/** Spinning or rocking about an axis of the mesh through its origin, on the Stage's clock. */
export interface MeshMotion {
  readonly kind: 'still' | 'spin' | 'rock';
  readonly axis: 'x' | 'y' | 'z';
  /** Turns a second for `spin`, swings a second for `rock`. */
  readonly speed: number;
  /** Half the swing of `rock`, radians. */
  readonly angle: number;
}

/** A grid of copies round the mesh's place: columns along x, rows along z, metres apart. */
export interface MeshCopies {
  readonly columns: number;
  readonly rows: number;
  readonly spacing: number;
}

export const MOST_COPIES = 400;

/** What a file's mesh did not have, so that it was made. */
export const MADE_FOR_MESH = ['normals', 'tangents', 'uvs', 'secondUvs'] as const;
export type MadeForMesh = (typeof MADE_FOR_MESH)[number];

/** Where an imported mesh comes from, and what is known of it. */
export interface MeshSource {
  /** SHA-256 of the mesh as the workspace keeps it. */
  readonly asset: string;
  /** Name of the file it came from. */
  readonly file: string;
  readonly parts: readonly string[];
  readonly triangles: number;
  readonly made: readonly MadeForMesh[];
  /** How far apart vertices lie in the first UV set, on average. */
  readonly gap: number;
  /** Some of its UVs run the other way round than the rest: an image is mirrored there. */
  readonly mirrored: boolean;
  /** Object space, metres. */
  readonly bounds: { readonly low: readonly number[]; readonly high: readonly number[] };
}

/** One mesh of a set. Lengths in metres. Only the numbers that its shape knows are read. */
export interface SetMesh {
  readonly name: string;
  readonly shape: MeshShape;
  readonly numbers: Readonly<Record<string, number>>;
  readonly smooth: boolean;
  /** For formula meshes: `float` height of (x, z), or `vec3` position of (u, v), as shading code. */
  readonly formula?: string;
  /** Of an imported mesh. */
  readonly source?: MeshSource;
  readonly placing: MeshPlacing;
  readonly motion: MeshMotion;
  readonly copies: MeshCopies;
  readonly order: number;
}

/** How the parts that a rule fits are dressed and drawn. Later rules go on top of earlier ones. */
export interface PartRule {
  readonly order: number;
  /** Only parts of this mesh. */
  readonly mesh?: string;
  /** Part name, `*` for any letters. */
  readonly pattern: string;
  /** Id of a material; without one the part wears the material on the Bench. */
  readonly material?: string;
  /** Parameter values for these parts, by parameter id. */
  readonly values: Readonly<Record<string, number | readonly number[]>>;
  /** Smaller is drawn earlier. */
  readonly drawOrder?: number;
  /** Metres towards the eye, for what must not sink into what it lies on. */
  readonly depthOffset?: number;
  readonly faces?: 'auto' | 'front' | 'back' | 'both';
  readonly casts?: boolean;
  readonly receives?: boolean;
}

/** `fading` into what is behind towards its border; `shadow`: nothing of it is seen but shadow; `solid` to its border. */
export const FLOOR_LOOKS = ['fading', 'shadow', 'solid'] as const;
export type FloorLook = (typeof FLOOR_LOOKS)[number];

export interface SetFloor {
  readonly shown: boolean;
  /** Height of the floor, metres. */
  readonly height: number;
  /** Edge of the square, metres. */
  readonly size: number;
  /** `fading` when absent. */
  readonly look?: FloorLook;
}

/** What stands on the Stage. */
export interface StageSet {
  readonly format: 'brelvin-set';
  readonly version: number;
  readonly name: string;
  readonly tags: readonly string[];
  readonly meshes: Readonly<Record<string, SetMesh>>;
  readonly floor: SetFloor;
  readonly partRules: Readonly<Record<string, PartRule>>;
  /** Views of the camera that were kept under a name. */
  readonly views: Readonly<Record<string, SavedView>>;
}

export interface SavedView {
  readonly name: string;
  readonly order: number;
  readonly camera: OrbitCamera;
}

export const IN_PLACE: MeshPlacing = { position: [0, 0, 0], turn: [0, 0, 0], scale: [1, 1, 1] };
export const STILL: MeshMotion = { kind: 'still', axis: 'y', speed: 0.1, angle: 0.5 };
export const ONE_COPY: MeshCopies = { columns: 1, rows: 1, spacing: 2.5 };
export const NO_FLOOR: SetFloor = { shown: false, height: -1, size: 12 };
