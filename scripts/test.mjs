/**
 * npm test: everything, on a machine that may have nothing but Node and apt.
 * npm run test:quick: what answers within two minutes.
 *
 * Ports and data are its own, so it can run beside npm start. Ends with "N passed, N failed" alone on a line.
 */
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { spawn } from 'node:child_process';
import { installPackages, installSystem } from './lib/install.mjs';
import { buildPages, embedShaders } from './lib/build.mjs';
import { Cluster, clusterFolder } from './lib/postgres.mjs';
import { ROOT } from './lib/run.mjs';

const quick = process.argv.includes('--quick');
const only = process.argv.slice(2).find((argument) => !argument.startsWith('-'));

/** Runs a stage's command, shows what it prints, and keeps it for counting. */
function stage(command, args, env = {}) {
  return new Promise((resolve) => {
    const child = spawn(command, args, {
      cwd: ROOT,
      env: { ...process.env, NG_CLI_ANALYTICS: 'false', ...env },
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    let output = '';
    for (const stream of [child.stdout, child.stderr]) {
      stream.on('data', (data) => {
        output += data;
        process.stdout.write(data);
      });
    }
    child.once('error', (error) => resolve({ code: 1, output: `${output}${error.message}` }));
    child.once('exit', (code) => resolve({ code: code ?? 1, output }));
  });
}

/** Specs by their runner's own words; a stage without specs counts as one check. */
function count({ code, output }) {
  const jasmine = [...output.matchAll(/(\d+) specs?, (\d+) failures?/g)].at(-1);
  const karma = [
    ...output.matchAll(/TOTAL: (\d+) SUCCESS|TOTAL: (\d+) FAILED, (\d+) SUCCESS|Executed (\d+) of (\d+).*?(?:\((\d+) FAILED\)|SUCCESS)/g),
  ].at(-1);
  if (jasmine) {
    const [total, failed] = [Number(jasmine[1]), Number(jasmine[2])];
    if (total === 0) return { passed: 0, failed: 1 };
    return code === 0 || failed > 0 ? { passed: total - failed, failed } : { passed: total, failed: 1 };
  }
  if (karma) {
    const failed = Number(karma[6] ?? karma[2] ?? 0);
    const total = Number(karma[1] ?? karma[4] ?? Number(karma[2] ?? 0) + Number(karma[3] ?? 0));
    if (total === 0) return { passed: 0, failed: 1 };
    return code === 0 || failed > 0 ? { passed: total - failed, failed } : { passed: total, failed: 1 };
  }
  return code === 0 ? { passed: 1, failed: 0 } : { passed: 0, failed: 1 };
}

const jasmine = (files, env) => () => stage('node', ['--import', 'tsx', 'tests/jasmine.mjs', ...files], env);
const npx =
  (...args) =>
  () =>
    stage('npx', ['--no-install', ...args]);

async function main() {
  installPackages();
  installSystem(quick ? ['glslang-tools'] : ['postgresql', 'chromium', 'chromium-driver', 'glslang-tools', 'pfstools']);
  embedShaders();
  let cluster;
  const database = async () => {
    cluster = new Cluster(clusterFolder('test-postgres'), { throwaway: true });
    return { TEST_DATABASE_URL: await cluster.start() };
  };
  const stages = [
    [
      'types',
      async () => {
        const plain = await stage('npx', ['--no-install', 'tsc', '-p', 'tsconfig.json', '--noEmit']);
        const pages = await stage('npx', ['--no-install', 'tsc', '-p', 'apps/bench/tsconfig.json', '--noEmit']);
        return { code: plain.code || pages.code, output: '' };
      },
    ],
    ['core', jasmine(['packages/core/src/**/*.spec.ts'])],
    ['command line', jasmine(['apps/cli/src/**/*.spec.ts'])],
    ...(quick
      ? []
      : [
          ['lint', npx('eslint', '.', '--max-warnings', '0')],
          ['arrows', npx('depcruise', '--config', '.dependency-cruiser.cjs', 'packages', 'apps', 'tests', 'scripts')],
          ['format', npx('prettier', '--check', '--log-level', 'warn', '.')],
          ['files', jasmine(['tests/files/*.spec.ts'])],
          ['pages and devices', npx('ng', 'test', '--no-watch')],
          ['server', async () => jasmine(['apps/server/src/**/*.spec.ts'], await database())()],
          [
            'build',
            async () => {
              buildPages();
              return { code: existsSync(join(ROOT, 'apps/bench/dist/browser/index.html')) ? 0 : 1, output: '' };
            },
          ],
          ['browser', async () => jasmine(['tests/browser/spec/*.spec.ts'], await database())()],
          ['crash', jasmine(['tests/crash/*.spec.ts'], { CRASH_CLUSTER: clusterFolder('crash-postgres') })],
        ]),
  ];
  const results = [];
  try {
    for (const [name, work] of stages) {
      if (only && name !== only) continue;
      console.log(`\n── ${name}`);
      const started = Date.now();
      let counted;
      try {
        counted = count(await work());
      } catch (error) {
        console.error(error.message);
        counted = { passed: 0, failed: 1 };
      }
      results.push({ name, seconds: (Date.now() - started) / 1000, ...counted });
    }
  } finally {
    cluster?.remove();
  }
  console.log('\nstage               seconds   passed   failed');
  for (const { name, seconds, passed, failed } of results) {
    console.log(`${name.padEnd(18)} ${seconds.toFixed(1).padStart(8)} ${String(passed).padStart(8)} ${String(failed).padStart(8)}`);
  }
  const sum = (key) => results.reduce((total, each) => total + each[key], 0);
  console.log(`\n${sum('passed')} passed, ${sum('failed')} failed`);
  process.exitCode = sum('failed') > 0 || results.length === 0 ? 1 : 0;
}

main().catch((error) => {
  console.error(error.message);
  console.log('\n0 passed, 1 failed');
  process.exitCode = 1;
});
