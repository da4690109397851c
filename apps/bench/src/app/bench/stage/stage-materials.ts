import { computed, DestroyRef, inject, Injectable, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import type { BrelvinDocument, StageSet } from '@brelvin/contract';
import { FLOOR, materialsOf, newFloorMaterial } from '@brelvin/core';
import { BehaviorSubject } from 'rxjs';
import { ApiFailure } from '../../shared/api/document-api';
import { Workbench, type DocumentChange } from '../../shared/documents/workbench';
import { Compiler } from '../compile/compiler';
import type { StageEngine } from './stage-engine';

/** Materials that left the Stage and stay at hand: where one comes back, as by undo, nothing is compiled. */
const MOST_ASIDE = 8;

/**
 * Sees to it that every material a set's parts wear is open, compiled and on the Stage; the one on the Bench
 * always is. The floor's own material is no document, but compiled like the others: it stands in the same light.
 */
@Injectable()
export class StageMaterials {
  private readonly workbench = inject(Workbench);
  private readonly compiler = inject(Compiler);
  private readonly shown = new Set<string>();
  /** Those of `shown` that nothing wears, the one that left first before the others. */
  private readonly aside = new Set<string>();
  private readonly opens = signal(0);
  private readonly gone = new BehaviorSubject<ReadonlyMap<string, string>>(new Map());
  private engine?: StageEngine;
  private bench = '';

  /** Materials that rules name and that could not be opened, by id, with the reason. */
  readonly missing = this.gone.asObservable();

  /** Whether materials that parts wear are still on their way here. */
  readonly opening = computed(() => this.opens() > 0);

  constructor() {
    const destroyRef = inject(DestroyRef);
    this.workbench.changes.pipe(takeUntilDestroyed(destroyRef)).subscribe((change) => this.follow(change));
    this.compiler.results.pipe(takeUntilDestroyed(destroyRef)).subscribe(({ id, result }) => {
      if (result.compiled && !this.aside.has(id)) void this.engine?.show(id, result.compiled);
    });
  }

  /** Hands everything that is known to an engine. */
  connect(engine: StageEngine): void {
    this.engine = engine;
    engine.setBench(this.bench);
    for (const id of this.shown) {
      if (this.aside.has(id)) continue;
      const document = id === FLOOR ? newFloorMaterial() : this.workbench.document(id);
      if (document?.format === 'brelvin-material') engine.setMaterial(id, document);
      this.showCompiled(id);
    }
  }

  setBench(id: string): void {
    this.bench = id;
    this.engine?.setBench(id);
    const document = this.workbench.document(id);
    if (document) this.put(id, document);
  }

  /** Opens what a set's rules name, and lets go of what nothing wears any more. */
  async dress(set: StageSet): Promise<void> {
    const wanted = materialsOf(set);
    const keeps = (id: string): boolean => id === this.bench || wanted.has(id) || (id === FLOOR && set.floor.shown);
    for (const id of this.shown) if (!keeps(id) && !this.aside.has(id)) this.setAside(id);
    if (set.floor.shown) this.put(FLOOR, newFloorMaterial());
    const missing = new Map<string, string>();
    this.opens.update((count) => count + 1);
    try {
      await Promise.all([...wanted].map((id) => this.open(id, missing)));
    } finally {
      this.opens.update((count) => count - 1);
    }
    this.gone.next(missing);
  }

  private async open(id: string, missing: Map<string, string>): Promise<void> {
    try {
      const document = await this.workbench.load(id);
      if (document.format === 'brelvin-material') this.put(id, document);
      else missing.set(id, `“${document.name}” is not a material.`);
    } catch (error) {
      if (!(error instanceof ApiFailure)) throw error;
      missing.set(id, error.message);
    }
  }

  private put(id: string, document: BrelvinDocument): void {
    if (document.format !== 'brelvin-material') return;
    this.engine?.setMaterial(id, document);
    if (this.aside.delete(id)) this.showCompiled(id);
    if (this.shown.has(id)) return;
    this.shown.add(id);
    this.compiler.open(id, document);
  }

  private showCompiled(id: string): void {
    const compiled = this.compiler.resultOf(id)?.compiled;
    if (compiled) void this.engine?.show(id, compiled);
  }

  private setAside(id: string): void {
    this.aside.add(id);
    this.engine?.forget(id, 'stay');
    for (const first of [...this.aside].slice(0, -MOST_ASIDE)) this.drop(first);
  }

  private drop(id: string): void {
    this.shown.delete(id);
    this.aside.delete(id);
    this.compiler.close(id);
    this.engine?.forget(id);
  }

  private follow({ id, document, changes }: DocumentChange): void {
    if (document.format !== 'brelvin-material' || !this.shown.has(id)) return;
    if (!this.aside.has(id)) this.engine?.setMaterial(id, document);
    if (changes) this.compiler.follow(id, changes);
    else this.compiler.open(id, document);
  }
}
