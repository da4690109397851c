/**
 * npm run worker: draws what others ask for, here or on any machine that reaches the database. As many as wanted may run.
 * Without DATABASE_URL it works for the Brelvin that runs here.
 */
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { buildServer, embedShaders, WORKER } from './lib/build.mjs';
import { installPackages } from './lib/install.mjs';
import { keepRunning } from './lib/keep-running.mjs';
import { Lock } from './lib/lock.mjs';
import { Cluster, clusterFolder } from './lib/postgres.mjs';
import { ROOT, start } from './lib/run.mjs';

let stopping = false;
const tell = (words) => console.error(words);

async function main() {
  installPackages();
  const url = process.env.DATABASE_URL ?? (await urlHere());
  // A server that runs from the same build goes on with what it has read.
  embedShaders();
  if (!existsSync(join(ROOT, WORKER))) await buildServer();
  let worker;
  const stop = () => {
    stopping = true;
    worker?.child.kill('SIGTERM');
  };
  process.on('SIGINT', stop);
  process.on('SIGTERM', stop);
  const begin = () => {
    let works = false;
    worker = start(process.execPath, ['--enable-source-maps', WORKER], {
      stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
      // A key that is pressed for all of them comes here alone: what is under way is put back first.
      detached: true,
      env: { ...process.env, DATABASE_URL: url },
    });
    worker.child.on('message', (message) => (works ||= message?.working === true));
    return { ended: worker.ended, ready: () => works };
  };
  process.exitCode = await keepRunning(begin, { name: 'The worker', isWanted: () => !stopping, tell });
}

/** The database of the Brelvin that runs here. */
async function urlHere() {
  const name = process.env.CLUSTER ?? 'postgres';
  const folder = clusterFolder(name);
  if (!new Lock(join(folder, '..', `${name}.lock`)).owner())
    throw new Error('Brelvin does not run here. Start it with npm start, or set DATABASE_URL to the database of the server.');
  return new Cluster(folder).start();
}

main().catch((error) => {
  console.error(error.message);
  process.exitCode = 1;
});
