import { existsSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT, run } from './run.mjs';

const SOURCES = ['packages', 'apps/bench/src', 'apps/bench/public', 'angular.json', 'package-lock.json'];
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
  writeFileSync(STAMP, '');
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
