import { computed, inject, Injectable, signal, type Signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import type { BrelvinDocument, DistanceField } from '@brelvin/contract';
import { fieldsOf, writtenField, type Edit, type GraphProblem } from '@brelvin/core';
import { auditTime, Subject } from 'rxjs';
import { Workbench } from '../../shared/documents/workbench';

/** What stands in the set follows a field that is being changed at this pace: reading one takes longer than drawing a number. */
const PACE_MS = 120;

/** The fields that stand in an open set: open too, as they are being written, here or in another window. */
@Injectable()
export class OpenFields {
  private readonly workbench = inject(Workbench);
  private readonly open = signal<ReadonlyMap<string, DistanceField>>(new Map());
  private readonly shown = signal<ReadonlyMap<string, string>>(new Map());
  private readonly wrong = signal<ReadonlyMap<string, readonly GraphProblem[]>>(new Map());
  private readonly changed = new Subject<void>();

  /** By their ids. */
  readonly fields: Signal<ReadonlyMap<string, DistanceField>> = this.open.asReadonly();
  /** The code of each, by its id; the last good one where its graph is wrong. */
  readonly texts: Signal<ReadonlyMap<string, string>> = this.shown.asReadonly();
  /** What is wrong with the graphs, by the ids of their fields. */
  readonly problems = this.wrong.asReadonly();
  readonly names = computed(() => [...this.open().values()].map(({ name }) => name));

  constructor() {
    this.workbench.changes.pipe(takeUntilDestroyed()).subscribe(({ id, document }) => {
      if (document.format === 'brelvin-field') this.take(id, document);
      if (document.format === 'brelvin-set') void this.bring(document);
    });
    this.changed.pipe(auditTime(PACE_MS), takeUntilDestroyed()).subscribe(() => this.write());
  }

  /** A field that is drawn as a graph. */
  drawn(id: string | undefined): DistanceField | undefined {
    const field = this.open().get(id ?? '');
    return field?.text === undefined ? field : undefined;
  }

  edit(id: string, edit: Edit, gesture?: string): void {
    this.workbench.edit(id, edit, gesture);
  }

  /** Opens what a document shows. What cannot be had is told by the mesh that shows it. */
  async bring(document: BrelvinDocument | undefined): Promise<void> {
    if (document?.format !== 'brelvin-set') return;
    await Promise.all([...fieldsOf(document)].map((field) => this.workbench.load(field).catch(() => undefined)));
  }

  /** The Bench was cleared: nothing is open any more. */
  letGo(): void {
    for (const part of [this.open, this.shown, this.wrong]) part.set(new Map());
  }

  private take(id: string, field: DistanceField): void {
    const known = this.open().has(id);
    this.open.update((all) => new Map(all).set(id, field));
    if (known) this.changed.next();
    else this.write();
  }

  private write(): void {
    const written = [...this.open()].map(([id, field]) => [id, writtenField(field)] as const);
    const before = this.shown();
    const texts = written.flatMap(([id, { text }]): [string, string][] => {
      const shown = text ?? before.get(id);
      return shown === undefined ? [] : [[id, shown]];
    });
    this.shown.set(new Map(texts));
    this.wrong.set(new Map(written.map(([id, { problems }]) => [id, problems])));
  }
}
