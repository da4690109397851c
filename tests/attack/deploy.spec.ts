import { spawn, spawnSync } from 'node:child_process';
import { cpSync, mkdtempSync, rmSync, symlinkSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { freshDatabase } from '../support/databases';

const ROOT = fileURLToPath(new URL('../../', import.meta.url));

describe('What is built for another place', () => {
  it('runs there without the sources of the server, on other addresses only with a key', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'brelvin-place-'));
    try {
      expect(spawnSync('npm', ['run', '-s', 'build'], { cwd: ROOT, encoding: 'utf8' }).status).toBe(0);
      for (const part of ['apps/server/dist', 'apps/server/drizzle', 'apps/bench/dist', 'apps/cli/dist'])
        cpSync(join(ROOT, part), join(folder, part), { recursive: true });
      cpSync(join(ROOT, 'package.json'), join(folder, 'package.json'));
      symlinkSync(join(ROOT, 'node_modules'), join(folder, 'node_modules'));
      const run = (settings: Record<string, string>) =>
        spawn('node', ['--enable-source-maps', 'apps/server/dist/main.js'], {
          cwd: folder,
          stdio: ['ignore', 'pipe', 'pipe', 'ipc'],
          env: { ...process.env, HOST: '0.0.0.0', PORT: '0', LOG_LEVEL: 'warn', ...settings },
        });
      const database = { DATABASE_URL: await freshDatabase() };
      const open = run(database);
      let said = '';
      open.stderr?.on('data', (data: Buffer) => (said += data.toString('utf8')));
      expect(await new Promise((resolve) => open.once('exit', resolve))).toBe(1);
      expect(said).toContain('HOST=0.0.0.0 can be reached from other machines');
      const server = run({ ...database, ACCESS_KEY: 'lantern on the quay' });
      const port = await new Promise<number>((resolve) =>
        server.once('message', (message) => resolve((message as { listening: number }).listening)),
      );
      const status = async (path: string, headers: Record<string, string> = {}): Promise<number> =>
        (await fetch(`http://127.0.0.1:${port}${path}`, { headers })).status;
      expect(await status('/api/alive')).toBe(200);
      expect(await status('/api/documents?kind=material')).toBe(401);
      expect(await status('/api/documents?kind=material', { authorization: 'Bearer lantern on the quay' })).toBe(200);
      expect(await (await fetch(`http://127.0.0.1:${port}/`)).text()).toContain('Sign in · Brelvin');
      // A worker of the same build works for the same database, with the command line beside it.
      const worker = spawn('node', ['apps/server/dist/worker.js'], {
        cwd: folder,
        stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
        env: { ...process.env, ...database },
      });
      expect(await new Promise((resolve) => worker.once('message', resolve))).toEqual(jasmine.objectContaining({ working: true }));
      const workerEnded = new Promise((resolve) => worker.once('exit', resolve));
      worker.kill('SIGTERM');
      expect(await workerEnded).toBe(0);
      const ended = new Promise((resolve) => server.once('exit', resolve));
      server.kill('SIGTERM');
      expect(await ended).toBe(0);
    } finally {
      rmSync(folder, { recursive: true });
    }
  });
});
