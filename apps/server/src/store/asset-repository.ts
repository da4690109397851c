import { createHash } from 'node:crypto';
import { imageSize } from 'image-size';
import { and, count, eq, inArray, sql } from 'drizzle-orm';
import {
  CHUNK_BYTES,
  ENVIRONMENT_TYPES,
  exrHead,
  IMAGE_TYPES,
  LARGEST_SIDE,
  MESH_TYPE,
  MeshFileRefused,
  meshFileHead,
  PictureRefused,
  radianceHead,
} from '@brelvin/core';
import type { Database } from './database';
import { AssetMissing, AssetRefused } from './failures';
import type { AssetChange, AssetSummary, ShelfQuery, TagCount } from './records';
import { assetChunks, assets } from './schema';
import { onShelf, shelfOrder, tagsInUse } from './shelf';

const TYPES_OF_USE: Readonly<Record<NonNullable<ShelfQuery['use']>, string[]>> = {
  image: Object.keys(IMAGE_TYPES),
  environment: Object.keys(ENVIRONMENT_TYPES),
  mesh: [MESH_TYPE],
};

/** Files by the SHA-256 of their content, in chunks. The same file is kept once. */
export class AssetRepository {
  constructor(private readonly database: Database) {}

  /** Announces a file; tells which of its chunks are not here yet. */
  async announce(sha256: string, { name, type, size }: { name: string; type: string; size: number }): Promise<number[]> {
    await this.database.insert(assets).values({ sha256, name, type, size }).onConflictDoNothing();
    const [row] = await this.database.select().from(assets).where(eq(assets.sha256, sha256));
    if (row?.complete) {
      // Whoever sends it again wants it back on the shelf.
      if (row.deletedAt) await this.change(sha256, { deleted: false });
      return [];
    }
    const here = await this.database.select({ number: assetChunks.number }).from(assetChunks).where(eq(assetChunks.asset, sha256));
    const known = new Set(here.map((each) => each.number));
    return Array.from({ length: Math.ceil(size / CHUNK_BYTES) }, (_, index) => index).filter((index) => !known.has(index));
  }

  /** @throws AssetMissing, AssetRefused for a chunk that can not belong to the file */
  async putChunk(sha256: string, number: number, content: Buffer): Promise<void> {
    const [row] = await this.database.select().from(assets).where(eq(assets.sha256, sha256));
    if (!row) throw new AssetMissing(sha256);
    const expected = Math.min(CHUNK_BYTES, row.size - number * CHUNK_BYTES);
    if (content.length !== expected) throw new AssetRefused(`Chunk ${number} must have ${expected} bytes, has ${content.length}.`);
    await this.database.insert(assetChunks).values({ asset: sha256, number, content }).onConflictDoNothing();
  }

  /**
   * Takes a file in, once all its chunks are here and it is what it claims to be.
   *
   * @throws AssetMissing; AssetRefused with the reason, after which the chunks are gone
   */
  async finish(sha256: string): Promise<AssetSummary> {
    const [row] = await this.database.select().from(assets).where(eq(assets.sha256, sha256));
    if (!row) throw new AssetMissing(sha256);
    if (row.complete) return summary(row);
    const chunks: Buffer[] = [];
    for await (const chunk of this.chunks(sha256)) chunks.push(chunk);
    const file = Buffer.concat(chunks);
    try {
      if (file.length !== row.size) throw new AssetRefused(`The file is not whole: ${file.length} of ${row.size} bytes have arrived.`);
      if (createHash('sha256').update(file).digest('hex') !== sha256)
        throw new AssetRefused('The file was damaged on its way. Send it again.');
      const { width, height } = checkedSize(file, row.type);
      const [done] = await this.database.update(assets).set({ complete: true, width, height }).where(eq(assets.sha256, sha256)).returning();
      return summary(done ?? row);
    } catch (error) {
      // What is not whole yet may be completed; what is wrong can only be sent anew.
      if (error instanceof AssetRefused && file.length === row.size) await this.database.delete(assets).where(eq(assets.sha256, sha256));
      throw error;
    }
  }

