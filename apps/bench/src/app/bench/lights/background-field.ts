import { ChangeDetectionStrategy, Component, inject, output, signal, ViewEncapsulation } from '@angular/core';
import { BACKGROUND_FITS, type BackgroundFit, type MaterialImage, type AssetSummary } from '@brelvin/contract';
import { setBackgroundImage, setBackgroundKind } from '@brelvin/core';
import { AssetApi } from '../../shared/api/asset-api';
import { ImageShelf } from '../../shared/images/image-shelf';
import { RigEditor } from '../editors/rig-editor';

const FITS: Readonly<Record<BackgroundFit, string>> = {
  cover: 'fills the picture, edges cut off',
  contain: 'seen whole, colours beside it',
  stretch: 'pulled to the picture’s shape',
};

/** Which flat image is behind the meshes: from the workspace or a file, and how it fills the picture. */
@Component({
  selector: 'brelvin-background-field',
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './background-field.css',
  host: { class: 'background-field' },
  template: `
    <select
      #asset
      class="text-input"
      aria-label="Background image"
      title="Images of the workspace"
      (change)="adopt(asset.value); asset.value = shown() ?? ''"
    >
      @if (!shown()) {
        <option value="">choose an image …</option>
      }
      @for (each of shelf(); track each.sha256) {
        <option [value]="each.sha256" [selected]="each.sha256 === shown()">{{ each.name }}</option>
      }
      @if (beyond(); as image) {
        <option [value]="image.asset" selected>{{ image.name }}</option>
      }
    </select>
    <button type="button" class="text-button" title="Import a PNG, JPEG or WebP" (click)="file.click()">import …</button>
    <input
      #file
      type="file"
      class="sr-only"
      tabindex="-1"
      aria-label="Background image from a file"
      accept="image/png,image/jpeg,image/webp"
      (change)="take(file)"
    />
    @if (editor.rig().backgroundImage; as background) {
      <select
        #fit
        class="text-input"
        aria-label="How the image fills the picture"
        (change)="put({ image: background.image, fit: $any(fit.value) })"
      >
        @for (each of fits; track each) {
          <option [value]="each" [selected]="background.fit === each">{{ fitWords[each] }}</option>
        }
      </select>
    }
    @if (refusal(); as words) {
      <p class="hint refusal" role="alert">{{ words }}</p>
    }
  `,
})
export class BackgroundField {
  /** An image has been chosen. */
  readonly chosen = output<void>();

  protected readonly editor = inject(RigEditor);
  private readonly api = inject(AssetApi);
  private readonly images = inject(ImageShelf);
  protected readonly fits = BACKGROUND_FITS;
  protected readonly fitWords = FITS;
  protected readonly shelf = signal<readonly AssetSummary[]>([]);
  protected readonly refusal = signal<string | undefined>(undefined);

  constructor() {
    this.api.list({ limit: 100, use: 'image' }).then(
      ({ assets }) => this.shelf.set(assets),
      () => this.refusal.set('The images of the workspace cannot be read now.'),
    );
  }

  protected shown(): string | undefined {
    return this.editor.rig().backgroundImage?.image.asset;
  }

  /** An image in use that is not on the shelf. */
  protected beyond(): MaterialImage | undefined {
    const image = this.editor.rig().backgroundImage?.image;
    return image && !this.shelf().some((each) => each.sha256 === image.asset) ? image : undefined;
  }

  protected adopt(sha256: string): void {
    const found = this.shelf().find((each) => each.sha256 === sha256);
    if (found) this.use({ name: found.name.replace(/\.[^.]+$/, ''), asset: sha256, width: found.width, height: found.height });
  }

  protected async take(field: HTMLInputElement): Promise<void> {
    const [file] = field.files ?? [];
    field.value = '';
    if (!file) return;
    this.refusal.set(undefined);
    try {
      const image = await this.images.take(file);
      if (image) this.use(image);
    } catch (error) {
      this.refusal.set(error instanceof Error ? error.message : String(error));
    }
  }

  private use({ name, asset, width, height }: Pick<MaterialImage, 'name' | 'asset' | 'width' | 'height'>): void {
    const rig = this.editor.rig();
    const image = { name, asset, width, height, role: 'colour', wrapX: 'clamp', wrapY: 'clamp', filter: 'smooth', uvSet: 0 } as const;
    this.editor.do(setBackgroundKind(rig, 'image', { image, fit: rig.backgroundImage?.fit ?? 'cover' }));
    this.chosen.emit();
  }

  protected put(background: { readonly image: MaterialImage; readonly fit: BackgroundFit }): void {
    this.editor.do(setBackgroundImage(background));
  }
}
