import { inject, Injectable, signal, type OnDestroy } from '@angular/core';
import { LARGEST_MESH_FILE, LONGEST_NAME, MESH_TYPE, type MeshSource } from '@brelvin/contract';
import { NO_MESH, type Bounds, type FrameRenderer, type MeshData, type MeshWork } from '@brelvin/core';
import { AsyncCache, type ReadMesh } from '@brelvin/io';
import { proxy, transfer, type Remote } from 'comlink';
import { AssetApi } from '../api/asset-api';
import { DecodingWorker } from '../decoding/decoding-worker';
import type { ImageJob } from '../images/image-shelf';
import type { RemoteMeshes } from './mesh.worker';

/** A mesh that was taken in: what a set keeps of it, and what came along. */
export interface TakenMesh extends Pick<ReadMesh, 'name' | 'wears' | 'materials' | 'images' | 'words'> {
  readonly source: MeshSource;
  readonly bounds: Bounds;
}

const MOST_OPEN = 6;
const MEBIBYTE = 1024 * 1024;
const LARGEST_SOURCE = 512 * MEBIBYTE;
const MESHES = /\.(glb|gltf|obj)$/i;

/** Meshes of the workspace: taken in from files, and opened for the Stage. */
@Injectable({ providedIn: 'root' })
export class MeshShelf implements OnDestroy {
  private readonly api = inject(AssetApi);
  private readonly worker = new DecodingWorker<RemoteMeshes>(
    () => new Worker(new URL('./mesh.worker', import.meta.url), { type: 'module' }),
  );
  private readonly opened = new AsyncCache<MeshData>(MOST_OPEN);

  /** What is under way. */
  readonly job = signal<ImageJob | undefined>(undefined);

  /** The meshes among files. */
  static meshesAmong(files: readonly File[]): readonly File[] {
    return files.filter(({ name }) => MESHES.test(name));
  }

  /**
   * Reads a mesh from a file, with the files it names, and takes it into the workspace.
   *
   * @param files all that was chosen with it
   * @throws Error with words for the user; nothing when it was cancelled
   */
  async take(main: File, files: readonly File[]): Promise<TakenMesh | undefined> {
    const words = (reason: string): Error => new Error(`“${main.name}” was not imported. ${reason}`);
    const size = files.reduce((sum, file) => sum + file.size, 0);
    if (size > LARGEST_SOURCE)
      throw words(`Its files have ${Math.round(size / MEBIBYTE)} MiB; at most ${LARGEST_SOURCE / MEBIBYTE} are taken.`);
    if (main.size === 0) throw words('It is empty.');
    return this.keep(main.name, words, async (remote, onShare) => {
      const read = await Promise.all(files.map(async (file) => ({ name: pathOf(file), bytes: new Uint8Array(await file.arrayBuffer()) })));
      return remote.read(pathOf(main), read, onShare);
    });
  }

  /**
   * Makes a mesh of a field, each region a part, and takes it into the workspace.
   *
   * @param cells of the grid along its longest edge
   * @throws Error with words for the user; nothing when it was cancelled
   */
  takeField(name: string, field: Parameters<RemoteMeshes['ofField']>[0], cells: number): Promise<TakenMesh | undefined> {
    const words = (reason: string): Error => new Error(`No mesh was made of “${name}”. ${reason}`);
    return this.keep(name, words, (remote, onShare) => remote.ofField(field, cells, onShare));
  }

  /** Has a mesh made apart from the page, and sends it; told as a job, and cancelled by it. */
  private async keep(
    named: string,
    words: (reason: string) => Error,
    make: (remote: Remote<RemoteMeshes>, onShare: (share: number) => void) => Promise<ReadMesh>,
  ): Promise<TakenMesh | undefined> {
    const abort = new AbortController();
    const patch = (doing: ImageJob['doing'], share: number): void =>
      this.job.set({ id: 0, name: named, doing, share, cancel: () => abort.abort() });
    patch('reading', 0);
    try {
      const onShare = proxy((share: number) => patch('decoding', share * 0.7));
      const mesh = await this.worker
        .run((remote) => make(remote, onShare), abort.signal)
        .catch((error: unknown) => {
          throw abort.signal.aborted ? error : words(error instanceof Error ? error.message : String(error));
        });
      if (mesh.file.length > LARGEST_MESH_FILE) throw words('It is too large to be kept.');
      patch('sending', 0.7);
      const name = named.slice(0, LONGEST_NAME);
      const blob = new Blob([mesh.file], { type: MESH_TYPE });
      const { sha256 } = mesh;
      await this.api.send(
        blob,
        { name, type: MESH_TYPE, sha256 },
        {
          progress: (share) => patch('sending', 0.7 + share * 0.3),
          signal: abort.signal,
        },
      );
      return { ...mesh, source: { asset: sha256, file: name, ...mesh.facts, bounds: mesh.bounds } };
    } catch (error) {
      if (abort.signal.aborted) return undefined;
      throw error;
    } finally {
      this.job.set(undefined);
    }
  }

  /**
   * What a set keeps of a mesh of the workspace, to stand in it.
   *
   * @throws ApiFailure, or Error for a file that cannot be read
   */
  async describe(asset: string, file: string): Promise<MeshSource> {
    const { facts, bounds } = await this.worker.run(async (remote) => {
      const bytes = await this.api.bytes(asset);
      return remote.describe(transfer(bytes, [bytes]));
    });
    return { asset, file, ...facts, bounds };
  }

  /** The triangles of a mesh, for the Stage. @throws ApiFailure, or Error for a file that cannot be read */
  load(asset: string): Promise<MeshData> {
    return this.opened.get(asset, () =>
      this.worker.run(async (remote) => {
        const bytes = await this.api.bytes(asset);
        return remote.open(transfer(bytes, [bytes]));
      }),
    );
  }

  /** What a program wants of a mesh, worked out apart from the page. @throws ApiFailure, or Error for a file that cannot be read */
  workOut(asset: string, work: MeshWork): ReturnType<NonNullable<FrameRenderer['meshes']['workApart']>> {
    return this.worker.run(async (remote) => {
      const bytes = await this.api.bytes(asset);
      return remote.workOut(transfer(bytes, [bytes]), work);
    });
  }

  /** The triangles of a mesh that was loaded; none of one that was not. */
  at(asset: string): MeshData {
    return this.opened.now(asset) ?? NO_MESH;
  }

  ngOnDestroy(): void {
    this.worker.close();
  }
}

/** With its folders, where it came from one. */
function pathOf(file: File): string {
  return file.webkitRelativePath || file.name;
}
