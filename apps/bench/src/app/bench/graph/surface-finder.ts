import { signal, type Signal } from '@angular/core';
import { fittingOutlet, joinEdits, lostBySwap, type InletAddress } from '@brelvin/core';
import { newId } from '../../shared/documents/new-id';
import { cardWidth, HEADER_HEIGHT, type Point } from '../editors/card-layout';
import type { Carried } from './gestures/run-ribbon';
import { boxesOf, type SurfaceMeasure } from './graph-shapes';
import type { GraphView } from '../editors/graph-view';
import type { GraphEditor } from '../editors/graph-editor';
import type { FoundKind, LooseRibbon, SwappedNode } from './node-finder';

export interface OpenFinder {
  readonly at: Point;
  /** Where the node goes: the finder itself keeps off the edges. */
  readonly to: Point;
  readonly start: string;
  readonly loose?: LooseRibbon;
  readonly carried?: Carried;
  /** A node that is to become another kind. */
  readonly swap?: SwappedNode;
  /** A ribbon that the node is to go into. */
  readonly into?: InletAddress;
}

/** The finder over the graph: where it is open, what for, and what is done with the kind that was found. */
export class SurfaceFinder {
  private readonly shown = signal<OpenFinder | undefined>(undefined);
  readonly open = this.shown.asReadonly();

  constructor(
    private readonly editor: GraphEditor,
    private readonly view: GraphView,
    private readonly measure: Signal<SurfaceMeasure>,
  ) {}

  /** Opens it at a place of the screen, but never over the edge. */
  find(to: Point, rest: Partial<OpenFinder> = {}): void {
    const { width, height } = this.measure();
    const at = { x: Math.min(Math.max(to.x, 8), Math.max(width - 260, 8)), y: Math.min(Math.max(to.y, 8), Math.max(height - 310, 8)) };
    this.shown.set({ at, to, start: '', ...rest });
  }

  /** Opens it in the middle of what is seen. */
  findInMiddle(): void {
    const { width, height } = this.measure();
    this.find({ x: width / 2 - 120, y: height / 3 });
  }

  /** Opens it by a letter; letters that come before its field has the focus are not lost. */
  type(letter: string, at: Point): void {
    const open = this.shown();
    if (open) this.shown.set({ ...open, start: open.start + letter });
    else this.find(at, { start: letter });
  }

  /** For a node at the free end of a ribbon. */
  findForRibbon(carried: Carried, at: Point): void {
    const loose: LooseRibbon = { free: 'from' in carried ? 'inlet' : 'outlet', type: carried.type };
    this.find(at, { loose, carried });
  }

  /** For a node that goes into a ribbon, which is carried on from its source and then also run to where it ended. */
  findBetween(to: InletAddress, at: Point): void {
    const typed = this.editor.typed();
    const from = typed.sourceOf(to);
    const type = from && (typed.outletType(from) ?? 'number');
    this.find(at, from && type ? { loose: { free: 'inlet', type }, carried: { from, type }, into: to } : {});
  }

  /** For another kind in the place of the chosen node. */
  findSwap(): void {
    const [id] = this.editor.chosen();
    const [box] = id === undefined ? [] : boxesOf(this.editor.typed(), this.editor.placed(), new Set([id]));
    if (id === undefined || !box) this.editor.refuse('Select the node to swap.');
    else {
      const typed = this.editor.typed();
      this.find(this.view.toScreen(box), { swap: { id, kind: typed.kind(id), lostBy: (kind) => lostBySwap(typed, id, kind) } });
    }
  }

  /** @returns whether it was open */
  close(): boolean {
    if (!this.shown()) return false;
    this.shown.set(undefined);
    return true;
  }

  /** Puts a node of the kind that was found where the finder was opened for it. */
  place({ kind, port, ready }: FoundKind, open: OpenFinder): void {
    if (open.swap !== undefined) {
      this.editor.swap(open.swap.id, kind);
      return;
    }
    const id = newId();
    const at = this.view.toGraph(open.to);
    const offset = open.carried && 'to' in open.carried ? -cardWidth(kind) : 0;
    const { edits } = this.editor.typed();
    const parts = [this.editor.addition(id, kind, { x: at.x + offset, y: at.y - HEADER_HEIGHT / 2 }, ready)];
    if (port && open.carried) {
      parts.push(
        'from' in open.carried
          ? edits.connect(open.carried.from, { node: id, inlet: port })
          : edits.connect({ node: id, outlet: port }, open.carried.to),
      );
    }
    const wanted = open.into && this.editor.typed().inletType(open.into);
    const outlet = wanted && fittingOutlet(kind, wanted);
    if (open.into && outlet) parts.push(edits.connect({ node: id, outlet: outlet.name }, open.into));
    this.editor.do(joinEdits(`Add ${kind.title}`, ...parts));
    this.view.select([id]);
  }
}
