import type { Area, Note } from '@brelvin/contract';
import { newId } from '../../../shared/documents/new-id';
import type { Point } from '../../editors/card-layout';
import type { GraphView } from '../../editors/graph-view';
import type { GraphEditor } from '../../editors/graph-editor';
import type { Gesture } from './gesture';

const SMALLEST = 60;

/** Dragging the lower right corner of an area or note makes it larger or smaller. */
export class ResizeBox implements Gesture {
  private readonly gesture = newId();
  private readonly box?: Area | Note;

  constructor(
    private readonly editor: GraphEditor,
    private readonly view: GraphView,
    private readonly id: string,
    private readonly start: Point,
  ) {
    const { areas, notes } = editor.typed().graph;
    this.box = areas[id] ?? notes[id];
  }

  move(at: Point): void {
    if (!this.box) return;
    const { zoom } = this.view.transform;
    const width = Math.max(SMALLEST, Math.round(this.box.width + (at.x - this.start.x) / zoom));
    const height = Math.max(SMALLEST / 2, Math.round(this.box.height + (at.y - this.start.y) / zoom));
    const { edits } = this.editor.typed();
    const changed = { ...this.box, width, height };
    this.editor.do(
      'title' in changed ? edits.putArea(this.id, changed, 'Resize') : edits.putNote(this.id, changed, 'Resize'),
      this.gesture,
    );
  }

  end(): void {
    // Each move was an edit already.
  }

  cancel(): void {
    // Undo takes it back.
  }
}
