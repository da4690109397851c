import { createHash, createHmac, randomBytes, timingSafeEqual } from 'node:crypto';
import cookie from '@fastify/cookie';
import type { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify';
import plugin from 'fastify-plugin';

declare module 'fastify' {
  interface FastifyRequest {
    /** Whose request it is, as far as that is known: a browser by its session, else an address of the network. */
    person: string;
    /** Whether the session has shown the access key. */
    admitted: boolean;
  }
}

export interface SessionOptions {
  /** Known to all servers on one database, and to nobody else. */
  readonly secret: string;
}

const COOKIE = 'brelvin_session';
const LIFETIME_SECONDS = 30 * 24 * 3600;

/**
 * Sessions without a store: an id, whether it was admitted, and until when, signed. They tell browsers behind one address
 * apart, and remember who has shown the access key.
 */
export const sessions = plugin(async (app: FastifyInstance, { secret }: SessionOptions) => {
  const key = createHash('sha256').update(`session ${secret}`).digest();
  await app.register(cookie);
  app.decorateRequest('person', '');
  app.decorateRequest('admitted', false);
  app.addHook('onRequest', async (request) => {
    const session = read(request.cookies[COOKIE], key);
    request.person = session ? `session ${session.id}` : `address ${request.ip}`;
    request.admitted = session?.admitted ?? false;
  });
  app.decorate('openSession', (request: FastifyRequest, reply: FastifyReply, admitted: boolean) => {
    const known = read(request.cookies[COOKIE], key);
    if (known && known.admitted === admitted && known.until - Date.now() / 1000 > LIFETIME_SECONDS / 2) return;
    const body = [
      known?.id ?? randomBytes(12).toString('base64url'),
      admitted ? 'in' : 'out',
      Math.floor(Date.now() / 1000) + LIFETIME_SECONDS,
    ];
    const text = body.join('.');
    void reply.setCookie(COOKIE, `${text}.${sign(text, key)}`, {
      path: '/',
      httpOnly: true,
      sameSite: 'strict',
      secure: request.protocol === 'https',
      maxAge: LIFETIME_SECONDS,
    });
  });
});

declare module 'fastify' {
  interface FastifyInstance {
    /** Gives the browser a session, or a new one when it is admitted or when half of its time is over. */
    openSession(request: FastifyRequest, reply: FastifyReply, admitted: boolean): void;
  }
}

interface Session {
  readonly id: string;
  readonly admitted: boolean;
  /** Seconds since 1970. */
  readonly until: number;
}

function read(cookie: string | undefined, key: Buffer): Session | undefined {
  const [, text, signature] = /^([\w-]{16}\.(?:in|out)\.\d{1,12})\.([\w-]{43})$/.exec(cookie ?? '') ?? [];
  if (!text || !signature || !isSame(signature, sign(text, key))) return undefined;
  const [id = '', admitted, until] = text.split('.');
  return Number(until) > Date.now() / 1000 ? { id, admitted: admitted === 'in', until: Number(until) } : undefined;
}

function sign(text: string, key: Buffer): string {
  return createHmac('sha256', key).update(text).digest('base64url');
}

/** Takes as long whether they differ early or late. */
export function isSame(a: string, b: string): boolean {
  const digest = (text: string): Buffer => createHash('sha256').update(text).digest();
  return timingSafeEqual(digest(a), digest(b));
}
