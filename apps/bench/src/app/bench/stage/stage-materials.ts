import { computed, DestroyRef, inject, Injectable, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import type { BrelvinDocument, Material, StageSet } from '@brelvin/contract';
import { FLOOR, materialsOf, newFloorMaterial, wornOnFields, type EmittedResult } from '@brelvin/core';
import { BehaviorSubject } from 'rxjs';
import { ApiFailure } from '../../shared/api/document-api';
import { Workbench, type DocumentChange } from '../../shared/documents/workbench';
import { Compiler } from '../compile/compiler';
import { isOnField, materialOf, onField } from './on-field';
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
  /** Those of `shown` that parts of fields wear as well, and why one of them cannot be worn so. */
  private readonly onFields = new Map<string, string | undefined>();
  private readonly opens = signal(0);
  private readonly gone = new BehaviorSubject<ReadonlyMap<string, string>>(new Map());
  private missed: ReadonlyMap<string, string> = new Map();
  private wornOnFields: ReadonlySet<string> = new Set();
  private set?: StageSet;
  private engine?: StageEngine;
  private bench = '';

  /** Materials that rules name and that could not be opened, or not be worn as they should, by id, with the reason. */
  readonly missing = this.gone.asObservable();

  /** Whether materials that parts wear are still on their way here. */
  readonly opening = computed(() => this.opens() > 0);

  constructor() {
    const destroyRef = inject(DestroyRef);
    this.workbench.changes.pipe(takeUntilDestroyed(destroyRef)).subscribe((change) => this.follow(change));
    this.compiler.results.pipe(takeUntilDestroyed(destroyRef)).subscribe(({ id, result }) => {
      if (result.compiled && !this.aside.has(materialOf(id))) void this.engine?.show(id, result.compiled);
      if (isOnField(id)) this.tellOnField(materialOf(id), result);
    });
  }

  /** Hands everything that is known to an engine. */
  connect(engine: StageEngine): void {
    this.engine = engine;
    engine.setBench(this.bench);
    for (const id of this.shown) {
      if (this.aside.has(id)) continue;
      const document = id === FLOOR ? newFloorMaterial() : this.workbench.document(id);
      if (document?.format === 'brelvin-material') this.setMaterial(id, document);
      this.showCompiled(id);
    }
  }

  setBench(id: string): void {
    this.bench = id;
    this.engine?.setBench(id);
    this.dressFields();
    const document = this.workbench.document(id);
    if (document) this.put(id, document);
  }

  /** Opens what a set's rules name, and lets go of what nothing wears any more. */
  async dress(set: StageSet): Promise<void> {
    this.set = set;
    this.dressFields();
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
    this.missed = missing;
    this.tell();
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
    this.setMaterial(id, document);
    if (this.aside.delete(id)) this.showCompiled(id);
    if (this.shown.has(id)) return;
    this.shown.add(id);
    this.compiler.open(id, document);
    this.dressFields();
  }

  private showCompiled(id: string): void {
    for (const each of this.onFields.has(id) ? [id, onField(id)] : [id]) {
      const compiled = this.compiler.resultOf(each)?.compiled;
      if (compiled) void this.engine?.show(each, compiled);
    }
  }

  private setMaterial(id: string, document: Material): void {
    this.engine?.setMaterial(id, document);
    if (this.onFields.has(id)) this.engine?.setMaterial(onField(id), document);
  }

  /** What parts of fields wear is compiled for that as well. */
  private dressFields(): void {
    this.wornOnFields = this.set ? wornOnFields(this.set, this.bench) : new Set();
    for (const id of this.onFields.keys()) if (!this.wornOnFields.has(id)) this.leaveFields(id);
    for (const id of this.wornOnFields) {
      const document = this.workbench.document(id);
      if (this.onFields.has(id) || !this.shown.has(id) || document?.format !== 'brelvin-material') continue;
      this.onFields.set(id, undefined);
      this.engine?.setMaterial(onField(id), document);
      this.compiler.open(onField(id), document, 'field');
    }
  }

  private leaveFields(id: string): void {
    this.onFields.delete(id);
    this.compiler.close(onField(id));
    this.engine?.forget(onField(id));
    this.tell();
  }

  /** Why a material that compiles for meshes does not for fields. */
  private tellOnField(id: string, { compiled, problems }: EmittedResult): void {
    if (!this.onFields.has(id)) return;
    const fits = compiled !== undefined || this.compiler.resultOf(id)?.compiled === undefined;
    this.onFields.set(id, fits ? undefined : problems[0]?.message);
    this.tell();
  }

  private tell(): void {
    const unfit = [...this.onFields].flatMap(([id, why]): [string, string][] => (why === undefined ? [] : [[id, why]]));
    this.gone.next(new Map([...this.missed, ...unfit]));
  }

  private setAside(id: string): void {
    this.aside.add(id);
    this.engine?.forget(id, 'stay');
    for (const first of [...this.aside].slice(0, -MOST_ASIDE)) this.drop(first);
  }

  private drop(id: string): void {
    this.shown.delete(id);
    this.aside.delete(id);
    if (this.onFields.has(id)) this.leaveFields(id);
    this.compiler.close(id);
    this.engine?.forget(id);
  }

  private follow({ id, document, changes }: DocumentChange): void {
    if (document.format !== 'brelvin-material' || !this.shown.has(id)) return;
    if (!this.aside.has(id)) this.setMaterial(id, document);
    if (changes) this.compiler.follow(id, changes);
    else this.compiler.open(id, document);
    if (!this.onFields.has(id)) return;
    if (changes) this.compiler.follow(onField(id), changes);
    else this.compiler.open(onField(id), document, 'field');
  }
}
