import { ChangeDetectionStrategy, Component, computed, inject, output, signal } from '@angular/core';
import { LARGEST_RENDER } from '@brelvin/contract';
import { LARGEST_AT_ONCE, LARGEST_PICTURE } from '@brelvin/core';
import { NumberField } from '../../shared/controls/number-field';
import { Icon } from '../../shared/icons/icon';
import { AskedStills } from './asked-stills';
import { StageBinding } from './stage-binding';
import { StillWork } from './still-work';

const SMALLEST = 16;

/** How large a still is, whether it has a background, and how far it is. */
@Component({
  selector: 'brelvin-still-fields',
  imports: [Icon, NumberField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { class: 'still-fields' },
  template: `
    <span class="field-label">Still</span>
    <div class="still-size">
      <brelvin-number
        label="Width of the still"
        [help]="help"
        suffix=" px"
        [value]="size().width"
        [range]="range"
        (changed)="put('width', $event.value)"
        (resetAsked)="own.set(undefined)"
      />
      <span aria-hidden="true">×</span>
      <brelvin-number
        label="Height of the still"
        [help]="help"
        suffix=" px"
        [value]="size().height"
        [range]="range"
        (changed)="put('height', $event.value)"
        (resetAsked)="own.set(undefined)"
      />
    </div>
    <div class="choices">
      <button
        type="button"
        class="choice-alone"
        [attr.aria-pressed]="keepsShape()"
        title="Width and height change together: as wide for its height as the picture on the Stage"
        (click)="toggleShape()"
      >
        shape of the Stage
      </button>
      <button
        type="button"
        class="choice-alone"
        [attr.aria-pressed]="transparent()"
        title="Nothing behind the meshes: the picture has an alpha channel"
        (click)="transparent.set(!transparent())"
      >
        transparent
      </button>
    </div>
    <button type="button" class="bar-button" title="Save the picture as it is, PNG" [disabled]="work.busy()" (click)="save()">
      <brelvin-icon name="download" /> save a still
    </button>
    <button
      type="button"
      class="bar-button"
      title="Drawn apart from this page, by a worker; the page “jobs” shows how far it is, and has the picture"
      [disabled]="!fitsWorkers()"
      (click)="ask()"
    >
      have a worker draw it
    </button>
    @if (tiled()) {
      <p class="hint">Drawn in tiles. Bloom, ambient occlusion and what is seen through glass are worked out at {{ atOnce }} px.</p>
    }
  `,
})
export class StillFields {
  protected readonly work = inject(StillWork);
  private readonly stills = inject(AskedStills);
  /** A worker is asked for one; what is said of it stands elsewhere. */
  readonly asked = output();
  private readonly binding = inject(StageBinding);
  protected readonly atOnce = LARGEST_AT_ONCE.toLocaleString('en');
  protected readonly help = `At most ${LARGEST_PICTURE.toLocaleString('en')}. Lines stay as wide for the picture as on the Stage. Double-click: as large as the Stage.`;
  protected readonly range = { low: SMALLEST, high: LARGEST_PICTURE, whole: true };
  protected readonly own = signal<{ readonly width: number; readonly height: number } | undefined>(undefined);
  protected readonly keepsShape = signal(true);
  protected readonly transparent = signal(false);
  protected readonly size = computed(() => this.own() ?? this.onStage());
  protected readonly fitsWorkers = computed(() => Math.max(this.size().width, this.size().height) <= LARGEST_RENDER);
  protected readonly tiled = computed(() => Math.max(this.size().width, this.size().height) > LARGEST_AT_ONCE);

  private onStage(): { readonly width: number; readonly height: number } {
    // The Stage may have changed its size since.
    this.binding.state();
    return this.binding.engine()?.pictureSize ?? { width: 1024, height: 1024 };
  }

  protected put(side: 'width' | 'height', value: number): void {
    const { width, height } = this.onStage();
    const other = side === 'width' ? 'height' : 'width';
    const wanted = Math.round(value);
    const along = side === 'width' ? (wanted * height) / width : (wanted * width) / height;
    const next = this.keepsShape() ? Math.round(along) : this.size()[other];
    // The longer side is never beyond what a picture may have, whichever was typed.
    const shrink = Math.min(1, LARGEST_PICTURE / Math.max(next, 1));
    const held = (pixels: number): number => Math.min(Math.max(Math.round(pixels * shrink), SMALLEST), LARGEST_PICTURE);
    this.own.set({ ...this.size(), [side]: held(wanted), [other]: held(next) });
  }

  protected toggleShape(): void {
    this.keepsShape.update((each) => !each);
    if (this.keepsShape() && this.own()) this.put('width', this.size().width);
  }

  /** By a worker, as it is saved and seen now. */
  protected ask(): void {
    void this.stills.ask(this.size());
    this.asked.emit();
  }

  protected save(): void {
    void this.work.save({ size: this.size(), transparent: this.transparent() });
  }
}
