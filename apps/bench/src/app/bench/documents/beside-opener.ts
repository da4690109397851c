import { effect, inject, Injectable, untracked } from '@angular/core';
import type { BrelvinDocument } from '@brelvin/contract';
import { ApiFailure, DocumentApi } from '../../shared/api/document-api';
import { newId } from '../../shared/documents/new-id';
import { Workbench } from '../../shared/documents/workbench';
import { DocumentStore } from './document-store';
import { OpenFields } from './open-fields';

/** Opens the set or rig that a material was last seen in. */
@Injectable()
export class BesideOpener {
  private readonly api = inject(DocumentApi);
  private readonly store = inject(DocumentStore);
  private readonly workbench = inject(Workbench);
  private readonly fields = inject(OpenFields);

  constructor() {
    // Undo, or a version, may bring another set or rig back.
    effect(() => {
      const seen = this.store.previewContext();
      if (seen) untracked(() => void this.follow('set', seen.set).then(() => this.follow('rig', seen.rig)));
    });
  }

  /**
   * One of its own when that is gone: the Stage is never empty.
   *
   * @throws ApiFailure when the server cannot be reached
   */
  async open(role: 'set' | 'rig', id: string | undefined, instead: BrelvinDocument): Promise<void> {
    const found = await this.load(id, instead);
    await this.fields.bring(this.workbench.document(found));
    this.store.put(role, found);
  }

  private async load(id: string | undefined, instead: BrelvinDocument): Promise<string> {
    let gone = false;
    try {
      if (id) {
        await this.workbench.load(id);
        return id;
      }
    } catch (error) {
      if (!(error instanceof ApiFailure) || error.away) throw error;
      gone = true;
    }
    const fresh = newId();
    await this.api.create(fresh, instead);
    await this.workbench.load(fresh);
    if (gone) this.workbench.tell(`What this material was last seen in is gone; it stands in a new “${instead.name}”.`);
    return fresh;
  }

  private async follow(role: 'set' | 'rig', id: string | undefined): Promise<void> {
    const held = role === 'set' ? this.store.setId() : this.store.rigId();
    if (id === undefined || held === undefined || id === held) return;
    // What cannot be had leaves what stands there; opening the material says more.
    const document = await this.workbench.load(id).catch(() => undefined);
    await this.fields.bring(document);
    if (document) this.store.put(role, id);
  }
}
