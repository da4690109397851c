import { computed, inject, Injectable, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import type { InletValue, LightRig, Material } from '@brelvin/contract';
import { litProgram, type CompareView } from '@brelvin/core';
import { switchMap } from 'rxjs';
import { DocumentApi } from '../../shared/api/document-api';
import { Compiler } from '../compile/compiler';
import { DocumentStore } from '../documents/document-store';
import { GraphEditor } from '../editors/graph-editor';
import { RigEditor } from '../editors/rig-editor';
import { OTHER, type OtherPicture } from '../stage/second-picture';

/** What the second picture has that the first has not. */
export type CompareWith =
  | { readonly kind: 'material'; readonly id: string; readonly name: string }
  | { readonly kind: 'rig'; readonly id: string; readonly name: string }
  | { readonly kind: 'version'; readonly step: number; readonly name: string }
  | { readonly kind: 'parameter'; readonly id: string; readonly name: string; readonly value: InletValue };

const FIRST_VIEW: CompareView = { mode: 'beside', split: 0.5, gain: 4 };

/** Two pictures at once: what the second one is, and how both are shown. No document, and not undone. */
@Injectable()
export class Comparison {
  private readonly api = inject(DocumentApi);
  private readonly compiler = inject(Compiler);
  private readonly editor = inject(GraphEditor);
  private readonly rigEditor = inject(RigEditor);
  /** The other material or rig as it is stored. */
  private readonly fetched = signal<{ readonly material?: Material; readonly rig?: LightRig }>({});
  private readonly wanted = signal<CompareWith | undefined>(undefined);
  private readonly compiledOther = toSignal(this.compiler.watch(OTHER));

  private readonly store = inject(DocumentStore);
  private readonly compiledBench = toSignal(toObservable(this.store.materialId).pipe(switchMap((id) => this.compiler.watch(id ?? ''))));

  /** The program of the second picture, where it is another one. */
  readonly otherProgram = computed(() => (this.fetched().material ? this.compiledOther()?.compiled : undefined));
  readonly with = this.wanted.asReadonly();
  readonly view = signal(FIRST_VIEW);
  /** Why there is no second picture. */
  readonly refusal = signal<string | undefined>(undefined);

  /** What the Stage draws beside the picture. */
  readonly other = computed((): OtherPicture | undefined => {
    const wanted = this.wanted();
    if (!wanted) return undefined;
    const { material, rig } = this.fetched();
    const bench = this.editor.material();
    const compiled = this.compiledBench()?.compiled;
    if (wanted.kind === 'rig') return rig && { material: bench, compiled, rig };
    if (wanted.kind !== 'parameter') return material && { material, compiled: this.compiledOther()?.compiled, rig: this.rigEditor.rig() };
    const parameter = bench.parameters[wanted.id];
    if (!parameter) return undefined;
    // A live input would put its own value in the place of this one.
    const held = { ...parameter, value: wanted.value, live: undefined };
    const parameters = { ...bench.parameters, [wanted.id]: held };
    return { material: { ...bench, parameters }, compiled, rig: this.rigEditor.rig() };
  });

  /** Pictures beside each other. */
  readonly sides = computed(() => (this.other() && this.view().mode === 'beside' ? 2 : 1));

  /** Another second picture; what cannot be had is said, and the picture stays one. */
  async compareWith(wanted: CompareWith): Promise<void> {
    this.stop();
    this.wanted.set(wanted);
    try {
      const { material, rig } = await this.fetch(wanted);
      if (this.wanted() !== wanted) return;
      if (material) this.compiler.open(OTHER, material);
      if (rig) this.compiler.light(litProgram(rig));
      this.fetched.set({ material, rig });
    } catch (error) {
      if (this.wanted() !== wanted) return;
      this.stop();
      this.refusal.set(error instanceof Error ? error.message : String(error));
    }
  }

  /** Changes the other value of a parameter. */
  setValue(value: InletValue): void {
    this.wanted.update((wanted) => (wanted?.kind === 'parameter' ? { ...wanted, value } : wanted));
  }

  show(change: Partial<CompareView>): void {
    this.view.update((view) => ({ ...view, ...change }));
  }

  /** One picture again. */
  stop(): void {
    if (this.fetched().material) this.compiler.close(OTHER);
    this.wanted.set(undefined);
    this.fetched.set({});
    this.refusal.set(undefined);
  }

  private async fetch(wanted: CompareWith): Promise<{ material?: Material; rig?: LightRig }> {
    if (wanted.kind === 'parameter') return {};
    const stored = wanted.kind === 'version' ? this.api.at(this.store.materialId() ?? '', wanted.step) : this.api.read(wanted.id);
    const { document } = await stored;
    if (wanted.kind === 'rig') {
      if (document.format !== 'brelvin-light-rig') throw new TypeError(`“${document.name}” is not a light rig.`);
      return { rig: document };
    }
    if (document.format !== 'brelvin-material') throw new TypeError(`“${document.name}” is not a material.`);
    return { material: document };
  }
}
