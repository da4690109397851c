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
  ViewEncapsulation,
} from '@angular/core';
import { boundsOfBoxes, boxesOf, seenOf, type SurfaceMeasure } from './graph-shapes';
import { GraphView } from '../editors/graph-view';
import { GraphEditor } from '../editors/graph-editor';
import type { Rectangle } from '../editors/placed-graph';

const WIDTH = 132;
const HEIGHT = 84;
/** A graph that is seen whole needs no overview. */
const FEWEST = 12;

/** The whole graph, small, with the part that is seen; press or drag to go there. */
@Component({
  selector: 'brelvin-overview',
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './overview.css',
  host: { class: 'overview', '[class.overview-away]': '!needed()' },
  template: `<canvas
    #canvas
    width="132"
    height="84"
    role="img"
    aria-label="Overview of the graph. Press to move there."
    (pointerdown)="go($event)"
    (pointermove)="drag($event)"
  ></canvas>`,
})
export class Overview {
  readonly surface = input.required<SurfaceMeasure>();

  private readonly view = inject(GraphView);
  private readonly editor = inject(GraphEditor);
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  /** Changes with the graph, not with how it is seen. */
  private readonly boxes = computed(() => boxesOf(this.editor.typed(), this.editor.placed()));
  private readonly extent = computed(() => boundsOfBoxes(this.boxes()));
  private drawn?: { readonly boxes: readonly Rectangle[]; readonly scale: number; readonly shape: Path2D };
  private map: { readonly bounds: Rectangle; readonly scale: number } = { bounds: { x: 0, y: 0, width: 1, height: 1 }, scale: 1 };

  constructor() {
    afterRenderEffect(() => {
      this.editor.typed();
      this.surface();
      this.paint();
    });
    const moves = this.view.moves.subscribe(() => this.paint());
    inject(DestroyRef).onDestroy(() => moves.unsubscribe());
  }

  protected needed(): boolean {
    return this.editor.placed().cards.size >= FEWEST;
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
    const bounds = boundsOfBoxes([this.extent() ?? seen, seen]) ?? seen;
    const scale = Math.min(WIDTH / bounds.width, HEIGHT / bounds.height);
    this.map = { bounds, scale };
    const style = getComputedStyle(this.canvas().nativeElement);
    // Panning inside of the graph moves only the frame: what lies there is drawn as one shape that stays.
    const { drawn } = this;
    if (drawn?.boxes !== boxes || drawn.scale !== scale) this.drawn = { boxes, scale, shape: shapeOf(boxes, scale) };
    context.translate(-bounds.x * scale, -bounds.y * scale);
    context.fillStyle = style.getPropertyValue('--dim');
    if (this.drawn) context.fill(this.drawn.shape);
    context.strokeStyle = style.getPropertyValue('--text');
    context.strokeRect(seen.x * scale, seen.y * scale, seen.width * scale, seen.height * scale);
    context.resetTransform();
  }
}

/** Boxes in pixels of the overview; the smallest can still be seen. */
function shapeOf(boxes: readonly Rectangle[], scale: number): Path2D {
  const shape = new Path2D();
  for (const { x, y, width, height } of boxes) {
    shape.rect(x * scale, y * scale, Math.max(width * scale, 1.5), Math.max(height * scale, 1.5));
  }
  return shape;
}
