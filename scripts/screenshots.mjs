/** npm run screenshots: one picture of each main view, 1280 × 800, from a fresh demo database, into docs/screenshots. */
import { installPackages, installSystem } from './lib/install.mjs';
import { buildPages, embedShaders } from './lib/build.mjs';
import { Cluster, clusterFolder } from './lib/postgres.mjs';
import { start } from './lib/run.mjs';

async function main() {
  installPackages();
  installSystem(['postgresql', 'chromium', 'chromium-driver']);
  embedShaders();
  buildPages();
  const cluster = new Cluster(clusterFolder('screenshots-postgres'), { throwaway: true });
  try {
    const url = await cluster.start();
    const { ended } = start('node', ['--import', 'tsx', 'tests/browser/screenshots.ts'], {
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
