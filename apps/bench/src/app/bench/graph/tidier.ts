import { inject, Injectable, signal } from '@angular/core';
import { inletOf, joinEdits, type Edit } from '@brelvin/core';
import { wrap } from 'comlink';
import { cardBox } from '../editors/card-layout';
import { GraphEditor } from '../editors/graph-editor';
import type { TidyBox } from './landscape';
import type { RemoteTidier } from './tidy.worker';

/** Lays out the graph, or what is chosen of it, in a worker; the result is one step. */
@Injectable()
export class Tidier {
  private readonly editor = inject(GraphEditor);
  /** A layout is under way; it can be cancelled. */
  readonly running = signal(false);
  private worker?: Worker;

  /** @returns whether anything was laid out */
  async tidy(): Promise<boolean> {
    if (this.running()) return false;
    const typed = this.editor.typed();
    const { graph } = typed;
    const chosen = [...this.editor.chosen()].filter((id) => Object.hasOwn(graph.nodes, id));
    const ids = chosen.length > 1 ? chosen : Object.keys(graph.nodes);
    if (ids.length === 0) return false;
    const wanted = new Set(ids);
    const boxes = ids.flatMap((id): TidyBox[] => {
      const box = cardBox(typed, id);
      return box ? [{ id, ...box }] : [];
    });
    const ribbons = Object.entries(graph.ribbons).map(([key, ribbon]) => ({ to: inletOf(key), ribbon }));
    const arrows = ribbons
      .filter(({ to, ribbon }) => wanted.has(to.node) && wanted.has(ribbon.from))
      .map(({ to, ribbon }): [string, string] => [ribbon.from, to.node]);
    this.running.set(true);
    this.worker = new Worker(new URL('./tidy.worker', import.meta.url), { type: 'module' });
    try {
      const places = new Map(await wrap<RemoteTidier>(this.worker).layered(boxes, arrows));
      const before = ids.map((id) => graph.nodes[id]).filter((node) => node !== undefined);
      const dx = Math.min(...before.map((node) => node.x)) - Math.min(...[...places.values()].map((place) => place.x));
      const dy = Math.min(...before.map((node) => node.y)) - Math.min(...[...places.values()].map((place) => place.y));
      const moved = new Map([...places].map(([id, { x, y }]) => [id, { x: x + dx, y: y + dy }]));
      // What bent a ribbon round a card is in the way now.
      const straight = ribbons
        .filter(({ to, ribbon }) => ribbon.bends && (wanted.has(to.node) || wanted.has(ribbon.from)))
        .map(({ to }): Edit => typed.edits.setBends(to, []));
      this.editor.do(joinEdits('Tidy', typed.edits.place(this.editor.subject(), moved), ...straight));
      return true;
    } finally {
      this.stop();
    }
  }

  /** Ends a layout that takes too long; nothing has changed. */
  stop(): void {
    this.worker?.terminate();
    this.worker = undefined;
    this.running.set(false);
  }
}
