import { spawn } from 'node:child_process';
import {
  broken,
  compileFor,
  elaborate,
  evaluatePacked,
  formatDiagnostic,
  fullScreenCode,
  GLSL_TARGET,
  library,
  newCodeMaterial,
  packFunctions,
  Random,
  WellTyped,
  WGSL_TARGET,
} from '@brelvin/core';
import { computeRow, LONGEST_ROW } from '@brelvin/devices';
import type { ExitCode, Output } from '../output';
import { withGpu } from '../pictures/studio';

/** Random functions in one program for the validator. */
const PACK = 64;

interface Found {
  readonly seed: number;
  readonly what: string;
}

/** What computes random functions, and judges random programs. */
export const LEGS = ['glsl', 'wgsl', 'cpu'] as const;

export interface FuzzOptions {
  readonly seed: number;
  readonly count: number;
  /** glsl: right programs are taken by the reference compiler. wgsl and cpu: functions come to the same, bit by bit. */
  readonly targets: readonly (typeof LEGS)[number][];
  readonly json?: boolean;
}

/**
 * Reads random programs: right ones must be read without an error, and be taken by glslangValidator where it is installed;
 * damaged ones must be told about without an exception. Computes random functions as WGSL on this machine's device and on the
 * CPU: both must come to the same.
 *
 * @throws BadFile where nothing can draw here
 */
export async function fuzz(options: FuzzOptions, output: Output): Promise<ExitCode> {
  const { targets, json } = options;
  if (targets.includes('cpu') && !targets.includes('wgsl')) {
    output.err('The CPU is what others are compared with: write --targets wgsl,cpu.');
    return 2;
  }
  const read = targets.includes('glsl') ? await readAll(options) : undefined;
  const computed = targets.includes('wgsl') ? await computeAll(options) : undefined;
  const found = [...(read?.found ?? []), ...(computed?.found ?? [])];
  const { seed, count } = options;
  if (json) {
    output.out(
      JSON.stringify(
        {
          seed,
          ...(read && { rightPrograms: count, brokenPrograms: count, validated: read.validated }),
          ...(computed && { computed: count }),
          found,
        },
        null,
        2,
      ),
    );
    return found.length > 0 ? 1 : 0;
  }
  for (const each of found) output.err(`seed ${each.seed}: ${each.what}`);
  if (read) {
    const words = read.validator ? `${read.validated} of them by glslangValidator too` : 'glslangValidator is not installed';
    output.out(`${count} right and ${count} broken programs from seed ${seed} on (${words}): ${read.found.length} found.`);
  }
  if (computed)
    output.out(
      `${count} functions from seed ${seed} on, computed as WGSL by ${computed.adapter} and on the CPU: ${computed.found.length} found.`,
    );
  return found.length > 0 ? 1 : 0;
}

/** Functions on both, bit by bit. */
async function computeAll({ seed, count }: FuzzOptions): Promise<{ readonly found: readonly Found[]; readonly adapter: string }> {
  return withGpu(async (gpu, adapter) => {
    const found: Found[] = [];
    for (let first = seed; first < seed + count; first += LONGEST_ROW) {
      const packed = packFunctions(first, Math.min(LONGEST_ROW, seed + count - first));
      const [theirs, ours] = [
        await computeRow(gpu, fullScreenCode(WGSL_TARGET, packed.fragment), packed.functions.length),
        evaluatePacked(packed),
      ];
      packed.functions.forEach(({ text }, index) => {
        const [a, b] = [theirs, ours].map((each) => each.subarray(index * 4, index * 4 + 4).join(' '));
        if (a !== b) found.push({ seed: first + index, what: `${b} on the CPU, ${a} by the device\n${text}` });
      });
    }
    return { found, adapter };
  });
}

interface Read {
  readonly found: readonly Found[];
  readonly validator: boolean;
  readonly validated: number;
}

async function readAll({ seed, count }: FuzzOptions): Promise<Read> {
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
  return { found, validator, validated };
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
