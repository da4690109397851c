import { DestroyRef, inject, Injectable, signal } from '@angular/core';
import { newRig, newSet } from '@brelvin/core';
import { RecentMaterials } from '../shared/documents/recent-materials';
import { Workbench } from '../shared/documents/workbench';
import { SourceEditor } from './code/source-editor';
import { FieldPlaces } from './code/field-places';
import { FunctionBinding } from './code/function-binding';
import { Comparison } from './compare/comparison';
import { GraphEditor } from './editors/graph-editor';
import { BenchPlaces } from './layout/bench-places';
import { OutletInspector } from './looking/outlet-inspector';
import { Probes } from './looking/probes';
import { StageMaterials } from './stage/stage-materials';
import { BesideOpener } from './documents/beside-opener';
import { DocumentStore } from './documents/document-store';
import { OpenFields } from './documents/open-fields';

/** Brings a material onto the Bench: with what it stands in, and nothing left of the one before. */
@Injectable()
export class BenchOpener {
  private readonly workbench = inject(Workbench);
  private readonly store = inject(DocumentStore);
  private readonly beside = inject(BesideOpener);
  private readonly functions = inject(FunctionBinding);
  private readonly fields = inject(OpenFields);
  private readonly fieldPlaces = inject(FieldPlaces);
  private readonly editor = inject(GraphEditor);
  private readonly code = inject(SourceEditor);
  private readonly compare = inject(Comparison);
  private readonly materials = inject(StageMaterials);
  private readonly outlets = inject(OutletInspector);
  private readonly places = inject(BenchPlaces);
  private readonly probes = inject(Probes);
  private readonly recents = inject(RecentMaterials);

  /** Why it cannot be opened. */
  readonly failure = signal<string | undefined>(undefined);

  constructor() {
    inject(DestroyRef).onDestroy(() => this.workbench.closeAll());
  }

  /**
   * @param named a function or field of the Library that is to be shown beside it
   * @param show the tab of the work area to begin with
   */
  async open(id: string, named: { readonly function?: string; readonly field?: string } = {}, show?: string): Promise<void> {
    this.clear();
    try {
      await this.functions.ready();
      const material = await this.workbench.load(id);
      if (material.format !== 'brelvin-material') {
        this.failure.set(`“${material.name}” is not a material. Choose one in the Library.`);
        return;
      }
      this.store.put('material', id);
      this.places.workspace.set(show ?? (material.code || named.function !== undefined ? 'code' : 'graph'));
      if (named.function !== undefined) await this.code.showFunction(named.function);
      this.materials.setBench(id);
      await Promise.all([
        this.beside.open('set', material.seenIn.set, newSet('Plain sphere')),
        this.beside.open('rig', material.seenIn.rig, newRig('North window')),
      ]);
      if (named.field !== undefined && (await this.workbench.load(named.field))) await this.fieldPlaces.show(named.field);
      this.recents.opened(id);
      document.title = `${material.name} · Brelvin`;
    } catch (error) {
      this.failure.set(error instanceof Error ? error.message : String(error));
    }
  }

  private clear(): void {
    this.workbench.closeAll();
    this.functions.letGo();
    this.fields.letGo();
    this.editor.showGraphOf(undefined);
    this.code.clear();
    this.compare.stop();
    this.outlets.stopPeek();
    this.probes.clear();
    this.failure.set(undefined);
  }
}
