import { spawn, type ChildProcess } from 'node:child_process';
import type { Health, Job, JobNews } from '@brelvin/contract';
import { newMaterial, THUMBNAIL } from '@brelvin/core';
import { PNG } from 'pngjs';
import { JobRepository } from '../store/job-repository';
import { StepListener } from '../store/step-listener';
import { TestServer } from '../testing/test-server';
import { LibraryPictures } from './library-pictures';
import { Worker } from './worker';

const LIMITS = { megabytes: 2048, seconds: 120 };
const PATIENCE_MS = 120_000;

/** Pictures that workers draw for others: by real workers, on this machine's own device. */
describe('Jobs', () => {
  let server: TestServer;
  let workers: Worker[] = [];
  let processes: ChildProcess[] = [];

  beforeEach(async () => {
    server = await TestServer.start();
    [workers, processes] = [[], []];
  });

  afterEach(async () => {
    await Promise.all(workers.map((each) => each.stop()));
    for (const each of processes) each.kill('SIGKILL');
    await server.stop();
  });

  async function startWorker(limits = LIMITS, pictureSeconds = 3600): Promise<Worker> {
    const { connection, databaseUrl } = server;
    const onLost = (): void => fail('the worker was lost');
    const worker = new Worker({ database: connection.database, databaseUrl, name: 'here', limits, pictureSeconds, onLost });
    workers.push(worker);
    await worker.start();
    return worker;
  }

  /** A worker as `npm run worker` runs it. */
  async function startProcess(): Promise<ChildProcess> {
    const env = { ...process.env, DATABASE_URL: server.databaseUrl, LOG_LEVEL: 'fatal', TSX_TSCONFIG_PATH: 'apps/server/tsconfig.json' };
    const child = spawn(process.execPath, ['--import', 'tsx', 'apps/server/src/worker.ts'], {
      stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
      env,
    });
    processes.push(child);
    await new Promise<void>((resolve, reject) => {
      child.once('message', () => resolve());
      child.once('exit', (code) => reject(new Error(`the worker ended with ${code}`)));
    });
    return child;
  }

  async function wish(document: string, more: object = {}): Promise<Job> {
    const answer = await server.send('POST', '/renders', { document, width: 64, height: 48, ...more });
    if (answer.statusCode !== 202) throw new Error(answer.body);
    return answer.json();
  }

  async function until(id: string, wanted: (job: Job) => boolean): Promise<Job> {
    const end = Date.now() + PATIENCE_MS;
    for (;;) {
      const job: Job = (await server.send('GET', `/jobs/${id}`)).json();
      if (wanted(job)) return job;
      if (Date.now() > end) throw new Error(`the job stays ${JSON.stringify(job)}`);
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
  }
  const ended = (id: string): Promise<Job> => until(id, ({ state }) => !['waiting', 'running'].includes(state));

  it('wait until there is a worker, are drawn, and end as a file of the workspace', async () => {
    const health = async (): Promise<Health> => (await server.send('GET', '/health')).json();
    expect((await health()).workers).toEqual({ drawing: 0, message: jasmine.stringContaining('npm run worker') as unknown as string });
    const { id } = await wish(await server.fresh('Lantern'));
    expect((await until(id, () => true)).state).toBe('waiting');
    const told: JobNews[] = [];
    const listener = new StepListener(server.databaseUrl);
    listener.onNews = (news) => void ('job' in news && told.push(news));
    await listener.start();
    await startWorker();
    expect((await health()).workers).toEqual({ drawing: 1 });
    const job = await ended(id);
    expect([job.state, job.progress, job.title, job.attempts, job.message]).toEqual(['done', 1, 'Lantern', 1, undefined]);
    const { rawPayload } = await server.send('GET', `/assets/${job.asset}`);
    const { width, height, data } = PNG.sync.read(rawPayload);
    expect([width, height]).toEqual([64, 48]);
    expect(new Set(data).size).toBeGreaterThan(20);
    await listener.stop();
    expect(told[0]?.state).toBe('running');
    expect(told.at(-1)).toEqual({ job: id, state: 'done', progress: 1 });
    expect((await server.send('GET', '/jobs')).json<{ jobs: Job[] }>().jobs.map((each) => each.id)).toEqual([id]);
  });

  it('are refused for what is not there, was deleted, or cannot be drawn', async () => {
    const document = await server.fresh();
    const status = async (more: object): Promise<number> =>
      (await server.send('POST', '/renders', { document, width: 8, height: 8, ...more })).statusCode;
    expect(await status({ document: 'nothing' })).toBe(404);
    expect(await status({ set: 'nothing' })).toBe(404);
    expect(await status({ width: 0 })).toBe(400);
    expect(await status({ height: 16_384 })).toBe(400);
    await server.send('DELETE', `/documents/${document}`);
    expect(await status({})).toBe(410);
    expect((await server.send('GET', '/jobs/nothing')).statusCode).toBe(404);
    expect((await server.send('DELETE', '/jobs/nothing')).statusCode).toBe(404);
  });

  it('say what was missing when their turn came, or what they were made without', async () => {
    const document = await server.fresh('Lantern');
    const [view, gone] = [await wish(await server.fresh(), { view: 'from the moon' }), await wish(document)];
    await server.send('DELETE', `/documents/${document}`);
    const broken = await server.send('POST', '/documents', {
      id: 'lacks',
      document: { ...newMaterial('Lacks'), code: { text: 'vec3 paint(Surface s) { return nothing; }' } },
    });
    expect(broken.statusCode).toBe(201);
    const lacks = await wish('lacks');
    await startWorker();
    expect((await ended(view.id)).message).toContain('the set has no view “from the moon”');
    const [first, second] = [await ended(gone.id), await ended(lacks.id)];
    expect(first.message).toContain('"Lantern" was deleted');
    expect([second.state, second.attempts]).toEqual(['failed', 1]);
    expect(second.message).toContain('nothing');
  });

  it('are given up while they wait, and while they are drawn', async () => {
    const document = await server.fresh();
    const waiting = await wish(document);
    expect((await server.send('DELETE', `/jobs/${waiting.id}`)).json<Job>().state).toBe('cancelled');
    await startWorker();
    const large = await wish(document, { width: 8192, height: 8192 });
    await until(large.id, ({ state }) => state === 'running');
    await server.send('DELETE', `/jobs/${large.id}`);
    const small = await wish(document);
    expect((await ended(small.id)).state).toBe('done');
    expect((await ended(large.id)).state).toBe('cancelled');
    expect((await ended(waiting.id)).attempts).toBe(0);
    // What has ended stays as it is.
    expect((await server.send('DELETE', `/jobs/${small.id}`)).json<Job>().state).toBe('done');
  });

  it('are done by another worker where one is killed', async () => {
    const killed = await startProcess();
    const { id } = await wish(await server.fresh(), { width: 2048, height: 2048 });
    await until(id, ({ state }) => state === 'running');
    killed.kill('SIGKILL');
    await startWorker();
    const begun = await until(id, ({ attempts, state }) => attempts === 2 && state === 'running');
    expect(begun.progress).toBeLessThan(1);
    const job = await ended(id);
    expect([job.state, job.attempts]).toEqual(['done', 2]);
  });

  it('that take more than they may are ended, tried again, and given up', async () => {
    const document = await server.fresh();
    await startWorker({ megabytes: 60, seconds: 120 });
    const { message, state } = await ended((await wish(document)).id);
    expect([state, message]).toEqual(['failed', 'It took more than 60 MiB of memory, and was ended. It was tried 3 times.']);
  });

  it('are no condition for pictures in the Library: what no page has drawn is drawn, as of its last step, once', async () => {
    const document = await server.fresh();
    await server.send('POST', '/documents', {
      id: 'broken',
      document: { ...newMaterial('Broken'), code: { text: 'vec3 paint(Surface s) { return nothing; }' } },
    });
    const draw = spyOn(LibraryPictures.prototype, 'drawNext').and.callThrough();
    await startWorker(LIMITS, 0);
    const picture = async (): Promise<Buffer> => {
      const end = Date.now() + PATIENCE_MS;
      for (;;) {
        const { statusCode, rawPayload } = await server.send('GET', `/documents/${document}/thumbnail`);
        if (statusCode === 200 || Date.now() > end) return rawPayload;
        await new Promise((resolve) => setTimeout(resolve, 100));
      }
    };
    const { width, data } = PNG.sync.read(await picture());
    expect(width).toBe(THUMBNAIL.width);
    expect(new Set(data).size).toBeGreaterThan(20);
    const asked = draw.calls.count();
    while (draw.calls.count() < asked + 2) await new Promise((resolve) => setTimeout(resolve, 100));
    const drawn = await Promise.all(draw.calls.all().map(({ returnValue }) => returnValue));
    expect(drawn.filter(Boolean).length).toBe(1);
    expect((await server.send('GET', '/documents/broken/thumbnail')).statusCode).toBe(404);
  });

  it('that a worker leaves when it is ended go back', async () => {
    const worker = await startWorker();
    const { id } = await wish(await server.fresh(), { width: 8192, height: 8192 });
    await until(id, ({ state }) => state === 'running');
    await worker.stop();
    workers = [];
    expect((await until(id, () => true)).state).toBe('waiting');
    expect(await new JobRepository(server.connection.database).orphans([])).toEqual([]);
  });
});
