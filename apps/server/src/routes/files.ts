import { functionsNeededBy, functionsUsedBy, writeBrelvinFile, type BrelvinDocument } from '@brelvin/core';
import type { FastifyInstance, FastifyReply } from 'fastify';
import { DocumentParams, FileMessage } from '../messages/documents';
import { readMessage } from '../messages/read-message';
import type { AssetRepository } from '../store/asset-repository';
import type { DocumentRepository } from '../store/document-repository';
import { idParams } from './describe';

/** Documents as files to be kept elsewhere: with their images and functions in one archive, or with links to the workspace's. */
export async function fileRoutes(
  app: FastifyInstance,
  { documents, assets }: { documents: DocumentRepository; assets: AssetRepository },
): Promise<void> {
  app.get(
    '/documents/:id/file',
    { schema: { summary: 'The document as a file; ?images=links leaves images out', params: idParams } },
    async (request, reply) => {
      const { id } = await readMessage(DocumentParams, request.params);
      const { images } = await readMessage(FileMessage, request.query);
      const { document } = await documents.read(id);
      const wanted = images === 'links' ? [] : imagesOf(document);
      const functions = await functionsOf(document, documents);
      attach(reply, document.name);
      if (wanted.length === 0 && functions.size === 0)
        return reply.type('application/json; charset=utf-8').send(`${JSON.stringify(document, null, 2)}\n`);
      const found = new Map<string, { bytes: Uint8Array; type: string }>();
      for (const sha256 of wanted) {
        const { asset, content } = await assets.read(sha256);
        const chunks: Buffer[] = [];
        for await (const chunk of content) chunks.push(chunk);
        found.set(sha256, { bytes: Buffer.concat(chunks), type: asset.type });
      }
      return reply.type('application/zip').send(Buffer.from(writeBrelvinFile(document, found, functions)));
    },
  );
}

/** The functions that a document needs, and all that these need. */
async function functionsOf(document: BrelvinDocument, documents: DocumentRepository): Promise<Map<string, string>> {
  if (functionsUsedBy(document).length === 0) return new Map();
  const texts = new Map((await documents.functions()).map((each) => [each.name, each]));
  return new Map([...functionsNeededBy(document, texts)].flatMap((name) => (texts.has(name) ? [[name, texts.get(name)?.text ?? '']] : [])));
}

function imagesOf(document: BrelvinDocument): string[] {
  if (document.format !== 'brelvin-material') return [];
  return [...new Set(Object.values(document.images).flatMap(({ asset, faces }) => faces ?? [asset]))];
}

function attach(reply: FastifyReply, name: string): void {
  void reply.header('content-disposition', `attachment; filename*=UTF-8''${encodeURIComponent(`${name}.brelvin`)}`);
}
