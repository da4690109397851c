import { inject, Injectable, signal, type OnDestroy } from '@angular/core';
import { ENVIRONMENT_TYPES, IMAGE_TYPES, LARGEST_FILE, LONGEST_NAME, type RigEnvironment } from '@brelvin/contract';
import { facesByName, toldHarmonics, type EnvironmentPixels } from '@brelvin/core';
import { AsyncCache, endingOf } from '@brelvin/io';
import { proxy } from 'comlink';
import { AssetApi } from '../api/asset-api';
import { DecodingWorker } from '../decoding/decoding-worker';
import type { RemoteEnvironments } from './environment.worker';
import type { ImageJob } from './image-shelf';

/** An environment that was taken in, and what was done to it on its way. */
export interface TakenEnvironment extends Pick<RigEnvironment, 'name' | 'assets' | 'light'> {
  readonly words: readonly string[];
}

const MOST_DECODED = 4;
const MEBIBYTE = 1024 * 1024;
const TYPES: Readonly<Record<string, string>> = { ...IMAGE_TYPES, ...ENVIRONMENT_TYPES };

/** Environments of the workspace: taken in from files, and decoded for the Stage. */
@Injectable({ providedIn: 'root' })
export class EnvironmentShelf implements OnDestroy {
  private readonly api = inject(AssetApi);
  private readonly worker = new DecodingWorker<RemoteEnvironments>(
    () => new Worker(new URL('./environment.worker', import.meta.url), { type: 'module' }),
  );
  private readonly decoded = new AsyncCache<EnvironmentPixels>(MOST_DECODED);
  private nextId = 0;

  /** What is under way. */
  readonly job = signal<ImageJob | undefined>(undefined);
  /** The last environment that could not be had, and why. */
  readonly failed = signal<{ readonly assets: readonly string[]; readonly words: string } | undefined>(undefined);

  /** Whether files look like an environment: one picture beyond white, or the six sides of a cube. */
  static fits(files: readonly File[]): boolean {
    const beyond = files.length === 1 && /\.(hdr|pic|exr)$/i.test(files[0]?.name ?? '');
    return beyond || facesByName(files.map(({ name }) => name)) !== undefined;
  }

  /**
   * Takes a panorama, or six images, into the workspace: decoded once, so that nothing damaged gets in, then sent.
   *
   * @throws Error with words for the user; nothing when it was cancelled
   */
  async take(chosen: readonly File[]): Promise<TakenEnvironment | undefined> {
    const [first] = chosen;
    if (!first) return undefined;
    const files = inOrder(chosen);
    const name = files.length === 1 ? first.name.replace(/\.[^.]+$/, '') : commonName(files);
    const words = (reason: string): Error => new Error(`“${name}” was not imported. ${reason}`);
    for (const { name: each, size } of files) {
      if (size > LARGEST_FILE) throw words(`${each} has ${Math.round(size / MEBIBYTE)} MiB; at most ${LARGEST_FILE / MEBIBYTE} are taken.`);
      if (size === 0) throw words(`${each} is empty.`);
    }
    const abort = new AbortController();
    const patch = (doing: ImageJob['doing'], share: number): void =>
      this.job.set({ id: this.nextId, name, doing, share, cancel: () => abort.abort() });
    this.nextId++;
    patch('reading', 0);
    try {
      const read = await Promise.all(files.map(async (file) => ({ file, name: file.name, bytes: await file.arrayBuffer() })));
      patch('decoding', 0.05);
      const plain = read.map(({ name: each, bytes }) => ({ name: each, bytes }));
      const onShare = proxy((share: number) => patch('decoding', 0.05 + share * 0.5));
      const pixels = await this.worker
        .run((remote) => remote.decode(plain, onShare), abort.signal)
        .catch((error: unknown) => {
          throw abort.signal.aborted ? error : words(error instanceof Error ? error.message : String(error));
        });
      const assets: string[] = [];
      for (const [index, { file, bytes }] of read.entries()) {
        const type = Object.entries(TYPES).find(([, ending]) => ending === endingOf(new Uint8Array(bytes)))?.[0] ?? 'image/jpeg';
        const share = (part: number): void => patch('sending', 0.55 + ((index + part) / files.length) * 0.45);
        assets.push(
          (await this.api.send(file, { name: file.name.slice(0, LONGEST_NAME), type }, { progress: share, signal: abort.signal })).sha256,
        );
      }
      void this.decoded.keep(assets.join(' '), Promise.resolve(pixels));
      return { name: name.slice(0, LONGEST_NAME) || 'Environment', assets, light: toldHarmonics(pixels.harmonics), words: pixels.words };
    } catch (error) {
      if (abort.signal.aborted) return undefined;
      throw error;
    } finally {
      this.job.set(undefined);
    }
  }

  /** The pixels of an environment, for the Stage. @throws ApiFailure, or Error for files that cannot be decoded */
  load(assets: readonly string[]): Promise<EnvironmentPixels> {
    const loading = this.decoded.get(assets.join(' '), async () => {
      const all = await Promise.all(assets.map((asset) => this.api.bytes(asset)));
      const files = all.map((bytes, index) => ({ name: `image ${index + 1}`, bytes }));
      return this.worker.run((remote) =>
        remote.decode(
          files,
          proxy(() => undefined),
        ),
      );
    });
    loading.then(
      () => this.failed.update((failed) => (failed?.assets.join() === assets.join() ? undefined : failed)),
      (error: unknown) => this.failed.set({ assets, words: error instanceof Error ? error.message : String(error) }),
    );
    return loading;
  }

  ngOnDestroy(): void {
    this.worker.close();
  }
}

/** @throws Error where several files are no cube */
function inOrder(files: readonly File[]): readonly File[] {
  if (files.length === 1) return files;
  const order = facesByName(files.map(({ name }) => name));
  if (!order)
    throw new Error(
      files.length === 6
        ? 'These six images were not imported. Their names do not say which side each is: end them in px, nx, py, ny, pz, nz, or in right, left, top, bottom, front, back.'
        : `${files.length} files were not imported. An environment is one panorama, or six images of a cube.`,
    );
  return order.flatMap((index) => files[index] ?? []);
}

/** What the names of six files begin with alike. */
function commonName(files: readonly File[]): string {
  const names = files.map(({ name }) => name);
  let length = 0;
  while (names.every((name) => name.charAt(length) !== '' && name.charAt(length) === names[0]?.charAt(length))) length++;
  return (names[0] ?? '').slice(0, length).replace(/[-_ .+]+$/, '') || 'Cube';
}
