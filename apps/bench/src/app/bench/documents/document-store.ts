import { computed, inject, Injectable, signal, type Signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import type { BrelvinDocument, LightRig, Material, StageSet } from '@brelvin/contract';
import { isShared, ownName, rename, withFields, type Edit } from '@brelvin/core';
import { of, switchMap, type Observable } from 'rxjs';
import { newId } from '../../shared/documents/new-id';
import { Workbench } from '../../shared/documents/workbench';
import { OpenFields } from './open-fields';
import { OwnSurroundings } from './own-surroundings';

/** The documents on the Bench: a material, and what it stands in. */
export type BenchRole = 'material' | 'set' | 'rig';

/** The three documents on the Bench: which they are, how they stand now, and every edit of them. */
@Injectable()
export class DocumentStore {
  private readonly own = inject(OwnSurroundings);
  private readonly workbench = inject(Workbench);
  private readonly fields = inject(OpenFields);
  private readonly ids: Readonly<Record<BenchRole, ReturnType<typeof signal<string | undefined>>>> = {
    material: signal<string | undefined>(undefined),
    set: signal<string | undefined>(undefined),
    rig: signal<string | undefined>(undefined),
  };

  readonly materialId = this.ids.material.asReadonly();
  readonly setId = this.ids.set.asReadonly();
  readonly rigId = this.ids.rig.asReadonly();
  readonly material = this.watching<Material>(this.materialId);
  private readonly storedSet = this.watching<StageSet>(this.setId);
  private readonly shownMeshes = computed(() => withFields(this.storedSet()?.meshes ?? {}, (id) => this.fields.texts().get(id)));
  /** With the texts of the fields that stand in it. */
  readonly set = computed((): StageSet | undefined => {
    const [set, meshes] = [this.storedSet(), this.shownMeshes()];
    return set && (meshes === set.meshes ? set : { ...set, meshes });
  });
  readonly rig = this.watching<LightRig>(this.rigId);
  /** What the material was last seen in, by its own words. */
  readonly previewContext = computed(() => this.material()?.seenIn, { equal: (a, b) => a?.set === b?.set && a?.rig === b?.rig });

  /** What is being written somewhere and is in no document yet. */
  private readonly drafts = new Set<() => void>();

  /** @param flush puts what is being written into its document */
  addDrafts(flush: () => void): void {
    this.drafts.add(flush);
  }

  /** Puts all that is being written into documents: something is to be done with them as they are. */
  flushDrafts(): void {
    for (const flush of this.drafts) flush();
  }

  /** Whether an edit waits for a document of the material's own. */
  get waits(): boolean {
    return this.own.waits;
  }

  /** Comes when every edit is in its document. */
  settled(): Promise<void> {
    return this.own.settled();
  }

  /** Puts a document that is open on the Bench; nothing takes it away. */
  put(role: BenchRole, id: string | undefined): void {
    this.ids[role].set(id);
  }

  /** One step of one of them; those of one gesture become one. */
  edit(role: BenchRole, edit: Edit, gesture?: string): void {
    const [id, material] = [this.ids[role](), this.ids.material()];
    if (id === undefined) return;
    if (role === 'material' || material === undefined || !isShared(id)) this.workbench.edit(id, edit, gesture);
    else
      this.own.edit(role, id, material, edit, gesture, (copy) => {
        // Somebody may have opened another material meanwhile.
        if (this.ids.material() === material) this.put(role, copy);
      });
  }

  /** Its own set and light rig, which are called after it, follow. @returns whether that is a name, and another one */
  rename(name: string): boolean {
    const wanted = name.trim();
    const before = this.material()?.name;
    if (!wanted || before === undefined || wanted === before) return false;
    const gesture = newId();
    this.edit('material', rename(wanted), gesture);
    for (const role of ['set', 'rig'] as const)
      if (this[role]()?.name === ownName(role, before)) this.edit(role, rename(ownName(role, wanted)), gesture);
    return true;
  }

  /** Lets the material stand in another set or under another rig. @throws ApiFailure */
  async choose(role: 'set' | 'rig', id: string): Promise<void> {
    const chosen = await this.workbench.load(id);
    await this.fields.bring(chosen);
    this.put(role, id);
    this.edit('material', { label: `Stand in ${chosen.name}`, changes: [{ path: ['seenIn', role], value: id }] });
  }

  private watching<T extends BrelvinDocument>(id: Signal<string | undefined>): Signal<T | undefined> {
    return toSignal(
      toObservable(id).pipe(switchMap((each): Observable<T | undefined> => (each ? this.workbench.watch<T>(each) : of(undefined)))),
    );
  }
}
