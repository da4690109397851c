import { CHUNK_BYTES } from '@brelvin/contract';
import { demoWithFiles } from '@brelvin/io/node';
import { demoPicture } from './demo-pictures';
import type { DocumentRepository } from './store/document-repository';
import type { UploadRepository } from './store/upload-repository';

/** Who sends the demo's files. */
const SENDER = 'demo';

/** Puts the demo documents, their images and their pictures into an empty database. */
export async function seedDemo(documents: DocumentRepository, uploads: UploadRepository): Promise<boolean> {
  if (!(await documents.isEmpty())) return false;
  const demo = demoWithFiles();
  for (const { name, type, sha256, file } of demo.files) {
    for (const number of await uploads.announce(SENDER, { sha256, name, type, size: file.length })) {
      await uploads.putChunk(SENDER, sha256, number, file.subarray(number * CHUNK_BYTES, (number + 1) * CHUNK_BYTES));
    }
    await uploads.finish(SENDER, sha256);
  }
  for (const { id, document } of demo.documents) {
    const { step } = await documents.create(id, document);
    const picture = demoPicture(id);
    if (picture) await documents.saveThumbnail(id, step, picture);
  }
  return true;
}
