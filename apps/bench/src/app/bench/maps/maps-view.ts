import { ChangeDetectionStrategy, Component, computed, effect, inject, signal, untracked, ViewEncapsulation } from '@angular/core';
import { buildMesh, imageMemory, imageUses, linearFromSrgb, removeUnusedImages } from '@brelvin/core';
import { AssetApi } from '../../shared/api/asset-api';
import { Choices } from '../../shared/controls/choices';
import { droppedFiles } from '../../shared/files/dropped-files';
import { FileDrops } from '../../shared/files/file-drops';
import { sortedFiles } from '../../shared/files/sorted-files';
import { Icon } from '../../shared/icons/icon';
import { ImageShelf } from '../../shared/images/image-shelf';
import { MeshShelf } from '../../shared/meshes/mesh-shelf';
import { DocumentStore } from '../documents/document-store';
import { GraphEditor } from '../editors/graph-editor';
import { BenchPlaces } from '../layout/bench-places';
import { CHANNEL_CHOICES, type Channel } from './channels';
import { cubeSheet } from './cube-sheet';
import { LinkedImages } from './linked-images';
import { MapDetails, type ShownImage } from './map-details';
import { MapPicture, type PixelReading } from './map-picture';
import { MapSetPanel } from './map-set-panel';
import { MapSetEditor } from './map-set-editor';
import { uvLines } from './uv-lines';

const MEBIBYTE = 1024 * 1024;

/** Every image of the material, large, by channel, with the mesh's UVs over it; and sets of maps to be laid on. */
@Component({
  selector: 'brelvin-maps-view',
  imports: [Choices, Icon, MapDetails, MapPicture, MapSetPanel],
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './maps-view.css',
  host: { class: 'maps-view', '(dragover)': '$event.preventDefault()', '(drop)': 'drop($event)' },
  templateUrl: './maps-view.html',
})
export class MapsView {
  private readonly store = inject(DocumentStore);
  protected readonly places = inject(BenchPlaces);
  private readonly api = inject(AssetApi);
  private readonly shelf = inject(ImageShelf);
  private readonly graph = inject(GraphEditor);
  private readonly links = inject(LinkedImages);
  private readonly meshes = inject(MeshShelf);
  private readonly drops = inject(FileDrops);
  protected readonly editor = inject(MapSetEditor);
  protected readonly channels = CHANNEL_CHOICES;
  protected readonly chosen = signal<string | undefined>(undefined);
  protected readonly channel = signal<Channel>('all');
  protected readonly uvsShown = signal(false);
  protected readonly reading = signal<PixelReading | undefined>(undefined);
  protected readonly chain = signal<ShownImage | undefined>(undefined);
  protected readonly failure = signal<string | undefined>(undefined);

  protected readonly entries = computed(() => {
    const material = this.graph.material();
    const uses = imageUses(material);
    return Object.entries(material.images).map(([id, image]) => ({ id, image, uses: uses.get(id)?.length ?? 0 }));
  });
  /** The chosen image, as long as there is one; else the first. */
  protected readonly chosenId = computed(() => {
    const chosen = this.chosen();
    const { images } = this.graph.material();
    return chosen !== undefined && Object.hasOwn(images, chosen) ? chosen : (this.entries()[0]?.id ?? '');
  });
  protected readonly image = computed(() => this.graph.material().images[this.chosenId()]);
  protected readonly unused = computed(() => this.entries().filter(({ uses }) => uses === 0).length);
  protected readonly memory = computed(() =>
    (this.entries().reduce((sum, { image }) => sum + imageMemory(image), 0) / MEBIBYTE).toFixed(1),
  );
  protected readonly lines = computed(() => {
    const [set, image] = [this.store.set(), this.image()];
    return this.uvsShown() && set && image
      ? uvLines(set, this.store.materialId() ?? '', image.uvSet, (mesh) =>
          mesh.source ? this.meshes.at(mesh.source.asset) : buildMesh(mesh),
        )
      : undefined;
  });
  protected readonly readingWords = computed(() => {
    const reading = this.reading();
    if (!reading) return '';
    const { x, y, stored } = reading;
    const colour = this.image()?.role === 'colour';
    const values = stored.map((value, channel) => (colour && channel < 3 ? linearFromSrgb(value / 255) : value / 255).toFixed(3));
    return `${x}, ${y}: ${values.join(' ')} · stored ${stored.join(' ')}`;
  });

  constructor() {
    // What changes of an image but its pixels and its role does not decode it anew.
    const pixels = computed(
      () => {
        const image = this.image();
        return image && { asset: image.asset, faces: image.faces, role: image.role };
      },
      { equal: (a, b) => a?.asset === b?.asset && a?.faces?.join() === b?.faces?.join() && a?.role === b?.role },
    );
    effect(() => {
      const wanted = pixels();
      untracked(() => void this.load(wanted));
    });
    const linked = computed(() => Object.values(this.graph.material().images), {
      equal: (a, b) => a.map((each) => `${each.linked} ${each.asset}`).join() === b.map((each) => `${each.linked} ${each.asset}`).join(),
    });
    effect(() => {
      const images = linked();
      untracked(() => void this.links.look(images));
    });
  }

  private async load(wanted: Parameters<ImageShelf['load']>[0] | undefined): Promise<void> {
    this.failure.set(undefined);
    const now = (): boolean => this.image()?.asset === wanted?.asset && this.image()?.role === wanted?.role;
    try {
      const loaded = wanted && (await this.shelf.load(wanted));
      if (now()) this.chain.set(loaded && 'faces' in loaded ? cubeSheet(loaded) : loaded);
    } catch (error) {
      if (!now()) return;
      this.chain.set(undefined);
      this.failure.set(error instanceof Error ? error.message : String(error));
    }
  }

  protected take(field: HTMLInputElement): void {
    const files = [...(field.files ?? [])];
    field.value = '';
    if (files.length > 0) void this.editor.take(files);
  }

  protected drop(event: DragEvent): void {
    if (!event.dataTransfer?.types.includes('Files')) return;
    event.preventDefault();
    void droppedFiles(event.dataTransfer).then((files) => {
      if (sortedFiles(files).images.length > 0) void this.editor.take(files);
      else this.drops.take(files);
    });
  }

  protected removeUnused(): void {
    this.graph.change(removeUnusedImages(this.graph.material()));
  }

  protected url(asset: string): string {
    return this.api.url(asset);
  }
}
