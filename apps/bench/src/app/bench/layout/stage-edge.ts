import { ChangeDetectionStrategy, Component, ElementRef, inject, input, output, ViewEncapsulation } from '@angular/core';

const KEY_STEP = 24;

/** The edge between graph and Stage; drag it, or move it by arrow keys, to give the picture more or less room. */
@Component({
  selector: 'brelvin-stage-edge',
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './stage-edge.css',
  host: {
    class: 'stage-edge',
    role: 'separator',
    tabindex: '0',
    'aria-orientation': 'vertical',
    'aria-label': 'Width of the Stage',
    title: 'Drag to give the Stage more or less room',
    '[attr.aria-valuenow]': 'width()',
    '(pointerdown)': 'down($event)',
    '(pointermove)': 'move($event)',
    '(pointerup)': 'start = undefined',
    '(pointercancel)': 'start = undefined',
    '(keydown.arrowleft)': 'resized.emit(width() + step)',
    '(keydown.arrowright)': 'resized.emit(width() - step)',
  },
  template: '',
})
export class StageEdge {
  readonly width = input.required<number>();
  readonly resized = output<number>();
  protected readonly step = KEY_STEP;
  protected start?: { readonly x: number; readonly width: number };
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);

  protected down(event: PointerEvent): void {
    this.host.nativeElement.setPointerCapture(event.pointerId);
    this.start = { x: event.clientX, width: this.width() };
  }

  protected move(event: PointerEvent): void {
    if (this.start) this.resized.emit(this.start.width + this.start.x - event.clientX);
  }
}
