import { computed, inject, Injectable } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import type { GraphProblem } from '@brelvin/core';
import { of, switchMap } from 'rxjs';
import { DocumentStore } from '../documents/document-store';
import { GraphEditor } from '../editors/graph-editor';
import { StageBinding } from './stage-binding';
import { Compiler } from '../compile/compiler';

/** What the compiler, and the graphics driver, say of the material on the Bench. */
@Injectable()
export class BenchResult {
  private readonly compiler = inject(Compiler);
  private readonly editor = inject(GraphEditor);
  private readonly stage = inject(StageBinding);

  readonly compiled = toSignal(
    toObservable(inject(DocumentStore).materialId).pipe(switchMap((id) => (id === undefined ? of(undefined) : this.compiler.watch(id)))),
  );
  readonly rates = computed(() => this.compiled()?.rates ?? {});
  /** What is wrong; failing that, what the graphics driver refused, at the node it is about. */
  readonly problems = computed((): readonly GraphProblem[] => {
    const found = this.compiled()?.problems ?? [];
    const refusal = this.stage.state()?.refusal;
    if (found.length > 0 || !refusal) return found;
    const known = refusal.node !== undefined && this.editor.resolved().nodes.has(refusal.node);
    return [{ node: known ? (refusal.node ?? '') : '', message: refusal.message }];
  });
}
