import { computed, Injectable, signal } from '@angular/core';

const KEY = 'brelvin.stage-width';
const USUAL = 480;
const NARROWEST = 280;
/** What the graph keeps at least. */
const REST = 420;

/** How the Bench is divided; remembered in this browser. */
@Injectable()
export class BenchLayout {
  private readonly width = signal(limited(Number(localStorage.getItem(KEY)) || USUAL));
  private readonly wholeWindow = signal(false);
  /** CSS pixels. */
  readonly stageWidth = this.width.asReadonly();
  /** Where the Stage begins, from the left edge of the window. */
  readonly stageLeft = computed(() => innerWidth - this.width());
  /** The Stage has the whole window. */
  readonly alone = this.wholeWindow.asReadonly();

  resize(width: number): void {
    this.width.set(limited(width));
    localStorage.setItem(KEY, String(this.width()));
  }

  toggleAlone(): void {
    this.wholeWindow.update((alone) => !alone);
  }
}

function limited(width: number): number {
  return Math.round(Math.min(Math.max(width, NARROWEST), Math.max(innerWidth - REST, NARROWEST)));
}
