import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { newCodeMaterial, Random, WellTyped } from '@brelvin/core';
import type * as core from '@brelvin/core';
import { build } from 'esbuild';
import { ALL_PIXELS, Browser } from '../browser/support/browser';
import { Bench } from '../browser/support/bench';
import { freshDatabase } from '../support/databases';
import { ServerProcess } from '../support/server-process';
import { PATIENCE, spread, time } from './measure';
import type { Report } from './report';

const HEAD = '#version 300 es\nprecision highp float;\nout vec4 pixel;\n';
const ROUNDS = 11;
const SIZES = [100, 2000];

/** Random functions and a `main` that calls them all, of about so many lines. */
function textOf(lines: number): { text: string; sum: string } {
  const functions: string[] = [];
  const calls: string[] = [];
  for (let seed = 1; functions.join('').split('\n').length < lines; seed++) {
    const { name, text } = new WellTyped(new Random(seed), `f${seed}`).program();
    functions.push(text);
    calls.push(name);
  }
  const sum = calls.map((name) => `${name}(vec3(0.5), 1.0, vec2(0.2), 3)`).join(' + ');
  return { text: functions.join(''), sum };
}

/** Files that the reference compiler reads in one run: what its start takes is taken out by a run with one. */
const COPIES = 41;

const OPTIONS = { advice: true, parameters: true, names: { mark: 'typed' } };

/** Times of reading a text into whose middle blanks are typed. */
async function typed(text: string, read: (text: string) => void): Promise<number[]> {
  const at = text.indexOf(' ', text.length >> 1);
  const times: number[] = [];
  for (let key = 0; key < 40; key++) times.push(await time(() => read(text.slice(0, at) + ' '.repeat(key) + text.slice(at))));
  return times.slice(10);
}

/** The core as the pages and the command line have it: as one file. What runs the bench itself makes functions slower. */
async function asItShips(folder: string): Promise<Pick<typeof core, 'elaborate' | 'library'>> {
  const outfile = join(folder, 'core.mjs');
  await build({ entryPoints: ['packages/core/src/index.ts'], outfile, bundle: true, platform: 'node', format: 'esm', target: 'node20' });
  return (await import(outfile)) as typeof core;
}

/** Reading and checking code beside the reference compiler, both warm in one process each, and what a writer waits for. */
export async function benchCode(report: Report): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'brelvin-bench-'));
  const validator = (paths: readonly string[]): Promise<number> => time(() => spawnSync('glslangValidator', [...paths]));
  const { elaborate, library } = await asItShips(folder);
  const { module } = library();
  for (const lines of SIZES) {
    const { text, sum } = textOf(lines);
    const whole = `${HEAD}${text}void main() { pixel = ${sum}; }\n`;
    const path = join(folder, `code${lines}.frag`);
    writeFileSync(path, whole);
    // Under another mark all is read anew, as a text is that nobody read before.
    let mark = 0;
    const read = (): void => void elaborate('code', whole, module, { advice: true, parameters: true, names: { mark: `mine${mark++}` } });
    for (let warm = 0; warm < Math.max(5, 4000 / lines); warm++) read();
    const ratios: number[] = [];
    const own: number[] = [];
    for (let round = 0; round < ROUNDS; round++) {
      const one = await validator([path]);
      const theirs = ((await validator(Array<string>(COPIES).fill(path))) - one) / (COPIES - 1);
      own.push((await time(() => Array.from({ length: COPIES }, read))) / COPIES);
      ratios.push((own.at(-1) ?? 0) / theirs);
    }
    report.figure(`read and check ${lines} lines, ms`, spread(own));
    report.figure(
      `a key in ${lines} lines, ms of reading`,
      spread(await typed(whole, (text) => void elaborate('code', text, module, OPTIONS))),
    );
    report.bound(`read and check ${lines} lines / glslangValidator on the same text, both warm`, spread(ratios), 2);
  }
  await benchTyping(report);
}

/** Runs in the page: types a wrong letter and takes it back, so many times; milliseconds from the key to the words. */
const TYPE = `
  const [rounds, done] = arguments;
  const content = document.querySelector('.cm-content');
  content.focus();
  const said = () => [...document.querySelectorAll('.code-problems li')].some((each) => each.textContent.includes('has no meaning'));
  const until = (wanted) => new Promise((resolve) => {
    const look = () => (said() === wanted ? resolve(performance.now()) : setTimeout(look, 1));
    look();
  });
  (async () => {
    const times = [];
    for (let round = 0; round < rounds; round++) {
      const started = performance.now();
      document.execCommand('insertText', false, '§');
      times.push((await until(true)) - started);
      document.execCommand('delete');
      await until(false);
    }
    done(times);
  })();
`;

async function benchTyping(report: Report): Promise<void> {
  const server = await ServerProcess.start(await freshDatabase());
  const browser = await Browser.open(ALL_PIXELS);
  const bench = new Bench(browser, server.address, PATIENCE);
  try {
    await browser.driver.manage().setTimeouts({ script: PATIENCE });
    for (const lines of SIZES) {
      const { text } = textOf(lines);
      const seenIn = { set: 'set-plain-sphere', rig: 'rig-north-window' };
      const material = newCodeMaterial('Bench', seenIn, { text: `vec4 paint(Surface s) {\n  return vec4(s.place, 1.0);\n}\n${text}` });
      await server.request('POST', '/documents', { id: `typing${lines}`, document: material });
      await bench.openMaterial(`typing${lines}`);
      await bench.click('.cm-content');
      const times: number[] = await browser.driver.executeAsyncScript(TYPE, 8);
      report.figure(`from a key to what is wrong, ${lines} lines, its pause of 140 ms included, ms`, spread(times.slice(1)));
    }
  } finally {
    await browser.close();
    await server.stop();
  }
}
