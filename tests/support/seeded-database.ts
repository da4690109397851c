import pg from 'pg';
import { PNG } from 'pngjs';
import { freshDatabase } from './databases';
import { ServerProcess } from './server-process';

let template: Promise<string> | undefined;

/**
 * A database with the demo in it: the server fills one when a process first asks, and every other is a copy of that one.
 * Drawing the demo's images takes seconds, a copy does not. Its materials have plain grey pictures, so that a look at the
 * Library draws none.
 */
export async function seededDatabase(): Promise<string> {
  template ??= filled();
  const from = new URL(await template);
  const url = new URL(await freshDatabase());
  const [name, source] = [url.pathname.slice(1), from.pathname.slice(1)];
  const client = new pg.Client({ connectionString: process.env['TEST_DATABASE_URL'] });
  await client.connect();
  await client.query(`drop database ${name}`);
  await client.query(`create database ${name} template ${source}`);
  await client.end();
  return url.href;
}

async function filled(): Promise<string> {
  const url = await freshDatabase();
  const server = await ServerProcess.start(url);
  await server.stop();
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  await client.query(`insert into thumbnails (document, step, png) select id, step, $1 from documents where kind = 'material'`, [grey()]);
  await client.end();
  return url;
}

function grey(): Buffer {
  const picture = new PNG({ width: 256, height: 256 });
  picture.data.fill(128);
  return PNG.sync.write(picture);
}
