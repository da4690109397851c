import type { Budget } from '@brelvin/contract';
import { TestServer } from '../testing/test-server';

/** What materials of a workspace may cost, over HTTP, on a real PostgreSQL. */
describe('The budget of a workspace', () => {
  let server: TestServer;

  beforeAll(async () => {
    server = await TestServer.start();
  });

  afterAll(() => server.stop());

  const read = async (): Promise<Budget> => (await server.send('GET', '/budget')).json<Budget>();

  it('bounds nothing at first, and is kept as it was last said', async () => {
    expect(await read()).toEqual({});
    const first = await server.send('PUT', '/budget', { reads: 16, milliseconds: 4.5 });
    expect([first.statusCode, first.json<Budget>()]).toEqual([200, { reads: 16, milliseconds: 4.5 }]);
    await server.send('PUT', '/budget', { instructions: 2000 });
    expect(await read()).toEqual({ instructions: 2000 });
    await server.send('PUT', '/budget', {});
    expect(await read()).toEqual({});
  });

  it('refuses what bounds nothing, and says where', async () => {
    await server.send('PUT', '/budget', { reads: 3 });
    for (const [wrong, field] of [
      [{ reads: -1 }, 'reads'],
      [{ reads: 1.5 }, 'reads'],
      [{ instructions: 0 }, 'instructions'],
      [{ milliseconds: 'few' }, 'milliseconds'],
      [{ triangles: 100 }, 'triangles'],
    ] as const) {
      const answer = await server.send('PUT', '/budget', wrong);
      expect(answer.statusCode).withContext(field).toBe(400);
      expect(answer.body).withContext(field).toContain(field);
    }
    expect(await read()).toEqual({ reads: 3 });
  });
});
