import { LruCache } from '../cache/lru-cache';
import { NO_MESH, type MeshData } from '../mesh/mesh';
import { workOut, type MeshWork } from '../mesh/mesh-work';

const MOST_KEPT = 8;
/** Triangles of which something is worked out between two pictures; of more it is worked out apart from the page. */
const MOST_AT_ONCE = 10_000;

type Rows = ReturnType<typeof workOut>;

/**
 * Meshes of files, by their address. One that is not here yet has no triangles; `load` is asked for it once, and
 * `onArrival` told when it came, or could not be had.
 */
export class MeshBank {
  /** A mesh may be large; what stands on the Stage keeps its own. */
  private readonly meshes = new LruCache<MeshData>(MOST_KEPT);
  private readonly waiting = new Set<string>();
  private coming = 0;
  private readonly listeners: (() => void)[] = [];
  private readonly addresses = new WeakMap<MeshData, string>();
  private readonly failures = new Map<string, string>();
  load: (asset: string) => Promise<MeshData | undefined> = async () => undefined;
  /** Works something out apart from the page; where there is no such place, it is worked out here. */
  workApart?: (asset: string, work: MeshWork) => Promise<Rows>;
  onArrival: () => void = () => undefined;

  /** Whether a mesh, or what is worked out from one, is still on its way. */
  get awaits(): boolean {
    return this.coming > 0;
  }

  /** Comes back when nothing is on its way. */
  async settled(): Promise<void> {
    while (this.awaits) await new Promise<void>((resolve) => this.listeners.push(resolve));
  }

  private came(): void {
    this.coming--;
    this.onArrival();
    for (const each of this.listeners.splice(0)) each();
  }

  find(asset: string): MeshData {
    const known = this.meshes.get(asset);
    if (known) return known;
    if (!this.waiting.has(asset)) void this.fetch(asset);
    return NO_MESH;
  }

  /** What a program wants of a mesh: at once, or when it is worked out; `onArrival` is told then. */
  workOut(mesh: MeshData, work: MeshWork): Rows | Promise<Rows> {
    const asset = this.addresses.get(mesh);
    if (asset === undefined || !this.workApart || mesh.indices.length <= MOST_AT_ONCE * 3) return workOut(mesh, work);
    return this.fetchWork(this.workApart(asset, work), mesh, work);
  }

  private async fetchWork(apart: Promise<Rows>, mesh: MeshData, work: MeshWork): Promise<Rows> {
    this.coming++;
    // The page is held up, but the picture is right.
    const rows = await apart.catch(() => workOut(mesh, work));
    this.came();
    return rows;
  }

  /** Why a mesh could not be had; nothing where it is here or on its way. */
  failureOf(asset: string): string | undefined {
    return this.failures.get(asset);
  }

  /** Has meshes here before a picture is drawn; one that cannot be had stays without triangles. */
  async bring(assets: readonly string[]): Promise<void> {
    for (const asset of assets) if (!this.meshes.has(asset)) await this.fetch(asset);
  }

  private async fetch(asset: string): Promise<void> {
    this.waiting.add(asset);
    this.coming++;
    try {
      const mesh = await this.load(asset);
      if (mesh) {
        this.meshes.set(asset, mesh);
        this.addresses.set(mesh, asset);
      }
    } catch (error) {
      this.failures.set(asset, error instanceof Error ? error.message : String(error));
    }
    // Without one it stays among the waiting: asking again at every change of the set would not help.
    if (this.meshes.has(asset)) this.waiting.delete(asset);
    this.came();
  }
}
