import { spawn } from 'node:child_process';
import { ROOT } from './run.mjs';

/** Runs a command and keeps what it prints; shows it at once, or, when `quiet`, leaves that to the caller. */
export function runStage(command, args, { env = {}, quiet = false } = {}) {
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
        if (!quiet) process.stdout.write(data);
      });
    }
    child.once('error', (error) => resolve({ code: 1, output: `${output}${error.message}` }));
    child.once('exit', (code) => resolve({ code: code ?? 1, output }));
  });
}

/** Specs by their runner's own words; a stage without specs counts as one check. */
export function countSpecs({ code, output }) {
  const jasmine = [...output.matchAll(/(\d+) specs?, (\d+) failures?/g)].at(-1);
  const karma = [
    ...output.matchAll(/TOTAL: (\d+) SUCCESS|TOTAL: (\d+) FAILED, (\d+) SUCCESS|Executed (\d+) of (\d+).*?(?:\((\d+) FAILED\)|SUCCESS)/g),
  ].at(-1);
  if (jasmine) return counted(Number(jasmine[1]), Number(jasmine[2]), code);
  if (karma) {
    const failed = Number(karma[6] ?? karma[2] ?? 0);
    return counted(Number(karma[1] ?? karma[4] ?? Number(karma[2] ?? 0) + Number(karma[3] ?? 0)), failed, code);
  }
  return code === 0 ? { passed: 1, failed: 0 } : { passed: 0, failed: 1 };
}

/** A runner that found no specs, or ended badly without naming one, has failed. */
function counted(total, failed, code) {
  if (total === 0) return { passed: 0, failed: 1 };
  return code === 0 || failed > 0 ? { passed: total - failed, failed } : { passed: total, failed: 1 };
}

/** What failed, in the runner's own words: of Jasmine's specs what stands under its heading, of all else the end of what was printed. */
export function failuresIn({ code, output }) {
  const plain = output.replace(/\x1b\[[0-9;]*[A-Za-z]/g, '');
  const jasmine = [...plain.matchAll(/^Failures:\n([\s\S]*?)^\d+ specs?, /gm)].map(([, told]) => told.trim());
  if (jasmine.length > 0) return jasmine.join('\n');
  const karma = [...plain.matchAll(/^.*\) .+ FAILED\n(?:[ \t]+.*\n)*/gm)].map(([told]) => told.trim());
  if (karma.length > 0) return karma.join('\n');
  return code === 0 ? '' : plain.trimEnd().split('\n').slice(-40).join('\n');
}
