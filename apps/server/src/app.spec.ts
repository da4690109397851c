import { newMaterial, newSet } from '@brelvin/core';
import type { LightMyRequestResponse } from 'fastify';
import { buildApp } from './app';
import { connect } from './store/database';
import { DocumentRepository } from './store/document-repository';
import { step, TestServer } from './testing/test-server';

const PNG = Buffer.concat([Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]), Buffer.from('picture')]);

/** The server on a real PostgreSQL. */
describe('The server', () => {
  let server: TestServer;

  beforeAll(async () => (server = await TestServer.start()));

  afterAll(() => server.stop());

  describe('thumbnails', () => {
    it('are kept; an older one never takes a newer one’s place', async () => {
      const id = await server.fresh();
      expect((await server.send('GET', `/documents/${id}/thumbnail`)).statusCode).toBe(404);
      for (const number of [1, 2]) await server.append(id, number - 1, step(`s${number}`, ['name'], `Lantern ${number}`));
      const newer = Buffer.concat([PNG, Buffer.from('newer')]);
      expect((await server.send('PUT', `/documents/${id}/thumbnail?step=2`, newer, { 'content-type': 'image/png' })).statusCode).toBe(204);
      await server.send('PUT', `/documents/${id}/thumbnail?step=1`, PNG, { 'content-type': 'image/png' });
      const read = await server.send('GET', `/documents/${id}/thumbnail`);
      expect(read.headers['content-type']).toBe('image/png');
      expect(read.rawPayload.equals(newer)).toBeTrue();
      const future = await server.send('PUT', `/documents/${id}/thumbnail?step=3`, PNG, { 'content-type': 'image/png' });
      expect([future.statusCode, future.json<{ message: string }>().message]).toEqual([
        422,
        'The document has no step 3; its last one is 2.',
      ]);
    });

    it('must be PNG images of a step', async () => {
      const id = await server.fresh();
      const bad = await server.send('PUT', `/documents/${id}/thumbnail?step=1`, Buffer.from('<svg/>'), { 'content-type': 'image/png' });
      expect(bad.json<{ message: string }>().message).toBe('body: must be a PNG image');
      expect((await server.send('PUT', `/documents/${id}/thumbnail`, PNG, { 'content-type': 'image/png' })).statusCode).toBe(400);
      expect(
        (await server.send('PUT', `/documents/${id}/thumbnail?step=1`, Buffer.alloc(600 * 1024), { 'content-type': 'image/png' }))
          .statusCode,
      ).toBe(413);
    });
  });

  describe('messages', () => {
    const cases: readonly (readonly [string, () => Promise<LightMyRequestResponse>, number, RegExp])[] = [
      ['a list of nothing', () => server.send('GET', '/documents'), 400, /kind: must be one of material, set, function, field, rig/],
      ['a list that is too long', () => server.send('GET', '/documents?kind=set&limit=5000'), 400, /limit: must not be greater than 200/],
      ['an id with tricks', () => server.send('POST', '/documents', { id: '../x', document: {} }), 400, /id: must be 1 to 64/],
      ['no document', () => server.send('POST', '/documents', { id: 'x1' }), 400, /document: is missing/],
      [
        'something extra',
        () => server.send('POST', '/documents', { id: 'x1', document: {}, admin: true }),
        400,
        /admin: is not known here/,
      ],
      ['a list as body', () => server.send('POST', '/documents', []), 400, /body: must be a JSON object/],
      ['a body that is not JSON', () => server.send('POST', '/documents', '{"id":', { 'content-type': 'application/json' }), 400, /JSON/],
      [
        'a document of something else',
        () => server.send('POST', '/documents', { id: 'x1', document: { format: 'poem' } }),
        422,
        /not a Brelvin document/,
      ],
      [
        'a newer document',
        () => server.send('POST', '/documents', { id: 'x1', document: { ...newSet('s'), version: 9 } }),
        422,
        /version 9.*newer Brelvin/,
      ],
      [
        'no steps',
        () => server.send('POST', '/documents/m1/steps', { after: 0, steps: [] }),
        400,
        /steps: must have 1 to 1000 entries, has 0/,
      ],
      [
        'a step without changes',
        () => server.send('POST', '/documents/m1/steps', { after: 0, steps: [{ id: 'a', label: 'x' }] }),
        400,
        /steps.0.changes/,
      ],
      [
        'a change without a path',
        () => server.send('POST', '/documents/m1/steps', { after: 0, steps: [{ id: 'a', label: 'x', changes: [{ value: 1 }] }] }),
        400,
        /steps.0.changes.0.path/,
      ],
      ['a document that is not there', () => server.send('GET', '/documents/nobody'), 404, /There is no document nobody/],
      ['a schema that is not there', () => server.send('GET', '/schemas/poem'), 404, /no kind of document called "poem"/],
      ['an address that is not there', () => server.send('GET', '/nothing'), 404, /There is nothing at/],
    ];
    for (const [what, work, status, words] of cases) {
      it(`refuse ${what}, and name what is wrong`, async () => {
        const answer = await work();
        expect(answer.statusCode).toBe(status);
        expect(answer.json<{ message: string }>().message).toMatch(words);
      });
    }

    it('refuse steps that would damage the document, and keep it whole', async () => {
      const id = await server.fresh();
      const nowhere = await server.append(id, 0, step('a', ['surface', 'nodes', 'nobody', 'x'], 1));
      expect(nowhere.statusCode).toBe(422);
      expect(nowhere.json<{ message: string }>().message).toContain('there is nothing at surface.nodes.nobody');
      const longName = await server.append(id, 0, step('b', ['name'], 'x'.repeat(10_000)));
      expect(longName.statusCode).toBe(422);
      expect(longName.json<{ message: string }>().message).toContain('name may have at most 120 characters');
      const trap = await server.append(
        id,
        0,
        step('c', ['surface', 'nodes', '__proto__'], { kind: 'add', rev: 1, x: 0, y: 0, values: {} }),
      );
      expect(trap.statusCode).toBe(422);
      expect((await new DocumentRepository(server.connection.database).read(id)).step).toBe(0);
    });

    it('refuse an id that is taken', async () => {
      const id = await server.fresh();
      expect((await server.send('POST', '/documents', { id, document: newMaterial('Other') })).statusCode).toBe(409);
    });

    it('refuse 50 MB', async () => {
      const answer = await server.send('POST', '/documents', `{"id":"big","document":{"notes":"${'x'.repeat(50 * 1024 * 1024)}"}}`, {
        'content-type': 'application/json',
      });
      expect(answer.statusCode).toBe(413);
      expect(answer.json<{ message: string }>().message).toContain('8 MiB');
    });
  });

  describe('security', () => {
    it('answers only to its own names', async () => {
      for (const host of ['127.0.0.1:4310', 'localhost:4310', '[::1]:4310'])
        expect((await server.send('GET', '/health', undefined, { host })).statusCode).toBe(200);
      const foreign = await server.send('GET', '/documents?kind=material', undefined, { host: 'rebound.example' });
      expect(foreign.statusCode).toBe(421);
    });

    it('takes changes only from its own pages', async () => {
      const body = { id: 'foreign', document: newMaterial('x') };
      expect((await server.send('POST', '/documents', body, { origin: 'http://elsewhere.example' })).statusCode).toBe(403);
      expect((await server.send('POST', '/documents', body, { 'sec-fetch-site': 'cross-site' })).statusCode).toBe(403);
      expect(
        (await server.send('POST', '/documents', body, { origin: 'http://127.0.0.1:4310', 'sec-fetch-site': 'same-origin' })).statusCode,
      ).toBe(201);
    });

    it('sends a strict content-security policy with a new nonce each time', async () => {
      const policy = async (): Promise<string> => String((await server.send('GET', '/health')).headers['content-security-policy']);
      const [one, two] = [await policy(), await policy()];
      expect(one).toContain("default-src 'self'");
      expect(one).toContain("script-src 'self' 'wasm-unsafe-eval'");
      expect(one).not.toContain('unsafe-inline');
      expect(/'nonce-([^']{20,})'/.exec(one)?.[1]).not.toBe(/'nonce-([^']{20,})'/.exec(two)?.[1]);
    });

    it('slows those down who ask too much', async () => {
      const strict = await buildApp({
        connection: server.connection,
        databaseUrl: server.databaseUrl,
        logLevel: 'silent',
        pages: '/nowhere',
        hosts: [],
        requestsPerMinute: 3,
      });
      const codes: number[] = [];
      for (let count = 0; count < 5; count++)
        codes.push((await strict.inject({ url: '/api/health', headers: { host: 'localhost' } })).statusCode);
      expect(codes).toEqual([200, 200, 200, 429, 429]);
      await strict.close();
    });
  });

  it('publishes its schemas and the description of its API', async () => {
    const schema = (await server.send('GET', '/schemas/material')).json<{ $schema: string; required: string[] }>();
    expect(schema.$schema).toContain('2020-12');
    expect(schema.required).toContain('surface');
    const api = (await server.send('GET', '/openapi.json')).json<{ openapi: string; paths: Record<string, unknown> }>();
    expect(api.openapi).toBe('3.1.0');
    expect(Object.keys(api.paths)).toEqual(
      jasmine.arrayContaining(
        ['/api/documents/', '/api/documents/{id}/steps'].map(
          (path) => jasmine.stringMatching(path.replace(/\/$/, '').replace(/[{}]/g, '.')) as never,
        ),
      ),
    );
  });

  it('says that the database is away, and works again when it is back', async () => {
    const nowhere = 'postgres://nobody:x@127.0.0.1:1/none';
    const away = connect(nowhere, () => undefined);
    const other = await buildApp({ connection: away, databaseUrl: nowhere, logLevel: 'silent', pages: '/nowhere', hosts: [] });
    const answer = await other.inject({ url: '/api/documents?kind=material', headers: { host: 'localhost' } });
    expect(answer.statusCode).toBe(503);
    expect(answer.json<{ error: string }>().error).toBe('database-away');
    await other.close();
    await away.close();
  });

  describe('open windows', () => {
    it('hear of new steps of what they watch, from every server on the database', async () => {
      const second = await buildApp({
        connection: server.connection,
        databaseUrl: server.databaseUrl,
        logLevel: 'silent',
        pages: '/nowhere',
        hosts: [],
      });
      await second.ready();
      const socket = await second.injectWS('/api/live', { headers: { host: '127.0.0.1' } });
      const heard: object[] = [];
      socket.on('message', (data: Buffer) => heard.push(JSON.parse(data.toString('utf8')) as object));
      const [watched, other] = [await server.fresh(), await server.fresh()];
      socket.send(JSON.stringify({ watch: [watched] }));
      socket.send('nonsense');
      socket.send(JSON.stringify({ watch: [watched, '../../etc', 5] }));
      await new Promise((resolve) => setTimeout(resolve, 100));
      await server.append(other, 0, step('x', ['name'], 'Other'));
      await server.append(watched, 0, step('x', ['name'], 'Heard'));
      for (let turn = 0; turn < 40 && heard.length === 0; turn++) await new Promise((resolve) => setTimeout(resolve, 50));
      expect(heard).toEqual([{ id: watched, step: 1 }]);
      // And of names, deletions and returns.
      await server.send('POST', `/documents/${watched}/versions`, { name: 'before the fair', step: 1 });
      await server.send('DELETE', `/documents/${watched}`);
      await server.send('POST', `/documents/${watched}/restore`);
      for (let turn = 0; turn < 40 && heard.length < 4; turn++) await new Promise((resolve) => setTimeout(resolve, 50));
      expect(heard.slice(1)).toEqual([
        { id: watched, named: 'before the fair' },
        { id: watched, deleted: true },
        { id: watched, restored: true },
      ]);
      socket.terminate();
      await second.close();
    });

    it('hear how far the jobs are that they watch', async () => {
      const socket = await server.app.injectWS('/api/live', { headers: { host: '127.0.0.1' } });
      const heard: object[] = [];
      socket.on('message', (data: Buffer) => heard.push(JSON.parse(data.toString('utf8')) as object));
      const wish = async (): Promise<string> => {
        const answer = await server.send('POST', '/renders', { document: await server.fresh(), width: 8, height: 8 });
        return answer.json<{ id: string }>().id;
      };
      const [watched, other] = [await wish(), await wish()];
      socket.send(JSON.stringify({ jobs: [watched] }));
      await new Promise((resolve) => setTimeout(resolve, 100));
      await server.send('DELETE', `/jobs/${other}`);
      await server.send('DELETE', `/jobs/${watched}`);
      for (let turn = 0; turn < 40 && heard.length === 0; turn++) await new Promise((resolve) => setTimeout(resolve, 50));
      expect(heard).toEqual([{ job: watched, state: 'cancelled', progress: 0 }]);
      socket.terminate();
    });

    it('hear that the shelves have changed, once for many changes', async () => {
      const socket = await server.app.injectWS('/api/live', { headers: { host: '127.0.0.1' } });
      const heard: object[] = [];
      socket.on('message', (data: Buffer) => heard.push(JSON.parse(data.toString('utf8')) as object));
      const heardOf = async (count: number): Promise<void> => {
        for (let turn = 0; turn < 60 && heard.length < count; turn++) await new Promise((resolve) => setTimeout(resolve, 50));
      };
      socket.send(JSON.stringify({ shelves: true }));
      await new Promise((resolve) => setTimeout(resolve, 100));
      for (let made = 0; made < 5; made++) await server.fresh(`Kite ${made}`);
      await heardOf(1);
      expect(heard.length).withContext('five new ones in one second').toBeLessThanOrEqual(2);
      expect(heard[0]).toEqual({ shelves: true });
      const id = await server.fresh();
      await heardOf(heard.length + 1);
      const before = heard.length;
      await server.send('DELETE', `/documents/${id}`);
      await heardOf(before + 1);
      expect(heard.length)
        .withContext('a deletion')
        .toBe(before + 1);
      socket.terminate();
    });

    it('must be our own pages', async () => {
      const answer = await server.app.inject({
        url: '/api/live',
        headers: { host: '127.0.0.1', upgrade: 'websocket', origin: 'http://evil.example' },
      });
      expect(answer.statusCode).toBe(403);
    });
  });
});
