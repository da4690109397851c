import PgBoss from 'pg-boss';

const QUEUE = 'jobs';
/** Seconds between two looks into the queue. */
const LOOK_SECONDS = 0.5;
/** Seconds after which the queue itself gives a job up: longer than any is let run. */
const LONGEST_SECONDS = 6 * 3600;

/** Whose turn it is, in PostgreSQL. What a job is and how far it is stands in `JobRepository`. */
export class JobQueue {
  private started?: Promise<PgBoss>;

  /** @param onTrouble told when the database was away for a moment */
  constructor(
    private readonly url: string,
    private readonly onTrouble: (error: Error) => void = () => undefined,
  ) {}

  /** Puts a job at the end. */
  async send(job: string): Promise<void> {
    const boss = await this.open();
    await boss.send(QUEUE, { job }, { expireInSeconds: LONGEST_SECONDS, retryLimit: 0 });
  }

  /** Has jobs done, one at a time, as long as the queue is open. */
  async work(handle: (job: string) => Promise<void>): Promise<void> {
    const boss = await this.open();
    await boss.work<{ job: string }>(QUEUE, { pollingIntervalSeconds: LOOK_SECONDS, batchSize: 1 }, async (jobs) => {
      for (const { data } of jobs) await handle(data.job);
    });
  }

  async close(): Promise<void> {
    const boss = await this.started?.catch(() => undefined);
    await boss?.stop({ graceful: false, close: true, wait: true });
  }

  /** Its tables are made when it is first used. */
  private open(): Promise<PgBoss> {
    return (this.started ??= this.start().catch((error: unknown) => {
      // Whoever asks next tries again.
      this.started = undefined;
      throw error;
    }));
  }

  private async start(): Promise<PgBoss> {
    const boss = new PgBoss({ connectionString: this.url, max: 3 });
    boss.on('error', this.onTrouble);
    await boss.start();
    await boss.createQueue(QUEUE);
    return boss;
  }
}
