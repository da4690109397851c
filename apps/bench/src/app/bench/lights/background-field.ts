import { ChangeDetectionStrategy, Component, inject, output, signal, ViewEncapsulation } from '@angular/core';
import { BACKGROUND_FITS, type BackgroundFit, type MaterialImage } from '@brelvin/contract';
import { setBackgroundImage, setBackgroundKind } from '@brelvin/core';
import { ImageShelf } from '../../shared/images/image-shelf';
import { ImageSource } from '../../shared/picking/image-source';
import { Picker } from '../../shared/picking/picker';
import type { PickerEntry } from '../../shared/picking/picker-source';
import { RigEditor } from '../editors/rig-editor';

const FITS: Readonly<Record<BackgroundFit, string>> = {
  cover: 'fills the picture, edges cut off',
  contain: 'seen whole, colours beside it',
  stretch: 'pulled to the picture’s shape',
};

/** Which flat image is behind the meshes: from the workspace or a file, and how it fills the picture. */
@Component({
  selector: 'brelvin-background-field',
  imports: [Picker],
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './background-field.css',
  host: { class: 'background-field' },
  template: `
    <brelvin-picker
      [source]="source"
      [name]="editor.rig().backgroundImage?.image?.name ?? 'choose …'"
      [current]="shown()"
      (chosen)="adopt($event)"
    />
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
  private readonly images = inject(ImageShelf);
  protected readonly fits = BACKGROUND_FITS;
  protected readonly fitWords = FITS;
  protected readonly source = inject(ImageSource);
  protected readonly refusal = signal<string | undefined>(undefined);

  protected shown(): string | undefined {
    return this.editor.rig().backgroundImage?.image.asset;
  }

  protected adopt(entry: PickerEntry): void {
    const found = this.source.picked(entry);
    if (found) this.use({ name: found.name.replace(/\.[^.]+$/, ''), asset: found.sha256, width: found.width, height: found.height });
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
