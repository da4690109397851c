/**
 * npm test: everything, on a machine that may have nothing but Node and apt.
 * npm run test:quick: what answers in some two minutes.
 * npm test -- browser: the stages whose names begin so.
 * npm run attack: all attacks on the server, also those that take long.
 * npm test -- browser --keep-seconds: writes down how long each spec of the real interface takes, which its lanes are shared out by.
 * npm test -- "all of webgpu": all specs of devices on WebGPU, in Node, also those that take minutes; and what is seen in pages
 * with either device.
 *
 * Ports and data are its own, so it can run beside npm start. Ends with "N passed, N failed" alone on a line.
 */
import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { installPackages, installSystem } from './lib/install.mjs';
import { buildPages, buildServer, embedShaders, SERVER } from './lib/build.mjs';
import { Cluster, clusterFolder } from './lib/postgres.mjs';
import { ROOT } from './lib/run.mjs';
import { countSpecs, failuresIn, runStage } from './lib/stage.mjs';

const quick = process.argv.includes('--quick');
const attack = process.argv.includes('--all-attacks');
/** The others start Brelvin as a whole, several times. */
const SHORT_ATTACKS = ['bodies', 'uploads', 'crowd'].map((name) => `tests/attack/${name}.spec.ts`);
const only = process.argv.slice(2).find((argument) => !argument.startsWith('-'));

let cluster;
let started;
/** The address of a database that is there for this run, started when it is first wanted. */
function database() {
  cluster ??= new Cluster(clusterFolder('test-postgres'), { throwaway: true });
  return (started ??= cluster.start().then((url) => ({ TEST_DATABASE_URL: url })));
}

/**
 * Specs of devices that also run on WebGPU, in Node, besides WebGL2 in a page. Those that take minutes are left to
 * `npm test -- "all of webgpu"`: they ask what is drawn, not how a device draws it.
 */
const LONG_ON_WEBGPU = ['code', 'inspection', 'outlets', 'shadows'];
function onWebGpu({ all }) {
  const folder = 'packages/devices/src';
  const specs = readdirSync(join(ROOT, folder)).filter(
    (name) => name.endsWith('.spec.ts') && (all || !LONG_ON_WEBGPU.includes(name.split('.')[0])),
  );
  return [
    `${folder}/node/specs-on-node.ts`,
    ...specs.map((name) => `${folder}/${name}`),
    `${folder}/webgpu/*.spec.ts`,
    'tests/golden/*.spec.ts',
  ];
}

const npx =
  (...args) =>
  (options) =>
    runStage('npx', ['--no-install', ...args], options);
const jasmine =
  (files, env = async () => ({})) =>
  async (options) =>
    runStage('node', ['--import', 'tsx', 'tests/jasmine.mjs', ...files], { ...options, env: await env() });

const types = npx('tsc', '-p', 'tsconfig.json', '--noEmit');

/** Types of all there is without a build: `npm test` builds the pages, with their specs and without, which checks theirs. */
async function allTypes(options) {
  const plain = await types(options);
  const pages = await npx('tsc', '-p', 'apps/bench/tsconfig.json', '--noEmit')(options);
  return { code: plain.code || pages.code, output: `${plain.output}${pages.output}` };
}

let served;
/** The server, and the command line that its workers call, made once. */
const builtServer = () => (served ??= buildServer());

let built;
/** Pages and server as their users have them, made once. */
function build() {
  return (built ??= (async () => {
    buildPages();
    await builtServer();
    const there = ['apps/bench/dist/browser/index.html', SERVER].every((file) => existsSync(join(ROOT, file)));
    return { code: there ? 0 : 1, output: '' };
  })());
}

/** How long each spec file of the real interface took when it was last measured. */
const SECONDS = join(ROOT, 'tests/browser/seconds.json');
const keepsSeconds = process.argv.includes('--keep-seconds');
/** Of a file that was never measured. */
const NOT_KNOWN = 120;

/** Two lanes that share the spec files of the real interface, and take about as long. */
function browserLanes() {
  const known = JSON.parse(readFileSync(SECONDS, 'utf8'));
  const secondsOf = (file) => known[file] ?? NOT_KNOWN;
  const files = readdirSync(join(ROOT, 'tests/browser/spec'))
    .filter((name) => name.endsWith('.spec.ts'))
    .sort((a, b) => secondsOf(b) - secondsOf(a) || a.localeCompare(b));
  const lanes = [1, 2].map((number) => ({ number, files: [], seconds: 0 }));
  for (const file of files) {
    const [shorter] = lanes.toSorted((a, b) => a.seconds - b.seconds);
    shorter.files.push(`tests/browser/spec/${file}`);
    shorter.seconds += secondsOf(file);
  }
  return lanes.map(({ number, files: own }) => [[`browser ${number}`, (options) => inBrowser(own, options)]]);
}

