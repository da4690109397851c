import {
  afterRenderEffect,
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  ElementRef,
  inject,
  input,
  viewChild,
} from '@angular/core';
import { boundsOfBoxes, boxesOf, seenOf, type SurfaceMeasure } from './graph-shapes';
import { GraphView } from './graph-view';
import { GraphWork } from './graph-work';
import type { Rectangle } from './placed-graph';

const WIDTH = 132;
const HEIGHT = 84;
/** A graph that is seen whole needs no overview. */
const FEWEST = 12;

/** The whole graph, small, with the part that is seen; press or drag to go there. */
@Component({
  selector: 'brelvin-overview',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { class: 'overview', '[class.overview-away]': '!needed()' },
  template: `<canvas
    #canvas
    width="132"
    height="84"
    role="img"
    aria-label="Overview of the graph. Press to go there."
    (pointerdown)="go($event)"
    (pointermove)="drag($event)"
  ></canvas>`,
})
export class Overview {
  readonly surface = input.required<SurfaceMeasure>();

  private readonly view = inject(GraphView);
  private readonly work = inject(GraphWork);
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  /** Changes with the graph, not with how it is seen. */
  private readonly boxes = computed(() => boxesOf(this.work.typed(), this.work.placed()));
  private map: { readonly bounds: Rectangle; readonly scale: number } = { bounds: { x: 0, y: 0, width: 1, height: 1 }, scale: 1 };

  constructor() {
    afterRenderEffect(() => {
      this.work.typed();
      this.surface();
      this.view.selection();
      this.paint();
    });
    const moves = this.view.moves.subscribe(() => this.paint());
    inject(DestroyRef).onDestroy(() => moves.unsubscribe());
  }

  protected needed(): boolean {
    return this.work.placed().cards.size >= FEWEST;
  }

  protected go(event: PointerEvent): void {
    (event.target as HTMLElement).setPointerCapture(event.pointerId);
    this.centre(event);
  }

  protected drag(event: PointerEvent): void {
    if (event.buttons === 1) this.centre(event);
  }

  private centre(event: PointerEvent): void {
    const { bounds, scale } = this.map;
    const { zoom } = this.view.transform;
    const { width, height } = this.surface();
    const [x, y] = [bounds.x + event.offsetX / scale, bounds.y + event.offsetY / scale];
    this.view.set({ zoom, x: width / 2 - x * zoom, y: height / 2 - y * zoom });
  }

  private paint(): void {
    const context = this.canvas().nativeElement.getContext('2d');
    if (!context) return;
    context.clearRect(0, 0, WIDTH, HEIGHT);
    if (!this.needed()) return;
    const boxes = this.boxes();
    const seen = seenOf(this.view, this.surface());
    const bounds = boundsOfBoxes([...boxes, seen]) ?? seen;
    const scale = Math.min(WIDTH / bounds.width, HEIGHT / bounds.height);
    this.map = { bounds, scale };
    const style = getComputedStyle(this.canvas().nativeElement);
    const put = (box: Rectangle): [number, number, number, number] => [
      (box.x - bounds.x) * scale,
      (box.y - bounds.y) * scale,
      Math.max(box.width * scale, 1.5),
      Math.max(box.height * scale, 1.5),
    ];
    context.fillStyle = style.getPropertyValue('--dim');
    context.beginPath();
    for (const box of boxes) context.rect(...put(box));
    context.fill();
    context.strokeStyle = style.getPropertyValue('--text');
    context.strokeRect(...put(seen));
  }
}
