import { NO_MESH, type MeshData } from '../mesh/mesh';

const MOST_KEPT = 8;

/**
 * Meshes of files, by their address. One that is not here yet has no triangles; `load` is asked for it once, and
 * `onArrival` told when it came, or could not be had.
 */
export class MeshBank {
  private readonly meshes = new Map<string, MeshData>();
  private readonly waiting = new Set<string>();
  private coming = 0;
  private readonly failures = new Map<string, string>();
  load: (asset: string) => Promise<MeshData | undefined> = async () => undefined;
  onArrival: () => void = () => undefined;

  /** Whether a mesh that was asked for is still on its way. */
  get awaits(): boolean {
    return this.coming > 0;
  }

  find(asset: string): MeshData {
    const known = this.meshes.get(asset);
    if (known) {
      this.meshes.delete(asset);
      this.meshes.set(asset, known);
      return known;
    }
    if (!this.waiting.has(asset)) void this.fetch(asset);
    return NO_MESH;
  }

  /** Why a mesh could not be had; nothing where it is here or on its way. */
  failureOf(asset: string): string | undefined {
    return this.failures.get(asset);
  }

  /** The last few are kept: a mesh may be large. What stands on the Stage keeps its own. */
  private keep(asset: string, mesh: MeshData): void {
    this.meshes.set(asset, mesh);
    const [oldest] = this.meshes.keys();
    if (this.meshes.size > MOST_KEPT && oldest !== undefined) this.meshes.delete(oldest);
  }

  /** Has meshes here before a picture is drawn; one that can not be had stays without triangles. */
  async bring(assets: readonly string[]): Promise<void> {
    for (const asset of assets) if (!this.meshes.has(asset)) await this.fetch(asset);
  }

  private async fetch(asset: string): Promise<void> {
    this.waiting.add(asset);
    this.coming++;
    try {
      const mesh = await this.load(asset);
      if (mesh) this.keep(asset, mesh);
    } catch (error) {
      this.failures.set(asset, error instanceof Error ? error.message : String(error));
    }
    this.coming--;
    // Without one it stays among the waiting: asking again at every change of the set would not help.
    if (this.meshes.has(asset)) this.waiting.delete(asset);
    this.onArrival();
  }
}
