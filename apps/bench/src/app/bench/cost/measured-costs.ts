import { computed, effect, inject, Injectable, signal, untracked } from '@angular/core';
import type { PassTimes, PictureSize } from '@brelvin/core';
import { Notices } from '../../shared/notices/notices';
import { RigEditor } from '../editors/rig-editor';
import { BenchResult } from '../stage/bench-result';
import { DocumentStore } from '../documents/document-store';
import { StageBinding } from '../stage/stage-binding';
import { GROWTHS, growthSteps, passTimes, type GrowthOf } from './frame-times';

/** How long the passes of a picture took. */
export interface MeasuredPasses extends PassTimes {
  readonly size: PictureSize;
  /** Milliseconds of all of them. */
  readonly whole: number;
}

export interface GrowthPoint {
  readonly count: number;
  readonly milliseconds: number;
}
export type Growth = Readonly<Record<GrowthOf, readonly GrowthPoint[]>>;

const FULL_PIXELS = 1920 * 1080;
const NO_GROWTH: Growth = { pixels: [], copies: [], lights: [] };

/** Measures pictures on the Stage’s device, when asked to: passes one by one, and how the whole grows. */
@Injectable()
export class MeasuredCosts {
  private readonly stage = inject(StageBinding);
  private readonly rig = inject(RigEditor).rig;
  private readonly notices = inject(Notices);
  private readonly measuring = signal(false);
  /** Whether something is being measured. */
  readonly busy = this.measuring.asReadonly();
  /** As they were measured last; nothing where that was of something else. */
  readonly passes = signal<MeasuredPasses | undefined>(undefined);
  readonly growth = signal<Growth | undefined>(undefined);

  /** Milliseconds of a picture of 1920 × 1080, told from the one that was measured by their pixels. */
  readonly atFullSize = computed(() => {
    const passes = this.passes();
    return passes && passes.whole * (FULL_PIXELS / (passes.size.width * passes.size.height));
  });

  constructor() {
    const [result, store] = [inject(BenchResult), inject(DocumentStore)];
    effect(() => {
      result.compiled();
      this.rig();
      store.set();
      untracked(() => this.forget());
    });
  }

  /** What was measured was of another material, light or set. */
  private forget(): void {
    this.passes.set(undefined);
    this.growth.set(undefined);
  }

  measurePasses(): Promise<void> {
    return this.work('The passes of the picture', async () => {
      const size = this.stage.engine()?.pictureSize;
      const times = await this.stage.engine()?.measure(passTimes);
      if (!times || !size) return false;
      this.passes.set({ ...times, size, whole: times.passes.reduce((sum, { milliseconds }) => sum + milliseconds, 0) });
      return true;
    });
  }

  /** Draws the picture with more and more pixels, copies and lights. Can be broken off; what was measured so far stays. */
  measureGrowth(): Promise<void> {
    return this.work('How the cost grows', async (told) => {
      const engine = this.stage.engine();
      if (!engine) return false;
      const steps = GROWTHS.flatMap((of) => growthSteps(of, { size: engine.pictureSize, rig: this.rig() }));
      this.growth.set(NO_GROWTH);
      for (const [index, { of, count, milliseconds: measure }] of steps.entries()) {
        if (told.signal.aborted) return true;
        told.progress(index / steps.length, `How the cost grows: ${count} ${of}`);
        const milliseconds = await engine.measure(measure);
        if (milliseconds === undefined) return false;
        this.growth.update((known = NO_GROWTH) => ({ ...known, [of]: [...known[of], { count, milliseconds }] }));
      }
      return true;
    });
  }

  private async work(words: string, measure: (told: ReturnType<Notices['work']>) => Promise<boolean>): Promise<void> {
    if (this.measuring()) return;
    this.measuring.set(true);
    const told = this.notices.work(words);
    try {
      if (await measure(told)) told.close();
      else told.end(`${words} could not be measured: there is no graphics device now. Try again when the picture is back.`);
    } catch (error) {
      told.end(`${words} could not be measured. ${error instanceof Error ? error.message : ''}`);
    } finally {
      this.measuring.set(false);
    }
  }
}