async function inBrowser(files, options) {
  await build();
  const folder = mkdtempSync(join(tmpdir(), 'brelvin-seconds-'));
  const measured = join(folder, 'seconds.json');
  const found = await jasmine(files, async () => ({ ...(await database()), SPEC_SECONDS: measured }))(options);
  if (keepsSeconds && existsSync(measured)) keepSeconds(JSON.parse(readFileSync(measured, 'utf8')));
  rmSync(folder, { recursive: true });
  return found;
}

/** What is about pictures, with either device. */
function inBothBrowsers(options) {
  const files = ['devices', 'environment', 'golden', 'light', 'looking'].map((name) => `tests/browser/spec/${name}.spec.ts`);
  return build().then(() => jasmine(files, async () => ({ ...(await database()), SPEC_DEVICES: 'both' }))(options));
}

function keepSeconds(measured) {
  const all = { ...JSON.parse(readFileSync(SECONDS, 'utf8')), ...measured };
  const names = Object.keys(all).sort();
  writeFileSync(SECONDS, `${JSON.stringify(Object.fromEntries(names.map((name) => [name, Math.round(all[name])])), null, 2)}\n`);
}

/** Groups, one after the other; lanes of a group beside each other; stages of a lane one after the other. */
function plan() {
  const core = ['core', jasmine(['packages/{contract,core}/src/**/*.spec.ts'])];
  const commandLine = ['command line', jasmine(['apps/cli/src/**/*.spec.ts'])];
  if (only === 'all of webgpu')
    return [[[['all of webgpu', jasmine(onWebGpu({ all: true }))]]], [[['all of webgpu, in pages', inBothBrowsers]]]];
  if (quick) return [[[['types', allTypes]], [core, commandLine]]];
  return [
    // Two lanes that take about as long.
    [
      [
        ['pages and devices', npx('ng', 'test', '--no-watch')],
        ['files', jasmine(['packages/io/src/**/*.spec.ts', 'tests/files/*.spec.ts'])],
        commandLine,
        ['server', jasmine(['apps/server/src/**/*.spec.ts'], () => builtServer().then(database))],
      ],
      [
        ['types', types],
        ['lint', npx('eslint', '.', '--max-warnings', '0')],
        ['arrows', npx('depcruise', '--config', '.dependency-cruiser.cjs', 'packages', 'apps', 'tests', 'scripts')],
        ['format', npx('prettier', '--check', '--log-level', 'warn', '.')],
        core,
        ['webgpu', jasmine(onWebGpu({ all: false }))],
        ['build', build],
      ],
    ],
    browserLanes(),
    [
      [['crash', jasmine(['tests/crash/*.spec.ts'], async () => ({ CRASH_CLUSTER: clusterFolder('crash-postgres') }))]],
      [['attack', jasmine(attack ? ['tests/attack/*.spec.ts'] : SHORT_ATTACKS, database)]],
    ],
  ];
}

async function runLane(lane, quiet, results) {
  for (const [name, work] of lane) {
    if (only && !name.startsWith(only)) continue;
    if (!quiet) console.log(`\n── ${name}`);
    const begun = Date.now();
    let found;
    try {
      found = await work({ quiet });
    } catch (error) {
      found = { code: 1, output: `${error.message}\n` };
      if (!quiet) console.error(error.message);
    }
    const runs = [found].flat();
    if (quiet) console.log(`\n── ${name}\n${runs.map(({ output }) => output).join('\n')}`);
    const counts = runs.map(countSpecs);
    const sum = (key) => counts.reduce((total, each) => total + each[key], 0);
    results.push({
      name,
      seconds: (Date.now() - begun) / 1000,
      passed: sum('passed'),
      failed: sum('failed'),
      told: runs.map(failuresIn).join('\n'),
    });
  }
}

async function main() {
  installPackages();
  installSystem(quick ? ['glslang-tools'] : ['postgresql', 'chromium', 'chromium-driver', 'libvulkan1', 'glslang-tools', 'pfstools']);
  embedShaders();
  const results = [];
  try {
    // What runs beside something else is shown when it has ended.
    for (const lanes of plan()) await Promise.all(lanes.map((lane) => runLane(lane, lanes.length > 1, results)));
  } finally {
    cluster?.remove();
  }
  // Once more at the end: what was printed on the way is long, and is cut where only an end is kept.
  for (const { name, told } of results.filter(({ failed }) => failed > 0)) console.log(`\n── what failed in ${name}\n${told}`);
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
