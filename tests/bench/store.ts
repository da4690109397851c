import { newMaterial } from '@brelvin/core';
import pg from 'pg';
import { deflateSync } from 'node:zlib';
import { freshDatabase } from '../support/databases';
import { ServerProcess } from '../support/server-process';
import { quantile, spread, time } from './measure';
import type { Report } from './report';

const MATERIALS = 10_000;
const WORDS = ['Lantern', 'Float', 'Gauze', 'Kite', 'Jar', 'Brass', 'Seal', 'Hull', 'Silk', 'Chimney'];
/** Two letters that many names have, that few have, and that none has. */
const PAIRS = ['an', 'il', 'qz'];
const STEPS = 30_000;

/** Listing, searching and opening with ten thousand materials. */
export async function benchStore(report: Report): Promise<void> {
  const url = await freshDatabase();
  const server = await ServerProcess.startBuilt(url);
  try {
    await fill(url);
    const tasks: readonly (readonly [string, (turn: number) => string])[] = [
      ['list', (turn) => `/documents?kind=material&offset=${(turn * 60) % 9000}`],
      ['search', (turn) => `/documents?kind=material&search=${WORDS[turn % WORDS.length]}%20${turn}`],
      ['search for two letters', (turn) => `/documents?kind=material&search=${PAIRS[turn % PAIRS.length]}`],
      ['open', (turn) => `/documents/bulk${(turn * 37) % MATERIALS}`],
      ['open as of the first of 30,000 steps,', () => '/documents/bulk0/at/1'],
    ];
    for (const [name, path] of tasks) {
      const times: number[] = [];
      for (let turn = 0; turn < 120; turn++) times.push(await time(() => server.request('GET', path(turn))));
      const sorted = times.slice(20).sort((a, b) => a - b);
      const p95 = quantile(sorted, 0.95);
      report.bound(
        `${name} with 10,000 materials, 95th percentile, ms`,
        { median: p95, low: spread(sorted).median, high: quantile(sorted, 0.99) },
        50,
      );
    }
  } finally {
    await server.stop();
  }
}

async function fill(url: string): Promise<void> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  const content = deflateSync(JSON.stringify(newMaterial('Bulk')));
  await client.query(
    `insert into documents (id, kind, name, updated_at)
     select 'bulk' || n, 'material', ($1::text[])[1 + n % 10] || ' ' || n, now() - n * interval '1 minute' from generate_series(0, $2::int - 1) n`,
    [WORDS, MATERIALS],
  );
  await client.query(`insert into snapshots (document, step, content) select 'bulk' || n, 0, $1 from generate_series(0, $2::int - 1) n`, [
    content,
    MATERIALS,
  ]);
  await client.query(
    `insert into steps (document, step, transaction, label, changes)
     select 'bulk0', n, 's' || n, 'Move', $1 from generate_series(1, $2::int) n`,
    [JSON.stringify([{ path: ['surface', 'nodes', 'lambert', 'x'], value: 1 }]), STEPS],
  );
  await client.query(`update documents set step = $1 where id = 'bulk0'`, [STEPS]);
  await client.query('vacuum analyze');
  await client.query('checkpoint');
  await client.end();
}
