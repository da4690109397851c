import { ChangeDetectionStrategy, Component, computed, inject, ViewEncapsulation } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import type { FloorLook, SetMesh, StageSet } from '@brelvin/contract';
import {
  overridesOf,
  FLOOR,
  MESH_SHAPES,
  newMesh,
  newSet,
  nextOrder,
  ownRule,
  partNames,
  putMesh,
  removeMesh,
  removeRule,
  rulesInOrder,
  setFloor,
  type PartAddress,
} from '@brelvin/core';
import { newId } from '../../shared/documents/new-id';
import { Workbench } from '../../shared/documents/workbench';
import { NumberField } from '../../shared/controls/number-field';
import { droppedFiles } from '../../shared/files/dropped-files';
import { FileDrops } from '../../shared/files/file-drops';
import { sortedFiles } from '../../shared/files/sorted-files';
import { Icon } from '../../shared/icons/icon';
import { MeshShelf } from '../../shared/meshes/mesh-shelf';
import { MeshSource, pickedMesh } from '../../shared/picking/mesh-source';
import { Picker } from '../../shared/picking/picker';
import type { PickerEntry } from '../../shared/picking/picker-source';
import type { DocumentEdit } from '../documents/document-edit';
import { DocumentStore } from '../documents/document-store';
import { BenchFiles } from '../files/bench-files';
import { GraphEditor } from '../editors/graph-editor';
import { BenchPlaces } from '../layout/bench-places';
import { StageMaterials } from '../stage/stage-materials';
import { MeshPlace } from './mesh-place';
import { PartDressing } from './part-dressing';
import { PartImages } from './part-images';
import { RuleByName } from './rule-by-name';

const FLOOR_WORDS: readonly (readonly [FloorLook, string, string])[] = [
  ['fading', 'fades', 'Towards its border it fades into what is behind.'],
  ['shadow', 'only shadow', 'Nothing of it is seen but shadow and what near things darken.'],
  ['solid', 'whole', 'It is seen up to its border.'],
];

const NO_SET = newSet('');
/** In place of a part: the mesh itself is chosen. No part has this name. */
const WHOLE = '';

interface PartRow extends PartAddress {
  readonly wears: string;
  readonly notes: string;
}

/** What stands on the Stage: meshes with their parts, what each part wears, and the floor. */
@Component({
  selector: 'brelvin-parts-view',
  imports: [Icon, MeshPlace, NumberField, PartDressing, Picker, RuleByName],
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './parts-view.css',
  host: { class: 'parts-view', '(dragover)': '$event.preventDefault()', '(drop)': 'drop($event)' },
  templateUrl: './parts-view.html',
})
export class PartsView {
  private readonly benchFiles = inject(BenchFiles);
  private readonly places = inject(BenchPlaces);
  private readonly store = inject(DocumentStore);
  protected readonly set = computed((): StageSet => this.store.set() ?? NO_SET);
  protected readonly materialId = computed(() => this.store.materialId() ?? '');
  protected readonly chosen = this.places.part;
  private readonly graph = inject(GraphEditor);
  private readonly images = inject(PartImages);
  private readonly drops = inject(FileDrops);
  private readonly workbench = inject(Workbench);
  private readonly missing = toSignal(inject(StageMaterials).missing, { initialValue: new Map<string, string>() });
  /** Names come with the documents. */
  private readonly changed = toSignal(this.workbench.changes);
  protected readonly floor = FLOOR;
  protected readonly floorLooks = FLOOR_WORDS;
  protected readonly meshSource = inject(MeshSource);
  private readonly shelf = inject(MeshShelf);

  protected readonly meshes = computed(() =>
    Object.entries(this.set().meshes)
      .sort(([, a], [, b]) => a.order - b.order)
      .map(([id, mesh]) => ({ id, mesh, parts: partNames(mesh).map((part) => this.row({ mesh: id, part })) })),
  );
  protected readonly floorRow = computed(() => this.row({ mesh: FLOOR, part: FLOOR }));
  protected readonly chosenMesh = computed(() => {
    const id = this.chosen()?.mesh;
    const mesh = id === undefined ? undefined : this.set().meshes[id];
    return id !== undefined && mesh ? { id, mesh } : undefined;
  });
  protected readonly chosenPart = computed(() => (this.chosen()?.part === WHOLE ? undefined : this.chosen()));
  protected readonly WHOLE = WHOLE;
  /** Rules that are about more than one part. */
  protected readonly rules = computed(() => {
    const set = this.set();
    const isOwn = ([id, { mesh, pattern }]: (typeof all)[number]): boolean => {
      const stands = mesh === undefined ? undefined : set.meshes[mesh];
      const named = mesh === FLOOR || (stands !== undefined && partNames(stands).includes(pattern));
      return named && mesh !== undefined && ownRule(set, mesh, pattern)?.[0] === id;
    };
    const all = rulesInOrder(set);
    return all.filter((entry) => !isOwn(entry));
  });

