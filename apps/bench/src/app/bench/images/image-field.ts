import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal, ViewEncapsulation } from '@angular/core';
import type { MaterialImage } from '@brelvin/contract';
import { AssetApi } from '../../shared/api/asset-api';
import { Icon } from '../../shared/icons/icon';
import { GraphEditor } from '../editors/graph-editor';
import { ImagePlacer, type ImageUser } from './image-placer';
import { ImageSettings } from './image-settings';
import { Popover } from '../../shared/controls/popover';
import { ImageSource, NO_CUBE_IMAGES } from '../../shared/picking/image-source';
import { PickerList } from '../../shared/picking/picker-list';
import type { PickerEntry } from '../../shared/picking/picker-source';

/** Before the id of an image of the material. */
const OWN = 'own:';
const IMAGE_FILES = 'image/png,image/jpeg,image/webp';

/** Which image a node or parameter shows, and how: from the material, the workspace, or a file. */
@Component({
  selector: 'brelvin-image-field',
  imports: [Icon, ImageSettings, PickerList, Popover],
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './image-field.css',
  templateUrl: './image-field.html',
})
export class ImageField {
  readonly user = input.required<ImageUser>();
  readonly image = input<string>();
  /** Only cube images, or only plain ones; both where it is not said. */
  readonly cube = input<boolean>();
  readonly chosen = output<string>();

  private readonly api = inject(AssetApi);
  private readonly editor = inject(GraphEditor);
  private readonly placer = inject(ImagePlacer);
  protected readonly open = signal(false);
  private readonly images = inject(ImageSource);
  protected readonly source = computed(() => (this.cube() ? NO_CUBE_IMAGES : this.images));
  protected readonly files = IMAGE_FILES;

  protected readonly found = computed((): MaterialImage | undefined => this.editor.material().images[this.image() ?? '']);
  protected readonly label = computed(() => this.found()?.name || (this.found() ? 'unnamed' : 'choose …'));
  /** Of the material: they stand before those of the workspace. */
  protected readonly own = computed((): PickerEntry[] =>
    Object.entries(this.editor.material().images)
      .filter(([, { faces }]) => this.cube() === undefined || (faces !== undefined) === this.cube())
      .map(([id, { name, asset, width, height }]) => ({
        id: OWN + id,
        name: name || 'unnamed',
        hint: `of this material, ${width} × ${height}`,
        picture: this.api.url(asset),
      })),
  );
  protected readonly current = computed(() => OWN + (this.image() ?? ''));

  protected choose(entry: PickerEntry): void {
    this.open.set(false);
    if (entry.id.startsWith(OWN)) return this.chosen.emit(entry.id.slice(OWN.length));
    const found = this.images.picked(entry);
    if (found) void this.placer.adopt(this.user(), found);
  }

  protected async takeFile(field: HTMLInputElement): Promise<void> {
    const files = [...(field.files ?? [])];
    field.value = '';
    if (files.length > 0) await this.placer.fill(this.user(), files, this.cube());
  }

  protected url(asset: string): string {
    return this.api.url(asset);
  }
}
