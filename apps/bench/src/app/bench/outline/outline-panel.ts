import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { OUTLINE_UNITS, type Outline } from '@brelvin/contract';
import { FIRST_OUTLINE, setOutline, setOutlineField } from '@brelvin/core';
import { Choices, plainChoices, type Choice } from '../../shared/controls/choices';
import { NumberField } from '../../shared/controls/number-field';
import { GraphEditor } from '../editors/graph-editor';

const METHODS: readonly Choice<Outline['method'] | 'none'>[] = [
  { value: 'none', help: 'No line.' },
  { value: 'hull', words: 'silhouette', help: 'The mesh, grown a little, behind itself: one clean line round each shape.' },
  {
    value: 'edges',
    words: 'silhouette and creases',
    help: 'Also creases, and where one part meets another: found in the picture itself.',
  },
];

/** Pixels that stand for a metre when the unit changes: about what a mesh of two metres takes up on the Stage. */
const PIXELS_A_METRE = 200;

/** The line round what wears the material. */
@Component({
  selector: 'brelvin-outline-panel',
  imports: [Choices, NumberField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { class: 'panel-body outline-panel' },
  template: `
    <span class="field-label">Line</span>
    <brelvin-choices label="Outline" [options]="methods" [value]="method()" (chosen)="use($event)" />
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
        <brelvin-choices label="Unit of the width" [options]="units" [value]="line.unit" (chosen)="measureIn($event)" />
      </span>
      <span class="field-label">Hidden lines</span>
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
      <p class="hint outline-hint">A line round what has this material. Its colour comes from the dock.</p>
    }
  `,
})
export class OutlinePanel {
  private readonly editor = inject(GraphEditor);
  protected readonly methods = METHODS;
  protected readonly units = plainChoices(OUTLINE_UNITS);
  protected readonly first = FIRST_OUTLINE;
  protected readonly outline = computed(() => this.editor.material().outline);
  protected readonly method = computed(() => this.outline()?.method ?? 'none');

  protected use(method: Outline['method'] | 'none'): void {
    this.editor.change(setOutline(method === 'none' ? undefined : { ...(this.outline() ?? FIRST_OUTLINE), method }));
  }

  protected set<K extends keyof Outline>(field: K, value: Outline[K], gesture?: string): void {
    this.editor.change(setOutlineField(field, value), gesture);
  }

  /** Another unit; the line stays about as wide. */
  protected measureIn(unit: Outline['unit']): void {
    const line = this.outline();
    if (!line || line.unit === unit) return;
    this.editor.change(setOutline({ ...line, unit, width: unit === 'metres' ? this.inMetres(line.width) : line.width * PIXELS_A_METRE }));
  }

  protected inMetres(pixels: number): number {
    return pixels / PIXELS_A_METRE;
  }

  protected atLeast0(value: number): number {
    return Math.max(value, 0);
  }
}
