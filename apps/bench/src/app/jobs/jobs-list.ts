import { computed, DestroyRef, inject, Injectable, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import type { Health, Job, JobNews } from '@brelvin/contract';
import { JobApi } from '../shared/api/job-api';
import { LiveChannel } from '../shared/documents/live-channel';

/** Jobs as they go on: listed once, then heard of. */
@Injectable()
export class JobsList {
  private readonly api = inject(JobApi);
  private readonly live = inject(LiveChannel);
  private readonly known = signal<readonly Job[] | undefined>(undefined);
  private asked = 0;

  /** Nothing before they were listed. */
  readonly jobs = this.known.asReadonly();
  readonly workers = signal<Health['workers'] | undefined>(undefined);
  /** Why they cannot be listed. */
  readonly failure = signal<string | undefined>(undefined);
  readonly underWay = computed(() => (this.known() ?? []).filter(({ state }) => state === 'waiting' || state === 'running').length);

  constructor() {
    this.live.jobs.pipe(takeUntilDestroyed()).subscribe((news) => this.hear(news));
    inject(DestroyRef).onDestroy(() => this.live.watchJobs([]));
    void this.load();
  }

  async load(): Promise<void> {
    const number = ++this.asked;
    try {
      const [{ jobs }, workers] = await Promise.all([this.api.list(), this.api.workers()]);
      if (number !== this.asked) return;
      this.failure.set(undefined);
      this.workers.set(workers);
      this.put(jobs);
    } catch (error) {
      if (number === this.asked) this.failure.set(error instanceof Error ? error.message : String(error));
    }
  }

  async cancel(id: string): Promise<void> {
    const job = await this.api.cancel(id);
    this.put((this.known() ?? []).map((each) => (each.id === id ? job : each)));
  }

  private hear({ job: id, state, progress }: Partial<JobNews>): void {
    const found = this.known()?.find((each) => each.id === id);
    // News were lost, or it has ended: what it made is in the list.
    if (!found || !state || state !== found.state) void this.load();
    else this.put((this.known() ?? []).map((each) => (each === found ? { ...each, progress: progress ?? each.progress } : each)));
  }

  private put(jobs: readonly Job[]): void {
    this.known.set(jobs);
    this.live.watchJobs(jobs.filter(({ state }) => state === 'waiting' || state === 'running').map(({ id }) => id));
  }
}
