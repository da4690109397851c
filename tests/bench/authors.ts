import { Agent, request } from 'node:http';
import { newMaterial } from '@brelvin/core';
import { freshDatabase } from '../support/databases';
import { ServerProcess } from '../support/server-process';
import { quantile } from './measure';
import type { Report } from './report';

/** Milliseconds from one save of an author to the next. */
const BETWEEN_SAVES = 500;
/** Saves of each author while the servers are new: Node still compiles what it runs. */
const FIRST_SAVES = 16;
const SAVES = 40;

/** Many who save at once, as their pages do: each a browser of its own with one material, one save each half second. */
export async function benchAuthors(report: Report): Promise<void> {
  for (const processes of [1, 3]) {
    const url = await freshDatabase();
    const servers = [await ServerProcess.startBuilt(url)];
    while (servers.length < processes) servers.push(await ServerProcess.startBuilt(url));
    try {
      for (const count of [50, 200]) await measured(report, servers, count);
    } finally {
      await Promise.all(servers.map((each) => each.stop()));
    }
  }
}

async function measured(report: Report, servers: readonly ServerProcess[], count: number): Promise<void> {
  const [first, later]: readonly [number[], number[]] = [[], []];
  const refused = new Map<number, number>();
  // What asks must cost little beside what answers: they share the processors.
  const agent = new Agent({ keepAlive: true, maxSockets: Infinity });
  const author = async (index: number): Promise<() => Promise<void>> => {
    const { address } = servers[index % servers.length] as ServerProcess;
    const id = `author${servers.length}-${count}-${index}`;
    const cookie = (await fetch(address)).headers.get('set-cookie')?.split(';')[0] ?? '';
    const send = (path: string, body: object): Promise<number> => post(agent, `${address}/api${path}`, cookie, JSON.stringify(body));
    await send('/documents', { id, document: newMaterial(id) });
    return async () => {
      // Not all in the same moment.
      await pause((index / count) * BETWEEN_SAVES);
      for (let after = 0; after < SAVES; after++) {
        const next = pause(BETWEEN_SAVES);
        const changes = [{ path: ['surface', 'nodes', 'lambert', 'x'], value: after }];
        const started = performance.now();
        const status = await send(`/documents/${id}/steps`, { after, steps: [{ id: `s${after}`, label: 'Move', changes }] });
        (after < FIRST_SAVES ? first : later).push(performance.now() - started);
        if (status !== 200) refused.set(status, (refused.get(status) ?? 0) + 1);
        await next;
      }
    };
  };
  const authors = await Promise.all(Array.from({ length: count }, (_, index) => author(index)));
  await Promise.all(authors.map((save) => save()));
  agent.destroy();
  const what = `${count} authors on ${servers.length} ${servers.length === 1 ? 'process' : 'processes'}, one save each half second`;
  const note = `${[...refused].map(([status, times]) => `${times} × ${status}`).join(', ') || 'none'} refused`;
  report.bound(`${what}, 95th percentile, ms`, upperEnd(later), 250, note);
  report.figure(`the same in the first ${(FIRST_SAVES * BETWEEN_SAVES) / 1000} s, ms`, upperEnd(first));
  report.bound(`${what}, refused`, single([...refused.values()].reduce((sum, each) => sum + each, 0)), 0);
  report.figure('memory of the largest server, MiB', single(await largestMemory(servers)));
}

/** The 95th percentile, between the median and the 99th. */
function upperEnd(times: number[]): { median: number; low: number; high: number } {
  const sorted = times.sort((a, b) => a - b);
  return { median: quantile(sorted, 0.95), low: quantile(sorted, 0.5), high: quantile(sorted, 0.99) };
}

function single(value: number): { median: number; low: number; high: number } {
  return { median: value, low: value, high: value };
}

async function largestMemory(servers: readonly ServerProcess[]): Promise<number> {
  const answers = await Promise.all(servers.map((each) => each.request('GET', '/health')));
  return Math.max(...answers.map(({ body }) => (body['memory'] as { bytes: number }).bytes / 1024 ** 2));
}

/** @returns the answer's status, once all of it is here */
function post(agent: Agent, address: string, cookie: string, body: string): Promise<number> {
  return new Promise((resolve, reject) => {
    const headers = { 'content-type': 'application/json', 'content-length': Buffer.byteLength(body), cookie };
    const sent = request(address, { agent, method: 'POST', headers }, (answer) => {
      answer.resume();
      answer.once('end', () => resolve(answer.statusCode ?? 0));
    });
    sent.once('error', reject);
    sent.end(body);
  });
}

const pause = (milliseconds: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, milliseconds));
