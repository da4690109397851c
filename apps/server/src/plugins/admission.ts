import { setTimeout as pause } from 'node:timers/promises';
import { LruCache } from '@brelvin/core';
import formBody from '@fastify/formbody';
import type { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify';
import plugin from 'fastify-plugin';
import { isSame } from './sessions';
import { signInPage } from './sign-in-page';

export interface AdmissionOptions {
  /** What everybody who may come in knows; nothing where only this machine can ask. */
  readonly accessKey?: string;
}

/** Milliseconds that an answer to a wrong key takes at least, twice as long each further time, up to the longest. */
const SLOWEST_FIRST = 250;
const SLOWEST = 8000;
/** Addresses whose wrong keys are remembered. */
const MOST_REMEMBERED = 10_000;

/**
 * Until there are accounts, one key lets in all who know it: browsers show it once on a page and keep a session, programs
 * send it with each request (`Authorization: Bearer …`).
 */
export const admission = plugin(async (app: FastifyInstance, { accessKey }: AdmissionOptions) => {
  if (accessKey === undefined) return;
  const wrong = new LruCache<number>(MOST_REMEMBERED);
  const fits = async (shown: string, { ip }: FastifyRequest): Promise<boolean> => {
    if (isSame(shown, accessKey)) {
      wrong.delete(ip);
      return true;
    }
    const times = (wrong.get(ip) ?? 0) + 1;
    wrong.set(ip, times);
    await pause(Math.min(SLOWEST_FIRST * 2 ** Math.min(times - 1, 10), SLOWEST));
    return false;
  };
  app.addHook('onRequest', async (request, reply) => {
    if (request.admitted || OPEN.has(path(request))) return;
    const [, bearer] = /^Bearer (.+)$/.exec(request.headers.authorization ?? '') ?? [];
    if (bearer !== undefined && (await fits(bearer, request))) return;
    if (wantsPage(request)) return reply.redirect(`/sign-in?to=${encodeURIComponent(request.url)}`);
    return reply
      .status(401)
      .send({ error: 'sign-in', message: 'Open Brelvin in a browser and show the access key, or send it as “Authorization: Bearer …”.' });
  });
  await app.register(formBody, { bodyLimit: 4096 });
  app.get('/sign-in', { schema: { hide: true } }, (request, reply) => sendSignIn(request, reply, ''));
  app.post('/sign-in', { schema: { hide: true } }, async (request, reply) => {
    const { key, to } = (request.body ?? {}) as { key?: unknown; to?: unknown };
    if (typeof key !== 'string' || !(await fits(key, request))) return sendSignIn(request, reply.status(401), 'This is not the key.');
    app.openSession(request, reply, true);
    return reply.redirect(ownAddress(to), 303);
  });
});

/** What may be asked for without the key. */
const OPEN: ReadonlySet<string> = new Set(['/sign-in', '/api/alive', '/mark.svg']);

function sendSignIn(request: FastifyRequest, reply: FastifyReply, trouble: string): FastifyReply {
  const { to } = { ...(request.query as object), ...(request.body as object | undefined) } as { to?: unknown };
  return reply
    .header('cache-control', 'no-store')
    .type('text/html; charset=utf-8')
    .send(signInPage({ nonce: request.styleNonce, to: ownAddress(to), trouble }));
}

/** Only to a page of this server. */
function ownAddress(to: unknown): string {
  return typeof to === 'string' && /^\/(?![/\\])[\w\-./?=&%~:]*$/.test(to) ? to : '/';
}

function path(request: FastifyRequest): string {
  return request.url.split('?')[0] ?? '';
}

function wantsPage(request: FastifyRequest): boolean {
  return request.method === 'GET' && !/^\/(api\/|metrics)/.test(request.url) && !/\.\w+$/.test(path(request));
}
