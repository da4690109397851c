import { randomBytes } from 'node:crypto';
import helmet from '@fastify/helmet';
import rateLimit from '@fastify/rate-limit';
import type { FastifyInstance, FastifyRequest } from 'fastify';
import plugin from 'fastify-plugin';

declare module 'fastify' {
  interface FastifyRequest {
    /** Lets the page's own styles through the content-security policy, for this answer only. */
    styleNonce: string;
  }
}

export interface SecurityOptions {
  /** Host names, without port, that the server answers to. */
  readonly hosts: readonly string[];
  readonly requestsPerMinute: number;
}

/**
 * Every page in the user's browser can reach a server on loopback. So it answers only to its own names (no DNS
 * rebinding) and takes changes only from its own pages.
 */
export const security = plugin(async (app: FastifyInstance, { hosts, requestsPerMinute }: SecurityOptions) => {
  app.decorateRequest('styleNonce', '');
  app.addHook('onRequest', async (request, reply) => {
    request.styleNonce = randomBytes(16).toString('base64');
    // Helmet sees only Node's own request.
    Object.assign(request.raw, { styleNonce: request.styleNonce });
    if (!hosts.includes(hostName(request.headers.host))) {
      return reply.status(421).send({ error: 'wrong-host', message: `This server does not answer to "${request.headers.host ?? ''}".` });
    }
    // A WebSocket begins as a GET, and browsers let every page open one: its origin decides.
    if ((changesSomething(request) || request.headers.upgrade !== undefined) && comesFromElsewhere(request)) {
      return reply.status(403).send({ error: 'foreign-origin', message: 'Only Brelvin’s own pages may change documents.' });
    }
  });
  await app.register(rateLimit, {
    max: requestsPerMinute,
    timeWindow: '1 minute',
    // A studio behind one proxy is many browsers.
    keyGenerator: ({ person }: FastifyRequest) => person,
  });
  await app.register(helmet, {
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'self'"],
        scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
        styleSrc: ["'self'", (request) => `'nonce-${(request as { styleNonce?: string }).styleNonce ?? ''}'`],
        imgSrc: ["'self'", 'blob:', 'data:'],
        connectSrc: ["'self'"],
        workerSrc: ["'self'"],
        objectSrc: ["'none'"],
        baseUri: ["'self'"],
        formAction: ["'self'"],
        frameAncestors: ["'none'"],
      },
    },
    // Without a referrer, forms name no origin either, and theirs is asked for above.
    referrerPolicy: { policy: 'same-origin' },
    // Loopback is plain http; asking for https would make the page unreachable.
    strictTransportSecurity: false,
    crossOriginEmbedderPolicy: false,
  });
});

function hostName(host: string | undefined): string {
  return (host ?? '').replace(/:\d+$/, '').toLowerCase();
}

function changesSomething(request: FastifyRequest): boolean {
  return request.method !== 'GET' && request.method !== 'HEAD';
}

function comesFromElsewhere({ headers }: FastifyRequest): boolean {
  const site = headers['sec-fetch-site'];
  if (site !== undefined && site !== 'same-origin' && site !== 'none') return true;
  const { origin } = headers;
  return origin !== undefined && origin.replace(/^https?:\/\//, '') !== headers.host;
}
