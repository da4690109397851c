import { DOCUMENT_ADDRESS, FILE_FORM_QUERY } from '@brelvin/contract';
import { writeBrelvinFile } from '@brelvin/core';
import type { FastifyInstance, FastifyReply } from 'fastify';
import { describe } from '../messages/body';
import { readMessage } from '../messages/read-message';
import { documentFile, type Stores } from '../store/document-file';

/** Documents as files to be kept elsewhere: with all that they show in one archive, or with links to the workspace's. */
export async function fileRoutes(app: FastifyInstance, stores: Stores): Promise<void> {
  app.get(
    '/documents/:id/file',
    {
      schema: {
        summary: 'The document as a file; ?images=links leaves what it shows out, ?with=stage puts its set and light rig in',
        params: describe(DOCUMENT_ADDRESS),
      },
    },
    async (request, reply) => {
      const { id } = await readMessage(DOCUMENT_ADDRESS, request.params);
      const { images, with: wanted } = await readMessage(FILE_FORM_QUERY, request.query);
      const file = await documentFile(stores, id, { images: images !== 'links', stage: wanted === 'stage' });
      const { document, beside, assets, functions } = file;
      attach(reply, document.name);
      if (beside.size === 0 && assets.size === 0 && functions.size === 0)
        return reply.type('application/json; charset=utf-8').send(`${JSON.stringify(document, null, 2)}\n`);
      return reply.type('application/zip').send(Buffer.from(writeBrelvinFile(file)));
    },
  );
}

function attach(reply: FastifyReply, name: string): void {
  void reply.header('content-disposition', `attachment; filename*=UTF-8''${encodeURIComponent(`${name}.brelvin`)}`);
}
