import { Readable } from 'node:stream';
import {
  ANNOUNCEMENT,
  ASSET_ADDRESS,
  ASSET_CHANGE,
  CHUNK_ADDRESS,
  CHUNK_BYTES,
  FILE_QUERY,
  mostBytesOf,
  type Announcement,
  type AssetChange,
} from '@brelvin/contract';
import type { FastifyInstance } from 'fastify';
import { BadMessage } from '../messages/bad-message';
import { bodyOf, describe } from '../messages/body';
import { readMessage } from '../messages/read-message';
import type { AssetRepository } from '../store/asset-repository';
import type { UploadRepository } from '../store/upload-repository';
import { ANSWERS } from './describe';

const params = describe(ASSET_ADDRESS);
const MEBIBYTE = 1024 * 1024;

/** Files of the workspace: announced, sent in chunks, finished, read. */
export async function assetRoutes(
  app: FastifyInstance,
  { assets, uploads }: { assets: AssetRepository; uploads: UploadRepository },
): Promise<void> {
  app.addContentTypeParser('application/octet-stream', { parseAs: 'buffer', bodyLimit: CHUNK_BYTES }, (_request, body, done) =>
    done(null, body),
  );

  app.get(
    '/assets',
    { schema: { summary: 'List and search images, newest change first', querystring: describe(FILE_QUERY), response: ANSWERS.assets } },
    async (request) => assets.list(await readMessage(FILE_QUERY, request.query)),
  );

  app.get('/assets/tags', { schema: { summary: 'Tags in use by images', response: ANSWERS.tags } }, async () => ({
    tags: await assets.tags(),
  }));

  app.patch(
    '/assets/:sha256',
    {
      schema: {
        summary: 'Rename an image, tag it, take it off the shelf or put it back',
        params,
        body: bodyOf(ASSET_CHANGE),
        response: ANSWERS.asset,
      },
    },
    async (request) => {
      const { sha256 } = await readMessage(ASSET_ADDRESS, request.params);
      return assets.change(sha256, request.body as AssetChange);
    },
  );

  app.post(
    '/assets',
    {
      schema: {
        summary: 'Announce a file by its SHA-256; tells which chunks to send',
        body: bodyOf(ANNOUNCEMENT),
        response: ANSWERS.missing,
      },
    },
    async (request) => {
      const announced = request.body as Announcement;
      refuseTooLarge(announced);
      return { missing: await uploads.announce(request.person, announced) };
    },
  );

  app.put(
    '/assets/:sha256/chunks/:number',
    { schema: { summary: 'Send a chunk of at most 1 MiB', response: ANSWERS.nothing } },
    async (request, reply) => {
      const { sha256, number } = await readMessage(CHUNK_ADDRESS, request.params);
      if (!Buffer.isBuffer(request.body)) throw new BadMessage([{ field: 'body', message: 'must be application/octet-stream' }]);
      await uploads.putChunk(request.person, sha256, number, request.body);
      return reply.status(204).send();
    },
  );

  app.post(
    '/assets/:sha256/finish',
    { schema: { summary: 'Take the file in, once all chunks are here', params, response: ANSWERS.asset } },
    async (request) => {
      const { sha256 } = await readMessage(ASSET_ADDRESS, request.params);
      return uploads.finish(request.person, sha256);
    },
  );

  app.get('/assets/:sha256', { schema: { summary: 'The file' } }, async (request, reply) => {
    const { sha256 } = await readMessage(ASSET_ADDRESS, request.params);
    const { asset, content } = await assets.read(sha256);
    return (
      reply
        .header('cache-control', 'private, max-age=31536000, immutable')
        .header('content-length', asset.size)
        // Images only; should a browser ever take one for a page, it may run nothing.
        .header('content-security-policy', "default-src 'none'; sandbox")
        .type(asset.type)
        .send(Readable.from(content))
    );
  });
}

/** Meshes may be larger than images. @throws BadMessage */
function refuseTooLarge({ type, size }: Announcement): void {
  const most = mostBytesOf(type);
  if (size > most) throw new BadMessage([{ field: 'size', message: `may be at most ${most / MEBIBYTE} MiB` }]);
}
