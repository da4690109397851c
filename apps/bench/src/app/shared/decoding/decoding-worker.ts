import { wrap, type Remote } from 'comlink';

interface Running<T> {
  readonly thread: Worker;
  readonly remote: Remote<T>;
  readonly ended: Promise<typeof ENDED>;
  readonly end: () => void;
}

const ENDED = Symbol('ended');

/**
 * A worker that decodes files, made when it is first needed. What it does cannot be interrupted, but it can be ended: what
 * else it was at begins again in a fresh one.
 */
export class DecodingWorker<T> {
  private running?: Running<T>;
  private closed = false;

  constructor(private readonly make: () => Worker) {}

  /**
   * Does something until it is cancelled, which ends the worker. It may be begun more than once.
   *
   * @throws DOMException named AbortError when it was cancelled, or the shelf closed
   */
  async run<R>(work: (remote: Remote<T>) => Promise<R>, signal?: AbortSignal): Promise<R> {
    for (;;) {
      if (this.closed || signal?.aborted) throw new DOMException('cancelled', 'AbortError');
      const { remote, ended, end } = (this.running ??= this.start());
      signal?.addEventListener('abort', end);
      try {
        const result = await Promise.race([work(remote), ended]);
        if (result !== ENDED) return result;
      } finally {
        signal?.removeEventListener('abort', end);
      }
    }
  }

  /** Ends what is under way, and does nothing more. */
  close(): void {
    this.closed = true;
    this.running?.end();
  }

  private start(): Running<T> {
    const thread = this.make();
    let tell: (ended: typeof ENDED) => void = () => undefined;
    const ended = new Promise<typeof ENDED>((resolve) => (tell = resolve));
    const end = (): void => {
      thread.terminate();
      this.running = undefined;
      tell(ENDED);
    };
    return { thread, remote: wrap<T>(thread), ended, end };
  }
}
