import pg from 'pg';
import { newRig } from '@brelvin/core';
import { freshDatabase } from './databases';
import { ServerProcess } from './server-process';

/** A rig without shadows, occlusion or environment, for specs of what is not light: it draws in half the time. */
export const PLAIN_RIG = 'rig-plain-day';

const TEMPLATE = 'seeded';
/** Whoever holds it fills the template. */
const FILLING = 1;

/**
 * A database with the demo in it: the server fills one when the first process asks, and every other is a copy of that one.
 * Drawing the demo's images takes half a minute, a copy does not. Its materials have the pictures that come with the demo, so
 * that a look at the Library draws none, but for that of `undrawn`.
 */
export async function seededDatabase({ undrawn }: { undrawn?: string } = {}): Promise<string> {
  const base = new pg.Client({ connectionString: process.env['TEST_DATABASE_URL'] });
  await base.connect();
  try {
    await base.query(`select pg_advisory_lock(${FILLING})`);
    const { rowCount } = await base.query(`select 1 from pg_database where datname = '${TEMPLATE}'`);
    if (rowCount === 0) await base.query(`alter database ${nameOf(await filled())} rename to ${TEMPLATE}`);
    await base.query(`select pg_advisory_unlock(${FILLING})`);
    const url = await freshDatabase();
    await base.query(`drop database ${nameOf(url)}`);
    await base.query(`create database ${nameOf(url)} template ${TEMPLATE}`);
    if (undrawn) await within(url, (client) => client.query('delete from thumbnails where document = $1', [undrawn]));
    return url;
  } finally {
    await base.end();
  }
}

const nameOf = (url: string): string => new URL(url).pathname.slice(1);

async function within(url: string, work: (client: pg.Client) => Promise<unknown>): Promise<void> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  await work(client).finally(() => client.end());
}

async function filled(): Promise<string> {
  const url = await freshDatabase();
  const server = await ServerProcess.start(url);
  await server.request('POST', '/documents', { id: PLAIN_RIG, document: newRig('Plain day') });
  await server.stop();
  return url;
}
