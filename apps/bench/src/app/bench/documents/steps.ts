import { computed, inject, Injectable } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { Workbench } from '../../shared/documents/workbench';
import { DocumentStore } from './document-store';

/** Steps back and forth through all that was done. */
@Injectable()
export class Steps {
  private readonly workbench = inject(Workbench);
  private readonly store = inject(DocumentStore);
  private readonly history = toSignal(this.workbench.history);

  /** What would be taken back, or done again; nothing where there is nothing. */
  readonly undoLabel = computed(() => this.history()?.done.at(-1)?.label);
  readonly redoLabel = computed(() => this.history()?.undone.at(-1)?.label);

  undo(): void {
    this.store.flushDrafts();
    this.workbench.undo();
  }

  redo(): void {
    this.workbench.redo();
  }
}
