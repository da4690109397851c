import { sql } from 'drizzle-orm';
import type { Health } from '@brelvin/contract';
import type { FastifyInstance } from 'fastify';
import type { Database } from '../store/database';
import type { WorkerRoll } from '../store/worker-roll';
import { isRoomy, type Vitals } from '../vitals';
import { ANSWERS } from './describe';

export interface HealthOptions {
  readonly database: Database;
  readonly vitals: Vitals;
  readonly workers: WorkerRoll;
}

const NO_WORKER = 'Pictures for the Library come from pages, and jobs wait. Start a worker with: npm run worker';

/** Whether the server lives, and whether it can serve: the first says nothing of the database, the second asks it. */
export async function healthRoutes(app: FastifyInstance, { database, vitals, workers }: HealthOptions): Promise<void> {
  app.get(
    '/alive',
    { config: { rateLimit: false }, schema: { summary: 'Whether the server answers at all', response: ANSWERS.alive } },
    async () => ({ ok: true }),
  );

  app.get(
    '/health',
    { schema: { summary: 'Whether the server can serve: its database answers and has room; with numbers', response: ANSWERS.health } },
    async (_request, reply) => {
      const started = performance.now();
      const { rows } = await database.execute<{ bytes: string }>(sql`select pg_database_size(current_database()) as bytes`);
      const milliseconds = Math.round(performance.now() - started);
      const [disk, living] = await Promise.all([vitals.disk(), workers.living()]);
      const ok = isRoomy(disk);
      const answer: Health = {
        ok,
        ...(ok ? {} : { error: 'disk-full', message: 'The disk with the database is nearly full: what is saved next may not fit.' }),
        database: { milliseconds, bytes: Number(rows[0]?.bytes ?? 0) },
        connections: vitals.pool(),
        files: vitals.files(),
        disk: disk ?? null,
        workers: { drawing: living.length, ...(living.length === 0 ? { message: NO_WORKER } : {}) },
        memory: { bytes: process.memoryUsage().rss },
        seconds: Math.round(process.uptime()),
      };
      return reply.status(ok ? 200 : 503).send(answer);
    },
  );
}
