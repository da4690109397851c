import type { MeshShape, SetMesh } from '@brelvin/contract';
import { flatShaded } from './flat';
import { meet } from './meet';
import { FIELD_NUMBERS, fieldRegions, fieldSource, fieldText } from './field-source';
import { fieldBox } from './shapes/field-box';
import { FIRST_FIELD } from '../field/read-field';
import { NO_MESH, type MeshData } from './mesh';
import { meshNumber, type MeshNumber } from './mesh-number';
import { capsule } from './shapes/capsule';
import { cone } from './shapes/cone';
import { cube } from './shapes/cube';
import { cylinder } from './shapes/cylinder';
import { HEIGHT_FORMULA, heightMesh, SURFACE_FORMULA, surfaceMesh } from './shapes/formula';
import { geodesic } from './shapes/geodesic';
import { jar } from './shapes/jar';
import { lamp } from './shapes/lamp';
import { oilFiller } from './shapes/oil-filler';
import { plane } from './shapes/plane';
import { puppetHead } from './shapes/puppet-head';
import { room } from './shapes/room';
import { roundedBox } from './shapes/rounded-box';
import { sheet } from './shapes/sheet';
import { sphere } from './shapes/sphere';
import { torus } from './shapes/torus';
import { torusKnot } from './shapes/torus-knot';

interface ShapeEntry {
  readonly label: string;
  /** Names of its parts, in order. */
  readonly parts: readonly string[];
  /** What a formula mesh starts from. */
  readonly formula?: string;
  readonly numbers: readonly MeshNumber[];
  readonly build: (numbers: Readonly<Record<string, number>>, smooth: boolean, formula: string) => MeshData;
}

const length = (name: string, label: string, value: number, high: number): MeshNumber => ({
  name,
  label,
  default: value,
  low: 0.01,
  high,
  whole: false,
});
const count = (name: string, label: string, value: number, low: number, high: number): MeshNumber => ({
  name,
  label,
  default: value,
  low,
  high,
  whole: true,
});

type Numbers<Names extends string> = Readonly<Record<Names, number>>;

const SIX_SIDES = ['front', 'back', 'right', 'left', 'top', 'bottom'];

