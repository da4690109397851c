import type { Area } from '@brelvin/contract';
import { insertIntoRibbon, inletOf, isLoose } from '@brelvin/core';
import { newId } from '../../../shared/documents/new-id';
import { cardBox, type Point } from '../../editors/card-layout';
import { ribbonThrough } from '../graph-shapes';
import type { Rectangle } from '../../editors/placed-graph';
import type { GraphView } from '../../editors/graph-view';
import type { GraphEditor } from '../../editors/graph-editor';
import type { RibbonShape } from '../ribbon-painter';
import type { Gesture } from './gesture';

/**
 * Dragging a card moves what is chosen; an area takes along what lies in it. A card without ribbons that is let
 * go of on a ribbon goes into it.
 */
export class MoveCards implements Gesture {
  private readonly gesture = newId();
  private readonly moving: ReadonlySet<string>;
  private rest: Point = { x: 0, y: 0 };
  private moved = false;

  constructor(
    private readonly editor: GraphEditor,
    private readonly view: GraphView,
    private last: Point,
    private readonly shapes: () => readonly RibbonShape[],
  ) {
    this.moving = withContents(editor, editor.chosen());
  }

  move(at: Point): void {
    const { zoom } = this.view.transform;
    this.rest = { x: this.rest.x + (at.x - this.last.x) / zoom, y: this.rest.y + (at.y - this.last.y) / zoom };
    this.last = at;
    const [x, y] = [Math.trunc(this.rest.x), Math.trunc(this.rest.y)];
    if (x === 0 && y === 0) return;
    this.moved = true;
    this.rest = { x: this.rest.x - x, y: this.rest.y - y };
    const { edits, material } = this.editor.typed();
    this.editor.do(edits.move(material, this.moving, x, y), this.gesture);
  }

  end(): void {
    const [id] = this.moving;
    if (!this.moved || this.moving.size !== 1 || id === undefined) return;
    const typed = this.editor.typed();
    const kind = typed.kind(id);
    const box = cardBox(typed, id);
    if (!box || !kind || !isLoose(typed, id)) return;
    const { zoom } = this.view.transform;
    const onScreen = { ...this.view.toScreen(box), width: box.width * zoom, height: box.height * zoom };
    const ribbon = ribbonThrough(this.shapes(), onScreen, zoom);
    // Of the same gesture, so that one undo takes both back.
    if (ribbon) this.editor.do(insertIntoRibbon(typed, inletOf(ribbon.key), id, kind), this.gesture);
  }

  cancel(): void {
    this.moved = false;
  }
}

/** Chosen things, and with a chosen area everything whose middle lies in it. */
function withContents(editor: GraphEditor, chosen: ReadonlySet<string>): ReadonlySet<string> {
  const typed = editor.typed();
  const { nodes, areas, notes } = typed.graph;
  const cards = Object.keys(nodes).flatMap((id): [string, Rectangle][] => {
    const box = cardBox(typed, id);
    return box ? [[id, box]] : [];
  });
  const chosenAreas = [...chosen].map((id) => areas[id]).filter((area) => area !== undefined);
  if (chosenAreas.length === 0) return chosen;
  const inside = ({ x, y, width, height }: Rectangle): boolean =>
    chosenAreas.some((area) => holds(area, { x: x + width / 2, y: y + height / 2 }));
  return new Set([
    ...chosen,
    ...cards.flatMap(([id, box]) => (inside(box) ? [id] : [])),
    ...Object.entries(notes).flatMap(([id, note]) => (inside(note) ? [id] : [])),
  ]);
}

function holds({ x, y, width, height }: Area, at: Point): boolean {
  return at.x > x && at.x < x + width && at.y > y && at.y < y + height;
}
