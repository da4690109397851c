import type { Point } from '../../editors/card-layout';
import type { GraphView } from '../../editors/graph-view';
import type { Gesture } from './gesture';

const HARDLY = 3;

/** Dragging the ground moves the graph; a mere press deselects. */
export class Pan implements Gesture {
  private moved = false;

  constructor(
    private readonly view: GraphView,
    private last: Point,
    private readonly start = last,
  ) {}

  move(at: Point): void {
    this.moved ||= Math.hypot(at.x - this.start.x, at.y - this.start.y) > HARDLY;
    if (!this.moved) return;
    this.view.panBy(at.x - this.last.x, at.y - this.last.y);
    this.last = at;
  }

  end(): void {
    if (!this.moved) this.view.select([]);
  }

  cancel(): void {
    this.moved = true;
  }
}
