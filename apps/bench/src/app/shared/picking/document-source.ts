import { formatDate } from '@angular/common';
import { inject, Injectable } from '@angular/core';
import type { DocumentKind, DocumentSummary } from '@brelvin/contract';
import { DocumentApi } from '../api/document-api';
import type { PickerSource } from './picker-source';

const WORDS: Readonly<Record<DocumentKind, readonly [string, string]>> = {
  material: ['material', 'materials'],
  set: ['set', 'sets'],
  rig: ['light rig', 'light rigs'],
  function: ['function', 'functions'],
  field: ['field', 'fields'],
};

/** Documents of the Library to be picked from. */
@Injectable({ providedIn: 'root' })
export class DocumentSource {
  private readonly api = inject(DocumentApi);

  of(kind: DocumentKind): PickerSource {
    return {
      words: WORDS[kind],
      page: async ({ search, tag, offset, limit }) => {
        const { documents, total } = await this.api.list(kind, { search, tag, offset, limit, sort: 'changed' });
        return { entries: documents.map((each) => this.entryOf(each)), total };
      },
      tags: async () => (await this.api.tags(kind)).tags,
    };
  }

  private entryOf({ id, name, tags, updatedAt, pictured }: DocumentSummary) {
    const changed = formatDate(updatedAt, 'd MMM, HH:mm', 'en');
    return {
      id,
      name,
      hint: [...tags, changed].join(', '),
      ...(pictured === null ? {} : { picture: this.api.thumbnailUrl(id, pictured) }),
    };
  }
}
