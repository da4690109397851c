import { createHash, randomUUID } from 'node:crypto';
import { type Announcement, type AssetSummary, CHUNK_BYTES } from '@brelvin/contract';
import { and, count, eq, inArray, lt, ne, sql, sum } from 'drizzle-orm';
import pLimit from 'p-limit';
import { chunksOf, summary, type AssetRepository } from './asset-repository';
import { tell } from './news';
import type { Database } from './database';
import { AssetMissing, AssetRefused, TooManyUploads } from './failures';
import { checkedSize, HEAD_BYTES } from './file-head';
import { assetChunks, assets, uploads } from './schema';

/** What may be on its way and not finished. */
export interface UploadBounds {
  readonly filesOfOne: number;
  readonly bytesOfOne: number;
  readonly bytesOfAll: number;
}

const GIB = 1024 ** 3;
const BOUNDS: UploadBounds = { filesOfOne: 200, bytesOfOne: 4 * GIB, bytesOfAll: 16 * GIB };
/** Files that are looked through at once; others wait their turn. */
const CHECKED_AT_ONCE = 2;

type Upload = typeof uploads.$inferSelect;

/** Files on their way in, each sender's own: announced, sent in chunks, checked as a stream, taken over by the assets. */
export class UploadRepository {
  private readonly turn = pLimit(CHECKED_AT_ONCE);

  constructor(
    private readonly database: Database,
    private readonly assets: AssetRepository,
    private readonly bounds = BOUNDS,
  ) {}

  /** Files that are being checked, and that wait for it. */
  underWay(): { readonly checked: number; readonly waiting: number } {
    return { checked: this.turn.activeCount, waiting: this.turn.pendingCount };
  }

  /**
   * Announces a file; tells which of its chunks are not here yet. What the same sender announced otherwise before is gone.
   *
   * @throws TooManyUploads
   */
  async announce(sender: string, { sha256, ...said }: Announcement): Promise<number[]> {
    const [whole] = await this.database.select().from(assets).where(eq(assets.sha256, sha256));
    if (whole) {
      // Whoever sends it again wants it back on the shelf.
      if (whole.deletedAt) await this.assets.change(sha256, { deleted: false });
      return [];
    }
    await this.removeOld();
    const before = await this.find(sender, sha256);
    if (before && (before.size !== said.size || before.type !== said.type)) await this.remove([before]);
    await this.refuseTooMuch(sender, sha256, said.size);
    await this.database
      .insert(uploads)
      .values({ storage: randomUUID(), sender, sha256, ...said })
      .onConflictDoNothing();
    const upload = await this.find(sender, sha256);
    const here = upload
      ? await this.database.select({ number: assetChunks.number }).from(assetChunks).where(eq(assetChunks.storage, upload.storage))
      : [];
    const known = new Set(here.map((each) => each.number));
    return Array.from({ length: Math.ceil(said.size / CHUNK_BYTES) }, (_, index) => index).filter((index) => !known.has(index));
  }

  /** @throws AssetMissing, AssetRefused for a chunk that cannot belong to the file */
  async putChunk(sender: string, sha256: string, number: number, content: Buffer): Promise<void> {
    const upload = await this.find(sender, sha256);
    if (!upload) throw new AssetMissing(sha256);
    const expected = Math.min(CHUNK_BYTES, upload.size - number * CHUNK_BYTES);
    if (content.length !== expected)
      throw new AssetRefused(`Chunk ${number} must have ${Math.max(expected, 0)} bytes, has ${content.length}.`);
    await this.database.insert(assetChunks).values({ storage: upload.storage, number, content }).onConflictDoNothing();
  }

  /**
   * Takes a file in, once all its chunks are here and it is what it claims to be.
   *
   * @throws AssetMissing; AssetRefused with the reason, after which the chunks are gone
   */
  async finish(sender: string, sha256: string): Promise<AssetSummary> {
    const upload = await this.find(sender, sha256);
    if (!upload) return (await this.assets.read(sha256)).asset;
    return this.turn(() => this.check(upload));
  }

