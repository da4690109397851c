import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { brotliCompressSync, constants, gzipSync } from 'node:zlib';
import { ROOT, run } from './run.mjs';

const SOURCES = ['packages', 'apps/bench/src', 'apps/bench/public', 'angular.json', 'package-lock.json'];
/** Bytes under which packing saves less than it costs. */
const SMALLEST_PACKED = 1024;
/** What `buildServer` makes. */
export const SERVER = 'apps/server/dist/main.js';
export const WORKER = 'apps/server/dist/worker.js';
const COMMAND_LINE = 'apps/cli/dist/run.js';
const BUILT = { [SERVER]: 'apps/server/src/main.ts', [WORKER]: 'apps/server/src/worker.ts', [COMMAND_LINE]: 'apps/cli/src/run.ts' };
const STAMP = join(ROOT, 'apps', 'bench', 'dist', '.built');

/** Puts the shader library's texts where the code imports them from. */
export function embedShaders() {
  run('npx', ['tsx', 'scripts/embed-shaders.ts']);
}

/** Builds the web application when its sources are newer than the last build. */
export function buildPages() {
  if (existsSync(STAMP) && SOURCES.every((path) => newest(join(ROOT, path)) <= statSync(STAMP).mtimeMs)) return;
  console.log('Building the pages …');
  run('npx', ['ng', 'build'], { env: { ...process.env, NG_CLI_ANALYTICS: 'false' } });
  packFiles(join(ROOT, 'apps', 'bench', 'dist', 'browser'));
  writeFileSync(STAMP, '');
}

/** Server, worker and the command line that workers call as one file each, so that no compiler is needed where it runs; quick enough to be done anew each time. */
export async function buildServer() {
  const { build } = await import('esbuild');
  await build({
    absWorkingDir: ROOT,
    entryPoints: Object.fromEntries(Object.entries(BUILT).map(([built, source]) => [built.replace(/\.js$/, ''), source])),
    outdir: '.',
    tsconfig: 'apps/server/tsconfig.json',
    bundle: true,
    platform: 'node',
    target: 'node20',
    format: 'esm',
    sourcemap: true,
    logLevel: 'error',
    // Our own packages are sources; all others are taken from node_modules as they are.
    plugins: [
      {
        name: 'packages of others stay outside',
        setup: ({ onResolve }) =>
          onResolve({ filter: /^[^./]/ }, ({ path, kind }) =>
            kind === 'entry-point' || path.startsWith('@brelvin/') ? undefined : { path, external: true },
          ),
      },
    ],
  });
}

/** Files that are worth it once more, packed: the server sends those as they are. */
function packFiles(folder) {
  for (const name of readdirSync(folder, { recursive: true })) {
    const file = join(folder, name);
    if (!/\.(js|css|svg|wasm)$/.test(name) || statSync(file).size < SMALLEST_PACKED) continue;
    const bytes = readFileSync(file);
    writeFileSync(`${file}.br`, brotliCompressSync(bytes, { params: { [constants.BROTLI_PARAM_SIZE_HINT]: bytes.length } }));
    writeFileSync(`${file}.gz`, gzipSync(bytes, { level: 9 }));
  }
}

function newest(path) {
  if (!existsSync(path)) return 0;
  const stat = statSync(path);
  if (!stat.isDirectory()) return path.endsWith('.generated.ts') ? 0 : stat.mtimeMs;
  return Math.max(
    0,
    ...readdirSync(path)
      .filter((name) => name !== 'node_modules')
      .map((name) => newest(join(path, name))),
  );
}
