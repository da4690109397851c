import type { Device } from '../device/device';
import { marchedField } from '../field/march';
import type { FieldSource } from '../mesh/field-source';
import type { Bounds, MeshData, MeshPart } from '../mesh/mesh';
import type { Ray } from '../mesh/ray';
import { fieldBox } from '../mesh/shapes/field-box';
import { fieldPrograms, type FieldPrograms } from './field-programs';
import type { MeshBuffers } from './mesh-buffers';
import { standingPoints, trianglesOf } from './portrait';
import type { SurfaceForm } from './surface-form';

/** A form without triangles, that is traced where it stands; what is drawn of it is the box round it. */
export class FieldForm implements SurfaceForm {
  readonly closed = true;
  readonly field: FieldPrograms;
  readonly draw: MeshBuffers;
  private readonly box: MeshData;
  /** One ray is asked for each part, and marching it takes many values of the field. */
  private marched?: { readonly ray: Ray; readonly hit: ReturnType<typeof marchedField> };

  constructor(
    device: Device,
    private readonly source: FieldSource,
    upload: (box: MeshData) => MeshBuffers,
  ) {
    this.box = fieldBox(source);
    this.draw = upload(this.box);
    this.field = fieldPrograms(device, source.program);
  }

  get bounds(): Bounds {
    return this.source.bounds;
  }

  get parts(): readonly MeshPart[] {
    return this.box.parts;
  }

  /** Whether its picture changes with the clock. */
  get moves(): boolean {
    return this.source.moves;
  }

  /** The member `partField` of the block `Object`. @param number of the field among those that stand there */
  numbers(number: number): readonly number[] {
    const { steps, epsilon, slope } = this.source;
    return [steps, epsilon, 1 / slope, number];
  }

  pick(part: Pick<MeshPart, 'name' | 'first' | 'count'>, ray: Ray): number | undefined {
    if (this.marched?.ray !== ray) this.marched = { ray, hit: marchedField(this.source.sampler, this.bounds, ray) };
    const { hit } = this.marched;
    return hit && this.parts[hit.part]?.name === part.name ? hit.distance : undefined;
  }

  points(rows: Float32Array): Float32Array {
    return standingPoints(this.box.positions, rows);
  }

  triangles(part: Pick<MeshPart, 'first' | 'count'>): Float32Array {
    return trianglesOf(this.box, part);
  }

  destroy(): void {
    this.draw.destroy();
    this.field.trace.destroy();
    this.field.caster.destroy();
    this.field.steps.destroy();
  }
}
