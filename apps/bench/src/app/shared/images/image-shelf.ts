import { inject, Injectable, signal, type OnDestroy } from '@angular/core';
import { LARGEST_FILE, LONGEST_NAME, type MaterialImage, type MipChain } from '@brelvin/core';
import { wrap, type Remote } from 'comlink';
import { AssetApi } from '../api/asset-api';
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

const MOST_DECODED = 12;
const DATA_WORDS = /(^|[^a-z])(normal|nrm|rough|metal|height|bump|disp|ao|occlusion|mask|gloss|orm|rma|opacity|alpha)/i;

/** Images of the workspace: taken in from files, and decoded for the Stage. */
@Injectable({ providedIn: 'root' })
export class ImageShelf implements OnDestroy {
  private readonly api = inject(AssetApi);
  private worker?: { readonly thread: Worker; readonly remote: Remote<RemoteDecoder> };
  private readonly decoded = new Map<string, Promise<MipChain>>();
  private nextId = 0;

  /** What is under way. */
  readonly jobs = signal<readonly ImageJob[]>([]);

  /**
   * Takes a file into the workspace: it is decoded once, so that nothing damaged gets in, then sent.
   *
   * @throws Error with words for the user; nothing when it was cancelled
   */
  async take(file: File): Promise<MaterialImage | undefined> {
    const words = (reason: string): Error => new Error(`“${file.name}” was not taken. ${reason}`);
    if (file.size > LARGEST_FILE)
      throw words(`It has ${Math.round(file.size / 1024 / 1024)} MiB; at most ${LARGEST_FILE / 1024 / 1024} are taken.`);
    if (file.size === 0) throw words('It is empty.');
    const abort = new AbortController();
    const id = this.nextId++;
    this.jobs.update((jobs) => [...jobs, { id, name: file.name, doing: 'reading', share: 0, cancel: () => abort.abort() }]);
    const patch = (change: Partial<ImageJob>): void =>
      this.jobs.update((jobs) => jobs.map((job) => (job.id === id ? { ...job, ...change } : job)));
    try {
      const bytes = await file.arrayBuffer();
      patch({ doing: 'decoding', share: 0.1 });
      const role = DATA_WORDS.test(file.name) ? 'data' : 'colour';
      const { width, height, type, chain } = await this.check(bytes, role, abort.signal).catch((error: unknown) => {
        throw abort.signal.aborted ? error : words(error instanceof Error ? error.message : String(error));
      });
      patch({ doing: 'sending', share: 0.4 });
      const { sha256 } = await this.api.send(
        file,
        file.name.slice(0, LONGEST_NAME),
        type,
        (share) => patch({ share: 0.4 + share * 0.6 }),
        abort.signal,
      );
      this.remember(`${sha256} ${role}`, Promise.resolve(chain));
      const name = file.name.replace(/\.[^.]+$/, '').slice(0, LONGEST_NAME);
      return { name, asset: sha256, width, height, role, wrapX: 'repeat', wrapY: 'repeat', filter: 'smooth', uvSet: 0 };
    } catch (error) {
      if (abort.signal.aborted) return undefined;
      throw error;
    } finally {
      this.jobs.update((jobs) => jobs.filter((job) => job.id !== id));
    }
  }

  /** The pixels of an image, for the Stage. @throws ApiFailure, or Error for a file that can not be decoded */
  load({ asset, role }: Pick<MaterialImage, 'asset' | 'role'>): Promise<MipChain> {
    const key = `${asset} ${role}`;
    const known = this.decoded.get(key);
    if (known) return known;
    const loading = this.api.bytes(asset).then((bytes) => this.remote().decode(bytes, role));
    this.remember(key, loading);
    loading.catch(() => this.decoded.delete(key));
    return loading;
  }

  ngOnDestroy(): void {
    this.worker?.thread.terminate();
  }

  private async check(
    bytes: ArrayBuffer,
    role: 'colour' | 'data',
    signal: AbortSignal,
  ): Promise<{ width: number; height: number; type: string; chain: MipChain }> {
    const cancelled = new Promise<never>((_, reject) =>
      signal.addEventListener('abort', () => {
        // Decoding can not be interrupted, but its worker can be ended.
        this.worker?.thread.terminate();
        this.worker = undefined;
        reject(new DOMException('cancelled', 'AbortError'));
      }),
    );
    const remote = this.remote();
    const head = await Promise.race([remote.inspect(bytes), cancelled]);
    return { ...head, chain: await Promise.race([remote.decode(bytes, role), cancelled]) };
  }

  private remote(): Remote<RemoteDecoder> {
    if (!this.worker) {
      const thread = new Worker(new URL('./image.worker', import.meta.url), { type: 'module' });
      this.worker = { thread, remote: wrap<RemoteDecoder>(thread) };
    }
    return this.worker.remote;
  }

  private remember(key: string, chain: Promise<MipChain>): void {
    this.decoded.set(key, chain);
    const [oldest] = this.decoded.keys();
    if (this.decoded.size > MOST_DECODED && oldest !== undefined) this.decoded.delete(oldest);
  }
}
