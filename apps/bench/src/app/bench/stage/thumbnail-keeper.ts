import { effect, inject, Injectable } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { BehaviorSubject, debounceTime, filter } from 'rxjs';
import { ApiFailure, DocumentApi } from '../../shared/api/document-api';
import { Workbench } from '../../shared/documents/workbench';
import { StageBinding } from './stage-binding';

/** Milliseconds without a save after which the picture is drawn: it takes the device as long as the Stage does. */
const AFTER_MS = 6000;

/** Keeps the Library's picture of the material on the Bench up to date, behind the work. */
@Injectable()
export class ThumbnailKeeper {
  private readonly api = inject(DocumentApi);
  private readonly binding = inject(StageBinding);
  private readonly wanted = new BehaviorSubject<number | undefined>(undefined);
  private material = '';
  private rig?: string;
  /** A picture was wanted while something that it shows was still on its way. */
  private missed = false;

  constructor() {
    const workbench = inject(Workbench);
    workbench.saved.pipe(takeUntilDestroyed()).subscribe(({ id, step }) => {
      if (id === this.material) this.wanted.next(step);
      else if (id === this.rig) this.wanted.next(this.wanted.value);
    });
    this.wanted
      .pipe(
        filter((step) => step !== undefined),
        debounceTime(AFTER_MS),
        takeUntilDestroyed(),
      )
      .subscribe((step) => void this.save(step));
    effect(() => {
      if (!this.binding.state()?.complete || !this.missed) return;
      this.missed = false;
      this.wanted.next(this.wanted.value);
    });
  }

  /** Names the material on the Bench, and the rig whose light is in its picture. */
  follow(material: string, rig: string | undefined): void {
    if (material !== this.material) this.wanted.next(undefined);
    this.material = material;
    this.rig = rig;
  }

  /** Draws now what would be drawn in a moment. */
  async flush(): Promise<void> {
    if (this.wanted.value !== undefined) await this.save(this.wanted.value);
  }

  private async save(step: number): Promise<void> {
    try {
      const png = await this.binding.engine()?.thumbnail();
      this.missed = png === undefined;
      if (png) await this.api.saveThumbnail(this.material, step, png);
    } catch (error) {
      // A list without the newest picture is no reason to disturb anyone; the next save tries again.
      if (!(error instanceof ApiFailure)) throw error;
    }
  }
}
