import { signal } from '@angular/core';
import { GROUP_KIND } from '@brelvin/core';
import { carriedFrom, setDown, type Carried } from './gestures/run-ribbon';
import type { GraphView } from '../editors/graph-view';
import type { GraphEditor } from '../editors/graph-editor';

const NUDGE = 10;
const NUDGES: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/** What keys need of the surface. */
export interface KeyActions {
  /** Lets go of what the pointer holds. @returns whether it held something */
  letGo(): boolean;
  /** Takes a letter for the finder. */
  type(letter: string): void;
  /** Says something for a moment; nothing to say it no longer. */
  say(words: string | undefined): void;
  focus(): void;
}

/** The graph by keys: choosing, moving, removing, running ribbons from port to port. */
export class SurfaceKeys {
  private readonly carried = signal<Carried | undefined>(undefined);

  constructor(
    private readonly editor: GraphEditor,
    private readonly view: GraphView,
    private readonly actions: KeyActions,
  ) {}

  /** @param onSurface the surface itself has the focus */
  press(event: KeyboardEvent, onSurface: boolean): void {
    const target = event.target as HTMLElement;
    if (target.closest('input, textarea, .finder') || event.ctrlKey || event.metaKey || event.altKey) return;
    const nudge = NUDGES[event.key];
    const onCard = target.dataset['card'] ?? target.dataset['remark'];
    const { material, edits } = this.editor.typed();
    if (event.key === 'Escape') this.escape();
    else if (event.key === 'Delete' || event.key === 'Backspace') this.removeChosen(onCard, !event.shiftKey);
    else if (onCard && event.key === ' ') this.view.toggle(onCard);
    else if (onCard && event.key === 'Enter') this.open(onCard);
    else if (nudge && (onCard || onSurface) && this.editor.chosen().size > 0)
      this.editor.do(edits.move(material, this.editor.chosen(), nudge[0] * NUDGE, nudge[1] * NUDGE), 'nudge');
    else if (nudge && onSurface) this.view.panBy(-nudge[0] * NUDGE * 4, -nudge[1] * NUDGE * 4);
    else if (/^[\p{L}\d#]$/u.test(event.key) && !target.closest('.port, button')) this.actions.type(event.key);
    else return;
    event.preventDefault();
  }

  /** Ports answer to Enter and Space too: the first one takes a ribbon up, the second one sets it down. */
  pressPort(port: HTMLElement): void {
    const carried = this.carried();
    if (!carried) {
      this.carried.set(carriedFrom(this.editor, port));
      this.actions.say('A ribbon is taken up. Go to where it ends and press Enter; Escape lets it go.');
      return;
    }
    this.carried.set(undefined);
    this.actions.say(undefined);
    setDown(this.editor, carried, port);
  }

  private open(id: string): void {
    if (this.editor.typed().graph.nodes[id]?.kind === GROUP_KIND) this.editor.enter(id);
    else this.view.toggle(id);
  }

  private escape(): void {
    const carried = this.carried();
    this.carried.set(undefined);
    if (this.actions.letGo() || carried) return;
    if (this.view.selection().size > 0) this.view.select([]);
    else this.editor.leave();
  }

  private removeChosen(focused: string | undefined, heal: boolean): void {
    const chosen = this.editor.chosen();
    const ids = chosen.size > 0 ? chosen : new Set(focused === undefined ? [] : [focused]);
    if (ids.size === 0) return;
    this.editor.remove(ids, heal);
    this.actions.focus();
  }
}
