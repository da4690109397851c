import { inject, Injectable, signal } from '@angular/core';
import type { PartAddress } from '@brelvin/core';
import { DocumentStore } from '../documents/document-store';
import { GraphEditor } from '../editors/graph-editor';
import { SurfaceBinding } from '../editors/surface-binding';

/** Where one is on the Bench: which tabs are open, which part is chosen. No document, and not undone. */
@Injectable()
export class BenchPlaces {
  private readonly store = inject(DocumentStore);
  private readonly editor = inject(GraphEditor);
  private readonly surface = inject(SurfaceBinding);

  /** By the ids of `WORKSPACES`, `PANELS` and `RIG_PANELS`. */
  readonly workspace = signal('graph');
  readonly panel = signal('about');
  readonly rigPanel = signal('lights');
  readonly part = signal<PartAddress | undefined>(undefined);

  /** Brings a node into view, by its path; one inside of groups through them. */
  showNode(path: string): void {
    this.workspace.set(this.store.material()?.code && this.editor.field() === undefined ? 'code' : 'graph');
    if (!path) return;
    const steps = path.split('/');
    this.editor.leave(0);
    for (const step of steps.slice(0, -1)) this.editor.enter(step);
    const last = steps.at(-1);
    if (last !== undefined) setTimeout(() => this.surface.actions()?.showNode(last));
  }

  /** Shows the graph, all of it. */
  showGraph(): void {
    this.workspace.set('graph');
    setTimeout(() => this.surface.actions()?.showAll());
  }
}
