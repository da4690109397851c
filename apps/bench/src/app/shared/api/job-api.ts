import { Injectable } from '@angular/core';
import type { Health, Job, RenderWish } from '@brelvin/contract';
import { request, requestFile } from './request';

/** Jobs that one page lists. */
const LISTED = 100;

/** What workers are to make. Every method throws ApiFailure. */
@Injectable({ providedIn: 'root' })
export class JobApi {
  /** The newest first. */
  list(): Promise<{ jobs: Job[] }> {
    return request('GET', `/jobs?limit=${LISTED}`);
  }

  render(wish: RenderWish): Promise<Job> {
    return request('POST', '/renders', wish);
  }

  /** Gives one up; one that has ended stays as it is. */
  cancel(id: string): Promise<Job> {
    return request('DELETE', `/jobs/${id}`);
  }

  /** Who draws, and what to do where nobody does. */
  async workers(): Promise<Health['workers']> {
    return (await request<Health>('GET', '/health')).workers;
  }

  /** What a job has made. */
  result(asset: string): Promise<Blob> {
    return requestFile(`/assets/${asset}`);
  }
}
