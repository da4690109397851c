import type { Json } from '@brelvin/contract';
import { newMaterial } from '@brelvin/core';
import { seededDatabase } from '../support/seeded-database';
import { ServerProcess } from '../support/server-process';

/** Milliseconds. Not how fast it is, but that it does not hang: before there were bounds, these took minutes. */
const HANGS = 10_000;

describe('Bodies that are meant to do harm', () => {
  let server: ServerProcess;

  beforeAll(async () => {
    server = await ServerProcess.start(await seededDatabase());
    expect((await server.request('POST', '/documents', { id: 'lantern', document: newMaterial('Loft lantern') })).status).toBe(201);
  });

  afterAll(() => server?.stop());

  const append = (changes: object[], id = 'a') =>
    server.request('POST', '/documents/lantern/steps', { after: 0, steps: [{ id, label: 'Attack', changes }] });
  const text = (body: string) =>
    fetch(`${server.address}/api/documents/lantern/steps`, { method: 'POST', headers: { 'content-type': 'application/json' }, body });

  /** Refused, in few words, while others are answered. */
  async function refusedQuickly(send: () => Promise<{ status: number; body: Record<string, unknown> }>): Promise<number> {
    const started = performance.now();
    const [{ status, body }, health] = await Promise.all([send(), server.request('GET', '/health')]);
    expect(performance.now() - started).toBeLessThan(HANGS);
    expect(health.status).toBe(200);
    expect(JSON.stringify(body).length).toBeLessThan(20_000);
    return status;
  }

  const many = (count: number): Record<string, Json> =>
    Object.fromEntries(Array.from({ length: count }, (_, index) => [`field${index}`, 1]));

  it('with half a million unknown fields are refused at once', async () => {
    expect(await refusedQuickly(() => server.request('POST', '/documents', { id: 'x', document: {}, ...many(500_000) }))).toBe(400);
    expect(await refusedQuickly(() => server.request('POST', '/documents', { id: 'x', document: many(500_000) }))).toBe(400);
    expect(await refusedQuickly(() => server.request('POST', '/documents', { id: 'x', document: many(40_000) }))).toBe(422);
    expect(
      await refusedQuickly(() => server.request('POST', '/documents', { id: 'x', document: { ...newMaterial('x'), ...many(40_000) } })),
    ).toBe(422);
    expect(await refusedQuickly(() => append([{ path: ['notes'], value: many(40_000) }]))).toBe(422);
  });

  it('with more values than any document has, or deeper than any is, are refused', async () => {
    const nested = (depth: number): string => `${'['.repeat(depth)}${']'.repeat(depth)}`;
    const step = (value: string): string => `{"after":0,"steps":[{"id":"a","label":"x","changes":[{"path":["notes"],"value":${value}}]}]}`;
    for (const [value, words] of [
      [nested(5000), /lies too deep/],
      [`[${'0,'.repeat(700_000)}0]`, /of more than 50,000 entries/],
      [`[${'[0,0,0,0,0,0,0],'.repeat(40_000)}[]]`, /at most 250,000 values/],
    ] as const) {
      const answer = await text(step(value));
      expect(answer.status).toBe(400);
      expect(await answer.text()).toMatch(words);
    }
  });

  it('with 20,000 changes in each of many steps end within reason', async () => {
    const changes = Array.from({ length: 20_000 }, (_, index) => ({ path: ['surface', 'nodes', `n${index}`, 'x'], value: 1 }));
    expect(await refusedQuickly(() => append(changes))).toBe(422);
  });

  it('with characters that no text may hold are refused, at their place, and saving goes on', async () => {
    for (const value of ['a\0b', 'a\ud83c', { deep: ['\udfee'] }, { 'na\0me': 1 }]) {
      const { status, body } = await append([{ path: ['notes'], value }]);
      expect([status, body['error']]).toEqual([400, 'bad-message']);
      expect(String(body['message'])).toMatch(/^steps\.0\.changes\.0\.value.*take it out$/);
    }
    expect((await server.request('POST', '/documents', { id: 'half', document: newMaterial('Half \ud83c') })).status).toBe(400);
    expect((await append([{ path: ['notes'], value: 'a whole one: 🏮' }], 'good')).status).toBe(200);
    expect((await server.request('GET', '/documents/lantern/file')).status).toBe(200);
  });

  it('with numbers beyond integers, ids that repeat or another kind of document are refused', async () => {
    expect((await server.request('GET', '/documents/lantern/at/99999999999')).status).toBe(400);
    expect((await server.request('GET', '/documents/lantern/steps?after=99999999999')).status).toBe(400);
    const step = { id: 'same', label: 'x', changes: [{ path: ['notes'], value: 'x' }] };
    const twice = await server.request('POST', '/documents/lantern/steps', { after: 1, steps: [step, step] });
    expect([twice.status, twice.body['message']]).toEqual([422, 'Two of the steps have the same id; each has one of its own.']);
    const changes = Object.entries({ format: 'brelvin-function', version: 1 }).map(([key, value]) => ({ path: [key], value }));
    const other = await server.request('POST', '/documents/lantern/steps', { after: 1, steps: [{ id: 'k', label: 'x', changes }] });
    expect([other.status, String(other.body['message'])]).toEqual([422, jasmine.stringContaining('A material stays a material')]);
  });

  it('keep nodes that are called like what every object has', async () => {
    const document = newMaterial('Names');
    const node = { kind: 'add', rev: 1, x: 0, y: 0, values: {} };
    const nodes = { ...document.surface.nodes, toString: node, valueOf: node, hasOwnProperty: node };
    const made = await server.request('POST', '/documents', {
      id: 'names',
      document: { ...document, surface: { ...document.surface, nodes } },
    });
    expect(made.status).toBe(201);
    const read = (await server.request('GET', '/documents/names')).body['document'] as typeof document;
    expect(Object.keys(read.surface.nodes)).toEqual(jasmine.arrayContaining(['toString', 'valueOf', 'hasOwnProperty']));
  });
});