  protected edit({ edit, gesture }: DocumentEdit): void {
    this.store.edit('set', edit, gesture);
  }

  protected meshName(mesh: string | undefined): string | undefined {
    return mesh === undefined ? undefined : this.set().meshes[mesh]?.name;
  }

  protected nameOf(material: string | undefined): string {
    if (material === undefined || material === this.materialId()) return 'the material on the Bench';
    this.changed();
    return this.workbench.document(material)?.name ?? (this.missing().has(material) ? 'a material that is gone' : 'opening …');
  }

  private row(part: PartAddress): PartRow {
    const dress = overridesOf(this.set(), part.mesh, part.part);
    const plainFloor = part.mesh === FLOOR && dress.material === undefined;
    const notes = [
      dress.depthOffset === 0 ? '' : `${dress.depthOffset} m nearer`,
      dress.drawOrder === 0 ? '' : `drawn ${dress.drawOrder}`,
      dress.faces === 'auto' ? '' : dress.faces,
      Object.keys(dress.values).length === 0 ? '' : 'own values',
    ];
    return { ...part, wears: plainFloor ? 'plaster' : this.nameOf(dress.material), notes: notes.filter(Boolean).join(', ') };
  }

  protected isChosen({ mesh, part }: PartAddress): boolean {
    return this.chosen()?.mesh === mesh && this.chosen()?.part === part;
  }

  protected pickMesh(entry: PickerEntry): void {
    const picked = pickedMesh(entry);
    if (!picked) return;
    if ('shape' in picked) this.add(newMesh(picked.shape, {}, { name: MESH_SHAPES[picked.shape].label }));
    else void this.addFile(picked.asset, entry.name);
  }

  /** A mesh that the workspace keeps stands in this set, as it does in others. */
  private async addFile(asset: string, file: string): Promise<void> {
    try {
      const source = await this.shelf.describe(asset, file);
      this.add(newMesh('imported', {}, { name: file.replace(/\.[^.]+$/, ''), source }));
    } catch (error) {
      this.graph.refuse(`“${file}” cannot be had. ${error instanceof Error ? error.message : String(error)}`);
    }
  }

  private add(made: SetMesh): void {
    const { meshes } = this.set();
    const order = nextOrder(meshes);
    // Next to what is there already, not inside of it.
    const placing = { ...made.placing, position: [order === 0 ? 0 : order * 2.4, 0, 0] };
    const id = newId();
    const mesh = { ...made, order, placing };
    this.edit({ edit: putMesh(id, mesh) });
    this.chosen.set({ mesh: id, part: partNames(mesh)[0] ?? '' });
  }

  protected take(field: HTMLInputElement): void {
    const files = [...(field.files ?? [])];
    field.value = '';
    if (files.length > 0) void this.takeFiles(files);
  }

  /** A mesh stands in a set of its own; images alone dress the parts that they are named after. */
  private async takeFiles(files: readonly File[]): Promise<void> {
    const mesh = this.chosen()?.mesh ?? this.meshes()[0]?.id;
    const { meshes, images } = sortedFiles(files);
    if (meshes.length > 0) {
      void this.benchFiles.importMeshes(files);
      return;
    }
    if (images.length === 0 || mesh === undefined) {
      this.drops.take(files);
      return;
    }
    try {
      const edit = await this.images.take(files, this.set(), mesh, this.graph.material().seenIn);
      if (edit) this.edit({ edit });
    } catch (error) {
      this.graph.refuse(error instanceof Error ? error.message : String(error));
    }
  }

  protected drop(event: DragEvent): void {
    if (!event.dataTransfer?.types.includes('Files')) return;
    event.preventDefault();
    void droppedFiles(event.dataTransfer).then((files) => this.takeFiles(files));
  }

  protected remove(id: string): void {
    this.edit({ edit: removeMesh(this.set(), id) });
    this.chosen.set(undefined);
  }

  protected toggleFloor(): void {
    this.edit({ edit: setFloor('shown', !this.set().floor.shown) });
  }

  protected setFloorLook(look: FloorLook): void {
    this.edit({ edit: setFloor('look', look) });
  }

  protected setFloorNumber(field: 'height' | 'size', value: number, gesture?: string): void {
    this.edit({ edit: setFloor(field, value), gesture });
  }

  protected removeRule(id: string): void {
    this.edit({ edit: removeRule(this.set(), id) });
  }
}