  /** @throws AssetMissing */
  async read(sha256: string): Promise<{ asset: AssetSummary; content: AsyncGenerator<Buffer> }> {
    const [row] = await this.database.select().from(assets).where(eq(assets.sha256, sha256));
    if (!row?.complete) throw new AssetMissing(sha256);
    return { asset: summary(row), content: this.chunks(sha256) };
  }

  async list(query: ShelfQuery): Promise<{ assets: AssetSummary[]; total: number }> {
    const { sort = 'changed', use, offset, limit } = query;
    const fitting = use && inArray(assets.type, TYPES_OF_USE[use]);
    const wanted = and(eq(assets.complete, true), fitting, ...onShelf(assets, query));
    const rows = this.database
      .select()
      .from(assets)
      .where(wanted)
      .orderBy(...shelfOrder(assets, assets.sha256)[sort])
      .limit(limit)
      .offset(offset);
    const [page, [sum]] = await Promise.all([rows, this.database.select({ total: count() }).from(assets).where(wanted)]);
    return { assets: page.map(summary), total: sum?.total ?? 0 };
  }

  /** Tags in use by images, most used first. */
  tags(): Promise<TagCount[]> {
    return tagsInUse(this.database, assets, eq(assets.complete, true));
  }

  /** @throws AssetMissing */
  async change(sha256: string, { name, tags, deleted }: AssetChange): Promise<AssetSummary> {
    const [row] = await this.database
      .update(assets)
      .set({
        name,
        tags: tags && [...tags],
        deletedAt: deleted === undefined ? undefined : deleted ? new Date() : null,
        updatedAt: new Date(),
      })
      .where(and(eq(assets.sha256, sha256), eq(assets.complete, true)))
      .returning();
    if (!row) throw new AssetMissing(sha256);
    return summary(row);
  }

  /** One chunk at a time: a file is never whole in memory on its way out. */
  private async *chunks(sha256: string): AsyncGenerator<Buffer> {
    for (let number = 0; ; number++) {
      const [row] = await this.database
        .select({ content: assetChunks.content })
        .from(assetChunks)
        .where(and(eq(assetChunks.asset, sha256), eq(assetChunks.number, sql`${number}`)));
      if (!row) return;
      yield row.content;
    }
  }
}

function summary({ sha256, name, type, size, width, height, tags, updatedAt }: typeof assets.$inferSelect): AssetSummary {
  return { sha256, name, type, size, width, height, tags, updatedAt };
}

/** @throws AssetRefused for anything that is no image of the announced type, or too large to be decoded */
function checkedSize(file: Buffer, type: string): { width: number; height: number } {
  if (ENVIRONMENT_TYPES[type]) return environmentSize(file, type);
  if (type === MESH_TYPE) return meshSize(file);
  let found: { width?: number; height?: number; type?: string };
  try {
    found = imageSize(file);
  } catch {
    throw new AssetRefused('This is not an image that can be read: its beginning is damaged.');
  }
  const { width = 0, height = 0 } = found;
  if (IMAGE_TYPES[type] !== found.type)
    throw new AssetRefused(`This file says it is ${type}, but it holds ${found.type ?? 'something else'}.`);
  if (width < 1 || height < 1 || width > LARGEST_SIDE || height > LARGEST_SIDE)
    throw new AssetRefused(`This image claims ${width} × ${height} pixels; at most ${LARGEST_SIDE} × ${LARGEST_SIDE} are taken.`);
  return { width, height };
}

/** A mesh has no pixels. @throws AssetRefused */
function meshSize(file: Buffer): { width: number; height: number } {
  try {
    meshFileHead(file);
    return { width: 0, height: 0 };
  } catch (error) {
    if (error instanceof MeshFileRefused) throw new AssetRefused(error.message);
    throw error;
  }
}

/** @throws AssetRefused */
function environmentSize(file: Buffer, type: string): { width: number; height: number } {
  try {
    const { width, height } = ENVIRONMENT_TYPES[type] === 'exr' ? exrHead(file) : radianceHead(file);
    return { width, height };
  } catch (error) {
    if (error instanceof PictureRefused) throw new AssetRefused(error.message);
    throw error;
  }
}
