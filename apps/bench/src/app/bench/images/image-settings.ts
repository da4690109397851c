import { ChangeDetectionStrategy, Component, computed, inject, input, ViewEncapsulation } from '@angular/core';
import { IMAGE_FILTERS, IMAGE_WRAPS, type MaterialImage } from '@brelvin/contract';
import { setImageField } from '@brelvin/core';
import { Choices, plainChoices, type Choice } from '../../shared/controls/choices';
import { ImageShelf } from '../../shared/images/image-shelf';
import { GraphEditor } from '../editors/graph-editor';

/** How pixels of an image become values. */
const ROLES: readonly Choice<MaterialImage['role']>[] = [
  { value: 'colour', help: 'sRGB: what one sees, read as light' },
  { value: 'data', help: 'Numbers, read as they are stored: normals, roughness, masks' },
];
const UV_SETS: readonly Choice<number>[] = [
  { value: 0, words: 'first' },
  { value: 1, words: 'second', help: 'Without overlaps, for baked occlusion and light' },
];
const AXES = [
  { field: 'wrapX', words: 'Wrap u', label: 'Wrap u', seam: 'across', edges: 'Left and right' },
  { field: 'wrapY', words: 'Wrap v', label: 'Wrap v', seam: 'down', edges: 'Top and bottom' },
] as const;

/** An image's name, and how it is read. */
@Component({
  selector: 'brelvin-image-settings',
  imports: [Choices],
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './image-settings.css',
  host: { class: 'image-settings' },
  template: `
    <span class="field-label">Name</span>
    <input #name class="text-input" aria-label="Name" maxlength="120" [value]="image().name" (change)="set('name', name.value.trim())" />
    <span class="field-label">Colour space</span>
    <brelvin-choices label="Colour space" [options]="roles" [value]="image().role" (chosen)="set('role', $event)" />
    @if (!image().faces) {
      @for (axis of axes; track axis.field) {
        <span class="field-label">{{ axis.words }}</span>
        <brelvin-choices [label]="axis.label" [options]="wraps" [value]="image()[axis.field]" (chosen)="set(axis.field, $event)" />
        @if (seams()?.[axis.seam]) {
          <p class="hint image-seam">{{ axis.edges }} differ: repeated, a line shows where they meet.</p>
        }
      }
    }
    <span class="field-label">Filter</span>
    <brelvin-choices label="Filter" [options]="filters" [value]="image().filter" (chosen)="set('filter', $event)" />
    @if (!image().faces) {
      <span class="field-label">UV set</span>
      <brelvin-choices label="UV set" [options]="uvSets" [value]="image().uvSet" (chosen)="set('uvSet', $event)" />
    }
    <ng-content />
  `,
})
export class ImageSettings {
  readonly id = input.required<string>();
  readonly image = input.required<MaterialImage>();

  private readonly editor = inject(GraphEditor);
  private readonly shelf = inject(ImageShelf);
  protected readonly seams = computed(() => this.shelf.facts().get(this.image().asset)?.seams);
  protected readonly roles = ROLES;
  protected readonly uvSets = UV_SETS;
  protected readonly axes = AXES;
  protected readonly wraps = plainChoices(IMAGE_WRAPS);
  protected readonly filters = plainChoices(IMAGE_FILTERS);

  protected set<K extends keyof MaterialImage>(field: K, value: MaterialImage[K]): void {
    this.editor.change(setImageField(this.id(), field, value));
  }
}
