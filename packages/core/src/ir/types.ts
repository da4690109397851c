import type { Origin } from './origin';

/** Types of the shading language: those of GLSL ES 3.00, section 4.1. */
export type ScalarName = 'float' | 'int' | 'uint' | 'bool';

export interface VoidType {
  readonly kind: 'void';
}
export interface ScalarType {
  readonly kind: 'scalar';
  readonly scalar: ScalarName;
}
export interface VectorType {
  readonly kind: 'vector';
  readonly scalar: ScalarName;
  readonly size: 2 | 3 | 4;
}
/** Float matrix, column-major: `mat2x3` has two columns of three numbers. */
export interface MatrixType {
  readonly kind: 'matrix';
  readonly columns: 2 | 3 | 4;
  readonly rows: 2 | 3 | 4;
}
export interface StructField {
  readonly name: string;
  readonly type: Type;
}
export interface StructType {
  readonly kind: 'struct';
  readonly name: string;
  readonly fields: readonly StructField[];
  /** Where in its text its name stands. */
  readonly origin?: Origin;
}
export interface ArrayType {
  readonly kind: 'array';
  readonly element: Type;
  readonly length: number;
}
export interface SamplerType {
  readonly kind: 'sampler';
  readonly name: SamplerName;
}
export type SamplerName = (typeof SAMPLERS)[number];
export type Type = VoidType | ScalarType | VectorType | MatrixType | StructType | ArrayType | SamplerType;

/** Section 4.1.7. */
const SAMPLERS = [
  ...(['sampler2D', 'sampler3D', 'samplerCube', 'sampler2DArray', 'sampler2DShadow', 'samplerCubeShadow', 'sampler2DArrayShadow'] as const),
  ...(['isampler2D', 'isampler3D', 'isamplerCube', 'isampler2DArray'] as const),
  ...(['usampler2D', 'usampler3D', 'usamplerCube', 'usampler2DArray'] as const),
] as const;

export const VOID: VoidType = { kind: 'void' };
export const FLOAT: ScalarType = { kind: 'scalar', scalar: 'float' };
export const INT: ScalarType = { kind: 'scalar', scalar: 'int' };
export const UINT: ScalarType = { kind: 'scalar', scalar: 'uint' };
export const BOOL: ScalarType = { kind: 'scalar', scalar: 'bool' };

export function vector(size: number, scalar: ScalarName = 'float'): VectorType {
  if (size !== 2 && size !== 3 && size !== 4) throw new RangeError(`no vector of size ${size}`);
  return { kind: 'vector', scalar, size };
}

export function matrix(columns: number, rows = columns): MatrixType {
  return { kind: 'matrix', columns: vector(columns).size, rows: vector(rows).size };
}

export const VEC2 = vector(2);
export const VEC3 = vector(3);
export const VEC4 = vector(4);

const VECTOR_PREFIX: Record<ScalarName, string> = { float: 'vec', int: 'ivec', uint: 'uvec', bool: 'bvec' };

/** Every built-in type by its GLSL name. */
export const NAMED_TYPES: ReadonlyMap<string, Type> = new Map<string, Type>([
  ['void', VOID],
  ['float', FLOAT],
  ['int', INT],
  ['uint', UINT],
  ['bool', BOOL],
  ...(['float', 'int', 'uint', 'bool'] as const).flatMap((scalar) =>
    ([2, 3, 4] as const).map((size): [string, Type] => [`${VECTOR_PREFIX[scalar]}${size}`, vector(size, scalar)]),
  ),
  ...([2, 3, 4] as const).flatMap((columns) => [
    [`mat${columns}`, matrix(columns)] as [string, Type],
    ...([2, 3, 4] as const).map((rows): [string, Type] => [`mat${columns}x${rows}`, matrix(columns, rows)]),
  ]),
  ...SAMPLERS.map((name): [string, Type] => [name, { kind: 'sampler', name }]),
]);

/** The GLSL spelling of a type; equal names mean equal types. */
export function typeName(type: Type): string {
  switch (type.kind) {
    case 'void':
      return 'void';
    case 'scalar':
      return type.scalar;
    case 'vector':
      return `${VECTOR_PREFIX[type.scalar]}${type.size}`;
    case 'matrix':
      return type.columns === type.rows ? `mat${type.columns}` : `mat${type.columns}x${type.rows}`;
    case 'struct':
      return type.name;
    case 'array':
      return `${typeName(type.element)}[${type.length}]`;
    case 'sampler':
      return type.name;
  }
}

export function sameType(a: Type, b: Type): boolean {
  if (a === b) return true;
  if (a.kind !== b.kind) return false;
  if (a.kind === 'scalar' && b.kind === 'scalar') return a.scalar === b.scalar;
  if (a.kind === 'vector' && b.kind === 'vector') return a.scalar === b.scalar && a.size === b.size;
  return typeName(a) === typeName(b);
}

export function isFloatLike(type: Type): type is ScalarType | VectorType {
  return (type.kind === 'scalar' || type.kind === 'vector') && type.scalar === 'float';
}

/** Number of scalars in a value of any type. */
export function scalarCount(type: Type): number {
  switch (type.kind) {
    case 'struct':
      return type.fields.reduce((sum, field) => sum + scalarCount(field.type), 0);
    case 'array':
      return type.length * scalarCount(type.element);
    default:
      return componentCount(type);
  }
}

/** Number of scalar components of a scalar, vector or matrix; 0 for anything else. */
export function componentCount(type: Type): number {
  switch (type.kind) {
    case 'scalar':
      return 1;
    case 'vector':
      return type.size;
    case 'matrix':
      return type.columns * type.rows;
    default:
      return 0;
  }
}

/** The scalar type a value is made of; undefined for structs, arrays and samplers. */
export function scalarOf(type: Type): ScalarName | undefined {
  if (type.kind === 'scalar' || type.kind === 'vector') return type.scalar;
  return type.kind === 'matrix' ? 'float' : undefined;
}

/** A vector or scalar type of `size` components. */
export function ofSize(scalar: ScalarName, size: number): ScalarType | VectorType {
  return size === 1 ? { kind: 'scalar', scalar } : vector(size, scalar);
}
