import { fileURLToPath } from 'node:url';
import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import pg from 'pg';
import * as schema from './schema';

export type Database = NodePgDatabase<typeof schema>;

export interface DatabaseConnection {
  readonly database: Database;
  close(): Promise<void>;
}

const MIGRATIONS = fileURLToPath(new URL('../../drizzle', import.meta.url));

/** A pool of connections. It outlives an absence of PostgreSQL: queries fail meanwhile, and work again after. */
export function connect(url: string, onLost: (error: Error) => void): DatabaseConnection {
  const pool = new pg.Pool({ connectionString: url, max: 10, connectionTimeoutMillis: 3000 });
  pool.on('error', onLost);
  // A connection in use that breaks fails its query, which is answered; without a listener it would end the process too.
  pool.on('connect', (client) => client.on('error', onLost));
  return { database: drizzle(pool, { schema }), close: () => pool.end() };
}

export async function migrateDatabase(database: Database): Promise<void> {
  await migrate(database, { migrationsFolder: MIGRATIONS });
}

/** SQLSTATE classes 08 (connection) and 57P (shutdown, crash, start-up), and what sockets say. */
export function isDatabaseAway(error: unknown): boolean {
  for (let at: unknown = error; at instanceof Error; at = at.cause) {
    const code = (at as { code?: unknown }).code;
    if (typeof code === 'string' && /^(08|57P|ECONN|EPIPE|ENOENT)/.test(code)) return true;
    if (/Connection terminated|timeout exceeded when trying to connect|Client has encountered a connection error/.test(at.message))
      return true;
    if (at instanceof AggregateError && at.errors.some(isDatabaseAway)) return true;
  }
  return false;
}
