import { inject, Injectable } from '@angular/core';
import type { DocumentSummary } from '@brelvin/contract';
import { DocumentApi } from '../shared/api/document-api';
import { RecentMaterials } from '../shared/documents/recent-materials';

const SHOWN = 8;

/** Materials that were opened lately in this browser, as far as they are still there. */
@Injectable({ providedIn: 'root' })
export class Recents {
  private readonly api = inject(DocumentApi);
  private readonly recent = inject(RecentMaterials);

  async summaries(): Promise<readonly DocumentSummary[]> {
    const found = await Promise.all(
      this.recent
        .ids()
        .slice(0, SHOWN)
        .map((id) =>
          this.api.read(id).then(
            ({ step, document }): DocumentSummary => ({
              id,
              kind: 'material',
              name: document.name,
              tags: document.tags,
              step,
              updatedAt: '',
              pictured: null,
            }),
            () => undefined,
          ),
        ),
    );
    return found.filter((each) => each !== undefined);
  }
}
