import { CHUNK_BYTES, type BrelvinDocument, type Material, type RigEnvironment } from '@brelvin/contract';
import { DEMO_DOCUMENTS, demoPanorama, panoramaHarmonics, toldHarmonics } from '@brelvin/core';
import { demoEnvironments, demoImages } from './demo-images';
import { demoPicture } from './demo-pictures';
import type { DocumentRepository } from './store/document-repository';
import type { UploadRepository } from './store/upload-repository';

/** Who sends the demo's files. */
const SENDER = 'demo';

/** Puts the demo documents, their images and their pictures into an empty database. */
export async function seedDemo(documents: DocumentRepository, uploads: UploadRepository): Promise<boolean> {
  if (!(await documents.isEmpty())) return false;
  const addresses = new Map<string, string>();
  for (const { name, type, asset, sha256, file } of [...demoImages(), ...demoEnvironments()]) {
    addresses.set(asset, sha256);
    for (const number of await uploads.announce(SENDER, { sha256, name, type, size: file.length })) {
      await uploads.putChunk(SENDER, sha256, number, file.subarray(number * CHUNK_BYTES, (number + 1) * CHUNK_BYTES));
    }
    await uploads.finish(SENDER, sha256);
  }
  for (const { id, document } of DEMO_DOCUMENTS) {
    const { step } = await documents.create(id, readdressed(document, addresses));
    const picture = demoPicture(id);
    if (picture) await documents.saveThumbnail(id, step, picture);
  }
  return true;
}

/** Packing differs between versions of zlib, so a picture's address is known only once it is packed. */
function readdressed(document: BrelvinDocument, addresses: ReadonlyMap<string, string>): BrelvinDocument {
  const real = (asset: string): string => addresses.get(asset) ?? asset;
  if (document.format === 'brelvin-light-rig' && document.environment)
    return {
      ...document,
      environment: { ...document.environment, ...told(document.environment), assets: document.environment.assets.map(real) },
    };
  if (document.format !== 'brelvin-material') return document;
  const images = Object.entries(document.images).map(([id, image]) => [id, { ...image, asset: real(image.asset) }]);
  return { ...document, images: Object.fromEntries(images) as Material['images'] };
}

/** The light of a demo environment, so that rigs which it only lights need no file. */
function told({ assets: [asset] }: RigEnvironment): Pick<RigEnvironment, 'light'> {
  const picture = demoPanorama(asset);
  return picture ? { light: toldHarmonics(panoramaHarmonics(picture)) } : {};
}
