/** npm run bench: the budgets, as ratios within one run. */
import { installPackages, installSystem } from './lib/install.mjs';
import { buildPages, buildServer, embedShaders } from './lib/build.mjs';
import { Cluster, clusterFolder } from './lib/postgres.mjs';
import { start } from './lib/run.mjs';

async function main() {
  installPackages();
  installSystem(['postgresql', 'chromium', 'chromium-driver', 'glslang-tools', 'pfstools']);
  embedShaders();
  buildPages();
  await buildServer();
  const cluster = new Cluster(clusterFolder('bench-postgres'));
  try {
    const url = await cluster.start();
    const { ended } = start('node', ['--import', 'tsx', 'tests/bench/main.ts', ...process.argv.slice(2)], {
      env: { ...process.env, TEST_DATABASE_URL: url },
    });
    process.exitCode = await ended;
  } finally {
    cluster.remove();
  }
}

main().catch((error) => {
  console.error(error.message);
  process.exitCode = 1;
});
