import { Injectable, signal } from '@angular/core';
import type { InletAddress } from '@brelvin/core';
import type { Point } from './card-layout';

/** What can be asked of the graph where it is on the screen. */
export interface SurfaceActions {
  showAll(): void;
  showChosen(): void;
  showNode(id: string): void;
  openFinder(): void;
  openSwap(): void;
  startNaming(): void;
  addNote(): void;
  /** Where something that is pasted goes: at the pointer. */
  pastePlace(): Point;
  takeFiles(files: readonly File[], at: Point, into?: InletAddress): Promise<void>;
  /** Images for the middle of what is seen. */
  takeImages(files: readonly File[]): Promise<void>;
}

/** The graph on the screen, while it is there. */
@Injectable()
export class SurfaceBinding {
  readonly actions = signal<SurfaceActions | undefined>(undefined);
}
