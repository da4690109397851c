import { ChangeDetectionStrategy, Component, computed, inject, input, output, ViewEncapsulation } from '@angular/core';
import type { MaterialImage } from '@brelvin/contract';
import {
  graphsOf,
  imageMemory,
  imageUses,
  joinEdits,
  linkImage,
  normalReaders,
  readGreenAs,
  replaceImage,
  titleOfNode,
  type ImageFacts,
  type ImageUse,
  type MipChain,
} from '@brelvin/core';
import { AssetApi } from '../../shared/api/asset-api';
import { Choices, type Choice } from '../../shared/controls/choices';
import { Icon } from '../../shared/icons/icon';
import { ImageShelf } from '../../shared/images/image-shelf';
import { BenchContext } from '../editors/bench-context';
import { GraphEditor } from '../editors/graph-editor';
import { ImageSettings } from '../images/image-settings';
import { LinkedImages } from './linked-images';
import { litNormals } from './lit-normals';
import { SmallPictureView } from './small-picture';

const KEEPINGS: readonly Choice<'kept' | 'linked'>[] = [
  { value: 'kept', words: 'its copy', help: 'Stays as it is, whatever becomes of the workspace’s image' },
  { value: 'linked', words: 'follows', help: 'Tells when the workspace has a newer image of this name' },
];
const RELIEF_SIDE = 128;
const CHANNEL_NAMES = ['red', 'green', 'blue', 'alpha'];
const MEBIBYTE = 1024 * 1024;

/** Pixels with what is known of them; nothing is, of cube images. */
export type ShownImage = MipChain & { readonly facts?: ImageFacts };

/** How one image is read, what shows it, and what is known of its pixels. */
@Component({
  selector: 'brelvin-map-details',
  imports: [Choices, Icon, ImageSettings, SmallPictureView],
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './map-details.css',
  templateUrl: './map-details.html',
})
export class MapDetails {
  readonly id = input.required<string>();
  readonly image = input.required<MaterialImage>();
  readonly chain = input<ShownImage>();
  /** Path of a node to show. */
  readonly shown = output<string>();

  private readonly api = inject(AssetApi);
  private readonly shelf = inject(ImageShelf);
  private readonly editor = inject(GraphEditor);
  private readonly context = inject(BenchContext);
  private readonly links = inject(LinkedImages);
  protected readonly keepings = KEEPINGS;
  protected readonly ways = ['up', 'down'] as const;

  protected readonly memory = computed(() => (imageMemory(this.image()) / MEBIBYTE).toFixed(1));
  protected readonly link = computed(() => this.links.stateOf(this.image()));
  protected readonly uses = computed(() =>
    (imageUses(this.editor.material()).get(this.id()) ?? []).map((use) => ({ words: this.wordsOf(use), path: this.pathOf(use) })),
  );
  /** Channels that have one value everywhere. */
  protected readonly even = computed(() =>
    (this.chain()?.facts?.even ?? []).flatMap((value, channel) =>
      value === undefined || (channel === 3 && value === 1) ? [] : [{ name: CHANNEL_NAMES[channel] ?? '', value }],
    ),
  );
  protected readonly evenWords = computed(
    () =>
      `All pixels have the same ${this.even()
        .map(({ name, value }) => `${name} (${value.toFixed(2)})`)
        .join(', ')}: a number would do.`,
  );
  /** Nodes that read the image as a normal map. */
  protected readonly readers = computed(() => normalReaders(this.editor.material(), this.id()));
  protected readonly readDown = computed(() => this.readers().some(({ greenDown }) => greenDown));
  protected readonly both = computed(() => {
    const chain = this.chain();
    if (!chain || (!chain.facts?.normals && this.readers().length === 0)) return undefined;
    return { up: litNormals(chain, RELIEF_SIDE, false), down: litNormals(chain, RELIEF_SIDE, true) };
  });
  protected readonly senseWords = computed(() => {
    const sense = this.chain()?.facts?.normals;
    const read = this.readers().length === 0 ? '' : ` It is read as green ${this.readDown() ? 'down' : 'up'}.`;
    if (!sense) return `This does not look like a normal map.${read}`;
    if (sense.green === 'unclear') return `Its pixels do not tell which way green points: choose where bumps stand out.${read}`;
    return `Its pixels look as if green pointed ${sense.green}.${read}`;
  });

  protected readGreen(way: 'up' | 'down'): void {
    this.editor.change(readGreenAs(this.readers(), way === 'down'));
  }

  protected async keep(keeping: 'kept' | 'linked'): Promise<void> {
    if (keeping === 'kept') return this.editor.change(linkImage(this.id(), undefined));
    const { asset, name } = this.image();
    const { assets } = await this.api.list({ use: 'image', limit: 200 }).catch(() => ({ assets: [] }));
    const known = assets.find(({ sha256 }) => sha256 === asset)?.name ?? name;
    if (known) this.editor.change(linkImage(this.id(), known));
    else this.editor.refuse('The workspace has no name for this image, so it cannot be followed.');
  }

  protected takeNewer(): void {
    const state = this.link();
    if (state?.kind !== 'newer') return;
    const { sha256, width, height } = state.asset;
    this.editor.change(replaceImage(this.editor.material(), this.id(), { asset: sha256, width, height }));
  }

  protected async replace(field: HTMLInputElement): Promise<void> {
    const file = field.files?.[0];
    field.value = '';
    if (!file) return;
    try {
      const taken = await this.shelf.take(file);
      // A file of one's own is no longer the workspace's image of another name.
      const unlinked = this.image().linked === undefined ? [] : [linkImage(this.id(), undefined)];
      const edit = taken && replaceImage(this.editor.material(), this.id(), taken);
      if (edit) this.editor.change(joinEdits(edit.label, edit, ...unlinked));
    } catch (error) {
      this.editor.refuse(error instanceof Error ? error.message : String(error));
    }
  }

  private wordsOf(use: ImageUse): string {
    const material = this.editor.material();
    if ('parameter' in use) return `parameter ${material.parameters[use.parameter]?.name ?? ''}`;
    const [, graph] = graphsOf(material).find(([{ group }]) => group === use.group) ?? [];
    const node = graph?.nodes[use.node];
    const title = node ? titleOfNode(this.context.catalogue, material, node) : use.node;
    return use.group === undefined ? title : `${title}, in ${material.groups[use.group]?.title ?? 'a group'}`;
  }

  /** Only nodes of the surface are shown at once: a group may stand there many times, or nowhere. */
  private pathOf(use: ImageUse): string {
    return 'node' in use && use.group === undefined ? use.node : '';
  }
}
