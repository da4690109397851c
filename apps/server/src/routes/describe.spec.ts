import { createHash } from 'node:crypto';
import { Ajv } from 'ajv';
import { newFunction } from '@brelvin/core';
import { PNG } from 'pngjs';
import { step, TestServer } from '../testing/test-server';

describe('The description of the API', () => {
  let server: TestServer;
  let fits: (path: string, method: string, status: number | '4XX', answer: unknown) => string[];

  beforeAll(async () => {
    server = await TestServer.start();
    const ajv = new Ajv({ strict: false, allErrors: true, validateFormats: false });
    ajv.addSchema((await server.send('GET', '/openapi.json')).json<object>(), 'api');
    fits = (path, method, status, answer) => {
      const pointer = [`/api${path}`, method.toLowerCase(), 'responses', String(status), 'content', 'application/json', 'schema'];
      const $ref = `api#/paths/${pointer.map((each) => encodeURIComponent(each.replaceAll('/', '~1'))).join('/')}`;
      const check = ajv.compile({ $ref });
      return check(answer) ? [] : (check.errors ?? []).map(({ instancePath, message }) => `${instancePath} ${message}`);
    };
  });

  afterAll(() => server.stop());

  it('says what every answer holds, all of it and nothing else', async () => {
    const id = await server.fresh('Lantern');
    await server.send('POST', '/documents', { id: 'wave', document: newFunction('wave') });
    await server.append(id, 0, step('a', ['tags'], ['paper']), { ...step('b', ['name'], 'Kite'), gesture: 'g', direction: 'undo' });
    await server.send('POST', `/documents/${id}/versions`, { name: 'before the fair', step: 1, beside: [{ id: 'wave', step: 0 }] });
    const file = PNG.sync.write(new PNG({ width: 2, height: 2 }));
    const sha256 = createHash('sha256').update(file).digest('hex');
    const announced = await server.send('POST', '/assets', { sha256, name: 'label.png', type: 'image/png', size: file.length });
    expect(fits('/assets', 'post', 200, announced.json())).toEqual([]);
    await server.send('PUT', `/assets/${sha256}/chunks/0`, file, { 'content-type': 'application/octet-stream' });
    const asked: readonly (readonly ['GET' | 'POST' | 'PATCH', string, string, object?])[] = [
      ['POST', '/assets/{sha256}/finish', `/assets/${sha256}/finish`],
      ['PATCH', '/assets/{sha256}', `/assets/${sha256}`, { tags: ['paper'] }],
      ['GET', '/assets', '/assets?use=image'],
      ['GET', '/assets/tags', '/assets/tags'],
      ['GET', '/documents', '/documents?kind=material'],
      ['GET', '/tags', '/tags?kind=material'],
      ['GET', '/documents/{id}', `/documents/${id}`],
      ['GET', '/documents/{id}/at/{step}', `/documents/${id}/at/1`],
      ['GET', '/documents/{id}/history', `/documents/${id}/history`],
      ['GET', '/documents/{id}/users', `/documents/${id}/users`],
      ['GET', '/documents/{id}/steps', `/documents/${id}/steps?after=0`],
      ['GET', '/documents/{id}/versions', `/documents/${id}/versions`],
      ['POST', '/documents/{id}/steps', `/documents/${id}/steps`, { after: 2, steps: [step('c', ['name'], 'Loft')] }],
      ['GET', '/functions', '/functions'],
      ['GET', '/functions/{name}/users', '/functions/wave/users'],
      ['GET', '/alive', '/alive'],
      ['GET', '/health', '/health'],
    ];
    for (const [method, path, url, body] of asked) {
      const answer = await server.send(method, url, body);
      expect(answer.statusCode).withContext(url).toBe(200);
      const content = answer.json<object>();
      // Nobody uses the function; all else has something to check.
      if (!path.includes('users')) expect(Object.values(content).flat().length).withContext(url).toBeGreaterThan(0);
      expect(fits(path, method, 200, content))
        .withContext(url)
        .toEqual([]);
      expect(fits(path, method, 200, { ...content, extra: 1 }))
        .withContext(`${url}, and something else`)
        .not.toEqual([]);
    }
  });

  it('says what failures hold', async () => {
    const id = await server.fresh();
    await server.append(id, 0, step('a', ['name'], 'Kite'));
    const stale = await server.append(id, 0, step('b', ['name'], 'Dusk'));
    expect([stale.statusCode, fits('/documents/{id}/steps', 'post', '4XX', stale.json())]).toEqual([409, []]);
    const bad = await server.append(id, 0, step('b', [], 'Dusk'));
    expect([bad.statusCode, fits('/documents/{id}/steps', 'post', '4XX', bad.json())]).toEqual([400, []]);
  });
});
