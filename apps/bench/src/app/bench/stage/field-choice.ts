import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal, ViewEncapsulation } from '@angular/core';
import type { Change, SetMesh } from '@brelvin/contract';
import { fieldText, NET_CELLS, newCodedField, newMesh, putMesh } from '@brelvin/core';
import { DocumentApi } from '../../shared/api/document-api';
import { NumberField } from '../../shared/controls/number-field';
import { newId } from '../../shared/documents/new-id';
import { Workbench } from '../../shared/documents/workbench';
import { MeshShelf } from '../../shared/meshes/mesh-shelf';
import { DocumentSource } from '../../shared/picking/document-source';
import { Picker } from '../../shared/picking/picker';
import type { PickerEntry } from '../../shared/picking/picker-source';
import { FieldPlaces } from '../code/field-places';
import { DocumentStore } from '../documents/document-store';
import { OpenFields } from '../documents/open-fields';

/** Characters of a field that stands in a set. */
const LONGEST_HERE = 4000;

/** Which field of the Library a mesh shows, if it does not have a text of its own. */
@Component({
  selector: 'brelvin-field-choice',
  imports: [NumberField, Picker],
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './field-choice.css',
  host: { class: 'field-choice' },
  template: `
    <span class="field-label">Field</span>
    <brelvin-picker
      [source]="source"
      [name]="name()"
      [current]="mesh().field"
      title="A field of the Library, which other sets can show as well"
      (chosen)="choose($event)"
    />
    <div class="field-acts">
      @if (mesh().field === undefined) {
        <button
          type="button"
          class="bar-button"
          title="Make it a field of the Library, to be shown in other sets and written in the code tab"
          (click)="keep()"
        >
          keep in the Library
        </button>
      } @else {
        <button type="button" class="bar-button" title="Show its graph, or its code" [disabled]="!shown()" (click)="write()">edit</button>
        <button
          type="button"
          class="bar-button"
          title="Copy its code into this set, where it is written from then on"
          [disabled]="!shown()"
          (click)="bringHere()"
        >
          copy into the set
        </button>
      }
    </div>
    <span class="field-label" title="Cells of the grid that is laid over the field, along its longest edge">Cells</span>
    <brelvin-number
      label="Cells"
      [value]="cells()"
      [range]="fineness"
      (changed)="cells.set($event.value)"
      (resetAsked)="cells.set(fineness.default)"
    />
    <div class="field-acts">
      <button
        type="button"
        class="bar-button"
        title="Put a mesh of triangles in its place, each region a part that goes on wearing what it wears; what is thinner than a cell may be lost"
        [disabled]="making() || text() === undefined"
        (click)="makeMesh()"
      >
        turn into a mesh
      </button>
    </div>
  `,
})
export class FieldChoice {
  readonly meshId = input.required<string>();
  readonly mesh = input.required<SetMesh>();
  readonly left = output<void>();

  protected readonly fineness = { ...NET_CELLS, whole: true };
  protected readonly cells = signal<number>(NET_CELLS.default);
  protected readonly making = signal(false);
  /** Its code. */
  protected readonly text = computed(() => fieldText(this.mesh()));
  private readonly meshes = inject(MeshShelf);
  private readonly api = inject(DocumentApi);
  private readonly workbench = inject(Workbench);
  private readonly store = inject(DocumentStore);
  private readonly fields = inject(OpenFields);
  private readonly places = inject(FieldPlaces);
  protected readonly source = inject(DocumentSource).of('field');
  protected readonly shown = computed(() => this.fields.fields().get(this.mesh().field ?? ''));
  protected readonly name = computed(() => this.shown()?.name ?? (this.mesh().field === undefined ? 'written here' : 'not here'));

  protected async choose({ id, name }: PickerEntry): Promise<void> {
    await this.trying(async () => {
      await this.workbench.load(id);
      this.change(`Show ${name}`, [['field', id], ['formula']]);
    });
  }

  protected async keep(): Promise<void> {
    const mesh = this.mesh();
    await this.trying(async () => {
      const id = newId();
      await this.api.create(id, newCodedField(mesh.name, fieldText(mesh)));
      await this.workbench.load(id);
      this.change(`Keep ${mesh.name} in the Library`, [['field', id], ['formula']]);
    });
  }

  protected async write(): Promise<void> {
    const { field } = this.mesh();
    if (field === undefined) return;
    this.left.emit();
    await this.trying(() => this.places.show(field));
  }

  protected bringHere(): void {
    const [field, text] = [this.shown(), this.fields.texts().get(this.mesh().field ?? '')];
    if (!field || text === undefined) return;
    if (text.length > LONGEST_HERE)
      this.workbench.tell(
        `“${field.name}” has ${text.length} characters; ${LONGEST_HERE} are the most that a set holds. Duplicate it in the Library instead.`,
      );
    else this.change(`Copy ${field.name} into the set`, [['field'], ['formula', text]]);
  }

  /** The mesh stands where the field stood, under its name; undo brings the field back. */
  protected async makeMesh(): Promise<void> {
    const [id, before, text] = [this.meshId(), this.mesh(), this.text()];
    if (text === undefined) return;
    this.making.set(true);
    await this.trying(async () => {
      const taken = await this.meshes.takeField(before.name, { text, numbers: before.numbers }, this.cells());
      // Somebody may have put something else there meanwhile.
      if (!taken || this.store.set()?.meshes[id] !== before) return;
      const { name, placing, motion, copies, order } = before;
      const mesh = newMesh('imported', {}, { name, placing, motion, copies, order, source: taken.source });
      this.store.edit('set', putMesh(id, mesh, `Turn ${name} into a mesh`));
      this.workbench.tell(
        [`“${name}” is a mesh of ${taken.source.triangles.toLocaleString('en')} triangles now.`, ...taken.words].join(' '),
      );
    });
    this.making.set(false);
  }

  private change(label: string, fields: readonly (readonly [name: string, value?: string])[]): void {
    const changes = fields.map(([name, value]): Change => ({
      path: ['meshes', this.meshId(), name],
      ...(value === undefined ? {} : { value }),
    }));
    this.store.edit('set', { label, changes });
  }

  private async trying(work: () => Promise<void>): Promise<void> {
    try {
      await work();
    } catch (error) {
      this.workbench.tell(error instanceof Error ? error.message : String(error));
    }
  }
}
