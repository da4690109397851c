import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { FIRST_OUTLINE, setOutline, setOutlineField, type Outline } from '@brelvin/core';
import { NumberField } from '../../shared/controls/number-field';
import { GraphWork } from '../graph/graph-work';

const METHODS: readonly (readonly [Outline['method'] | 'none', string, string])[] = [
  ['none', 'none', 'No line.'],
  ['hull', 'round the shape', 'The mesh, grown a little, behind itself: one clean line round each shape.'],
  ['edges', 'at every break', 'Also creases, and where one part meets another: found in the picture itself.'],
];

/** Pixels that stand for a metre when the unit changes: about what a mesh of two metres takes up on the Stage. */
const PIXELS_A_METRE = 200;

/** The line round what wears the material. */
@Component({
  selector: 'brelvin-outline-panel',
  imports: [NumberField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { class: 'panel-body outline-panel' },
  template: `
    <span class="field-label">Line</span>
    <div class="choices" role="radiogroup" aria-label="Outline">
      @for (each of methods; track each[0]) {
        <button
          type="button"
          class="choice"
          role="radio"
          [attr.aria-checked]="method() === each[0]"
          [title]="each[2]"
          (click)="use(each[0])"
        >
          {{ each[1] }}
        </button>
      }
    </div>
    @if (outline(); as line) {
      <span class="field-label">Width</span>
      <span class="light-colour">
        <brelvin-number
          label="Width of the outline"
          [help]="line.unit === 'pixels' ? 'The same on the screen however far away.' : 'Thinner the farther away.'"
          [value]="line.width"
          [range]="line.unit === 'pixels' ? { low: 0, high: 12 } : { low: 0, high: 0.1 }"
          [suffix]="line.unit === 'pixels' ? ' px' : ' m'"
          (changed)="set('width', atLeast0($event.value), $event.gesture)"
          (resetAsked)="set('width', line.unit === 'pixels' ? first.width : inMetres(first.width))"
        />
        <span class="choices" role="radiogroup" aria-label="Unit of the width">
          <button type="button" class="choice" role="radio" [attr.aria-checked]="line.unit === 'pixels'" (click)="measureIn('pixels')">
            pixels
          </button>
          <button type="button" class="choice" role="radio" [attr.aria-checked]="line.unit === 'metres'" (click)="measureIn('metres')">
            metres
          </button>
        </span>
      </span>
      <span class="field-label">Hidden parts</span>
      <button
        type="button"
        class="choice-alone"
        [attr.aria-pressed]="line.hidden"
        title="Draw the line also through what stands in front"
        (click)="set('hidden', !line.hidden)"
      >
        show through
      </button>
      <p class="hint outline-hint">Its colour is what runs into <em>Outline</em> at the dock; open, it is black.</p>
    } @else {
      <p class="hint outline-hint">A line round what wears this material. Its colour comes from the dock.</p>
    }
  `,
})
export class OutlinePanel {
  private readonly work = inject(GraphWork);
  protected readonly methods = METHODS;
  protected readonly first = FIRST_OUTLINE;
  protected readonly outline = computed(() => this.work.material().outline);
  protected readonly method = computed(() => this.outline()?.method ?? 'none');

  protected use(method: Outline['method'] | 'none'): void {
    if (method === this.method()) return;
    this.work.do(setOutline(method === 'none' ? undefined : { ...(this.outline() ?? FIRST_OUTLINE), method }));
  }

  protected set<K extends keyof Outline>(field: K, value: Outline[K], gesture?: string): void {
    this.work.do(setOutlineField(field, value), gesture);
  }

  /** Another unit; the line stays about as wide. */
  protected measureIn(unit: Outline['unit']): void {
    const line = this.outline();
    if (!line || line.unit === unit) return;
    this.work.do(setOutline({ ...line, unit, width: unit === 'metres' ? this.inMetres(line.width) : line.width * PIXELS_A_METRE }));
  }

  protected inMetres(pixels: number): number {
    return pixels / PIXELS_A_METRE;
  }

  protected atLeast0(value: number): number {
    return Math.max(value, 0);
  }
}
