import { ChangeDetectionStrategy, Component, computed, ElementRef, inject, input, output, ViewEncapsulation } from '@angular/core';

const KEY_STEP = 24;

/** An edge between two areas; drag it, or move it by arrow keys, to give the one behind it more or less room. */
@Component({
  selector: 'brelvin-split-edge',
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './split-edge.css',
  host: {
    class: 'split-edge',
    role: 'separator',
    tabindex: '0',
    '[attr.aria-orientation]': 'orientation()',
    '[attr.aria-label]': 'label()',
    '[attr.aria-valuenow]': 'size()',
    '[title]': '"Drag, or press the arrow keys: " + label() + ". Double-click: as it was first"',
    '(pointerdown)': 'down($event)',
    '(pointermove)': 'move($event)',
    '(pointerup)': 'start = undefined',
    '(pointercancel)': 'start = undefined',
    '(dblclick)': 'resized.emit(undefined)',
    '(keydown)': 'key($event)',
  },
  template: '',
})
export class SplitEdge {
  /** Of the line itself: a vertical one changes a width. */
  readonly orientation = input.required<'vertical' | 'horizontal'>();
  /** What it changes. */
  readonly label = input.required<string>();
  /** Of the area to its right or below it, CSS pixels. */
  readonly size = input.required<number>();
  /** The size that is wanted; the usual one without. */
  readonly resized = output<number | undefined>();
  protected start?: { readonly at: number; readonly size: number };
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  private readonly keys = computed(() => (this.orientation() === 'vertical' ? ['ArrowLeft', 'ArrowRight'] : ['ArrowUp', 'ArrowDown']));

  protected down(event: PointerEvent): void {
    this.host.nativeElement.setPointerCapture(event.pointerId);
    this.start = { at: this.place(event), size: this.size() };
  }

  protected move(event: PointerEvent): void {
    if (this.start) this.resized.emit(this.start.size + this.start.at - this.place(event));
  }

  protected key(event: KeyboardEvent): void {
    const index = this.keys().indexOf(event.key);
    if (index < 0) return;
    event.preventDefault();
    this.resized.emit(this.size() + (index === 0 ? KEY_STEP : -KEY_STEP));
  }

  private place({ clientX, clientY }: PointerEvent): number {
    return this.orientation() === 'vertical' ? clientX : clientY;
  }
}
