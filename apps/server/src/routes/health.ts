import { sql } from 'drizzle-orm';
import type { FastifyInstance } from 'fastify';
import type { Database } from '../store/database';
import { ANSWERS } from './describe';

export interface HealthOptions {
  readonly database: Database;
  /** Connections to the database: those that are open, those that are idle, and requests that wait for one. */
  readonly pool: () => { readonly open: number; readonly idle: number; readonly waiting: number };
}

/** Whether the server lives, and whether it can serve: the first says nothing of the database, the second asks it. */
export async function healthRoutes(app: FastifyInstance, { database, pool }: HealthOptions): Promise<void> {
  app.get(
    '/alive',
    { config: { rateLimit: false }, schema: { summary: 'Whether the server answers at all', response: ANSWERS.alive } },
    async () => ({ ok: true }),
  );

  app.get(
    '/health',
    { schema: { summary: 'Whether the server and its database answer, with numbers', response: ANSWERS.health } },
    async () => {
      const started = performance.now();
      const { rows } = await database.execute<{ bytes: string }>(sql`select pg_database_size(current_database()) as bytes`);
      return {
        ok: true,
        database: { milliseconds: Math.round(performance.now() - started), bytes: Number(rows[0]?.bytes ?? 0) },
        connections: pool(),
        memory: { bytes: process.memoryUsage().rss },
        seconds: Math.round(process.uptime()),
      };
    },
  );
}
