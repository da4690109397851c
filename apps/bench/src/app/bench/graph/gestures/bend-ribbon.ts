import { inletOf } from '@brelvin/core';
import { newId } from '../../../shared/documents/new-id';
import type { Point } from '../../editors/card-layout';
import type { RibbonHit } from '../graph-shapes';
import type { GraphView } from '../../editors/graph-view';
import type { GraphEditor } from '../../editors/graph-editor';
import type { Gesture } from './gesture';

const HARDLY = 4;

/** Dragging a ribbon bends it; dragging a bend moves it. */
export class BendRibbon implements Gesture {
  private readonly gesture = newId();
  private readonly index: number;
  private bends: readonly (readonly number[])[];
  private moved = false;

  constructor(
    private readonly editor: GraphEditor,
    private readonly view: GraphView,
    private readonly hit: RibbonHit,
    private readonly start: Point,
  ) {
    const known = editor.typed().graph.ribbons[hit.shape.key]?.bends ?? [];
    this.index = hit.bend < 0 ? hit.place : hit.bend;
    this.bends = hit.bend < 0 ? [...known.slice(0, this.index), [0, 0], ...known.slice(this.index)] : known;
  }

  move(at: Point): void {
    this.moved ||= Math.hypot(at.x - this.start.x, at.y - this.start.y) > HARDLY;
    if (!this.moved) return;
    const { x, y } = this.view.toGraph(at);
    this.bends = this.bends.map((bend, index) => (index === this.index ? [x, y] : bend));
    this.editor.do(this.editor.typed().edits.setBends(inletOf(this.hit.shape.key), this.bends), this.gesture);
  }

  end(): void {
    if (this.moved) return;
    const { from, key } = { from: this.editor.typed().graph.ribbons[this.hit.shape.key]?.from, key: this.hit.shape.key };
    // A press on a ribbon chooses the nodes at its ends.
    this.view.select([from ?? '', inletOf(key).node].filter((id) => Object.hasOwn(this.editor.typed().graph.nodes, id)));
  }

  cancel(): void {
    this.moved = true;
  }
}
