import { inject, Injectable } from '@angular/core';
import { Router } from '@angular/router';
import type { PictureSize } from '@brelvin/core';
import { JobApi } from '../../shared/api/job-api';
import { Notices } from '../../shared/notices/notices';
import { Workbench } from '../../shared/documents/workbench';
import { DocumentStore } from '../documents/document-store';
import { StageBinding } from './stage-binding';

/** Has workers draw the picture as it is saved, from where it is seen. */
@Injectable()
export class AskedStills {
  private readonly api = inject(JobApi);
  private readonly notices = inject(Notices);
  private readonly router = inject(Router);
  private readonly store = inject(DocumentStore);
  private readonly stage = inject(StageBinding);
  private readonly workbench = inject(Workbench);

  async ask({ width, height }: PictureSize): Promise<void> {
    const document = this.store.materialId();
    if (document === undefined) return;
    const [set, rig] = [this.store.setId(), this.store.rigId()];
    try {
      // Workers draw what the server has.
      await this.workbench.flush();
      const wish = { document, width, height, camera: this.stage.camera(), seconds: 0, ...own({ set, rig }) };
      const { title } = await this.api.render(wish);
      const { drawing } = await this.api.workers();
      const words = drawing > 0 ? 'A worker draws' : 'No worker draws now; the first one that comes draws';
      this.notices.say(`${words} “${title}”, ${width} × ${height}.`, [
        { words: 'Show the jobs', run: () => void this.router.navigate(['/jobs']) },
      ]);
    } catch (error) {
      this.notices.say(`No worker was asked. ${error instanceof Error ? error.message : String(error)}`);
    }
  }
}

/** Those of the workspace; what Brelvin brings along has no place of its own. */
function own(ids: Readonly<Record<string, string | undefined>>): Record<string, string> {
  return Object.fromEntries(Object.entries(ids).flatMap(([what, id]) => (id === undefined ? [] : [[what, id]])));
}
