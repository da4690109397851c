import type { Point } from '../../editors/card-layout';
import { chosenByFrame } from '../graph-shapes';
import type { Rectangle } from '../../editors/placed-graph';
import type { GraphView } from '../../editors/graph-view';
import type { GraphEditor } from '../../editors/graph-editor';
import type { Gesture } from './gesture';

/** Shift-dragging the ground draws a frame up; what it holds is chosen on top of what was. */
export class Marquee implements Gesture {
  frame: Rectangle;
  private readonly before: ReadonlySet<string>;

  constructor(
    private readonly editor: GraphEditor,
    private readonly view: GraphView,
    private readonly start: Point,
  ) {
    this.frame = { ...start, width: 0, height: 0 };
    this.before = view.selection();
  }

  move(at: Point): void {
    const [x, y] = [Math.min(at.x, this.start.x), Math.min(at.y, this.start.y)];
    this.frame = { x, y, width: Math.abs(at.x - this.start.x), height: Math.abs(at.y - this.start.y) };
    const corner = this.view.toGraph(this.frame);
    const { zoom } = this.view.transform;
    const inGraph = { ...corner, width: this.frame.width / zoom, height: this.frame.height / zoom };
    this.view.select([...this.before, ...chosenByFrame(this.editor.typed(), this.editor.placed(), inGraph)]);
  }

  end(): void {
    this.frame = { ...this.frame, width: 0, height: 0 };
  }

  cancel(): void {
    this.view.select(this.before);
  }
}
