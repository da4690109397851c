import { effect, inject, Injectable, signal, untracked } from '@angular/core';
import type { Subscription } from 'rxjs';
import type { StageEngine } from '../stage/stage-engine';
import type { PreviewAtlas } from '../stage/outlet-lens';
import { StageBinding } from '../stage/stage-binding';
import { OutletInspector } from './outlet-inspector';
import { Probes } from './probes';

/** Pixels of a small picture: twice those on the card, which makes its edges smooth. */
export const PREVIEW_SIDE = 96;
const PREVIEW_PAUSE_MS = 120;

/** Between what is looked at and the Stage: hands it programs, and brings small pictures and values back. */
@Injectable()
export class LensBinding {
  private readonly binding = inject(StageBinding);
  private readonly outlets = inject(OutletInspector);
  private readonly probes = inject(Probes);
  private readonly atlas = signal<PreviewAtlas | undefined>(undefined);
  private subscription?: Subscription;
  private drawing = false;
  private stale = false;
  private timer?: ReturnType<typeof setTimeout>;
  /** Nodes whose small picture is on the page. */
  private readonly onPage = new Set<string>();
  /** What the last small pictures were made of. */
  private made: readonly unknown[] = [];
  /** The outlet for which the scale was fitted. */
  private fitted?: object;

  /** The last small pictures. */
  readonly previews = this.atlas.asReadonly();

  constructor() {
    effect(() => {
      const [engine, program] = [this.binding.engine(), this.outlets.program()];
      untracked(() => void engine?.setOutlets(program).then(() => this.lookAgain(engine)));
    });
    effect(() => this.binding.engine()?.setLens(this.outlets.peek()));
    // A scale whose ends nobody set spans what is seen.
    effect(() => {
      const peek = this.outlets.peek();
      this.binding.state();
      if (peek?.mode === 'scale' && !peek.held) untracked(() => void this.fitOnce());
    });
    effect(() => {
      this.outlets.previewed();
      untracked(() => this.drawSoon());
    });
    effect((onCleanup) => {
      const engine = this.binding.engine();
      this.subscription = engine?.drawn.subscribe(() => this.follow(engine));
      onCleanup(() => {
        this.subscription?.unsubscribe();
        clearTimeout(this.timer);
      });
    });
  }

  /** Tells that a node's small picture is on the page from now on, or no more. */
  show(node: string, shown: boolean): void {
    if (shown) this.onPage.add(node);
    else this.onPage.delete(node);
    if (shown) this.drawSoon();
  }

  /** Measures what is seen, and lets the scale span it. */
  async spanSeen(): Promise<boolean> {
    const peek = this.outlets.peek();
    const range = peek && (await this.binding.engine()?.range(peek));
    if (!range || this.outlets.peek()?.outlet !== peek.outlet) return false;
    this.outlets.changePeek({ low: range.low, high: range.high > range.low ? range.high : range.low + 1 });
    return true;
  }

  /** Once for each outlet, as soon as its program is there. */
  private async fitOnce(): Promise<void> {
    const outlet = this.outlets.peek()?.outlet;
    if (!outlet || !this.outlets.program() || this.fitted === outlet) return;
    if (await this.spanSeen()) this.fitted = outlet;
  }

  /** There is another program to look through. */
  private lookAgain(engine: StageEngine): void {
    this.drawSoon();
    this.follow(engine);
  }

  /** A picture was drawn: what was seen may have changed. */
  private follow(engine: StageEngine | undefined): void {
    // The camera moves none of the small pictures.
    const changed = engine?.previewedState.some((each, index) => each !== this.made[index]);
    if (changed && this.outlets.previewed().size > 0) this.drawSoon();
    if (this.outlets.probing()) void this.probes.refresh(engine);
  }

  private drawSoon(): void {
    this.stale = true;
    if (this.drawing || this.timer !== undefined) return;
    this.timer = setTimeout(() => {
      this.timer = undefined;
      void this.draw();
    }, PREVIEW_PAUSE_MS);
  }

  private async draw(): Promise<void> {
    const wishes = [...this.outlets.previewed()].filter(([node]) => this.onPage.has(node)).map(([, wish]) => wish);
    this.stale = false;
    this.made = this.binding.engine()?.previewedState ?? [];
    if (wishes.length === 0) {
      this.atlas.set(undefined);
      return;
    }
    this.drawing = true;
    try {
      const drawn = await this.binding.engine()?.previews(wishes, PREVIEW_SIDE);
      if (drawn) this.atlas.set(drawn);
    } finally {
      this.drawing = false;
      if (this.stale) this.drawSoon();
    }
  }
}
