import { wrap, type Remote } from 'comlink';

/**
 * A worker that decodes files, made when it is first needed. What it does can not be interrupted, but it can be ended: the
 * next work gets a fresh one.
 */
export class DecodingWorker<T> {
  private running?: { readonly thread: Worker; readonly remote: Remote<T> };

  constructor(private readonly make: () => Worker) {}

  get remote(): Remote<T> {
    if (!this.running) {
      const thread = this.make();
      this.running = { thread, remote: wrap<T>(thread) };
    }
    return this.running.remote;
  }

  /** Does something until it is cancelled, which ends the worker. */
  until<R>(signal: AbortSignal, work: (remote: Remote<T>) => Promise<R>): Promise<R> {
    const cancelled = new Promise<never>((_, reject) =>
      signal.addEventListener('abort', () => {
        this.end();
        reject(new DOMException('cancelled', 'AbortError'));
      }),
    );
    return Promise.race([work(this.remote), cancelled]);
  }

  end(): void {
    this.running?.thread.terminate();
    this.running = undefined;
  }
}

/** The last few things that were asked for, by a key; what fails is forgotten. */
export class FewPromises<V> {
  private readonly kept = new Map<string, Promise<V>>();

  constructor(private readonly most: number) {}

  get(key: string, make: () => Promise<V>): Promise<V> {
    return this.kept.get(key) ?? this.keep(key, make());
  }

  keep(key: string, promise: Promise<V>): Promise<V> {
    this.kept.set(key, promise);
    promise.catch(() => this.kept.delete(key));
    const [oldest] = this.kept.keys();
    if (this.kept.size > this.most && oldest !== undefined) this.kept.delete(oldest);
    return promise;
  }
}
