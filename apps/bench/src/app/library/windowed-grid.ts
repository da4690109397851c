import { ScrollingModule } from '@angular/cdk/scrolling';
import { NgTemplateOutlet } from '@angular/common';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  contentChild,
  DestroyRef,
  ElementRef,
  inject,
  input,
  signal,
  TemplateRef,
  type AfterViewInit,
  ViewEncapsulation,
} from '@angular/core';

const NARROWEST = 190;
const GAP = 16;

/** Any number of entries in a grid, of which only the rows in view are in the page. */
@Component({
  selector: 'brelvin-windowed-grid',
  imports: [NgTemplateOutlet, ScrollingModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './windowed-grid.css',
  template: `
    <cdk-virtual-scroll-viewport class="grid-viewport" [itemSize]="tall() + gap" [minBufferPx]="600" [maxBufferPx]="1200">
      <div
        *cdkVirtualFor="let row of rows(); trackBy: byRow; templateCacheSize: 0"
        class="grid-row"
        [style.height.px]="tall() + gap"
        [style.--columns]="columns()"
      >
        @for (index of row.indices; track index) {
          <ng-container [ngTemplateOutlet]="entry()" [ngTemplateOutletContext]="{ $implicit: index }" />
        }
      </div>
    </cdk-virtual-scroll-viewport>
  `,
})
export class WindowedGrid implements AfterViewInit {
  readonly count = input.required<number>();
  /** Height of an entry, CSS pixels. */
  readonly tall = input.required<number>();

  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  private readonly destroyRef = inject(DestroyRef);
  protected readonly entry = contentChild.required(TemplateRef<{ $implicit: number }>);
  protected readonly gap = GAP;
  protected readonly columns = signal(4);
  protected readonly rows = computed(() => {
    const columns = this.columns();
    return Array.from({ length: Math.ceil(this.count() / columns) }, (_, row) => ({
      row,
      indices: Array.from({ length: Math.min(columns, this.count() - row * columns) }, (_each, column) => row * columns + column),
    }));
  });

  ngAfterViewInit(): void {
    const resize = new ResizeObserver(([box]) => {
      const width = box?.contentRect.width ?? 0;
      if (width > 0) this.columns.set(Math.max(1, Math.floor((width - 20 + GAP) / (NARROWEST + GAP))));
    });
    resize.observe(this.host.nativeElement);
    this.destroyRef.onDestroy(() => resize.disconnect());
  }

  protected byRow(_index: number, { row }: { row: number }): number {
    return row;
  }
}
