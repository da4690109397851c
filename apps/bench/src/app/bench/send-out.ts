import { inject, Injectable } from '@angular/core';
import { DocumentApi } from '../shared/api/document-api';
import type { Workbench } from '../shared/documents/workbench';
import { Notices } from '../shared/notices/notices';
import { download } from '../shared/pixels/download';

/** What is sent out: the material alone, with its stage, or the set or light rig it stands in. */
export type SendOutWish = 'material' | 'stage' | 'set' | 'rig';

/** Makes Brelvin files of what is stored, and hands them to the user. */
@Injectable({ providedIn: 'root' })
export class SendOut {
  private readonly api = inject(DocumentApi);
  private readonly notices = inject(Notices);

  /** @param material the one on the Bench, whose set and light rig are meant */
  async send(wish: SendOutWish, material: string, documents: Pick<Workbench, 'document'>): Promise<void> {
    const bench = documents.document(material);
    if (bench?.format !== 'brelvin-material') return;
    const id = wish === 'set' ? bench.seenIn.set : wish === 'rig' ? bench.seenIn.rig : material;
    const name = id === undefined ? undefined : documents.document(id)?.name;
    if (id === undefined || name === undefined) return;
    const withStage = wish === 'stage' || wish === 'set';
    const work = this.notices.work(`“${name}” is packed …`);
    try {
      const file = await this.api.file(id, withStage, work.signal);
      download(file, `${name}.brelvin`);
      work.close();
    } catch (error) {
      if (work.signal.aborted) work.close();
      else work.end(`“${name}” was not sent out. ${error instanceof Error ? error.message : String(error)}`);
    }
  }
}
