import { computed, inject, Injectable } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import type { GraphProblem, Rate } from '@brelvin/core';
import { of, switchMap } from 'rxjs';
import { DocumentStore } from '../documents/document-store';
import { GraphEditor } from '../editors/graph-editor';
import { OpenFields } from '../documents/open-fields';
import { StageBinding } from './stage-binding';
import { Compiler } from '../compile/compiler';

/** What the compiler, and the graphics driver, say of the material on the Bench. */
@Injectable()
export class BenchResult {
  private readonly compiler = inject(Compiler);
  private readonly editor = inject(GraphEditor);
  private readonly stage = inject(StageBinding);
  private readonly fields = inject(OpenFields);

  readonly compiled = toSignal(
    toObservable(inject(DocumentStore).materialId).pipe(switchMap((id) => (id === undefined ? of(undefined) : this.compiler.watch(id)))),
  );
  /** How often nodes of the graph that is seen are computed; a field's at each step of each line of sight. */
  readonly rates = computed((): Readonly<Record<string, Rate>> => {
    if (this.editor.field() === undefined) return this.compiled()?.rates ?? {};
    const unused = this.editor.unused();
    return Object.fromEntries([...this.editor.resolved().nodes.keys()].filter((id) => !unused.has(id)).map((id) => [id, 'pixel']));
  });
  /** What is wrong; failing that, what the graphics driver refused, at the node it is about. */
  readonly problems = computed((): readonly GraphProblem[] => {
    const field = this.editor.field();
    if (field !== undefined) return this.fields.problems().get(field) ?? [];
    const found = this.compiled()?.problems ?? [];
    const refusal = this.stage.state()?.refusal;
    if (found.length > 0 || !refusal) return found;
    const known = refusal.node !== undefined && this.editor.resolved().nodes.has(refusal.node);
    return [{ node: known ? (refusal.node ?? '') : '', message: refusal.message }];
  });
}
