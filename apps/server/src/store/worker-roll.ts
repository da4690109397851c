import { and, eq, notInArray, sql } from 'drizzle-orm';
import pg from 'pg';
import type { Database } from './database';
import { workers } from './schema';

/** Any number, the same for all workers: with their own it makes the lock that each holds. */
const WORKER_LOCK = 4_310_002;

/** Which workers there are. One that dies, however, gives its lock back by that: nobody has to wait until it says nothing. */
export class WorkerRoll {
  constructor(private readonly database: Database) {}

  /**
   * Puts a worker on the roll as long as its connection lives.
   *
   * @param onLost the connection broke: somebody else may do its jobs from now on
   */
  async enter(url: string, name: string, onLost: () => void): Promise<{ readonly id: number; leave(): Promise<void> }> {
    const [row] = await this.database.insert(workers).values({ name }).returning();
    if (!row) throw new ReferenceError('a worker that was put in comes back');
    const client = new pg.Client({ connectionString: url });
    let left = false;
    client.on('error', () => left || onLost());
    client.on('end', () => left || onLost());
    await client.connect();
    await client.query('select pg_advisory_lock($1, $2)', [WORKER_LOCK, row.id]);
    return {
      id: row.id,
      leave: async () => {
        left = true;
        await client.end().catch(() => undefined);
        await this.database.delete(workers).where(eq(workers.id, row.id));
      },
    };
  }

  async living(): Promise<number[]> {
    const { rows } = await this.database.execute<{ id: number }>(sql`
      select ${workers.id} as id from ${workers} where ${workers.id} in (
        select objid from pg_locks where locktype = 'advisory' and classid = ${WORKER_LOCK} and granted
          and database = (select oid from pg_database where datname = current_database()))`);
    return rows.map(({ id }) => id);
  }

  /** Takes those off the roll that are gone; who has entered a moment ago may not hold its lock yet. */
  async tidy(living: readonly number[]): Promise<void> {
    const others = living.length > 0 ? notInArray(workers.id, [...living]) : undefined;
    await this.database.delete(workers).where(and(others, sql`${workers.startedAt} < now() - interval '1 minute'`));
  }
}
