import { spawn, spawnSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';

export const ROOT = fileURLToPath(new URL('../../', import.meta.url));

/** Runs a command to its end; throws with its last words when it fails. */
export function run(command, args, options = {}) {
  const result = spawnSync(command, args, {
    cwd: ROOT,
    encoding: 'utf8',
    stdio: ['ignore', 'pipe', 'pipe'],
    maxBuffer: 64 * 1024 * 1024,
    ...options,
  });
  if (result.error) throw result.error;
  if (result.status !== 0) {
    const words = `${result.stdout ?? ''}${result.stderr ?? ''}`.trim().split('\n').slice(-25).join('\n');
    throw new Error(`${command} ${args.join(' ')} failed (${result.status ?? result.signal}):\n${words}`);
  }
  return result.stdout ?? '';
}

/** Whether a command can be run at all. */
export function has(command) {
  return spawnSync('sh', ['-c', `command -v "${command}"`], { stdio: 'ignore' }).status === 0;
}

/** Starts a child that writes to this terminal; the promise holds its exit code. */
export function start(command, args, options = {}) {
  const child = spawn(command, args, { cwd: ROOT, stdio: 'inherit', ...options });
  const ended = new Promise((resolve) => {
    child.once('error', () => resolve(1));
    child.once('exit', (code, signal) => resolve(code ?? (signal ? 1 : 0)));
  });
  return { child, ended };
}

/** Ends a child and waits until it is gone. */
export async function end({ child, ended }, signal = 'SIGTERM') {
  if (child.exitCode === null && child.signalCode === null) child.kill(signal);
  await ended;
}

export function isRoot() {
  return process.getuid?.() === 0;
}
