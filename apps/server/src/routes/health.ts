import { sql } from 'drizzle-orm';
import type { FastifyInstance } from 'fastify';
import type { Database } from '../store/database';

export async function healthRoutes(app: FastifyInstance, { database }: { database: Database }): Promise<void> {
  app.get('/health', { schema: { summary: 'Whether the server and its database answer' } }, async () => {
    await database.execute(sql`select 1`);
    return { ok: true };
  });
}
