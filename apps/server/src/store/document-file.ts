import type { BrelvinDocument } from '@brelvin/contract';
import { assetsOf, functionsNeededBy, functionsUsedBy, LARGEST_BRELVIN_FILE, seenWith, type BrelvinFile } from '@brelvin/core';
import type { AssetRepository } from './asset-repository';
import type { DocumentRepository } from './document-repository';
import { AssetMissing, DocumentGone, DocumentMissing, FileTooLarge } from './failures';

export interface Stores {
  readonly documents: DocumentRepository;
  readonly assets: AssetRepository;
}

/**
 * A document with what is to be in a file of it.
 *
 * @param wish whether what it shows comes along, and the set and light rig that it is seen in
 * @throws DocumentMissing, DocumentGone, FileTooLarge
 */
export async function documentFile(
  { documents, assets }: Stores,
  id: string,
  wish: { readonly images: boolean; readonly stage: boolean },
): Promise<BrelvinFile> {
  const { document } = await documents.read(id);
  const beside = wish.stage ? await besideOf(id, document, documents) : new Map<string, BrelvinDocument>();
  const all = [document, ...beside.values()];
  return {
    document,
    beside,
    assets: wish.images ? await contentOf(all, assets) : new Map(),
    functions: await functionsOf(all, documents),
  };
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
