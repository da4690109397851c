import { type AssetChange, type AssetSummary, FILE_USES, type FILE_QUERY, type ReceivedOf, type TagCount } from '@brelvin/contract';
import { and, count, eq, inArray } from 'drizzle-orm';
import type { Database } from './database';
import { AssetMissing } from './failures';
import { tell } from './news';
import { assetChunks, assets } from './schema';
import { onShelf, shelfOrder, tagsInUse } from './shelf';

/** Files by the SHA-256 of their content. The same file is kept once. */
export class AssetRepository {
  constructor(private readonly database: Database) {}

  /** @throws AssetMissing */
  async read(sha256: string): Promise<{ asset: AssetSummary; content: AsyncGenerator<Buffer> }> {
    const [row] = await this.database.select().from(assets).where(eq(assets.sha256, sha256));
    if (!row) throw new AssetMissing(sha256);
    return { asset: summary(row), content: chunksOf(this.database, row.storage) };
  }

  async list(query: ReceivedOf<typeof FILE_QUERY>): Promise<{ assets: AssetSummary[]; total: number }> {
    const { sort = 'changed', use, offset, limit } = query;
    const fitting = use && inArray(assets.type, [...FILE_USES[use]]);
    const wanted = and(fitting, ...onShelf(assets, query));
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
    return tagsInUse(this.database, assets);
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
      .where(eq(assets.sha256, sha256))
      .returning();
    if (!row) throw new AssetMissing(sha256);
    await tell(this.database, { asset: sha256 });
    return summary(row);
  }
}

/** One chunk at a time: a file is never whole in memory on its way out. */
export async function* chunksOf(database: Database, storage: string): AsyncGenerator<Buffer> {
  for (let number = 0; ; number++) {
    const [row] = await database
      .select({ content: assetChunks.content })
      .from(assetChunks)
      .where(and(eq(assetChunks.storage, storage), eq(assetChunks.number, number)));
    if (!row) return;
    yield row.content;
  }
}

export function summary({ sha256, name, type, size, width, height, tags, updatedAt }: typeof assets.$inferSelect): AssetSummary {
  return { sha256, name, type, size, width, height, tags, updatedAt: updatedAt.toISOString() };
}
