import { connect as open } from 'node:net';
import pg from 'pg';
import { newFunction, newMaterial } from '@brelvin/core';
import WebSocket from 'ws';
import { prepareDatabase } from '../../apps/server/src/store/database';
import { freshDatabase } from '../support/databases';
import { ServerProcess } from '../support/server-process';

describe('A crowd', () => {
  let url: string;
  let servers: ServerProcess[];

  beforeAll(async () => {
    url = await freshDatabase();
    // All at once, on an empty database.
    servers = await Promise.all([1, 2, 3].map(() => ServerProcess.start(url)));
  });

  afterAll(() => Promise.all(servers?.map((each) => each.stop()) ?? []));

  const server = (): ServerProcess => servers[0] as ServerProcess;

  it('of servers that start at once puts the demo in once', async () => {
    for (const each of servers) expect((await each.request('GET', '/health')).status).toBe(200);
    const { body } = await server().request('GET', '/documents?kind=material');
    const names = (body['documents'] as { name: string }[]).map((each) => each.name);
    expect(names.length).toBeGreaterThan(3);
    expect(new Set(names).size).toBe(names.length);
  });

  it('of 50 authors who save at once is served, none refused, none told that the database is away', async () => {
    const authors = Array.from({ length: 50 }, (_, index) => `author${index}`);
    const made = await Promise.all(authors.map((id) => server().request('POST', '/documents', { id, document: newMaterial(id) })));
    expect(made.every(({ status }) => status === 201)).toBeTrue();
    const save = async (id: string): Promise<number[]> => {
      const codes: number[] = [];
      for (let after = 0; after < 8; after++) {
        const steps = [{ id: `s${after}`, label: 'Name', changes: [{ path: ['name'], value: `${id} ${after}` }] }];
        codes.push((await server().request('POST', `/documents/${id}/steps`, { after, steps })).status);
      }
      return codes;
    };
    const codes = (await Promise.all(authors.map(save))).flat();
    expect(codes.filter((each) => each !== 200)).toEqual([]);
  });

  it('of 500 functions is read by one query', async () => {
    const text = (name: string): string => `float ${name}(float x) { return x; }`;
    for (let start = 0; start < 500; start += 25)
      await Promise.all(
        Array.from({ length: 25 }, async (_, index) => {
          const name = `wave${start + index}`;
          const { status } = await server().request('POST', '/documents', {
            id: name,
            document: { ...newFunction(name), text: text(name) },
          });
          expect(status).toBe(201);
        }),
      );
    // Another server has none of them in memory; twenty Benches are opened at once.
    const other = servers[1] as ServerProcess;
    const answers = await Promise.all(Array.from({ length: 20 }, () => other.request('GET', '/functions')));
    expect(answers.every(({ status, body }) => status === 200 && (body['functions'] as unknown[]).length >= 500)).toBeTrue();
  });

  it('with half-sent requests and silent connections does not keep others out', async () => {
    const sockets = Array.from({ length: 200 }, () => open(server().port, '127.0.0.1'));
    await Promise.all(sockets.map((socket) => new Promise((resolve) => socket.once('connect', resolve))));
    for (const socket of sockets)
      socket
        .on('error', () => undefined)
        .write('POST /api/documents HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: application/json\r\nContent-Length: 1000\r\n\r\n{');
    expect((await server().request('GET', '/documents?kind=set')).status).toBe(200);
    for (const socket of sockets) socket.destroy();
  });

  it('that never sends the rest of its requests is let go', async () => {
    const strict = await ServerProcess.start(url, 0, { REQUEST_SECONDS: '1' });
    const ends = [
      'POST /api/documents HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: application/json\r\nContent-Length: 1000\r\n\r\n{',
      'GET /api/al',
      '',
    ].map(
      (said) =>
        new Promise<void>((resolve) => {
          const socket = open(strict.port, '127.0.0.1', () => socket.write(said));
          socket.on('error', () => undefined).on('close', () => resolve());
          socket.resume();
        }),
    );
    await Promise.all(ends);
    expect((await strict.request('GET', '/alive')).status).toBe(200);
    await strict.stop();
  });

  it('of WebSockets from one address is bounded', async () => {
    const closed: number[] = [];
    const sockets = Array.from({ length: 70 }, () => new WebSocket(`ws://127.0.0.1:${server().port}/api/live`));
    for (const socket of sockets) socket.on('close', (code) => closed.push(code)).on('error', () => undefined);
    for (let turn = 0; turn < 100 && closed.length < 6; turn++) await new Promise((resolve) => setTimeout(resolve, 50));
    expect(closed).toEqual(Array.from({ length: 6 }, () => 1013));
    for (const socket of sockets) socket.terminate();
  });

  it('finds a name by two of its letters through an index', async () => {
    const client = new pg.Client({ connectionString: url });
    await client.connect();
    await client.query('set enable_seqscan = off');
    const { rows } = await client.query<{ 'QUERY PLAN': string }>(
      `explain select id from documents where sought @> brelvin_sought('rn', '{}')`,
    );
    expect(rows.map((row) => row['QUERY PLAN']).join('\n')).toContain('documents_sought');
    await client.end();
    const { body } = await server().request('GET', '/documents?kind=material&search=RN');
    const found = (body['documents'] as { name: string; tags: string[] }[]).map(({ name, tags }) =>
      [name, ...tags].join(' ').toLowerCase(),
    );
    expect(found.length).toBeGreaterThan(0);
    expect(found.filter((words) => !words.includes('rn'))).toEqual([]);
  });

  it('that runs an older Brelvin on a newer database is told so, and touches nothing', async () => {
    const newer = await freshDatabase();
    await prepareDatabase(newer);
    const client = new pg.Client({ connectionString: newer });
    await client.connect();
    await client.query(`insert into drizzle.__drizzle_migrations (hash, created_at) values ('of tomorrow', 9999999999999)`);
    await client.end();
    await expectAsync(ServerProcess.start(newer)).toBeRejectedWithError(/ended with 1 before it listened/);
  });
});
