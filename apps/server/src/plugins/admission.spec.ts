import { newMaterial } from '@brelvin/core';
import type { LightMyRequestResponse } from 'fastify';
import { TestServer } from '../testing/test-server';

const KEY = 'lantern on the quay';

describe('An access key', () => {
  let server: TestServer;
  const ask = (
    method: 'GET' | 'POST',
    url: string,
    headers: Record<string, string> = {},
    payload?: string,
  ): Promise<LightMyRequestResponse> => server.app.inject({ method, url, payload, headers: { host: '127.0.0.1:4310', ...headers } });
  const signIn = (key: string, to = '/bench/m'): Promise<LightMyRequestResponse> =>
    ask('POST', '/sign-in', { 'content-type': 'application/x-www-form-urlencoded' }, new URLSearchParams({ key, to }).toString());

  beforeAll(async () => (server = await TestServer.start({ accessKey: KEY })));

  afterAll(() => server.stop());

  it('is asked of everything but the page that asks for it, and whether the server lives', async () => {
    for (const url of ['/api/documents?kind=material', '/api/health', '/api/openapi.json', '/metrics', '/main-ABC.js'])
      expect((await ask('GET', url)).statusCode)
        .withContext(url)
        .toBe(401);
    expect((await ask('GET', '/api/alive')).statusCode).toBe(200);
    const page = await ask('GET', '/bench/m?tab=code');
    expect([page.statusCode, page.headers.location]).toEqual([302, '/sign-in?to=%2Fbench%2Fm%3Ftab%3Dcode']);
    const form = await ask('GET', String(page.headers.location));
    expect(form.body).toContain('name="to" value="/bench/m?tab=code"');
    await expectAsync(server.app.injectWS('/api/live', { headers: { host: '127.0.0.1' } })).toBeRejected();
  });

  it('opens a session for a browser, and goes where it was headed', async () => {
    const answer = await signIn(KEY);
    expect([answer.statusCode, answer.headers.location]).toEqual([303, '/bench/m']);
    const [session] = answer.cookies;
    expect(session).toEqual(jasmine.objectContaining({ httpOnly: true, sameSite: 'Strict', path: '/' }));
    const cookie = `${session?.name}=${session?.value}`;
    expect((await ask('GET', '/api/documents?kind=material', { cookie })).statusCode).toBe(200);
    const socket = await server.app.injectWS('/api/live', { headers: { host: '127.0.0.1', cookie } });
    socket.terminate();
    // One letter of the signature, or the word that lets in.
    for (const forged of [cookie.replace(/.$/, (last) => (last === 'A' ? 'B' : 'A')), cookie.replace('.in.', '.out.')])
      expect((await ask('GET', '/api/documents?kind=material', { cookie: forged })).statusCode).toBe(401);
  });

  it('never leads to another site', async () => {
    for (const to of ['//elsewhere.example', 'https://elsewhere.example', '/\\elsewhere.example', '/"><script>'])
      expect((await signIn(KEY, to)).headers.location)
        .withContext(to)
        .toBe('/');
  });

  it('is taken from programs with each request; a wrong one is answered ever more slowly', async () => {
    const create = JSON.stringify({ id: 'm', document: newMaterial('Lantern') });
    const json = { 'content-type': 'application/json' };
    expect((await ask('POST', '/api/documents', { ...json, authorization: `Bearer ${KEY}` }, create)).statusCode).toBe(201);
    const took: number[] = [];
    for (let times = 0; times < 3; times++) {
      const started = performance.now();
      expect((await ask('GET', '/api/documents/m', { authorization: 'Bearer lantern on the quai' })).statusCode).toBe(401);
      took.push(performance.now() - started);
    }
    // It sleeps 250, 500, 1000 ms: never less, whatever else the machine does.
    expect(took.map((each, times) => each >= 250 * 2 ** times - 5)).toEqual([true, true, true]);
    const said = await signIn('guess');
    expect([said.statusCode, said.body.includes('This is not the key.')]).toEqual([401, true]);
  });
});
