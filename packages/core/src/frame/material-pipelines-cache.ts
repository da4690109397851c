import type { LitProgram } from '../scene/lights';
import { LruCache } from '../cache/lru-cache';
import type { EmittedMaterial } from '../emit/emitted-material';
import type { Device } from '../device/device';
import { MaterialPipelines } from './material-pipelines';

/**
 * Surfaces of documents, for pictures that are drawn one after the other: what stands in several of them is brought onto
 * the device once.
 */
export class MaterialPipelinesCache {
  /** By document; how many stay is said by `trim`. */
  private readonly surfaces = new LruCache<MaterialPipelines>(Infinity, (surface) => surface.destroy());

  constructor(private readonly device: Device) {}

  /**
   * A document's surface, with the programs of all variants that it was ever asked for with.
   *
   * @param lit the programs that pictures need, of those that draw it lit; see `MaterialPipelines.create`
   * @throws ProgramRefused
   */
  async find(document: string, compiled: EmittedMaterial, lit?: Iterable<LitProgram>): Promise<MaterialPipelines> {
    const known = this.surfaces.get(document);
    const surface = known?.key === compiled.key ? known : await MaterialPipelines.create(this.device, compiled, lit);
    this.surfaces.set(document, surface);
    surface.adopt(compiled);
    await surface.learn(compiled, lit);
    return surface;
  }

  /** Lets go of all but so many, those that were used longest ago first. */
  trim(most: number): void {
    this.surfaces.trim(most);
  }
}
