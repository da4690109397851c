import { described, flag, list, number, object, oneOf, optional, text, tuple, whole, type TypeOf } from '../schema/schema';
import { head } from './head';
import { assetAddress, documentId, identifier, LONGEST_NAME, name } from './names';
import { byId, inletValue, metres } from './values';

export const SET_VERSION = 3;
/** Of one mesh. */
export const MOST_PARTS = 1000;
export const MOST_COPIES = 400;

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
  'field',
  'imported',
] as const;
/** What a file's mesh did not have, so that it was made. */
export const MADE_FOR_MESH = ['normals', 'tangents', 'uvs', 'secondUvs'] as const;
export const MESH_MOTIONS = ['still', 'spin', 'rock'] as const;
export const AXES = ['x', 'y', 'z'] as const;
export const PART_FACES = ['auto', 'front', 'back', 'both'] as const;
/** `fading` into what is behind towards its border; `shadow`: nothing of it is seen but shadow; `solid` to its border. */
export const FLOOR_LOOKS = ['fading', 'shadow', 'solid'] as const;

const corner = tuple(number(-1e30, 1e30), 3);

export const MESH_SOURCE = object({
  asset: described(assetAddress, 'SHA-256 of the mesh as the workspace keeps it.'),
  file: described(text(LONGEST_NAME), 'Name of the file it came from.'),
  parts: list(name, 1, MOST_PARTS),
  triangles: whole(0, 1e9),
  made: list(oneOf(MADE_FOR_MESH), 0, MADE_FOR_MESH.length),
  gap: described(number(0, 1e6), 'How far apart vertices lie in the first UV set, on average.'),
  inwards: optional(flag, 'It is closed and its faces look inwards.'),
  mirrored: described(flag, 'Some of its UVs run the other way round than the rest: an image is mirrored there.'),
  bounds: described(object({ low: corner, high: corner }), 'Object space, metres.'),
});

export const MESH_PLACING = object({
  position: described(tuple(metres, 3), 'Metres, world space.'),
  turn: described(tuple(number(-1e3, 1e3), 3), 'Radians about x, then y, then z.'),
  scale: described(tuple(metres, 3), 'Negative mirrors.'),
});

export const MESH_MOTION = object({
  kind: oneOf(MESH_MOTIONS),
  axis: oneOf(AXES),
  speed: described(number(-100, 100), 'Turns a second of `spin`, swings a second of `rock`.'),
  angle: described(number(-7, 7), 'Half the swing of `rock`, radians.'),
});

export const MESH_COPIES = object({
  columns: whole(1, MOST_COPIES),
  rows: whole(1, MOST_COPIES),
  spacing: described(number(0, 1e3), 'Metres.'),
});

export const SET_MESH = object({
  name,
  shape: oneOf(MESH_SHAPE_NAMES),
  numbers: described(byId(number(), 32), 'Only those that its shape knows are read. Lengths in metres.'),
  smooth: flag,
  formula: optional(text(4000), 'Shading code: a `float` height of (x, z), a `vec3` position of (u, v), or the text of a field.'),
  field: optional(documentId, 'The field that it shows, in place of a text of its own.'),
  source: optional(MESH_SOURCE, 'Of an imported mesh.'),
  turned: optional(flag, 'Its faces and normals look the other way than in its file.'),
  placing: MESH_PLACING,
  motion: MESH_MOTION,
  copies: MESH_COPIES,
  order: number(),
});

export const PART_RULE = object({
  order: number(),
  mesh: optional(identifier, 'Only parts of this mesh.'),
  pattern: described(name, 'Part name; * stands for any letters.'),
  material: optional(documentId, 'Without one the part wears the material on the Bench.'),
  values: described(byId(inletValue, 1000), 'Parameter values for these parts, by parameter id.'),
  drawOrder: optional(number(-1000, 1000), 'Smaller is drawn earlier.'),
  depthOffset: optional(number(-10, 10), 'Metres towards the eye, for what must not sink into what it lies on.'),
  faces: optional(oneOf(PART_FACES)),
  casts: optional(flag),
  receives: optional(flag),
});

export const SET_FLOOR = object({
  shown: flag,
  height: described(metres, 'Metres.'),
  size: described(number(0.1, 1e4), 'Edge of the square, metres.'),
  look: optional(oneOf(FLOOR_LOOKS), '`fading` when absent.'),
});

export const ORBIT_CAMERA = object({
  target: tuple(metres, 3),
  distance: described(number(0, 1e4), 'Metres.'),
  azimuth: described(number(-1e4, 1e4), 'Radians; 0 looks from +z, positive from the right.'),
  elevation: described(number(-2, 2), 'Radians, −π/2…π/2.'),
  fieldOfView: described(number(0.01, 3), 'Vertical, radians.'),
  orthographic: optional(flag, 'Without perspective: as large as at the target’s distance, everywhere.'),
});

export const SAVED_VIEW = object({ name, order: number(), camera: ORBIT_CAMERA });

export const STAGE_SET = object({
  ...head('brelvin-set', SET_VERSION),
  meshes: byId(SET_MESH, 256),
  floor: SET_FLOOR,
  partRules: byId(PART_RULE, 1000),
  views: described(byId(SAVED_VIEW, 200), 'Views of the camera that were kept under a name.'),
});

export type MeshShape = (typeof MESH_SHAPE_NAMES)[number];
export type MadeForMesh = (typeof MADE_FOR_MESH)[number];
export type FloorLook = (typeof FLOOR_LOOKS)[number];

/** World space; radians about x, then y, then z; a negative scale mirrors. */
export interface MeshPlacing extends TypeOf<typeof MESH_PLACING> {}

/** Spinning or rocking about an axis of the mesh through its origin, on the Stage's clock. */
export interface MeshMotion extends TypeOf<typeof MESH_MOTION> {}

/** A grid of copies round the mesh's place: columns along x, rows along z, metres apart. */
export interface MeshCopies extends TypeOf<typeof MESH_COPIES> {}

/** Where an imported mesh comes from, and what is known of it. */
export interface MeshSource extends TypeOf<typeof MESH_SOURCE> {}

/** One mesh of a set. Lengths in metres. */
export interface SetMesh extends TypeOf<typeof SET_MESH> {}

/** How the parts that a rule fits are dressed and drawn. Later rules go on top of earlier ones. */
export interface PartRule extends TypeOf<typeof PART_RULE> {}

export interface SetFloor extends TypeOf<typeof SET_FLOOR> {}

/** Where the eye is: it looks at `target` from `distance`, turned by `azimuth` round Y and `elevation` above the horizon. */
export interface OrbitCamera extends TypeOf<typeof ORBIT_CAMERA> {}

export interface SavedView extends TypeOf<typeof SAVED_VIEW> {}

/** What stands on the Stage. */
export interface StageSet extends TypeOf<typeof STAGE_SET> {}
