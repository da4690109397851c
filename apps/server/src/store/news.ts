import { sql } from 'drizzle-orm';
import type { Database } from './database';

/** Where servers tell each other what happened. */
export const NEWS_CHANNEL = 'brelvin_steps';

/** What is told of a document: a new step, a name for one, that it went or came back; of a file, that it came or changed. */
export type News = DocumentNews | { readonly asset: string };

export interface DocumentNews {
  readonly id: string;
  /** Its last step; 0 for a new one. */
  readonly step?: number;
  readonly named?: string;
  readonly deleted?: boolean;
  readonly restored?: boolean;
}

/** Tells every server on this database; once the transaction is committed, where there is one. */
export async function tell(from: Pick<Database, 'execute'>, news: News): Promise<void> {
  await from.execute(sql`select pg_notify(${NEWS_CHANNEL}, ${JSON.stringify(news)})`);
}
