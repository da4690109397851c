/**
 * npm start: from a fresh machine with Node and apt to a running Brelvin.
 * npm run dev: the same with pages and server that follow the sources.
 */
import { installPackages, installSystem } from './lib/install.mjs';
import { buildPages, embedShaders } from './lib/build.mjs';
import { Cluster, clusterFolder } from './lib/postgres.mjs';
import { end, start } from './lib/run.mjs';

const development = process.argv.includes('--dev');
const port = Number(process.env.PORT ?? 4310);

async function main() {
  installPackages();
  let cluster;
  let url = process.env.DATABASE_URL;
  if (!url) {
    installSystem(['postgresql']);
    cluster = new Cluster(clusterFolder('postgres'));
    url = await cluster.start();
  }
  embedShaders();
  if (!development) buildPages();

  const serverPort = development ? port + 1 : port;
  const watch = development ? ['--watch', '--watch-preserve-output'] : [];
  const server = start(process.execPath, [...watch, '--import', 'tsx', 'apps/server/src/main.ts'], {
    stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
    env: { LOG_LEVEL: 'warn', ...process.env, TSX_TSCONFIG_PATH: 'apps/server/tsconfig.json', DATABASE_URL: url, PORT: String(serverPort) },
  });
  const pages = development
    ? start('node_modules/.bin/ng', ['serve', '--host', '127.0.0.1', '--port', String(port)], {
        env: { ...process.env, NG_CLI_ANALYTICS: 'false' },
      })
    : undefined;
  server.child.on('message', (message) => {
    if (message?.listening && !development) console.log(`\nBrelvin is ready:  http://127.0.0.1:${message.listening}\n`);
  });

  const stop = () => server.child.kill('SIGTERM');
  process.on('SIGINT', stop);
  process.on('SIGTERM', stop);
  const code = await server.ended;
  if (pages) await end(pages);
  cluster?.stop();
  process.exitCode = code;
}

main().catch((error) => {
  console.error(error.message);
  process.exitCode = 1;
});
