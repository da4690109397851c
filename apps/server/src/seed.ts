import { CHUNK_BYTES, DEMO_DOCUMENTS, LABEL_ASSETS, type BrelvinDocument, type Material } from '@brelvin/core';
import { demoImages } from './demo-images';
import type { AssetRepository } from './store/asset-repository';
import type { DocumentRepository } from './store/document-repository';

/** Puts the demo documents and their images into an empty database. */
export async function seedDemo(documents: DocumentRepository, assets: AssetRepository): Promise<boolean> {
  if (!(await documents.isEmpty())) return false;
  const addresses = new Map<string, string>();
  for (const { name, label, sha256, file } of demoImages()) {
    addresses.set(LABEL_ASSETS[label], sha256);
    for (const number of await assets.announce(sha256, { name, type: 'image/png', size: file.length })) {
      await assets.putChunk(sha256, number, file.subarray(number * CHUNK_BYTES, (number + 1) * CHUNK_BYTES));
    }
    await assets.finish(sha256);
  }
  for (const { id, document } of DEMO_DOCUMENTS) await documents.create(id, readdressed(document, addresses));
  return true;
}

/** Packing differs between versions of zlib, so a picture's address is known only once it is packed. */
function readdressed(document: BrelvinDocument, addresses: ReadonlyMap<string, string>): BrelvinDocument {
  if (document.format !== 'brelvin-material') return document;
  const images = Object.entries(document.images).map(([id, image]) => [id, { ...image, asset: addresses.get(image.asset) ?? image.asset }]);
  return { ...document, images: Object.fromEntries(images) as Material['images'] };
}
