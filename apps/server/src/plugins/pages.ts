import { existsSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import fastifyStatic from '@fastify/static';
import type { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify';

const NONCE_MARK = '__STYLE_NONCE__';

/** The web application: files as they are, and its page for every address that is not a file. */
export async function pages(app: FastifyInstance, { root }: { root: string }): Promise<void> {
  const sendPage = async (request: FastifyRequest, reply: FastifyReply): Promise<FastifyReply> => {
    // Browsers behind one address are told apart from here on.
    app.openSession(request, reply, request.admitted);
    const html = await readFile(join(root, 'index.html'), 'utf8');
    return reply.header('cache-control', 'no-store').type('text/html; charset=utf-8').send(html.replaceAll(NONCE_MARK, request.styleNonce));
  };
  if (existsSync(root)) {
    await app.register(fastifyStatic, {
      root,
      index: false,
      // Else it writes a header of its own over the one below.
      cacheControl: false,
      // Packed once, when the pages were built.
      preCompressed: true,
      // Names of built files change with their content, but for the page's.
      setHeaders: (response, path) => {
        response.setHeader('cache-control', path.endsWith('.html') ? 'no-store' : 'public, max-age=31536000, immutable');
      },
    });
    app.get('/', { schema: { hide: true } }, sendPage);
  }
  app.setNotFoundHandler(async (request, reply) => {
    const wantsPage = request.method === 'GET' && !request.url.startsWith('/api/') && !/\.\w+$/.test(request.url.split('?')[0] ?? '');
    if (wantsPage && existsSync(root)) return sendPage(request, reply);
    return reply.status(404).send({ error: 'missing', message: `There is nothing at ${request.url}.` });
  });
}
