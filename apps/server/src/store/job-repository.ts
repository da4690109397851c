import { randomUUID } from 'node:crypto';
import type { Job, RenderWish } from '@brelvin/contract';
import { and, desc, eq, inArray, notInArray, sql } from 'drizzle-orm';
import type { Database } from './database';
import { JobMissing } from './failures';
import { tell } from './news';
import { jobs } from './schema';

type Row = typeof jobs.$inferSelect;

/** Workers that may begin a job before it is given up: one that ends three of them is at fault itself. */
export const MOST_ATTEMPTS = 3;

/** A job that a worker has begun. */
export interface BegunJob {
  readonly id: string;
  readonly wish: RenderWish;
}

/** Jobs, what was asked, and how far they are. */
export class JobRepository {
  constructor(private readonly database: Database) {}

  async create(title: string, wish: RenderWish): Promise<Job> {
    const [row] = await this.database.insert(jobs).values({ id: randomUUID(), kind: 'render', title, wish }).returning();
    if (!row) throw new ReferenceError('a job that was put in comes back');
    return toldJob(row);
  }

  /** @throws JobMissing */
  async read(id: string): Promise<Job> {
    const [row] = await this.database.select().from(jobs).where(eq(jobs.id, id));
    if (!row) throw new JobMissing(id);
    return toldJob(row);
  }

  /** The newest first. */
  async list(limit: number): Promise<Job[]> {
    const rows = await this.database.select().from(jobs).orderBy(desc(jobs.createdAt), jobs.id).limit(limit);
    return rows.map(toldJob);
  }

  /** Gives up a job that is not done yet; others stay as they are. @throws JobMissing */
  async cancel(id: string): Promise<Job> {
    await this.change(id, ['waiting', 'running'], { state: 'cancelled', worker: null });
    return this.read(id);
  }

  /** Takes a job on; nothing where it was cancelled, or another worker has it. */
  async begin(id: string, worker: number): Promise<BegunJob | undefined> {
    const row = await this.change(id, ['waiting'], { state: 'running', worker, progress: 0, attempts: sql`${jobs.attempts} + 1` });
    return row && { id, wish: row.wish };
  }

  /** @param progress 0…1 */
  async advance(id: string, progress: number): Promise<void> {
    await this.change(id, ['running'], { progress });
  }

  /** @param lacks what the result was made without */
  async finish(id: string, asset: string, lacks: string | undefined): Promise<void> {
    await this.change(id, ['running'], { state: 'done', progress: 1, asset, message: lacks ?? null, worker: null });
  }

  async fail(id: string, message: string): Promise<void> {
    await this.change(id, ['running'], { state: 'failed', message: message.slice(0, 2000), worker: null });
  }

  /** Who did it has ended before it was done. @returns whether somebody else may do it; otherwise it has failed */
  async giveBack(id: string, message: string): Promise<boolean> {
    const [row] = await this.database.select().from(jobs).where(eq(jobs.id, id));
    if (row?.state !== 'running') return false;
    if (row.attempts >= MOST_ATTEMPTS) {
      await this.fail(id, `${message} It was tried ${row.attempts} times.`);
      return false;
    }
    return (await this.change(id, ['running'], { state: 'waiting', progress: 0, worker: null })) !== undefined;
  }

  /** Jobs that were begun by none of these workers, and not ended. */
  async orphans(workers: readonly number[]): Promise<string[]> {
    const rows = await this.database
      .select({ id: jobs.id })
      .from(jobs)
      .where(and(eq(jobs.state, 'running'), workers.length > 0 ? notInArray(jobs.worker, [...workers]) : undefined));
    return rows.map(({ id }) => id);
  }

  private async change(id: string, from: readonly Row['state'][], set: object): Promise<Row | undefined> {
    const [row] = await this.database
      .update(jobs)
      .set({ ...set, updatedAt: new Date() })
      .where(and(eq(jobs.id, id), inArray(jobs.state, [...from])))
      .returning();
    if (row) await tell(this.database, { job: id, state: row.state, progress: row.progress });
    return row;
  }
}

function toldJob({ id, kind, state, progress, message, asset, title, attempts, createdAt, updatedAt }: Row): Job {
  return {
    ...{ id, kind, state, progress, title, attempts },
    ...(message === null ? {} : { message }),
    ...(asset === null ? {} : { asset }),
    createdAt: createdAt.toISOString(),
    updatedAt: updatedAt.toISOString(),
  };
}
