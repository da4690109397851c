import type { News } from '@brelvin/contract';
import pg from 'pg';
import { NEWS_CHANNEL } from './news';

const RETRY_MS = 2000;

/** Hears what happens in the database, by this server and others. Comes back by itself when the database was away. */
export class StepListener {
  onNews: (news: News) => void = () => undefined;
  onBack: () => void = () => undefined;
  private client?: pg.Client;
  private timer?: ReturnType<typeof setTimeout>;
  private stopped = false;
  private wasAway = false;

  constructor(private readonly url: string) {}

  async start(): Promise<void> {
    if (this.stopped) return;
    const client = new pg.Client({ connectionString: this.url, connectionTimeoutMillis: 3000 });
    this.client = client;
    client.on('error', () => this.lost(client));
    client.on('end', () => this.lost(client));
    client.on('notification', ({ payload }) => {
      if (payload) this.onNews(JSON.parse(payload) as News);
    });
    try {
      await client.connect();
      await client.query(`listen ${NEWS_CHANNEL}`);
      if (this.wasAway) this.onBack();
      this.wasAway = false;
    } catch {
      this.lost(client);
    }
  }

  async stop(): Promise<void> {
    this.stopped = true;
    clearTimeout(this.timer);
    const { client } = this;
    this.client = undefined;
    await client?.end().catch(() => undefined);
  }

  private lost(client: pg.Client): void {
    if (this.client !== client || this.stopped) return;
    this.client = undefined;
    this.wasAway = true;
    void client.end().catch(() => undefined);
    this.timer = setTimeout(() => void this.start(), RETRY_MS);
  }
}
