import { inject, Injectable } from '@angular/core';
import { DocumentApi } from '../../shared/api/document-api';
import { Workbench } from '../../shared/documents/workbench';
import { Notices } from '../../shared/notices/notices';
import { download } from '../../shared/pixels/download';
import { DocumentStore } from '../documents/document-store';

/** What is sent out: the material alone, with its stage, or the set or light rig it stands in. */
export type SendOutWish = 'material' | 'stage' | 'set' | 'rig';

/** Makes Brelvin files of what is on the Bench, and hands them to the user. */
@Injectable()
export class SendOut {
  private readonly api = inject(DocumentApi);
  private readonly notices = inject(Notices);
  private readonly store = inject(DocumentStore);
  private readonly workbench = inject(Workbench);

  async send(wish: SendOutWish = 'material'): Promise<void> {
    this.store.flushDrafts();
    await this.workbench.flush();
    const { store } = this;
    const id = wish === 'set' ? store.previewContext()?.set : wish === 'rig' ? store.previewContext()?.rig : store.materialId();
    const name = id === undefined ? undefined : this.workbench.document(id)?.name;
    if (id === undefined || name === undefined) return;
    const withStage = wish === 'stage' || wish === 'set';
    const work = this.notices.work(`“${name}” is packed …`);
    try {
      const file = await this.api.file(id, withStage, work.signal);
      download(file, `${name}.brelvin`);
      work.close();
    } catch (error) {
      if (work.signal.aborted) work.close();
      else work.end(`“${name}” was not exported. ${error instanceof Error ? error.message : String(error)}`);
    }
  }
}
