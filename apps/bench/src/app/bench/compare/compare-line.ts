import { ChangeDetectionStrategy, Component, computed, ElementRef, inject, ViewEncapsulation } from '@angular/core';
import { Comparison } from './comparison';

const KEY_STEP = 0.02;

/** The names of two pictures, and the line between them, which a wipe moves. */
@Component({
  selector: 'brelvin-compare-line',
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './compare-line.css',
  host: { class: 'compare-line' },
  template: `
    @if (compare.view().mode !== 'difference') {
      <span class="compare-name" [style.right.%]="100 - at() * 100">as it is</span>
      <span class="compare-name" [style.left.%]="at() * 100">{{ name() }}</span>
    } @else {
      <span class="compare-name compare-name-middle">{{ name() }}: the difference</span>
    }
    @switch (compare.view().mode) {
      @case ('wipe') {
        <div
          class="compare-wipe"
          role="slider"
          tabindex="0"
          aria-label="Where one picture ends and the other begins"
          aria-valuemin="0"
          aria-valuemax="100"
          [attr.aria-valuenow]="percent()"
          [style.left.%]="at() * 100"
          (pointerdown)="down($event)"
          (pointermove)="move($event)"
          (keydown)="key($event)"
        ></div>
      }
      @case ('beside') {
        <div class="compare-between" [style.left.%]="50"></div>
      }
    }
  `,
})
export class CompareLine {
  protected readonly compare = inject(Comparison);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  protected readonly at = computed(() => (this.compare.view().mode === 'wipe' ? this.compare.view().split : 0.5));
  protected readonly percent = computed(() => Math.round(this.at() * 100));
  protected readonly name = computed(() => this.compare.with()?.name ?? '');

  protected down(event: PointerEvent): void {
    event.stopPropagation();
    (event.currentTarget as HTMLElement).setPointerCapture(event.pointerId);
  }

  protected move(event: PointerEvent): void {
    if (!(event.currentTarget as HTMLElement).hasPointerCapture(event.pointerId)) return;
    const { left, width } = this.host.nativeElement.getBoundingClientRect();
    this.split((event.clientX - left) / Math.max(width, 1));
  }

  protected key(event: KeyboardEvent): void {
    const goal = { ArrowLeft: this.at() - KEY_STEP, ArrowRight: this.at() + KEY_STEP, Home: 0, End: 1 }[event.key];
    if (goal === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    this.split(goal);
  }

  private split(split: number): void {
    this.compare.show({ split: Math.min(Math.max(split, 0), 1) });
  }
}