export const MESH_SHAPES: Readonly<Record<MeshShape, ShapeEntry>> = {
  sphere: {
    label: 'Sphere',
    parts: ['sphere'],
    numbers: [length('radius', 'Radius', 1, 4), count('segments', 'Segments', 64, 3, 256), count('rings', 'Rings', 32, 2, 128)],
    build: (numbers) => sphere(numbers as Numbers<'radius' | 'segments' | 'rings'>),
  },
  geodesic: {
    label: 'Geodesic sphere',
    parts: ['geodesic'],
    numbers: [length('radius', 'Radius', 1, 4), count('frequency', 'Frequency', 8, 1, 48)],
    build: (numbers) => geodesic(numbers as Numbers<'radius' | 'frequency'>),
  },
  cube: {
    label: 'Cube',
    parts: SIX_SIDES,
    numbers: [length('size', 'Size', 1.5, 8), count('segments', 'Segments', 1, 1, 128)],
    build: (numbers, smooth) => cube({ ...(numbers as Numbers<'size' | 'segments'>), smooth }),
  },
  roundedBox: {
    label: 'Rounded box',
    parts: SIX_SIDES,
    numbers: [
      length('width', 'Width', 1.5, 8),
      length('height', 'Height', 1.5, 8),
      length('depth', 'Depth', 1.5, 8),
      length('radius', 'Rounding', 0.2, 2),
      count('segments', 'Segments', 6, 1, 32),
    ],
    build: (numbers) => roundedBox(numbers as Numbers<'width' | 'height' | 'depth' | 'radius' | 'segments'>),
  },
  plane: {
    label: 'Plane',
    parts: ['plane'],
    numbers: [length('width', 'Width', 2, 8), length('height', 'Height', 2, 8), count('segments', 'Segments', 1, 1, 256)],
    build: (numbers) => plane(numbers as Numbers<'width' | 'height' | 'segments'>),
  },
  sheet: {
    label: 'Thin sheet',
    parts: ['sheet'],
    numbers: [
      length('width', 'Width', 2, 8),
      length('height', 'Height', 1.6, 8),
      length('wave', 'Wave', 0.2, 2),
      count('segments', 'Segments', 48, 1, 256),
    ],
    build: (numbers) => sheet(numbers as Numbers<'width' | 'height' | 'wave' | 'segments'>),
  },
  cylinder: {
    label: 'Cylinder',
    parts: ['top', 'side', 'bottom'],
    numbers: [length('radius', 'Radius', 0.8, 4), length('height', 'Height', 1.8, 8), count('segments', 'Segments', 64, 3, 256)],
    build: (numbers) => cylinder(numbers as Numbers<'radius' | 'height' | 'segments'>),
  },
  cone: {
    label: 'Cone',
    parts: ['side', 'bottom'],
    numbers: [length('radius', 'Radius', 0.9, 4), length('height', 'Height', 1.8, 8), count('segments', 'Segments', 64, 3, 256)],
    build: (numbers) => cone(numbers as Numbers<'radius' | 'height' | 'segments'>),
  },
  capsule: {
    label: 'Capsule',
    parts: ['capsule'],
    numbers: [
      length('radius', 'Radius', 0.6, 4),
      length('height', 'Height', 1, 8),
      count('segments', 'Segments', 64, 3, 256),
      count('rings', 'Rings', 48, 4, 256),
    ],
    build: (numbers) => capsule(numbers as Numbers<'radius' | 'height' | 'segments' | 'rings'>),
  },
  torus: {
    label: 'Torus',
    parts: ['torus'],
    numbers: [
      length('radius', 'Radius', 0.8, 4),
      length('tube', 'Tube', 0.32, 2),
      count('segments', 'Segments', 96, 3, 256),
      count('sides', 'Sides', 32, 3, 128),
    ],
    build: (numbers) => torus(numbers as Numbers<'radius' | 'tube' | 'segments' | 'sides'>),
  },
  torusKnot: {
    label: 'Torus knot',
    parts: ['knot'],
    numbers: [
      length('radius', 'Radius', 1.05, 4),
      length('tube', 'Tube', 0.24, 2),
      count('turns', 'Turns', 2, 1, 12),
      count('windings', 'Windings', 3, 1, 12),
      count('segments', 'Segments', 192, 8, 512),
      count('sides', 'Sides', 24, 3, 64),
    ],
    build: (numbers) => torusKnot(numbers as Numbers<'radius' | 'tube' | 'turns' | 'windings' | 'segments' | 'sides'>),
  },
  lamp: {
    label: 'Lamp',
    parts: ['chimney', 'burner', 'wick'],
    numbers: [length('height', 'Height', 2.2, 8), count('segments', 'Segments', 64, 3, 256), count('rings', 'Rings', 20, 2, 64)],
    build: (numbers) => lamp(numbers as Numbers<'height' | 'segments' | 'rings'>),
  },
  oilFiller: {
    label: 'Oil filler',
    parts: ['funnel', 'neck', 'body', 'foot'],
    numbers: [length('height', 'Height', 2, 8), count('segments', 'Segments', 64, 3, 256), count('rings', 'Rings', 16, 2, 64)],
    build: (numbers) => oilFiller(numbers as Numbers<'height' | 'segments' | 'rings'>),
  },
  jar: {
    label: 'Jar',
    parts: ['lip', 'body', 'foot', 'inside'],
    numbers: [length('height', 'Height', 2, 8), count('segments', 'Segments', 128, 3, 512), count('rings', 'Rings', 96, 4, 384)],
    build: (numbers) => jar(numbers as Numbers<'height' | 'segments' | 'rings'>),
  },
  puppetHead: {
    label: 'Puppet head',
    parts: ['skin', 'hair', 'eyes', 'brows'],
    numbers: [length('size', 'Size', 1, 4), count('segments', 'Segments', 48, 8, 128)],
    build: (numbers) => puppetHead(numbers as Numbers<'size' | 'segments'>),
  },
  room: {
    label: 'Room',
    parts: ['near wall', 'far wall', 'right wall', 'left wall', 'ceiling', 'floorboards'],
    numbers: [length('width', 'Width', 6, 40), length('height', 'Height', 4, 20), length('depth', 'Depth', 6, 40)],
    build: (numbers) => room(numbers as Numbers<'width' | 'height' | 'depth'>),
  },
  height: {
    label: 'Height formula',
    parts: ['height'],
    formula: HEIGHT_FORMULA,
    numbers: [length('size', 'Size', 2.4, 20), count('segments', 'Segments', 64, 1, 160)],
    build: (numbers, _smooth, formula) => heightMesh(numbers as Numbers<'size' | 'segments'>, formula),
  },
  surface: {
    label: 'Surface formula',
    parts: ['surface'],
    formula: SURFACE_FORMULA,
    numbers: [count('segments', 'Segments', 64, 1, 160)],
    build: (numbers, _smooth, formula) => surfaceMesh(numbers as Numbers<'segments'>, formula),
  },
  // Its parts are the regions of its text; its triangles only those of the box in which it is traced.
  field: {
    label: 'Field',
    parts: [],
    formula: FIRST_FIELD,
    numbers: FIELD_NUMBERS,
    build: (numbers, _smooth, formula) => fieldBox(fieldSource(formula, numbers)),
  },
  // Comes from a file: see the mesh's source.
  imported: { label: 'From a file', parts: [], numbers: [], build: () => NO_MESH },
};

/** Shapes that need no file, for whoever offers them. */
export const OFFERED_SHAPES = (Object.keys(MESH_SHAPES) as MeshShape[]).filter((shape) => shape !== 'imported');

/** Of these, the ones that are made of triangles. */
export const GENERATED_SHAPES = OFFERED_SHAPES.filter((shape) => shape !== 'field');

/** Names of a mesh's parts, in order. */
export function partNames(mesh: Pick<SetMesh, 'shape' | 'source' | 'formula' | 'field'>): readonly string[] {
  if (mesh.shape === 'field') return fieldRegions(fieldText(mesh) ?? '');
  return mesh.source?.parts ?? MESH_SHAPES[mesh.shape].parts;
}

/** What decides a mesh's triangles. */
export type MeshRecipe = Pick<SetMesh, 'shape' | 'numbers' | 'smooth' | 'formula'>;

/**
 * Generates the triangles of a set's mesh.
 *
 * @throws FormulaError
 */
export function buildMesh({ shape, numbers, smooth, formula }: MeshRecipe): MeshData {
  const entry = MESH_SHAPES[shape];
  const complete = Object.fromEntries(entry.numbers.map((spec) => [spec.name, meshNumber(spec, numbers[spec.name])]));
  const mesh = meet(entry.build(complete, smooth, formula ?? entry.formula ?? ''));
  return smooth || shape === 'cube' || shape === 'field' ? mesh : flatShaded(mesh);
}
