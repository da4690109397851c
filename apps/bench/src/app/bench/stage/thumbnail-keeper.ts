import { effect, inject, Injectable } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { debounceTime, Subject } from 'rxjs';
import { ApiFailure, DocumentApi } from '../../shared/api/document-api';
import { Workbench } from '../../shared/documents/workbench';
import { StageBinding } from './stage-binding';

/** Milliseconds without a save after which the picture is drawn: it takes the device as long as the Stage does. */
const AFTER_MS = 6000;

/** The documents that a picture on the Bench shows. */
export interface ShownDocuments {
  readonly material: string;
  readonly set?: string;
  readonly rig?: string;
}

/** Keeps the Library's pictures of the material, the set and the light rig on the Bench up to date, behind the work. */
@Injectable()
export class ThumbnailKeeper {
  private readonly api = inject(DocumentApi);
  private readonly binding = inject(StageBinding);
  /** The step that each document has come to, of those whose picture is not of it yet. */
  private readonly wanted = new Map<string, number>();
  /** The last step of the material that is known: its picture changes with its light. */
  private step?: number;
  private readonly changed = new Subject<void>();
  private shown: ShownDocuments = { material: '' };
  /** A picture was wanted while something that it shows was still on its way. */
  private missed = false;

  constructor() {
    const workbench = inject(Workbench);
    workbench.saved.pipe(takeUntilDestroyed()).subscribe(({ id, step }) => {
      const { material, set, rig } = this.shown;
      if (id !== material && id !== set && id !== rig) return;
      this.wanted.set(id, step);
      if (id === material) this.step = step;
      else if (id === rig && this.step !== undefined) this.wanted.set(material, this.step);
      this.changed.next();
    });
    this.changed.pipe(debounceTime(AFTER_MS), takeUntilDestroyed()).subscribe(() => void this.save());
    effect(() => {
      if (!this.binding.state()?.complete || !this.missed) return;
      this.missed = false;
      this.changed.next();
    });
  }

  /** Names the documents that are on the Bench. */
  follow(shown: ShownDocuments): void {
    if (shown.material !== this.shown.material) {
      this.wanted.clear();
      this.step = undefined;
    }
    this.shown = shown;
  }

  /** Draws now what would be drawn in a moment. */
  async flush(): Promise<void> {
    await this.save();
  }

  private async save(): Promise<void> {
    const { material, set, rig } = this.shown;
    // Taken before anything is drawn: what is saved meanwhile is wanted again.
    const due = new Map(this.wanted);
    this.wanted.clear();
    try {
      await this.keep(false, [material, rig], due);
      await this.keep(true, [set], due);
    } catch (error) {
      // A list without the newest picture is no reason to disturb anyone; the next save tries again.
      if (!(error instanceof ApiFailure)) throw error;
    }
  }

  /** Draws one picture for those of some documents that are due; nothing is drawn where none is. */
  private async keep(whole: boolean, ids: readonly (string | undefined)[], due: ReadonlyMap<string, number>): Promise<void> {
    const some = ids.flatMap((id): [string, number][] => {
      const step = id === undefined ? undefined : due.get(id);
      return id === undefined || step === undefined ? [] : [[id, step]];
    });
    if (some.length === 0) return;
    const png = await this.binding.engine()?.thumbnail(whole);
    if (!png) {
      this.missed = true;
      for (const [id, step] of some) if (!this.wanted.has(id)) this.wanted.set(id, step);
      return;
    }
    for (const [id, step] of some) await this.api.saveThumbnail(id, step, png);
  }
}
