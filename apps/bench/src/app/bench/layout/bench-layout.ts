import { computed, Injectable, signal, type Signal } from '@angular/core';

/** How the Bench is divided; remembered in this browser. */
@Injectable()
export class BenchLayout {
  private readonly stage = new KeptSize('brelvin.stage-width', { usual: 480, least: 280, rest: 420, of: () => innerWidth });
  private readonly panels = new KeptSize('brelvin.panels-height', { usual: 200, least: 96, rest: 260, of: () => innerHeight });
  private readonly wholeWindow = signal(false);
  /** CSS pixels. */
  readonly stageWidth = this.stage.size;
  /** Of the row of panels below; CSS pixels. */
  readonly panelsHeight = this.panels.size;
  /** Where the Stage begins, from the left edge of the window. */
  readonly stageLeft = computed(() => innerWidth - this.stageWidth());
  /** The Stage has the whole window. */
  readonly alone = this.wholeWindow.asReadonly();

  /** The usual width without one. */
  resizeStage(width?: number): void {
    this.stage.keep(width);
  }

  /** The usual height without one. */
  resizePanels(height?: number): void {
    this.panels.keep(height);
  }

  toggleAlone(): void {
    this.wholeWindow.update((alone) => !alone);
  }
}

interface Bounds {
  readonly usual: number;
  readonly least: number;
  /** What everything else keeps at least. */
  readonly rest: number;
  /** The window's. */
  readonly of: () => number;
}

/** A width or height within bounds, kept by this browser. */
class KeptSize {
  readonly size: Signal<number>;
  private readonly kept;

  constructor(
    private readonly key: string,
    private readonly bounds: Bounds,
  ) {
    this.kept = signal(this.limited(Number(localStorage.getItem(key)) || bounds.usual));
    this.size = this.kept.asReadonly();
  }

  keep(size = this.bounds.usual): void {
    this.kept.set(this.limited(size));
    localStorage.setItem(this.key, String(this.kept()));
  }

  private limited(size: number): number {
    const { least, rest, of } = this.bounds;
    return Math.round(Math.min(Math.max(size, least), Math.max(of() - rest, least)));
  }
}
