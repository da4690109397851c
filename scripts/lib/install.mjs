import { existsSync, readdirSync, readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { has, isRoot, ROOT, run } from './run.mjs';

/** The newest PostgreSQL's programs, or nothing. */
export function postgresPrograms() {
  const base = '/usr/lib/postgresql';
  if (!existsSync(base)) return undefined;
  const versions = readdirSync(base).filter((version) => existsSync(join(base, version, 'bin', 'initdb')));
  const newest = versions.sort((a, b) => Number(b) - Number(a))[0];
  return newest && join(base, newest, 'bin');
}

const SYSTEM = {
  postgresql: () => postgresPrograms() !== undefined,
  chromium: () => has('chromium'),
  'chromium-driver': () => has('chromedriver'),
  // Finds drivers of graphics cards, and the software driver that chromium brings.
  libvulkan1: () =>
    readdirSync('/usr/lib').some((folder) => existsSync(join('/usr/lib', folder, 'libvulkan.so.1')) && folder !== 'chromium'),
  'glslang-tools': () => has('glslangValidator'),
  // Writes high-range pictures, for tests of ours that read them.
  pfstools: () => has('pfsoutexr'),
};

/** Installs Debian packages that are missing; an ordinary user is told what to install. */
export function installSystem(names) {
  const missing = names.filter((name) => !SYSTEM[name]());
  if (missing.length === 0) return;
  const command = `apt-get install -y --no-install-recommends ${missing.join(' ')}`;
  if (!isRoot()) throw new Error(`Missing: ${missing.join(', ')}. Install with: sudo ${command}`);
  console.log(`Installing ${missing.join(', ')} …`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  run('apt-get', ['update', '-qq'], { env });
  run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', ...missing], { env });
}

/** Installs npm packages when the lock file has changed since they were. */
export function installPackages() {
  const stamp = join(ROOT, 'node_modules', '.package-lock.json');
  const lock = join(ROOT, 'package-lock.json');
  if (existsSync(stamp) && statSync(stamp).mtimeMs >= statSync(lock).mtimeMs) return;
  if (existsSync(stamp) && sameVersions(stamp, lock)) return;
  console.log('Installing npm packages …');
  run('npm', ['ci', '--ignore-scripts'], { stdio: ['ignore', 'inherit', 'inherit'] });
}

function sameVersions(stamp, lock) {
  const versions = (path) =>
    Object.entries(JSON.parse(readFileSync(path, 'utf8')).packages ?? {})
      .filter(([name, { link, optional }]) => name.startsWith('node_modules/') && !link && !optional)
      .map(([name, { version }]) => `${name}@${version}`);
  const installed = new Set(versions(stamp));
  return versions(lock).every((each) => installed.has(each));
}