  private async check(upload: Upload): Promise<AssetSummary> {
    const { storage, sha256, name, type, size } = upload;
    const hash = createHash('sha256');
    const head: Buffer[] = [];
    let bytes = 0;
    for await (const chunk of chunksOf(this.database, storage)) {
      hash.update(chunk);
      if (bytes < HEAD_BYTES) head.push(chunk);
      bytes += chunk.length;
    }
    // What is not whole yet may be completed; what is wrong can only be sent anew.
    if (bytes !== size) throw new AssetRefused(`The file is not whole: ${bytes} of ${size} bytes have arrived.`);
    try {
      if (hash.digest('hex') !== sha256) throw new AssetRefused('The file was damaged on its way. Send it again.');
      const { width, height } = checkedSize(Buffer.concat(head), bytes, type);
      return await this.database.transaction(async (transaction) => {
        const [made] = await transaction
          .insert(assets)
          .values({ sha256, name, type, size, width, height, storage })
          .onConflictDoNothing()
          .returning();
        await transaction.delete(uploads).where(eq(uploads.storage, storage));
        if (made) {
          await tell(transaction, { asset: sha256 });
          return summary(made);
        }
        // Somebody else finished the same file meanwhile.
        await transaction.delete(assetChunks).where(eq(assetChunks.storage, storage));
        const [theirs] = await transaction.select().from(assets).where(eq(assets.sha256, sha256));
        if (!theirs) throw new AssetMissing(sha256);
        return summary(theirs);
      });
    } catch (error) {
      if (error instanceof AssetRefused) await this.remove([upload]);
      throw error;
    }
  }

  private async find(sender: string, sha256: string): Promise<Upload | undefined> {
    const [upload] = await this.database
      .select()
      .from(uploads)
      .where(and(eq(uploads.sender, sender), eq(uploads.sha256, sha256)));
    return upload;
  }

  /** Whoever has not finished a file within a day does not come back for it. */
  private async removeOld(): Promise<void> {
    const old = await this.database
      .select()
      .from(uploads)
      .where(lt(uploads.createdAt, sql`now() - interval '1 day'`))
      .limit(100);
    await this.remove(old);
  }

  private async remove(gone: readonly Upload[]): Promise<void> {
    const storages = gone.map((each) => each.storage);
    if (storages.length === 0) return;
    await this.database.transaction(async (transaction) => {
      const removed = await transaction.delete(uploads).where(inArray(uploads.storage, storages)).returning({ storage: uploads.storage });
      // One that was finished meanwhile keeps its chunks: they are an asset's now.
      if (removed.length > 0)
        await transaction.delete(assetChunks).where(
          inArray(
            assetChunks.storage,
            removed.map((each) => each.storage),
          ),
        );
    });
  }

  private async refuseTooMuch(sender: string, sha256: string, size: number): Promise<void> {
    const others = ne(uploads.sha256, sha256);
    const measured = { files: count(), bytes: sum(uploads.size).mapWith(Number) };
    const [[own], [all]] = await Promise.all([
      this.database
        .select(measured)
        .from(uploads)
        .where(and(eq(uploads.sender, sender), others)),
      this.database.select(measured).from(uploads).where(others),
    ]);
    const bytesOf = (sums: { bytes: number | null } | undefined): number => (sums?.bytes ?? 0) + size;
    if ((own?.files ?? 0) >= this.bounds.filesOfOne || bytesOf(own) > this.bounds.bytesOfOne)
      throw new TooManyUploads(
        'Too many files are on their way that were never sent whole. Send those again, or wait a day: then they are forgotten.',
      );
    if (bytesOf(all) > this.bounds.bytesOfAll)
      throw new TooManyUploads('So many files are on their way here that there is no room for another; try again later.');
  }
}
