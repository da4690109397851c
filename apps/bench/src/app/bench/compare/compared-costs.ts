import { computed, DestroyRef, inject, Injectable } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { type Cost } from '@brelvin/core';
import { catchError, from, of, switchMap } from 'rxjs';
import { CostWatch } from '../cost/cost-watch';
import { OTHER } from '../stage/second-picture';
import { Comparison } from './comparison';

/** What both pictures ask for at each pixel, where another program draws the second. */
@Injectable()
export class ComparedCosts {
  private readonly comparison = inject(Comparison);
  private readonly watch = inject(CostWatch);
  private readonly other = toSignal(
    toObservable(computed(() => this.comparison.otherProgram())).pipe(
      switchMap((program) => (program ? from(this.watch.costOf(OTHER)).pipe(catchError(() => of(undefined))) : of(undefined))),
    ),
  );

  readonly costs = computed((): readonly [Cost, Cost] | undefined => {
    const [first, second] = [this.watch.estimate()?.pixel, this.other()];
    return first && second ? [first, second] : undefined;
  });

  constructor() {
    inject(DestroyRef).onDestroy(this.watch.look());
  }
}
