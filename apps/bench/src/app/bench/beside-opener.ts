import { inject, Injectable, type WritableSignal } from '@angular/core';
import type { BrelvinDocument, Material } from '@brelvin/core';
import { ApiFailure, DocumentApi } from '../shared/api/document-api';
import { newId } from '../shared/documents/new-id';
import { Workbench } from '../shared/documents/workbench';

/** Opens the set or rig that a material was last seen in. */
@Injectable()
export class BesideOpener {
  private readonly api = inject(DocumentApi);
  private readonly workbench = inject(Workbench);

  /**
   * One of its own when that is gone: the Stage is never empty.
   *
   * @throws ApiFailure when the server can not be reached
   */
  async load(id: string | undefined, instead: BrelvinDocument): Promise<{ readonly id: string; readonly words?: string }> {
    let words: string | undefined;
    try {
      if (id) {
        await this.workbench.load(id);
        return { id };
      }
    } catch (error) {
      if (!(error instanceof ApiFailure) || error.away) throw error;
      words = `What this material was last seen in is gone; it stands in a new “${instead.name}”.`;
    }
    const fresh = newId();
    await this.api.create(fresh, instead);
    await this.workbench.load(fresh);
    return { id: fresh, words };
  }

  /** Undo, or a version, may bring another set or rig back. */
  async follow(
    { set, rig }: Material['seenIn'],
    heldSet: WritableSignal<string | undefined>,
    heldRig: WritableSignal<string | undefined>,
  ): Promise<void> {
    for (const [id, held] of [
      [set, heldSet],
      [rig, heldRig],
    ] as const) {
      if (id === undefined || held() === undefined || id === held()) continue;
      // What can not be had leaves what stands there; opening the material says more.
      if (await this.workbench.load(id).catch(() => undefined)) held.set(id);
    }
  }
}
