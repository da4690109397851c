import { AssetApi } from './asset-api';
import { ApiFailure, DocumentApi } from './document-api';
import { newId } from '../documents/new-id';

describe('DocumentApi', () => {
  const api = new DocumentApi();
  let answer: () => Promise<Response>;
  let requests: { url: string; init: RequestInit }[];

  beforeEach(() => {
    requests = [];
    spyOn(window, 'fetch').and.callFake(async (url, init) => {
      requests.push({ url: url as string, init: init ?? {} });
      return answer();
    });
  });

  const json = (status: number, body: object): Promise<Response> =>
    Promise.resolve(new Response(JSON.stringify(body), { status, headers: { 'content-type': 'application/json' } }));

  it('asks for pages of a kind', async () => {
    answer = () => json(200, { documents: [], total: 0 });
    expect(await api.list('rig', { search: 'north & south', offset: 60, limit: 20, tag: undefined })).toEqual({ documents: [], total: 0 });
    expect(requests[0]?.url).toBe('/api/documents?kind=rig&search=north+%26+south&offset=60&limit=20');
  });

  it('sends steps as JSON and pictures as they are', async () => {
    answer = () => json(200, { step: 3 });
    await api.append('m', 2, [{ id: 'a', label: 'x', changes: [] }]);
    expect(JSON.parse(requests[0]?.init.body as string) as object).toEqual({ after: 2, steps: [{ id: 'a', label: 'x', changes: [] }] });
    answer = async () => new Response(null, { status: 204 });
    await api.saveThumbnail('m', 3, new Blob(['x'], { type: 'image/png' }));
    expect(requests[1]?.init.headers).toEqual({ 'content-type': 'image/png' });
  });

  it('tells what the server says', async () => {
    answer = () => json(409, { error: 'stale', message: 'changed elsewhere', step: 4, missed: [] });
    const failure = await api.append('m', 2, []).catch((error: unknown) => error as ApiFailure);
    expect(failure).toBeInstanceOf(ApiFailure);
    expect([(failure as ApiFailure).code, (failure as ApiFailure).body.step, (failure as ApiFailure).away]).toEqual(['stale', 4, false]);
  });

  it('tells being away from being wrong', async () => {
    answer = () => Promise.reject(new TypeError('refused'));
    const unreachable = await api.read('m').catch((error: unknown) => error as ApiFailure);
    expect([(unreachable as ApiFailure).status, (unreachable as ApiFailure).away]).toEqual([0, true]);
    answer = async () => new Response('<html>', { status: 502, statusText: 'Bad Gateway' });
    const gateway = await api.read('m').catch((error: unknown) => error as ApiFailure);
    expect([(gateway as ApiFailure).message, (gateway as ApiFailure).away]).toEqual(['Bad Gateway', true]);
  });
});

describe('AssetApi', () => {
  it('announces a file by its hash, sends only what is missing, and tells how far it is', async () => {
    const calls: string[] = [];
    spyOn(window, 'fetch').and.callFake(async (url, init) => {
      calls.push(`${init?.method} ${(url as string).replace(/[0-9a-f]{64}/, 'HASH')}`);
      const body = calls.length === 1 ? { missing: [1] } : { sha256: 'x', name: 'n', type: 'image/png', size: 3, width: 1, height: 1 };
      return new Response(JSON.stringify(body), { status: 200, headers: { 'content-type': 'application/json' } });
    });
    const shares: number[] = [];
    const file = new Blob([new Uint8Array(1024 * 1024 + 5)]);
    await new AssetApi().send(
      file,
      { name: 'n', type: 'image/png' },
      {
        progress: (share) => shares.push(share),
        signal: new AbortController().signal,
      },
    );
    expect(calls).toEqual(['POST /api/assets', 'PUT /api/assets/HASH/chunks/1', 'POST /api/assets/HASH/finish']);
    expect(shares).toEqual([0, 1]);
  });
});

describe('newId', () => {
  it('makes ids that documents and paths allow, all different', () => {
    const ids = Array.from({ length: 500 }, newId);
    expect(new Set(ids).size).toBe(500);
    for (const id of ids) expect(id).toMatch(/^[A-Za-z][A-Za-z0-9_-]{0,63}$/);
  });
});
