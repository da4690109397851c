import { Injectable } from '@angular/core';
import type { Budget } from '@brelvin/contract';
import { request } from './request';

/** What materials of the workspace may cost. Every method throws ApiFailure. */
@Injectable({ providedIn: 'root' })
export class BudgetApi {
  read(): Promise<Budget> {
    return request('GET', '/budget');
  }

  write(budget: Budget): Promise<Budget> {
    return request('PUT', '/budget', budget);
  }
}
