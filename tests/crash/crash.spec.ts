import type { Transaction } from '@brelvin/contract';
import { Cluster } from '../../scripts/lib/postgres.mjs';
import { newMaterial } from '@brelvin/core';
import { ServerProcess } from '../support/server-process';

const BURST_MS = 1500;

/**
 * Saves one step after the other as fast as it goes, until one is not acknowledged: what is killed may go on for a moment.
 * Gives the number of the last one that was.
 */
async function burst(server: ServerProcess, id: string): Promise<number> {
  let acknowledged = 0;
  for (;;) {
    const next = acknowledged + 1;
    const transaction: Transaction = {
      id: `step-${next}`,
      label: 'Move',
      changes: [{ path: ['surface', 'nodes', 'colour', 'x'], value: next }],
    };
    try {
      const { status, body } = await server.request('POST', `/documents/${id}/steps`, { after: acknowledged, steps: [transaction] });
      if (status !== 200) break;
      acknowledged = Number(body['step']);
    } catch {
      break;
    }
  }
  return acknowledged;
}

async function stored(server: ServerProcess, id: string): Promise<{ step: number; x: number }> {
  const { status, body } = await server.request('GET', `/documents/${id}`);
  expect(status).toBe(200);
  const document = body['document'] as { surface: { nodes: { colour: { x: number } } } };
  return { step: Number(body['step']), x: document.surface.nodes.colour.x };
}

const pause = (milliseconds: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, milliseconds));

describe('A burst of saves', () => {
  let cluster: Cluster;
  let url: string;

  beforeAll(async () => {
    const folder = process.env['CRASH_CLUSTER'];
    if (!folder) throw new Error('CRASH_CLUSTER is not set; run the tests with "npm test"');
    // With syncing to disk, as in real use.
    cluster = new Cluster(folder);
    url = await cluster.start();
  });

  afterAll(() => cluster?.remove());

  it('loses nothing that was acknowledged when the server is killed', async () => {
    let server = await ServerProcess.start(url);
    await server.request('POST', '/documents', { id: 'burst-server', document: newMaterial('Burst') });
    setTimeout(() => server.child.kill('SIGKILL'), BURST_MS);
    const acknowledged = await burst(server, 'burst-server');
    await server.stop();
    expect(acknowledged).toBeGreaterThan(20);

    server = await ServerProcess.start(url);
    const after = await stored(server, 'burst-server');
    expect(after.step).toBeGreaterThanOrEqual(acknowledged);
    expect(after.step).toBeLessThanOrEqual(acknowledged + 1);
    expect(after.x).toBe(after.step);
    expect(await server.stop()).toBe(0);
  });

  it('loses nothing that was acknowledged when PostgreSQL is killed, and goes on when it is back', async () => {
    const server = await ServerProcess.start(url);
    await server.request('POST', '/documents', { id: 'burst-database', document: newMaterial('Burst') });
    setTimeout(() => process.kill(cluster.pid(), 'SIGKILL'), BURST_MS);
    const acknowledged = await burst(server, 'burst-database');
    expect(acknowledged).toBeGreaterThan(20);

    const away = await server.request('POST', '/documents/burst-database/steps', {
      after: acknowledged,
      steps: [{ id: 'late', label: 'Late', changes: [{ path: ['notes'], value: 'x' }] }],
    });
    expect(away.status).toBe(503);
    expect(away.body['error']).toBe('database-away');

    await pause(1000);
    for (let attempt = 0; ; attempt++) {
      try {
        cluster.launch();
        break;
      } catch (error) {
        if (attempt > 20) throw error;
        await pause(500);
      }
    }
    const after = await stored(server, 'burst-database');
    expect(after.step).toBeGreaterThanOrEqual(acknowledged);
    expect(after.x).toBe(after.step);
    const again = await server.request('POST', '/documents/burst-database/steps', {
      after: after.step,
      steps: [{ id: 'later', label: 'Later', changes: [{ path: ['notes'], value: 'back' }] }],
    });
    expect(again.status).toBe(200);
    expect(await server.stop()).toBe(0);
  });
});
