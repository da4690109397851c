import { DOCUMENT_KINDS, toJsonSchema, type DocumentKind } from '@brelvin/contract';
import type { FastifyInstance } from 'fastify';

/** The published JSON Schema of each kind of document. */
export async function schemaRoutes(app: FastifyInstance): Promise<void> {
  app.get('/schemas/:kind', { schema: { summary: 'JSON Schema of a kind of document' } }, async (request, reply) => {
    const { kind } = request.params as { kind: string };
    if (!Object.hasOwn(DOCUMENT_KINDS, kind)) {
      return reply.status(404).send({ error: 'missing', message: `There is no kind of document called "${kind}".` });
    }
    return { $schema: 'https://json-schema.org/draft/2020-12/schema', ...toJsonSchema(DOCUMENT_KINDS[kind as DocumentKind].schema) };
  });
}
