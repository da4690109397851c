import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import type { OpacityMode } from '@brelvin/contract';
import { DOCK, inletKey, setOpacityMode } from '@brelvin/core';
import { Choices, type Choice } from '../../shared/controls/choices';
import { BenchResult } from '../stage/bench-result';
import { GraphEditor } from '../editors/graph-editor';

const MODES: readonly Choice<OpacityMode>[] = [
  { value: 'blend', words: 'blend', help: 'The picture behind shows through: far copies and parts first, then nearer ones.' },
  {
    value: 'unsorted',
    words: 'order-independent',
    help: 'Blended in no order, nearer things weighing more: for many shells that overlap and cannot be sorted. Colours mix.',
  },
  { value: 'cut', words: 'mask', help: 'Below one half there is nothing: holes, also for light and shadow.' },
  { value: 'add', words: 'additive', help: 'Its light is added to what is behind: glow, beams, sparks.' },
];

/** How what runs into the dock's opacity is used. */
@Component({
  selector: 'brelvin-opacity-panel',
  imports: [Choices],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { class: 'panel-body outline-panel' },
  template: `
    <span class="field-label">Alpha mode</span>
    <brelvin-choices label="Alpha mode" [options]="modes" [value]="used() ?? mode()" (chosen)="editor.change(edit($event))" />
    <p class="hint outline-hint">
      @if (used(); as mode) {
        {{ helpOf(mode) }}
      } @else if (editor.material().code) {
        Its alpha is always 1: the surface hides all that is behind it. Give <code>paint</code> a fourth component below 1, or write
        <code>float opacity(Surface s)</code>.
      } @else {
        Nothing runs into <em>Opacity</em> at the dock yet: the surface hides all that is behind it.
      }
    </p>
  `,
})
export class OpacityPanel {
  protected readonly editor = inject(GraphEditor);
  protected readonly modes = MODES;
  protected readonly edit = setOpacityMode;
  protected readonly mode = computed((): OpacityMode => this.editor.material().opacity ?? 'blend');
  private readonly compiled = inject(BenchResult).compiled;
  /** What its program really does; nothing where it hides all that is behind it. */
  protected readonly used = computed((): OpacityMode | undefined => {
    if (this.editor.material().code) return this.compiled()?.compiled?.opacity;
    return Object.hasOwn(this.editor.material().surface.ribbons, inletKey(DOCK, 'opacity')) ? this.mode() : undefined;
  });

  protected helpOf(mode: OpacityMode): string {
    return MODES.find(({ value }) => value === mode)?.help ?? '';
  }
}
