import { NO_MESH, type Bounds, type MeshData, type MeshPart } from '../mesh/mesh';
import { hitPart, type Ray } from '../mesh/ray';
import type { MeshBuffers } from './mesh-buffers';
import { standingPoints, trianglesOf } from './portrait';
import type { SurfaceForm } from './surface-form';

/** A form of triangles. */
export class MeshForm implements SurfaceForm {
  constructor(
    private readonly data: MeshData,
    readonly draw: MeshBuffers,
  ) {}

  get bounds(): Bounds {
    return this.data.bounds;
  }

  get parts(): readonly MeshPart[] {
    return this.data.parts;
  }

  get closed(): boolean {
    return this.data.closed;
  }

  /** Whether it is of these triangles. */
  isOf(data: MeshData): boolean {
    return this.data === data;
  }

  /** Whether its triangles are still to come. */
  get awaited(): boolean {
    return this.data === NO_MESH;
  }

  pick(part: Pick<MeshPart, 'first' | 'count'>, ray: Ray): number | undefined {
    return hitPart(this.data, part, ray);
  }

  points(rows: Float32Array): Float32Array {
    return standingPoints(this.data.positions, rows);
  }

  triangles(part: Pick<MeshPart, 'first' | 'count'>): Float32Array {
    return trianglesOf(this.data, part);
  }

  destroy(): void {
    this.draw.destroy();
  }
}
