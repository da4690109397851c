import { inject, Injectable } from '@angular/core';
import { LARGEST_BRELVIN_FILE, readBrelvinFile, type BrelvinDocument } from '@brelvin/core';
import { DocumentApi } from '../shared/api/document-api';
import { newId } from '../shared/documents/new-id';
import { FunctionShelf } from '../shared/functions/function-shelf';
import { ImageShelf } from '../shared/images/image-shelf';

/** Takes Brelvin files in: the images and functions first (one that the Library has by name stays as it is), so that the document never stands there without them. */
@Injectable({ providedIn: 'root' })
export class FileTaker {
  private readonly api = inject(DocumentApi);
  private readonly functions = inject(FunctionShelf);
  private readonly shelf = inject(ImageShelf);

  /** @throws Error with words for the user; then nothing but images was taken */
  async take(file: File): Promise<BrelvinDocument> {
    if (file.size > LARGEST_BRELVIN_FILE)
      throw new Error(
        `“${file.name}” has ${Math.round(file.size / 1024 / 1024)} MiB; a Brelvin file has at most ${LARGEST_BRELVIN_FILE / 1024 / 1024}.`,
      );
    const { document, images, functions } = readBrelvinFile(new Uint8Array(await file.arrayBuffer()));
    for (const [sha256, { bytes, type }] of images) {
      const taken = await this.shelf.take(new File([bytes], `${sha256.slice(0, 12)}.${type.split('/')[1] ?? 'png'}`, { type }));
      if (taken?.asset !== sha256) throw new Error(`“${file.name}” was not taken: an image in it is not what its name says.`);
    }
    await this.functions.refresh();
    for (const [name, text] of functions) if (this.functions.idOf(name) === undefined) await this.functions.create(name, text);
    await this.api.create(newId(), document);
    return document;
  }
}
