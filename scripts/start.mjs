/**
 * npm start: from a fresh machine with Node and apt to a running Brelvin.
 * npm run dev: the same with pages and server that follow the sources.
 */
import { join } from 'node:path';
import { installPackages, installSystem } from './lib/install.mjs';
import { buildPages, buildServer, embedShaders, SERVER } from './lib/build.mjs';
import { keepRunning } from './lib/keep-running.mjs';
import { Lock } from './lib/lock.mjs';
import { Cluster, clusterFolder } from './lib/postgres.mjs';
import { end, start } from './lib/run.mjs';

const development = process.argv.includes('--dev');
const port = Number(process.env.PORT ?? 4310);
/** How often it is looked whether PostgreSQL still runs. */
const LOOK_MS = 2000;

let stopping = false;
const tell = (words) => console.error(words);

async function main() {
  installPackages();
  const folder = clusterFolder(process.env.CLUSTER ?? 'postgres');
  const lock = process.env.DATABASE_URL ? undefined : new Lock(join(folder, '..', `${process.env.CLUSTER ?? 'postgres'}.lock`));
  const owner = lock?.take();
  if (owner)
    throw new Error(
      `Brelvin runs here already (process ${owner.pid})${owner.address ? `: ${owner.address}` : ', and is about to be ready'}. Use that one, or stop it first.`,
    );
  try {
    process.exitCode = await run(lock, folder);
  } finally {
    lock?.release();
  }
}

async function run(lock, folder) {
  let cluster;
  let url = process.env.DATABASE_URL;
  if (!url) {
    installSystem(['postgresql']);
    cluster = new Cluster(folder);
    url = await cluster.start();
  }
  embedShaders();
  if (!development) {
    buildPages();
    await buildServer();
  }

  let server;
  const stop = () => {
    stopping = true;
    server?.child.kill('SIGTERM');
  };
  process.on('SIGINT', stop);
  process.on('SIGTERM', stop);
  // Whoever ran this may be killed in a way that tells nobody.
  const parent = process.ppid;
  const orphaned = setInterval(() => process.ppid !== parent && stop(), LOOK_MS);
  const databaseKept = cluster && keepCluster(cluster);
  const serverPort = development ? port + 1 : port;
  const pages = development
    ? start('node_modules/.bin/ng', ['serve', '--host', '127.0.0.1', '--port', String(port)], {
        env: { ...process.env, NG_CLI_ANALYTICS: 'false' },
      })
    : undefined;
  // One that never listened has settings that cannot be: it has said so.
  let listened = false;
  const beginServer = () => {
    server = startServer(url, cluster?.data, serverPort, (address) => {
      listened = true;
      lock?.say({ address });
      if (!development) console.log(`\nBrelvin is ready:  ${address}\n`);
    });
    return { ended: server.ended, ready: () => listened };
  };
  try {
    return await keepRunning(beginServer, { name: 'The server', isWanted: () => !stopping, tell });
  } finally {
    stopping = true;
    clearInterval(orphaned);
    clearInterval(databaseKept);
    if (pages) await end(pages);
    cluster?.stop();
  }
}

function startServer(url, databaseFolder, serverPort, listening) {
  const program = development
    ? ['--watch', '--watch-preserve-output', '--import', 'tsx', 'apps/server/src/main.ts']
    : ['--enable-source-maps', SERVER];
  const server = start(process.execPath, program, {
    stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
    // A key that is pressed for all of them (Ctrl C) comes here alone: saves that are under way are finished first.
    detached: true,
    env: {
      LOG_LEVEL: 'warn',
      ...(databaseFolder ? { DATABASE_FOLDER: databaseFolder } : {}),
      ...process.env,
      TSX_TSCONFIG_PATH: 'apps/server/tsconfig.json',
      DATABASE_URL: url,
      PORT: String(serverPort),
    },
  });
  server.child.on('message', (message) => {
    if (message?.listening) listening(`http://127.0.0.1:${message.listening}`);
  });
  return server;
}

/** Starts PostgreSQL again where it ended by itself. */
function keepCluster(cluster) {
  let waiting = 0;
  let turn = 0;
  return setInterval(() => {
    if (stopping || cluster.isRunning() || ++turn <= waiting) return;
    tell('PostgreSQL ended unexpectedly; it is started again.');
    try {
      cluster.launch();
      waiting = 0;
    } catch (error) {
      waiting = Math.min(waiting * 2 + 1, 15);
      tell(`PostgreSQL could not be started (${error.message.split('\n')[0]}); tried again in ${(waiting + 1) * (LOOK_MS / 1000)} s.`);
    }
    turn = 0;
  }, LOOK_MS);
}

main().catch((error) => {
  console.error(error.message);
  process.exitCode = 1;
});
