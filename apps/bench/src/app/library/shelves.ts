import { inject, Injectable } from '@angular/core';
import { CODE_NAME, type DocumentKind, type AssetSummary, type DocumentSummary } from '@brelvin/contract';
import { functionKindId, functionWords, rename, renameFunction, setTags, type Edit } from '@brelvin/core';
import { AssetApi } from '../shared/api/asset-api';
import { DocumentApi, type ListOptions } from '../shared/api/document-api';
import { newId } from '../shared/documents/new-id';
import { FunctionShelf } from '../shared/functions/function-shelf';

export type Shelf = DocumentKind | 'image';

/** What stands on a shelf of the Library. */
export interface ShelfEntry extends Omit<DocumentSummary, 'kind'> {
  readonly kind: Shelf;
  /** Of an image how large it is, of a function its head. */
  readonly detail?: string;
}

/** The shelves of the Library: documents, and the images of the workspace. Every method throws ApiFailure. */
@Injectable({ providedIn: 'root' })
export class Shelves {
  private readonly documents = inject(DocumentApi);
  private readonly assets = inject(AssetApi);
  private readonly functions = inject(FunctionShelf);

  async list(shelf: Shelf, options: ListOptions): Promise<{ entries: readonly ShelfEntry[]; total: number }> {
    if (shelf === 'image') {
      const { assets, total } = await this.assets.list({ ...options, use: 'image' });
      return { entries: assets.map(imageEntry), total };
    }
    const { documents, total } = await this.documents.list(shelf, options);
    if (shelf !== 'function') return { entries: documents, total };
    await this.functions.refresh();
    return { entries: documents.map((each) => ({ ...each, ...this.words(each.name) })), total };
  }

  tags(shelf: Shelf): Promise<{ tags: { tag: string; count: number }[] }> {
    return shelf === 'image' ? this.assets.tags() : this.documents.tags(shelf);
  }

  /** @throws Error with words for a name that a function cannot have */
  async rename(entry: ShelfEntry, name: string): Promise<void> {
    if (entry.kind === 'image') await this.assets.change(entry.id, { name });
    else if (entry.kind === 'function') await this.renameFunction(entry.id, name);
    else await this.edit(entry.id, rename(name));
  }

  async retag(entry: ShelfEntry, tags: readonly string[]): Promise<void> {
    if (entry.kind === 'image') await this.assets.change(entry.id, { tags });
    else await this.edit(entry.id, setTags(tags));
  }

  async setDeleted({ id, kind }: ShelfEntry, deleted: boolean): Promise<void> {
    if (kind === 'image') await this.assets.change(id, { deleted });
    else await (deleted ? this.documents.remove(id) : this.documents.restore(id));
  }

  /** A function's head, in place of a picture. */
  private words(name: string): { detail?: string } {
    const kind = this.functions.library().kinds.get(functionKindId(name));
    const [overload] = kind?.overloads ?? [];
    return overload ? { detail: functionWords(overload, name) } : {};
  }

  private async renameFunction(id: string, name: string): Promise<void> {
    if (!new RegExp(CODE_NAME).test(name))
      throw new Error('A function is imported by its name: it begins with a letter, and has only letters, digits and “_”.');
    const { document } = await this.documents.read(id);
    if (document.format === 'brelvin-function') await this.edit(id, renameFunction(document, name));
    await this.functions.refresh();
  }

  /** One step on top of what is stored, so that it can be taken back on the Bench like every other. */
  private async edit(id: string, { label, changes }: Edit): Promise<void> {
    const { step } = await this.documents.read(id);
    await this.documents.append(id, step, [{ id: newId(), label, changes }]);
  }
}

function imageEntry({ sha256, name, tags, updatedAt, width, height, size }: AssetSummary): ShelfEntry {
  const bytes = size < 1024 * 1024 ? `${Math.ceil(size / 1024)} KiB` : `${(size / 1024 / 1024).toFixed(1)} MiB`;
  return { id: sha256, kind: 'image', name, tags, step: 0, updatedAt, pictured: null, detail: `${width} × ${height}, ${bytes}` };
}
