import { inject, Injectable, signal, type OnDestroy } from '@angular/core';
import { LARGEST_FILE, LONGEST_NAME, type MaterialImage } from '@brelvin/contract';
import { roleByName, roleOf, cubeChain, facesByName, wrapsOf, type CubeChain, type ImageFacts } from '@brelvin/core';
import { AsyncCache, type DecodedImage } from '@brelvin/io';
import { AssetApi } from '../api/asset-api';
import { DecodingWorker } from '../decoding/decoding-worker';
import type { RemoteDecoder } from './image.worker';

/** An image on its way in. */
export interface ImageJob {
  readonly id: number;
  readonly name: string;
  readonly doing: 'reading' | 'decoding' | 'sending';
  /** 0…1. */
  readonly share: number;
  readonly cancel: () => void;
}

/** Bytes of pixels that are kept here: a set of eight maps of 2048 × 2048. */
const MOST_DECODED = 256 * 1024 * 1024;

/** Images of the workspace: taken in from files, and decoded for the Stage. */
@Injectable({ providedIn: 'root' })
export class ImageShelf implements OnDestroy {
  private readonly api = inject(AssetApi);
  private readonly worker = new DecodingWorker<RemoteDecoder>(
    () => new Worker(new URL('./image.worker', import.meta.url), { type: 'module' }),
  );
  private readonly decoded = new AsyncCache<DecodedImage>(MOST_DECODED, ({ levels }) =>
    levels.reduce((sum, { length }) => sum + length, 0),
  );
  private nextId = 0;

  /** What is under way. */
  readonly jobs = signal<readonly ImageJob[]>([]);
  /** What is known of the pixels of images that were decoded, by their address. */
  readonly facts = signal<ReadonlyMap<string, ImageFacts>>(new Map());

  /**
   * Takes a file into the workspace: it is decoded once while it is sent, and kept only when it could be: nothing damaged gets
   * in.
   *
   * @throws Error with words for the user; nothing when it was cancelled
   */
  async take(file: File): Promise<MaterialImage | undefined> {
    const words = (reason: string): Error => new Error(`“${file.name}” was not imported. ${reason}`);
    if (file.size > LARGEST_FILE)
      throw words(`It has ${Math.round(file.size / 1024 / 1024)} MiB; at most ${LARGEST_FILE / 1024 / 1024} are taken.`);
    if (file.size === 0) throw words('It is empty.');
    const abort = new AbortController();
    const id = this.nextId++;
    this.jobs.update((jobs) => [...jobs, { id, name: file.name, doing: 'reading', share: 0, cancel: () => abort.abort() }]);
    const patch = (change: Partial<ImageJob>): void =>
      this.jobs.update((jobs) => jobs.map((job) => (job.id === id ? { ...job, ...change } : job)));
    try {
      const role = roleByName(file.name);
      const inWords = (error: unknown): never => {
        throw abort.signal.aborted ? error : words(error instanceof Error ? error.message : String(error));
      };
      const { width, height, type, sha256 } = await this.worker.run((remote) => remote.inspect(file), abort.signal).catch(inWords);
      patch({ doing: 'decoding', share: 0.1 });
      const decoding = this.worker.run((remote) => remote.decode(file, role), abort.signal).catch(inWords);
      // What cannot be decoded is not sent to its end.
      const damaged = new AbortController();
      decoding.then(
        () => patch({ doing: 'sending' }),
        () => damaged.abort(),
      );
      const kept = { name: file.name.slice(0, LONGEST_NAME), type, sha256 };
      const sending = this.api.send(file, kept, {
        progress: (share) => patch({ share: 0.1 + share * 0.9 }),
        signal: AbortSignal.any([abort.signal, damaged.signal]),
        before: decoding,
      });
      // Where both fail, the image is at fault.
      sending.catch(() => undefined);
      const chain = await decoding;
      await sending;
      void this.decoded.keep(`${sha256} ${role}`, Promise.resolve(chain));
      this.know(sha256, chain);
      const name = file.name.replace(/\.[^.]+$/, '').slice(0, LONGEST_NAME);
      const read = roleOf(file.name, chain.facts);
      return { name, asset: sha256, width, height, role: read, ...wrapsOf(chain.facts.seams), filter: 'smooth', uvSet: 0 };
    } catch (error) {
      if (abort.signal.aborted) return undefined;
      throw error;
    } finally {
      this.jobs.update((jobs) => jobs.filter((job) => job.id !== id));
    }
  }

  /**
   * Takes six files as one cube image, told apart by their names.
   *
   * @throws Error with words for the user; nothing when it was cancelled
   */
  async takeCube(files: readonly File[]): Promise<MaterialImage | undefined> {
    const order = facesByName(files.map(({ name }) => name));
    if (!order)
      throw new Error(
        `These ${files.length} files were not imported. A cube image is six images whose names end in px, nx, py, ny, pz, nz, or in right, left, top, bottom, front, back.`,
      );
    const taken: MaterialImage[] = [];
    for (const index of order) {
      const file = files[index];
      const image = file && (await this.take(file));
      if (!image) return undefined;
      taken.push(image);
    }
    const [first] = taken;
    const odd = taken.find(({ width, height }) => width !== height || width !== first?.width);
    if (!first || odd)
      throw new Error(`“${odd?.name}” is ${odd?.width} × ${odd?.height}: the six images of a cube are squares of one size.`);
    return {
      ...first,
      name: first.name.replace(/[-_ .+]*[a-z0-9+-]+$/i, '') || 'Cube',
      faces: taken.map(({ asset }) => asset),
      wrapX: 'clamp',
      wrapY: 'clamp',
    };
  }

  /** The pixels of an image, for the Stage. @throws ApiFailure, or Error for a file that cannot be decoded */
  async load({ asset, faces, role }: Pick<MaterialImage, 'asset' | 'faces' | 'role'>): Promise<DecodedImage | CubeChain> {
    if (!faces) return this.decode(asset, role);
    return cubeChain(await Promise.all(faces.map((face) => this.decode(face, role))));
  }

  private decode(asset: string, role: MaterialImage['role']): Promise<DecodedImage> {
    return this.decoded.get(`${asset} ${role}`, async () => {
      const bytes = await this.api.bytes(asset);
      const file = new Blob([bytes]);
      const decoded = await this.worker.run((remote) => remote.decode(file, role));
      this.know(asset, decoded);
      return decoded;
    });
  }

  /** What is known of the pixels of an image of the workspace, which are read for that. @throws ApiFailure, or Error for a file that cannot be decoded */
  async factsOf(asset: string): Promise<ImageFacts | undefined> {
    if (!this.facts().has(asset)) await this.decode(asset, 'data');
    return this.facts().get(asset);
  }

  /** The images in a zip archive, and the names of what else was in it. @throws Error with words for the user */
  async unpack(archive: File): Promise<{ readonly files: readonly File[]; readonly left: readonly string[] }> {
    try {
      const bytes = await archive.arrayBuffer();
      const { files, left } = await this.worker.run((remote) => remote.unpack(bytes));
      return { files: files.map(({ name, bytes }) => new File([bytes], name.split('/').at(-1) ?? name)), left };
    } catch (error) {
      throw new Error(`“${archive.name}” was not imported. ${error instanceof Error ? error.message : String(error)}`);
    }
  }

  private know(asset: string, { facts }: DecodedImage): void {
    if (!this.facts().has(asset)) this.facts.update((known) => new Map(known).set(asset, facts));
  }

  ngOnDestroy(): void {
    this.worker.close();
  }
}
