import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { Job, JobNews } from '@brelvin/contract';
import { Subject } from 'rxjs';
import { JobApi } from '../shared/api/job-api';
import { LiveChannel } from '../shared/documents/live-channel';
import { JobsList } from './jobs-list';

const job = (id: string, change: Partial<Job> = {}): Job => ({
  id,
  kind: 'render',
  state: 'waiting',
  progress: 0,
  title: id,
  attempts: 0,
  createdAt: '2026-11-29T10:00:00Z',
  updatedAt: '2026-11-29T10:00:00Z',
  ...change,
});

describe('The list of jobs', () => {
  let stored: Job[];
  let listed = 0;
  let away = false;
  const news = new Subject<Partial<JobNews>>();
  const watchJobs = jasmine.createSpy('watchJobs');
  const api = {
    list: async () => {
      listed++;
      if (away) throw new Error('The server cannot be reached.');
      return { jobs: stored };
    },
    workers: async () => ({ drawing: 1 }),
    cancel: async (id: string) => job(id, { state: 'cancelled' }),
  };
  const settled = (): Promise<void> => new Promise((resolve) => setTimeout(resolve));

  async function list(): Promise<JobsList> {
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        JobsList,
        { provide: JobApi, useValue: api },
        { provide: LiveChannel, useValue: { jobs: news, watchJobs } },
      ],
    });
    const made = TestBed.inject(JobsList);
    await settled();
    return made;
  }

  beforeEach(() => {
    stored = [job('b', { state: 'running' }), job('a'), job('old', { state: 'done', asset: 'f'.repeat(64) })];
    [listed, away] = [0, false];
    watchJobs.calls.reset();
  });

  it('hears of those that are under way', async () => {
    const jobs = await list();
    expect(watchJobs).toHaveBeenCalledOnceWith(['b', 'a']);
    expect(jobs.underWay()).toBe(2);
    news.next({ job: 'b', state: 'running', progress: 0.4 });
    expect(jobs.jobs()?.[0]?.progress).toBe(0.4);
    expect(listed).toBe(1);
  });

  it('looks again when one has begun or ended, when news were lost, and at one that it does not know', async () => {
    const jobs = await list();
    stored = [job('b', { state: 'done', asset: 'e'.repeat(64) }), ...stored.slice(1)];
    news.next({ job: 'b', state: 'done', progress: 1 });
    await settled();
    expect(jobs.jobs()?.[0]?.asset).toBe('e'.repeat(64));
    expect(watchJobs.calls.mostRecent().args[0]).toEqual(['a']);
    news.next({});
    news.next({ job: 'new', state: 'waiting', progress: 0 });
    await settled();
    expect(listed).toBe(4);
  });

  it('gives one up, and hears of it no longer', async () => {
    const jobs = await list();
    await jobs.cancel('a');
    expect(jobs.jobs()?.map(({ state }) => state)).toEqual(['running', 'cancelled', 'done']);
    expect(watchJobs.calls.mostRecent().args[0]).toEqual(['b']);
  });

  it('says why it cannot be had, and comes back', async () => {
    away = true;
    const jobs = await list();
    expect(jobs.failure()).toContain('cannot be reached');
    expect(jobs.jobs()).toBeUndefined();
    away = false;
    await jobs.load();
    expect(jobs.failure()).toBeUndefined();
    expect(jobs.jobs()?.length).toBe(3);
  });
});
