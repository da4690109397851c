import { DOCUMENT_ADDRESS, STEP_QUERY } from '@brelvin/contract';
import type { FastifyInstance } from 'fastify';
import { describe } from '../messages/body';
import { BadMessage } from '../messages/bad-message';
import { readMessage } from '../messages/read-message';
import type { DocumentRepository } from '../store/document-repository';
import { ANSWERS } from './describe';

const params = describe(DOCUMENT_ADDRESS);
const PNG_SIGNATURE = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]);
const LARGEST = 512 * 1024;

/** Pictures for lists. The page that draws a material sends its picture. */
export async function thumbnailRoutes(app: FastifyInstance, { documents }: { documents: DocumentRepository }): Promise<void> {
  app.addContentTypeParser('image/png', { parseAs: 'buffer', bodyLimit: LARGEST }, (_request, body, done) => done(null, body));

  app.put(
    '/documents/:id/thumbnail',
    { schema: { summary: 'Keep a picture, PNG, of a step (?step=)', params, response: ANSWERS.nothing } },
    async (request, reply) => {
      const { id } = await readMessage(DOCUMENT_ADDRESS, request.params);
      const { step } = await readMessage(STEP_QUERY, request.query);
      const { body } = request;
      if (!Buffer.isBuffer(body) || !body.subarray(0, 8).equals(PNG_SIGNATURE))
        throw new BadMessage([{ field: 'body', message: 'must be a PNG image' }]);
      await documents.saveThumbnail(id, step, body);
      return reply.status(204).send();
    },
  );

  app.get('/documents/:id/thumbnail', { schema: { summary: 'The picture, PNG', params } }, async (request, reply) => {
    const { id } = await readMessage(DOCUMENT_ADDRESS, request.params);
    const found = await documents.readThumbnail(id);
    if (!found) return reply.status(404).send({ error: 'missing', message: 'There is no picture yet.' });
    return reply.header('cache-control', 'private, max-age=31536000, immutable').type('image/png').send(found.png);
  });
}
