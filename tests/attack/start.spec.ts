import { spawn, type ChildProcess } from 'node:child_process';
import { readdirSync, readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { newMaterial } from '@brelvin/core';
import { Cluster, clusterFolder, freePort } from '../../scripts/lib/postgres.mjs';

const ROOT = fileURLToPath(new URL('../../', import.meta.url));
const CLUSTER = 'attack-start-postgres';
const PATIENCE = 120_000;

/** `npm start` itself, on data of its own. */
class Started {
  said = '';
  readonly ended: Promise<number | null>;

  constructor(
    readonly child: ChildProcess,
    readonly port: number,
  ) {
    for (const stream of [child.stdout, child.stderr]) stream?.on('data', (data: Buffer) => (this.said += data.toString('utf8')));
    this.ended = new Promise((resolve) => child.once('exit', resolve));
  }

  static run(port: number): Started {
    const env = { ...process.env, CLUSTER, PORT: String(port), DATABASE_URL: '' };
    return new Started(spawn('npm', ['start'], { cwd: ROOT, env, stdio: ['ignore', 'pipe', 'pipe'] }), port);
  }

  async says(words: RegExp): Promise<void> {
    for (const end = Date.now() + PATIENCE; !words.test(this.said); await pause(100))
      if (Date.now() > end) throw new Error(`it never said ${words}, but: ${this.said}`);
  }

  async health(): Promise<number> {
    return fetch(`http://127.0.0.1:${this.port}/api/health`).then(
      ({ status }) => status,
      () => 0,
    );
  }

  async isWell(): Promise<void> {
    for (const end = Date.now() + PATIENCE; (await this.health()) !== 200; await pause(200))
      if (Date.now() > end) throw new Error(`it never was well again: ${this.said}`);
  }
}

const pause = (milliseconds: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, milliseconds));

/** The server that serves a port of ours. */
function serverOf(port: number): number {
  const found = readdirSync('/proc').filter((pid) => {
    try {
      return (
        /apps\/server\/dist\/main\.js/.test(readFileSync(`/proc/${pid}/cmdline`, 'utf8')) &&
        readFileSync(`/proc/${pid}/environ`, 'utf8').includes(`\0PORT=${port}\0`)
      );
    } catch {
      return false;
    }
  });
  expect(found.length).toBe(1);
  return Number(found[0]);
}

describe('npm start', () => {
  const cluster = new Cluster(clusterFolder(CLUSTER));
  let first: Started;

  beforeAll(async () => {
    first = Started.run(await freePort());
    await first.says(/Brelvin is ready/);
  });

  afterAll(async () => {
    first?.child.kill('SIGTERM');
    await first?.ended;
    cluster.remove();
  });

  it('says where it runs already when it is run again, and leaves that alone', async () => {
    const second = Started.run(await freePort());
    expect(await second.ended).not.toBe(0);
    expect(second.said).toMatch(new RegExp(`Brelvin runs here already \\(process \\d+\\): http://127\\.0\\.0\\.1:${first.port}\\.`));
    expect(await first.health()).toBe(200);
  });

  it('brings the server back when it is killed, and says so', async () => {
    process.kill(serverOf(first.port), 'SIGKILL');
    await first.says(/The server ended unexpectedly .* started again in 1 s/);
    await first.isWell();
  });

  it('brings PostgreSQL back when it is killed, and says so', async () => {
    process.kill(cluster.pid(), 'SIGKILL');
    await first.says(/PostgreSQL ended unexpectedly/);
    await first.isWell();
  });

  it('ends all that it started when it is told to end, after saves that are under way', async () => {
    const save = (id: string): Promise<number> =>
      fetch(`http://127.0.0.1:${first.port}/api/documents`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ id, document: newMaterial(id) }),
      }).then(({ status }) => status);
    const server = serverOf(first.port);
    const saves = Array.from({ length: 40 }, (_, index) => save(`kite${index}`));
    await Promise.any(saves);
    first.child.kill('SIGTERM');
    const codes = await Promise.all(saves.map((each) => each.catch(() => 0)));
    await first.ended;
    for (const end = Date.now() + PATIENCE; cluster.isRunning() && Date.now() < end;) await pause(100);
    expect(cluster.isRunning()).withContext('PostgreSQL').toBeFalse();
    expect(() => process.kill(server, 0))
      .withContext('the server')
      .toThrow();
    await cluster.start();
    const url = cluster.url;
    const { default: pg } = await import('pg');
    const client = new pg.Client({ connectionString: url });
    await client.connect();
    const { rows } = await client.query<{ id: string }>(`select id from documents where id like 'kite%'`);
    await client.end();
    const there = new Set(rows.map(({ id }) => id));
    expect(codes.flatMap((code, index) => (code === 201 && !there.has(`kite${index}`) ? [index] : []))).toEqual([]);
    expect(codes).toContain(201);
  });
});
