/**
 * npm run backup -- FILE: all documents with their steps, versions and files, as one file. Brelvin may run meanwhile.
 * npm run restore -- FILE: puts such a file in the place of what is there. Brelvin must not run meanwhile; what was there is
 * backed up first.
 */
import { existsSync, mkdirSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { installPackages, installSystem, postgresPrograms } from './lib/install.mjs';
import { Lock } from './lib/lock.mjs';
import { Cluster, clusterFolder } from './lib/postgres.mjs';
import { ROOT, run } from './lib/run.mjs';

const [job, wanted] = process.argv.slice(2);
const name = process.env.CLUSTER ?? 'postgres';

async function main() {
  installPackages();
  installSystem(['postgresql']);
  const folder = clusterFolder(name);
  const lock = new Lock(join(folder, '..', `${name}.lock`));
  if (job === 'restore') return restore(folder, lock);
  return withDatabase(folder, lock, (url) => {
    const file = resolve(wanted ?? standing('brelvin'));
    dump(url, file);
    console.log(`Everything is in ${file}. Keep it on another disk; npm run restore -- FILE takes it back.`);
  });
}

async function restore(folder, lock) {
  if (!wanted || !existsSync(wanted)) throw new Error('Say which file to restore: npm run restore -- FILE');
  const owner = lock.take();
  if (owner) throw new Error(`Brelvin runs (process ${owner.pid}). Stop it first: what it holds would be replaced under it.`);
  try {
    await withDatabase(folder, undefined, (url) => {
      const before = resolve(standing('before-restore'));
      dump(url, before);
      // In one transaction: all of it, or nothing.
      run(program('pg_restore'), [
        '--clean',
        '--if-exists',
        '--no-owner',
        '--single-transaction',
        '--exit-on-error',
        '--dbname',
        url,
        resolve(wanted),
      ]);
      console.log(`${wanted} is in place. What was there before is in ${before}.`);
    });
  } finally {
    lock.release();
  }
}

/** The database: another one by its address, the one of a Brelvin that runs, or our own, started for this alone. */
async function withDatabase(folder, lock, work) {
  if (process.env.DATABASE_URL) return work(process.env.DATABASE_URL);
  const cluster = new Cluster(folder);
  const runs = lock?.owner() !== undefined;
  const url = await cluster.start();
  try {
    return work(url);
  } finally {
    if (!runs) cluster.stop();
  }
}

function dump(url, file) {
  mkdirSync(dirname(file), { recursive: true });
  run(program('pg_dump'), ['--format=custom', '--no-owner', '--file', file, url]);
}

function standing(word) {
  return join(ROOT, '.data', 'backups', `${word}-${new Date().toISOString().slice(0, 19).replaceAll(':', '-')}.dump`);
}

function program(name) {
  return join(postgresPrograms(), name);
}

main().catch((error) => {
  console.error(error.message);
  process.exitCode = 1;
});
