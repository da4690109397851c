import { createHash } from 'node:crypto';
import { CHUNK_BYTES } from '@brelvin/contract';
import type { Database } from '../store/database';
import { AssetRepository } from '../store/asset-repository';
import { DocumentRepository } from '../store/document-repository';
import { JobRepository, type BegunJob } from '../store/job-repository';
import { StepListener } from '../store/step-listener';
import { UploadRepository } from '../store/upload-repository';
import { WorkerRoll } from '../store/worker-roll';
import { JobQueue } from './job-queue';
import { LibraryPictures } from './library-pictures';
import type { ChildLimits } from './limited-child';
import { renderJob } from './render-job';

/** Who sends the results. */
const SENDER = 'worker';
/** Seconds that a page has for drawing what it shows. */
const PICTURE_SECONDS = 60;
/** How often it is looked whether another worker has died. */
const SWEEP_MS = 2000;

export interface WorkerOptions {
  readonly database: Database;
  readonly databaseUrl: string;
  readonly name: string;
  readonly limits: ChildLimits;
  /** For so long a material without a picture is left to pages. */
  readonly pictureSeconds?: number;
  readonly log?: (words: string, job?: string) => void;
  /** The database does not know any more that this worker lives: it has to end. */
  readonly onLost: () => void;
}

/** Does jobs, one at a time, and puts those back whose worker has died. */
export class Worker {
  private readonly jobs: JobRepository;
  private readonly stores: { readonly documents: DocumentRepository; readonly assets: AssetRepository };
  private readonly uploads: UploadRepository;
  private readonly roll: WorkerRoll;
  private readonly queue: JobQueue;
  private readonly pictures: LibraryPictures;
  private readonly listener: StepListener;
  private readonly log: (words: string, job?: string) => void;
  private readonly stopping = new AbortController();
  private entry?: Awaited<ReturnType<WorkerRoll['enter']>>;
  private sweeps?: ReturnType<typeof setInterval>;
  /** A picture for the Library that it draws besides. */
  private picture?: Promise<void>;
  /** What it does at the moment. */
  private now?: { readonly id: string; readonly stop: AbortController; readonly ended: Promise<void> };

  constructor(private readonly options: WorkerOptions) {
    const { database, databaseUrl, log = () => undefined } = options;
    this.log = log;
    this.jobs = new JobRepository(database);
    const assets = new AssetRepository(database);
    this.stores = { documents: new DocumentRepository(database), assets };
    this.uploads = new UploadRepository(database, assets);
    this.roll = new WorkerRoll(database);
    this.pictures = new LibraryPictures(this.stores, options.limits, options.pictureSeconds ?? PICTURE_SECONDS, log);
    this.queue = new JobQueue(databaseUrl, (error) => log(error.message));
    this.listener = new StepListener(databaseUrl);
  }

  async start(): Promise<void> {
    this.listener.onNews = (news) => {
      if ('job' in news && news.state === 'cancelled' && news.job === this.now?.id) this.now.stop.abort();
    };
    // What was missed meanwhile may have been that.
    this.listener.onBack = () => void this.stopCancelled().catch(() => undefined);
    await this.listener.start();
    this.entry = await this.roll.enter(this.options.databaseUrl, this.options.name, this.options.onLost);
    this.sweeps = setInterval(() => void this.sweep().catch((error: Error) => this.log(error.message)), SWEEP_MS);
    await this.queue.work((id) => this.take(id));
  }

  /** Ends; what is under way goes back to the others. */
  async stop(): Promise<void> {
    this.stopping.abort();
    clearInterval(this.sweeps);
    this.now?.stop.abort();
    await Promise.all([this.now?.ended, this.picture]);
    await this.queue.close();
    await this.listener.stop();
    await this.entry?.leave();
  }

  private async take(id: string): Promise<void> {
    if (!this.entry || this.stopping.signal.aborted) return;
    const begun = await this.jobs.begin(id, this.entry.id);
    if (!begun) return;
    const stop = new AbortController();
    const ended = this.perform(begun, stop.signal);
    this.now = { id, stop, ended };
    try {
      await ended;
    } finally {
      this.now = undefined;
    }
  }

  private async perform({ id, wish }: BegunJob, stop: AbortSignal): Promise<void> {
    this.log('begun', id);
    try {
      const onProgress = (share: number): void => void this.jobs.advance(id, share).catch((error: Error) => this.log(error.message, id));
      const made = await renderJob(this.stores, wish, this.options.limits, { onProgress, stop });
      if (stop.aborted) {
        // Cancelled jobs stay so; one of a worker that ends goes back.
        await this.again(id, 'The worker was ended.');
        return;
      }
      if ('fault' in made) {
        if (made.again) await this.again(id, made.fault);
        else await this.jobs.fail(id, made.fault);
        return;
      }
      const { document } = await this.stores.documents.read(wish.document);
      await this.jobs.finish(id, await this.keep(made.png, `${document.name.slice(0, 110)}.png`), made.lacks);
      this.log('done', id);
    } catch (error) {
      this.log(error instanceof Error ? error.message : String(error), id);
      await this.jobs.fail(id, error instanceof Error ? error.message : String(error));
    }
  }

  /** Puts a file among those of the workspace. @returns its address */
  private async keep(file: Buffer, name: string): Promise<string> {
    const sha256 = createHash('sha256').update(file).digest('hex');
    for (const number of await this.uploads.announce(SENDER, { sha256, name, type: 'image/png', size: file.length }))
      await this.uploads.putChunk(SENDER, sha256, number, file.subarray(number * CHUNK_BYTES, (number + 1) * CHUNK_BYTES));
    await this.uploads.finish(SENDER, sha256);
    return sha256;
  }

  private async again(id: string, why: string): Promise<void> {
    if (await this.jobs.giveBack(id, why)) await this.queue.send(id);
  }

  /** Jobs of workers that are gone. */
  private async sweep(): Promise<void> {
    const living = await this.roll.living();
    for (const id of await this.jobs.orphans(living)) await this.again(id, 'The worker that did it has died.');
    await this.roll.tidy(living);
    // One of all workers draws them, so that none is drawn twice.
    if (Math.min(...living) === this.entry?.id && !this.now) this.drawPictures();
  }

  /** Draws what the Library lacks, as long as there is nothing else to do. */
  private drawPictures(): void {
    const { signal } = this.stopping;
    const drawAll = async (): Promise<void> => {
      while (!signal.aborted && !this.now && (await this.pictures.drawNext(signal)));
    };
    this.picture ??= drawAll()
      .catch((error: Error) => this.log(error.message))
      .finally(() => (this.picture = undefined));
  }

  private async stopCancelled(): Promise<void> {
    const { now } = this;
    if (now && (await this.jobs.read(now.id)).state === 'cancelled') now.stop.abort();
  }
}
