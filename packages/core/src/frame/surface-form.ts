import type { Bounds, MeshPart } from '../mesh/mesh';
import type { Ray } from '../mesh/ray';
import type { FieldPrograms } from './field-programs';
import type { MeshBuffers } from './mesh-buffers';

/**
 * What a thing of a set is made of: how it is drawn, picked and bounded. The Stage's scene knows places, copies, motion and
 * what parts wear, and asks the form for all else. Object space, metres.
 */
export interface SurfaceForm {
  readonly bounds: Bounds;
  /** What can wear a material of its own, in order. */
  readonly parts: readonly MeshPart[];
  /** Whether its back is never seen from outside. */
  readonly closed: boolean;
  /** What pictures draw. */
  readonly draw: MeshBuffers;
  /** What traces it, where it is a field. */
  readonly field?: FieldPrograms;
  /** Whether it changes with the clock by itself. */
  readonly moves?: boolean;
  /** The distance at which a ray first meets a part; nothing where it does not. */
  pick(part: Pick<MeshPart, 'name' | 'first' | 'count'>, ray: Ray): number | undefined;
  /** Points round it, as all of its copies stand: world space, x y z one after the other. @param rows of the copies */
  points(rows: Float32Array): Float32Array;
  /** Corners of triangles that lie like a part, three by three: which way it looks. */
  triangles(part: Pick<MeshPart, 'first' | 'count'>): Float32Array;
  /** How a field is traced, as the block `Object` holds it. @param number of the form among all that stand there */
  numbers?(number: number): readonly number[];
  destroy(): void;
}
