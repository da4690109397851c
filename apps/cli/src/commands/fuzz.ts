import { spawn } from 'node:child_process';
import { broken, compileFor, elaborate, formatDiagnostic, library, newCodeMaterial, Random, WellTyped, GLSL_TARGET } from '@brelvin/core';
import type { ExitCode, Output } from '../output';

/** Random functions in one program for the validator. */
const PACK = 64;

interface Found {
  readonly seed: number;
  readonly what: string;
}

/**
 * Reads random programs: right ones must be read without an error, and be taken by glslangValidator where it is installed;
 * damaged ones must be told about without an exception.
 */
export async function fuzz({ seed, count, json }: { seed: number; count: number; json?: boolean }, output: Output): Promise<ExitCode> {
  const found: Found[] = [];
  const validator = await hasValidator();
  let validated = 0;
  for (let first = 0; first < count; first += PACK) {
    const seeds = Array.from({ length: Math.min(PACK, count - first) }, (_, index) => seed + first + index);
    const programs = seeds.map((each) => ({ each, ...new WellTyped(new Random(each), `f${each}`).program() }));
    for (const { each, text } of programs) {
      const [error] = elaborate('random', text).diagnostics.filter(({ severity }) => severity === 'error');
      if (error) found.push({ seed: each, what: `a right program is refused: ${formatDiagnostic(error)}` });
      const trouble = readBroken(each, text);
      if (trouble) found.push({ seed: each, what: trouble });
    }
    if (!validator) continue;
    const sum = programs.map(({ name }) => `${name}(s.normal, s.uv.x, s.uv, int(s.copy))`).join(' + ');
    const text = `${programs.map((each) => each.text).join('')}vec4 paint(Surface s) { return ${sum}; }`;
    const { compiled } = compileFor(GLSL_TARGET, newCodeMaterial('random', {}, { text }));
    const said = compiled ? await validate(compiled.program.fragment.text) : 'it does not compile';
    if (said) found.push({ seed: seed + first, what: `the validator refuses a program of ${seeds.length} from this seed on: ${said}` });
    validated += seeds.length;
  }
  const report = { seed, rightPrograms: count, brokenPrograms: count, validated, found };
  if (json) output.out(JSON.stringify(report, null, 2));
  else {
    for (const each of found) output.err(`seed ${each.seed}: ${each.what}`);
    const words = validator ? `${validated} of them by glslangValidator too` : 'glslangValidator is not installed';
    output.out(`${count} right and ${count} broken programs from seed ${seed} on (${words}): ${found.length} found.`);
  }
  return found.length > 0 ? 1 : 0;
}

function readBroken(seed: number, text: string): string | undefined {
  try {
    elaborate('broken', broken(new Random(seed ^ 0x5f5f5f5f), text), library().module, {
      advice: true,
      parameters: true,
      names: { mark: 'mine' },
    });
    return undefined;
  } catch (error) {
    return `a broken program is crashed on: ${error instanceof Error ? error.message : String(error)}`;
  }
}

function hasValidator(): Promise<boolean> {
  return new Promise((resolve) => {
    const child = spawn('glslangValidator', ['--version'], { stdio: 'ignore' });
    child.once('error', () => resolve(false));
    child.once('exit', (code) => resolve(code === 0));
  });
}

/** What the validator says of a fragment program; nothing when it is content. */
function validate(text: string): Promise<string | undefined> {
  return new Promise((resolve) => {
    const child = spawn('glslangValidator', ['--stdin', '-S', 'frag'], { stdio: ['pipe', 'pipe', 'ignore'] });
    let said = '';
    child.stdout.on('data', (data: Buffer) => (said += data.toString('utf8')));
    child.once('error', (error) => resolve(error.message));
    child.once('exit', (code) =>
      resolve(code === 0 ? undefined : (said.split('\n').find((line) => line.includes('ERROR')) ?? said.slice(0, 300))),
    );
    child.stdin.end(text);
  });
}
