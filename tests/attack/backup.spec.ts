import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { Material } from '@brelvin/contract';
import { compileMaterial } from '@brelvin/core';
import { Cluster, clusterFolder } from '../../scripts/lib/postgres.mjs';
import { ServerProcess } from '../support/server-process';

const ROOT = fileURLToPath(new URL('../../', import.meta.url));
const [FROM, INTO] = ['attack-backup-postgres', 'attack-restore-postgres'] as const;

describe('A backup', () => {
  const folder = mkdtempSync(join(tmpdir(), 'brelvin-backup-'));
  const file = join(folder, 'all.dump');
  const clusters = [FROM, INTO].map((name) => new Cluster(clusterFolder(name)));

  afterAll(() => {
    for (const cluster of clusters) cluster.remove();
    rmSync(folder, { recursive: true });
  });

  const npmRun = (job: string, name: string, ...more: string[]) =>
    spawnSync('npm', ['run', '-s', job, '--', ...more], {
      cwd: ROOT,
      encoding: 'utf8',
      env: { ...process.env, CLUSTER: name, DATABASE_URL: '' },
    });

  async function withServer<T>(cluster: Cluster | undefined, work: (server: ServerProcess) => Promise<T>): Promise<T> {
    if (!cluster) throw new Error('there is no cluster');
    const server = await ServerProcess.start(await cluster.start());
    return work(server).finally(() => server.stop());
  }

  it('is restored into an empty place with all documents, steps and files', async () => {
    const [from, into] = clusters;
    const rename = { id: 'r', label: 'Rename', changes: [{ path: ['name'], value: 'Seal at dusk' }] };
    const before = await withServer(from, async (server) => {
      expect((await server.request('POST', '/documents/material-tallow-seal/steps', { after: 0, steps: [rename] })).status).toBe(200);
      return server.request('GET', '/documents/material-tallow-seal');
    });
    expect(npmRun('backup', FROM, file).stdout).toContain(file);
    expect(npmRun('restore', INTO, file).stdout).toContain('is in place');
    await withServer(into, async (server) => {
      const after = await server.request('GET', '/documents/material-tallow-seal');
      expect(after.body).toEqual(before.body);
      const material = after.body['document'] as Material;
      expect(compileMaterial(material).problems).toEqual([]);
      for (const { asset } of Object.values(material.images))
        expect((await fetch(`${server.address}/api/assets/${asset}`)).status)
          .withContext('its image')
          .toBe(200);
      const history = await server.request('GET', '/documents/material-tallow-seal/history?limit=10');
      expect((history.body['steps'] as { label: string }[]).map(({ label }) => label)).toEqual(['Rename']);
    });
    into?.stop();
  });

  it('that is damaged leaves everything as it was, and says so', async () => {
    const [, into] = clusters;
    const damaged = join(folder, 'damaged.dump');
    writeFileSync(damaged, 'PGDMP and nothing more');
    const { status, stderr } = npmRun('restore', INTO, damaged);
    expect([status, stderr]).toEqual([1, jasmine.stringContaining('pg_restore')]);
    const read = await withServer(into, (server) => server.request('GET', '/documents/material-tallow-seal'));
    expect((read.body['document'] as Material).name).toBe('Seal at dusk');
    into?.stop();
    expect(npmRun('restore', INTO).stderr).toContain('Say which file');
  });
});
