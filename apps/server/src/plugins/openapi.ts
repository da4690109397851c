import swagger from '@fastify/swagger';
import type { FastifyInstance } from 'fastify';
import plugin from 'fastify-plugin';

/** The description of the API at `/api/openapi.json`, made from the routes. */
export const openapi = plugin(async (app: FastifyInstance) => {
  await app.register(swagger, {
    openapi: {
      openapi: '3.1.0',
      info: { title: 'Brelvin', version: '1', description: 'Materials, sets and light rigs, and the steps they were made in.' },
    },
  });
  app.get('/api/openapi.json', { schema: { hide: true } }, async () => app.swagger());
});
