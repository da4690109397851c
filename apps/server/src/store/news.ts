import { type News } from '@brelvin/contract';
import { sql } from 'drizzle-orm';
import type { Database } from './database';

/** Where servers tell each other what happened. */
export const NEWS_CHANNEL = 'brelvin_steps';

/** Tells every server on this database; once the transaction is committed, where there is one. */
export async function tell(from: Pick<Database, 'execute'>, news: News): Promise<void> {
  await from.execute(sql`select pg_notify(${NEWS_CHANNEL}, ${JSON.stringify(news)})`);
}
