import { newMaterial } from '@brelvin/core';
import { freshDatabase } from '../support/databases';
import { ServerProcess } from '../support/server-process';
import { quantile } from './measure';
import type { Report } from './report';

/** Milliseconds from one save of an author to the next. */
const BETWEEN_SAVES = 500;
const SAVES = 16;

/** Many who save at once, as their pages do: each a browser of its own with one material, one save each half second. */
export async function benchAuthors(report: Report): Promise<void> {
  for (const processes of [1, 3]) {
    const url = await freshDatabase();
    const servers = [await ServerProcess.start(url)];
    while (servers.length < processes) servers.push(await ServerProcess.start(url));
    try {
      for (const count of [50, 200]) await measured(report, servers, count);
    } finally {
      await Promise.all(servers.map((each) => each.stop()));
    }
  }
}

async function measured(report: Report, servers: readonly ServerProcess[], count: number): Promise<void> {
  const times: number[] = [];
  const refused = new Map<number, number>();
  const author = async (index: number): Promise<void> => {
    const server = servers[index % servers.length] as ServerProcess;
    const id = `author${servers.length}-${count}-${index}`;
    const cookie = (await fetch(server.address)).headers.get('set-cookie')?.split(';')[0] ?? '';
    const send = (path: string, body: object): Promise<Response> =>
      fetch(`${server.address}/api${path}`, {
        method: 'POST',
        headers: { 'content-type': 'application/json', cookie },
        body: JSON.stringify(body),
      });
    await (await send('/documents', { id, document: newMaterial(id) })).arrayBuffer();
    // Not all in the same moment.
    await pause((index / count) * BETWEEN_SAVES);
    for (let after = 0; after < SAVES; after++) {
      const next = pause(BETWEEN_SAVES);
      const changes = [{ path: ['surface', 'nodes', 'lambert', 'x'], value: after }];
      const started = performance.now();
      const answer = await send(`/documents/${id}/steps`, { after, steps: [{ id: `s${after}`, label: 'Move', changes }] });
      await answer.arrayBuffer();
      times.push(performance.now() - started);
      if (answer.status !== 200) refused.set(answer.status, (refused.get(answer.status) ?? 0) + 1);
      await next;
    }
  };
  await Promise.all(Array.from({ length: count }, (_, index) => author(index)));
  const sorted = times.sort((a, b) => a - b);
  const [median, p95] = [quantile(sorted, 0.5), quantile(sorted, 0.95)];
  const what = `${count} authors on ${servers.length} ${servers.length === 1 ? 'process' : 'processes'}, one save each half second`;
  const note = `${[...refused].map(([status, times]) => `${times} × ${status}`).join(', ') || 'none'} refused`;
  report.bound(`${what}, 95th percentile, ms`, { median: p95, low: median, high: quantile(sorted, 0.99) }, 250, note);
  report.bound(`${what}, refused`, single([...refused.values()].reduce((sum, each) => sum + each, 0)), 0);
}

function single(value: number): { median: number; low: number; high: number } {
  return { median: value, low: value, high: value };
}

const pause = (milliseconds: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, milliseconds));
