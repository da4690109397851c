import pg from 'pg';

let made = 0;

/** Makes an empty database on the cluster that `TEST_DATABASE_URL` names, and gives its address. */
export async function freshDatabase(): Promise<string> {
  const base = process.env['TEST_DATABASE_URL'];
  if (!base) throw new Error('TEST_DATABASE_URL is not set; run the tests with "npm test"');
  const name = `test_${process.pid}_${++made}`;
  const client = new pg.Client({ connectionString: base });
  await client.connect();
  await client.query(`create database ${name}`);
  await client.end();
  const url = new URL(base);
  url.pathname = `/${name}`;
  return url.href;
}
