import { DOCUMENT_ADDRESS, FILE_FORM_QUERY, type BrelvinDocument } from '@brelvin/contract';
import { assetsOf, functionsNeededBy, functionsUsedBy, LARGEST_BRELVIN_FILE, seenWith, writeBrelvinFile } from '@brelvin/core';
import type { FastifyInstance, FastifyReply } from 'fastify';
import { describe } from '../messages/body';
import { readMessage } from '../messages/read-message';
import type { AssetRepository } from '../store/asset-repository';
import type { DocumentRepository } from '../store/document-repository';
import { AssetMissing, DocumentGone, DocumentMissing, FileTooLarge } from '../store/failures';

interface Stores {
  readonly documents: DocumentRepository;
  readonly assets: AssetRepository;
}

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
      const { document } = await stores.documents.read(id);
      const beside = wanted === 'stage' ? await besideOf(id, document, stores.documents) : new Map<string, BrelvinDocument>();
      const all = [document, ...beside.values()];
      const assets = images === 'links' ? new Map() : await contentOf(all, stores.assets);
      const functions = await functionsOf(all, stores.documents);
      attach(reply, document.name);
      if (beside.size === 0 && assets.size === 0 && functions.size === 0)
        return reply.type('application/json; charset=utf-8').send(`${JSON.stringify(document, null, 2)}\n`);
      return reply.type('application/zip').send(Buffer.from(writeBrelvinFile({ document, beside, assets, functions })));
    },
  );
}

/** Documents that are seen with one, and those that are seen with a set of it. What is gone is left out: it is not seen either. */
async function besideOf(id: string, document: BrelvinDocument, documents: DocumentRepository): Promise<Map<string, BrelvinDocument>> {
  const found = new Map<string, BrelvinDocument>();
  const enter = async (each: BrelvinDocument): Promise<void> => {
    for (const other of seenWith(each)) {
      if (other === id || found.has(other)) continue;
      const read = await documents.read(other).catch(missing);
      if (!read) continue;
      found.set(other, read.document);
      // What others were last seen in is no part of this picture.
      if (read.document.format === 'brelvin-set') await enter(read.document);
    }
  };
  await enter(document);
  return found;
}

/** Bytes of the files that documents show. What is gone is left out. @throws FileTooLarge */
async function contentOf(
  all: readonly BrelvinDocument[],
  assets: AssetRepository,
): Promise<Map<string, { readonly bytes: Uint8Array; readonly type: string }>> {
  const found = new Map<string, { bytes: Uint8Array; type: string }>();
  let total = 0;
  for (const sha256 of new Set(all.flatMap(assetsOf).map((each) => each.sha256))) {
    const read = await assets.read(sha256).catch(missing);
    if (!read) continue;
    total += read.asset.size;
    if (total > LARGEST_BRELVIN_FILE) throw new FileTooLarge(total, LARGEST_BRELVIN_FILE);
    const chunks: Buffer[] = [];
    for await (const chunk of read.content) chunks.push(chunk);
    found.set(sha256, { bytes: Buffer.concat(chunks), type: read.asset.type });
  }
  return found;
}

function missing(error: unknown): undefined {
  if (error instanceof AssetMissing || error instanceof DocumentMissing || error instanceof DocumentGone) return undefined;
  throw error;
}

/** The functions that documents need, and all that these need. */
async function functionsOf(all: readonly BrelvinDocument[], documents: DocumentRepository): Promise<Map<string, string>> {
  if (!all.some((each) => functionsUsedBy(each).length > 0)) return new Map();
  const texts = new Map((await documents.functions()).map((each) => [each.name, each]));
  const names = new Set(all.flatMap((each) => [...functionsNeededBy(each, texts)]));
  return new Map([...names].flatMap((name) => (texts.has(name) ? [[name, texts.get(name)?.text ?? '']] : [])));
}

function attach(reply: FastifyReply, name: string): void {
  void reply.header('content-disposition', `attachment; filename*=UTF-8''${encodeURIComponent(`${name}.brelvin`)}`);
}
