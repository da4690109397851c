import { inject, Injectable, signal } from '@angular/core';
import type { Budget } from '@brelvin/contract';
import { BudgetApi } from '../../shared/api/budget-api';
import { FaultHandler } from '../../shared/notices/fault-handler';

/** What materials of the workspace may cost, as the server has it. */
@Injectable()
export class BudgetShelf {
  private readonly api = inject(BudgetApi);
  private readonly faults = inject(FaultHandler);
  /** What was said here stands in front of what the server has. */
  private said = false;
  private readonly known = signal<Budget>({});
  private last = this.api.read().then(
    (budget) => this.said || this.known.set(budget),
    (error: unknown) => this.faults.report('The budget of the workspace cannot be had', error),
  );
  readonly budget = this.known.asReadonly();

  /** @param bound nothing, where it is bounded no longer */
  bound(what: keyof Budget, bound: number | undefined): void {
    this.said = true;
    const others = Object.entries(this.known()).filter(([name]) => name !== what);
    const next: Budget = Object.fromEntries(bound === undefined ? others : [...others, [what, bound]]);
    this.known.set(next);
    this.last = this.last.then(async () => {
      await this.api.write(next).catch((error: unknown) => this.faults.report('The budget was not saved', error));
    });
  }
}
