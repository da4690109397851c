import { spawn, type ChildProcess } from 'node:child_process';
import { seededDatabase } from '../support/seeded-database';
import { ServerProcess } from '../support/server-process';
import { PATIENCE, time } from './measure';
import type { Report } from './report';

const JOBS = 8;

/** Pictures that workers draw in a minute, each from its wish to its file. */
export async function benchJobs(report: Report): Promise<void> {
  const url = await seededDatabase();
  const server = await ServerProcess.startBuilt(url);
  const workers: ChildProcess[] = [];
  try {
    for (const count of [1, 2]) {
      workers.push(await startWorker(url));
      const seconds = (await time(() => drawAll(server))) / 1000;
      const rate = (JOBS / seconds) * 60;
      report.figure(`pictures 256 × 256 a minute by ${count === 1 ? 'one worker' : `${count} workers`}`, {
        median: rate,
        low: rate,
        high: rate,
      });
    }
  } finally {
    for (const each of workers) each.kill('SIGTERM');
    await server.stop();
  }
}

async function startWorker(url: string): Promise<ChildProcess> {
  const env = { ...process.env, DATABASE_URL: url, LOG_LEVEL: 'fatal' };
  const child = spawn(process.execPath, ['apps/server/dist/worker.js'], { stdio: ['ignore', 'ignore', 'inherit', 'ipc'], env });
  await new Promise<void>((resolve, reject) => {
    child.once('message', () => resolve());
    child.once('exit', (code) => reject(new Error(`the worker ended with ${code}`)));
  });
  return child;
}

async function drawAll(server: ServerProcess): Promise<void> {
  const wish = { document: 'material-kite-dusk', width: 256, height: 256 };
  const begun = await Promise.all(Array.from({ length: JOBS }, () => server.request('POST', '/renders', wish)));
  const end = Date.now() + PATIENCE;
  for (const { body } of begun)
    for (;;) {
      const job = (await server.request('GET', `/jobs/${String(body['id'])}`)).body;
      if (job['state'] === 'done') break;
      if (job['state'] === 'failed' || Date.now() > end) throw new Error(`a job ended as ${JSON.stringify(job)}`);
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
}
