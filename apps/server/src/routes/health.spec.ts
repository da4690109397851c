import { mkdtemp } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { TestServer } from '../testing/test-server';
import { roomIn, type Room } from '../vitals';

describe('What the server tells of itself', () => {
  const GIB = 1024 ** 3;
  let room: Room | undefined;
  let server: TestServer;
  beforeAll(async () => (server = await TestServer.start({ disk: async () => room })));
  afterAll(() => server.stop());

  it('is well while there is room on the disk', async () => {
    room = { free: 3 * GIB, size: 8 * GIB };
    const answer = await server.send('GET', '/health');
    expect(answer.statusCode).toBe(200);
    expect(answer.json()).toEqual(jasmine.objectContaining({ ok: true, disk: room, files: { checked: 0, waiting: 0 } }));
    expect(answer.json<{ database: { bytes: number } }>().database.bytes).toBeGreaterThan(1_000_000);
  });

  it('is not well, and says why, when the next saves may not fit', async () => {
    room = { free: 100 * 1024 * 1024, size: 8 * GIB };
    const answer = await server.send('GET', '/health');
    expect(answer.statusCode).toBe(503);
    expect(answer.json()).toEqual(
      jasmine.objectContaining({ ok: false, error: 'disk-full', message: jasmine.stringContaining('nearly full') }),
    );
    expect((await server.send('GET', '/alive')).statusCode).toBe(200);
  });

  it('leaves the disk out where the database is on another machine', async () => {
    room = undefined;
    expect((await server.send('GET', '/health')).json<{ disk: unknown }>().disk).toBeNull();
    expect(await metrics()).not.toMatch(/^brelvin_disk_free_bytes /m);
  });

  it('counts answers by their route, without names or ids', async () => {
    room = { free: 3 * GIB, size: 8 * GIB };
    const id = await server.fresh('Hull of the Marlow');
    for (let time = 0; time < 3; time++) await server.send('GET', `/documents/${id}`);
    await server.send('GET', '/documents/nobody');
    const text = await metrics();
    expect(text).toMatch(/^brelvin_request_seconds_count\{method="GET",route="\/api\/documents\/:id",status="200"\} 3$/m);
    expect(text).toMatch(/^brelvin_request_seconds_count\{method="GET",route="\/api\/documents\/:id",status="404"\} 1$/m);
    expect(text).toMatch(/^brelvin_database_connections\{state="waiting"\} 0$/m);
    expect(text).toMatch(/^brelvin_files\{state="waiting"\} 0$/m);
    expect(text).toMatch(new RegExp(`^brelvin_disk_free_bytes ${3 * GIB}$`, 'm'));
    expect(text).not.toContain(id);
    expect(text).not.toContain('Marlow');
  });

  it('reads the room of a real disk, and nothing where there is no folder', async () => {
    const folder = await mkdtemp(join(tmpdir(), 'brelvin-room-'));
    const found = await roomIn(folder);
    expect(found?.free).toBeGreaterThan(0);
    expect(found?.size).toBeGreaterThanOrEqual(found?.free ?? 0);
    expect(await roomIn(join(folder, 'not-here'))).toBeUndefined();
    expect(await roomIn(undefined)).toBeUndefined();
  });

  async function metrics(): Promise<string> {
    const answer = await server.app.inject({ url: '/metrics', headers: { host: '127.0.0.1:4310' } });
    return answer.body;
  }
});
