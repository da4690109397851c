import { inject, Injectable, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import type { BrelvinDocument, DistanceField } from '@brelvin/contract';
import { fieldsOf } from '@brelvin/core';
import { Workbench } from '../../shared/documents/workbench';

/** The fields that stand in an open set: open too, as they are being written, here or in another window. */
@Injectable()
export class OpenFields {
  private readonly workbench = inject(Workbench);
  private readonly written = signal<ReadonlyMap<string, DistanceField>>(new Map());
  /** By their ids. */
  readonly fields = this.written.asReadonly();

  constructor() {
    this.workbench.changes.pipe(takeUntilDestroyed()).subscribe(({ id, document }) => {
      if (document.format === 'brelvin-field') this.written.update((all) => new Map(all).set(id, document));
      if (document.format === 'brelvin-set') void this.bring(document);
    });
  }

  /** Opens what a document shows. What cannot be had is told by the mesh that shows it. */
  async bring(document: BrelvinDocument | undefined): Promise<void> {
    if (document?.format !== 'brelvin-set') return;
    await Promise.all([...fieldsOf(document)].map((field) => this.workbench.load(field).catch(() => undefined)));
  }

  /** The Bench was cleared: nothing is open any more. */
  letGo(): void {
    this.written.set(new Map());
  }
}
