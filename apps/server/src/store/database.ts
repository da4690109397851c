import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import pg from 'pg';
import { MIGRATIONS } from '../folders';
import * as schema from './schema';

/** Drizzle's, with the driver below for what it has no word for. */
export type Database = NodePgDatabase<typeof schema> & { readonly $client: Pick<pg.Pool, 'query'> };

export interface DatabaseConnection {
  readonly database: Database;
  /** How its connections stand: open ones, idle ones among them, and queries that wait for one. */
  pool(): { readonly open: number; readonly idle: number; readonly waiting: number };
  close(): Promise<void>;
}

/** Milliseconds that a query waits for a free connection before its request is told to come again. */
const LONGEST_WAIT = 10_000;
/** Any number, the same for all servers: who holds it changes the tables. */
const MIGRATION_LOCK = 4_310_001;

/** A pool of connections. It outlives an absence of PostgreSQL: queries fail meanwhile, and work again after. */
export function connect(url: string, onLost: (error: Error) => void, connections = 20): DatabaseConnection {
  const pool = new pg.Pool({ connectionString: url, max: connections, connectionTimeoutMillis: LONGEST_WAIT });
  pool.on('error', onLost);
  // A connection in use that breaks fails its query, which is answered; without a listener it would end the process too.
  pool.on('connect', (client) => client.on('error', onLost));
  return {
    database: drizzle(pool, { schema }),
    pool: () => ({ open: pool.totalCount, idle: pool.idleCount, waiting: pool.waitingCount }),
    close: () => pool.end(),
  };
}

/**
 * Brings the tables up to date, and puts in what a new database begins with. Servers that start at once take turns.
 *
 * @throws NewerDatabase
 */
export async function prepareDatabase(url: string, seed: (database: Database) => Promise<void> = async () => undefined): Promise<void> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    await client.query('select pg_advisory_lock($1)', [MIGRATION_LOCK]);
    await refuseNewer(client);
    const database = drizzle(client, { schema });
    await migrate(database, { migrationsFolder: MIGRATIONS });
    await seed(database);
  } finally {
    // Ending the connection gives the lock back.
    await client.end();
  }
}

/** The database was changed by a newer version, which this one does not know. */
export class NewerDatabase extends Error {
  constructor() {
    super('This database was made by a newer Brelvin. Start that one, or take back a backup from before it was first started.');
  }
}

/** @throws NewerDatabase */
async function refuseNewer(client: pg.Client): Promise<void> {
  const { rows } = await client.query<{ made: boolean }>(`select to_regclass('drizzle.__drizzle_migrations') is not null as made`);
  if (!rows[0]?.made) return;
  const last = await client.query<{ at: string | null }>('select max(created_at) as at from drizzle.__drizzle_migrations');
  const known = JSON.parse(await readFile(join(MIGRATIONS, 'meta', '_journal.json'), 'utf8')) as { entries: { when: number }[] };
  if (Number(last.rows[0]?.at ?? 0) > Math.max(...known.entries.map((each) => each.when))) throw new NewerDatabase();
}

/** SQLSTATE classes 08 (connection) and 57P (shutdown, crash, start-up), and what sockets say. */
export function isDatabaseAway(error: unknown): boolean {
  for (let at: unknown = error; at instanceof Error; at = at.cause) {
    const code = (at as { code?: unknown }).code;
    if (typeof code === 'string' && /^(08|57P|ECONN|EPIPE|ENOENT)/.test(code)) return true;
    if (/Connection terminated|Client has encountered a connection error/.test(at.message)) return true;
    if (at instanceof AggregateError && at.errors.some(isDatabaseAway)) return true;
  }
  return false;
}

/** All connections were in use for too long. SQLSTATE 53300 is PostgreSQL's own word for too many. */
export function isDatabaseBusy(error: unknown): boolean {
  for (let at: unknown = error; at instanceof Error; at = at.cause)
    if ((at as { code?: unknown }).code === '53300' || /timeout exceeded when trying to connect/.test(at.message)) return true;
  return false;
}
