import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal, ViewEncapsulation } from '@angular/core';
import { type MaterialImage, type AssetSummary } from '@brelvin/contract';
import { AssetApi } from '../../shared/api/asset-api';
import { Icon } from '../../shared/icons/icon';
import { GraphEditor } from '../editors/graph-editor';
import { ImagePlacer, type ImageUser } from './image-placer';
import { ImageSettings } from './image-settings';
import { Popover } from '../../shared/controls/popover';

const IMAGE_FILES = 'image/png,image/jpeg,image/webp';

/** Which image a node or parameter shows, and how: from the material, the workspace, or a file. */
@Component({
  selector: 'brelvin-image-field',
  imports: [Icon, ImageSettings, Popover],
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
  protected readonly shelf = signal<readonly AssetSummary[]>([]);
  protected readonly files = IMAGE_FILES;

  protected readonly found = computed((): MaterialImage | undefined => this.editor.material().images[this.image() ?? '']);
  protected readonly label = computed(() => this.found()?.name || (this.found() ? 'unnamed' : 'choose …'));
  protected readonly own = computed(() =>
    Object.entries(this.editor.material().images)
      .filter(([, { faces }]) => this.cube() === undefined || (faces !== undefined) === this.cube())
      .map(([id, image]) => ({ id, image })),
  );
  /** Of the workspace, but not of the material. */
  protected readonly others = computed(() => {
    const own = new Set(this.own().map(({ image }) => image.asset));
    return this.cube() ? [] : this.shelf().filter((asset) => !own.has(asset.sha256));
  });

  protected async toggle(): Promise<void> {
    this.open.set(!this.open());
    if (!this.open()) return;
    this.shelf.set(
      await this.api.list({ limit: 40, use: 'image' }).then(
        ({ assets }) => assets,
        () => [],
      ),
    );
  }

  protected choose(id: string): void {
    this.chosen.emit(id);
  }

  protected adopt(asset: AssetSummary): void {
    void this.placer.adopt(this.user(), asset);
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
