import { inject, Injectable } from '@angular/core';
import { ownName, type Edit } from '@brelvin/core';
import { DocumentApi } from '../../shared/api/document-api';
import { newId } from '../../shared/documents/new-id';
import { Workbench } from '../../shared/documents/workbench';

interface Waiting {
  readonly edit: Edit;
  readonly gesture?: string;
}

/** Gives a material a set or a light rig of its own when a shared one is to be changed; edits wait until it is there. */
@Injectable()
export class OwnSurroundings {
  private readonly api = inject(DocumentApi);
  private readonly workbench = inject(Workbench);
  private readonly waiting = new Map<string, Waiting[]>();
  private last: Promise<void> = Promise.resolve();

  /** Whether an edit waits: it is in no document yet. */
  get waits(): boolean {
    return this.waiting.size > 0;
  }

  /** Comes when no edit waits any more. */
  async settled(): Promise<void> {
    while (this.waits) await this.last;
  }

  /**
   * Makes the edit on a copy of the shared document, in which the material stands from then on. All of it is one step.
   *
   * @param put puts the copy onto the Bench
   */
  edit(role: 'set' | 'rig', shared: string, material: string, edit: Edit, gesture: string | undefined, put: (id: string) => void): void {
    const waiting = this.waiting.get(shared);
    if (waiting) {
      waiting.push({ edit, gesture });
      return;
    }
    const all: Waiting[] = [{ edit, gesture: gesture ?? newId() }];
    this.waiting.set(shared, all);
    this.last = this.make(role, shared, material)
      .then(
        (id) => {
          put(id);
          this.workbench.edit(material, { label: edit.label, changes: [{ path: ['seenIn', role], value: id }] }, all[0]?.gesture);
          for (const each of all) this.workbench.edit(id, each.edit, each.gesture);
        },
        (error: unknown) => this.workbench.tell(`“${edit.label}” was not done. ${error instanceof Error ? error.message : String(error)}`),
      )
      .finally(() => this.waiting.delete(shared));
  }

  private async make(role: 'set' | 'rig', shared: string, material: string): Promise<string> {
    const [document, owner] = [this.workbench.document(shared), this.workbench.document(material)];
    if (!document || !owner) throw new Error('It is not open any more.');
    const id = newId();
    await this.api.create(id, { ...document, name: ownName(role, owner.name) });
    await this.workbench.load(id);
    return id;
  }
}
