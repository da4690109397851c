import { randomUUID } from 'node:crypto';
import pg from 'pg';

/** Makes an empty database on the cluster that `TEST_DATABASE_URL` names, and gives its address. */
export async function freshDatabase(): Promise<string> {
  const base = process.env['TEST_DATABASE_URL'];
  if (!base) throw new Error('TEST_DATABASE_URL is not set; run the tests with "npm test"');
  // Numbers of processes come again while the cluster runs.
  const name = `test_${randomUUID().replaceAll('-', '')}`;
  const client = new pg.Client({ connectionString: base });
  await client.connect();
  await client.query(`create database ${name}`);
  await client.end();
  const url = new URL(base);
  url.pathname = `/${name}`;
  return url.href;
}
