import { DestroyRef, effect, inject, Injectable, untracked } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import type { BrelvinDocument } from '@brelvin/contract';
import { functionsNeededBy } from '@brelvin/core';
import { ApiFailure } from '../../shared/api/document-api';
import { Workbench } from '../../shared/documents/workbench';
import { FunctionShelf } from '../../shared/functions/function-shelf';
import { Compiler } from '../compile/compiler';

/**
 * Between functions of the Library and the Bench: those that an open material needs are open too, so that edits to them,
 * from here or another window, reach the compiler at once.
 */
@Injectable()
export class FunctionBinding {
  private readonly workbench = inject(Workbench);
  private readonly shelf = inject(FunctionShelf);
  private readonly compiler = inject(Compiler);
  private readonly opened = new Set<string>();

  constructor() {
    this.workbench.changes.pipe(takeUntilDestroyed()).subscribe(({ id, document }) => {
      if (document.format === 'brelvin-function') this.shelf.write(id, document);
      else if (document.format === 'brelvin-material') void this.open(document);
    });
    effect(() => {
      const texts = this.shelf.texts();
      untracked(() => this.compiler.setFunctions(texts, (id) => this.neededBy(id)));
    });
    inject(DestroyRef).onDestroy(() => this.letGo());
  }

  /** The functions of the Library, read; without them the Bench goes on with those it knows. */
  async ready(): Promise<void> {
    try {
      await this.shelf.ready();
    } catch (error) {
      if (!(error instanceof ApiFailure)) throw error;
      this.workbench.tell(`The functions of the Library could not be read: ${error.message}`);
    }
    this.compiler.setFunctions(this.shelf.texts(), (id) => this.neededBy(id));
  }

  /** Opens what a material needs. */
  async open(document: BrelvinDocument): Promise<void> {
    for (const name of functionsNeededBy(document, this.shelf.texts())) {
      const id = this.shelf.idOf(name);
      if (id !== undefined) await this.load(id);
    }
  }

  /** Opens a function on the Bench. @throws ApiFailure */
  async load(id: string): Promise<void> {
    if (this.opened.has(id)) return;
    this.opened.add(id);
    try {
      await this.workbench.load(id);
    } catch (error) {
      this.opened.delete(id);
      if (!(error instanceof ApiFailure)) throw error;
    }
  }

  /** The Bench was cleared: nothing is open any more. */
  letGo(): void {
    for (const id of this.opened) this.shelf.write(id, undefined);
    this.opened.clear();
  }

  private neededBy(id: string): ReadonlySet<string> {
    const document = this.workbench.document(id);
    return document ? functionsNeededBy(document, this.shelf.texts()) : new Set();
  }
}
