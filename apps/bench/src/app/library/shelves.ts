import { inject, Injectable } from '@angular/core';
import { rename, setTags, type DocumentKind, type Edit } from '@brelvin/core';
import { AssetApi, type AssetSummary } from '../shared/api/asset-api';
import { DocumentApi, type DocumentSummary, type ListOptions } from '../shared/api/document-api';
import { newId } from '../shared/documents/new-id';

export type Shelf = DocumentKind | 'image';

/** What stands on a shelf of the Library. */
export interface ShelfEntry extends Omit<DocumentSummary, 'kind'> {
  readonly kind: Shelf;
  /** Of an image: how large it is, in words. */
  readonly detail?: string;
}

/** The shelves of the Library: documents, and the images of the workspace. Every method throws ApiFailure. */
@Injectable({ providedIn: 'root' })
export class Shelves {
  private readonly documents = inject(DocumentApi);
  private readonly assets = inject(AssetApi);

  async list(shelf: Shelf, options: ListOptions): Promise<{ entries: readonly ShelfEntry[]; total: number }> {
    if (shelf === 'image') {
      const { assets, total } = await this.assets.list(options);
      return { entries: assets.map(imageEntry), total };
    }
    const { documents, total } = await this.documents.list(shelf, options);
    return { entries: documents, total };
  }

  tags(shelf: Shelf): Promise<{ tags: { tag: string; count: number }[] }> {
    return shelf === 'image' ? this.assets.tags() : this.documents.tags(shelf);
  }

  async rename(entry: ShelfEntry, name: string): Promise<void> {
    if (entry.kind === 'image') await this.assets.change(entry.id, { name });
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
