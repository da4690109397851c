import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { elaborate, library, newCodeMaterial, Random, WellTyped } from '@brelvin/core';
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

/** Reading and checking code beside the reference compiler, and what a writer waits for. */
export async function benchCode(report: Report): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'brelvin-bench-'));
  const validator = (path: string): Promise<number> => time(() => spawnSync('glslangValidator', ['-S', 'frag', path]));
  const empty = join(folder, 'empty.frag');
  writeFileSync(empty, `${HEAD}void main() { pixel = vec4(1.0); }\n`);
  library();
  for (const lines of SIZES) {
    const { text, sum } = textOf(lines);
    const whole = `${HEAD}${text}void main() { pixel = ${sum}; }\n`;
    const path = join(folder, `code${lines}.frag`);
    writeFileSync(path, whole);
    const options = { advice: true, parameters: true, names: { mark: 'mine' } };
    for (let warm = 0; warm < 5; warm++) elaborate('code', whole, library().module, options);
    const ratios: number[] = [];
    const own: number[] = [];
    for (let round = 0; round < ROUNDS; round++) {
      const started = await validator(empty);
      const theirs = (await validator(path)) - started;
      own.push(await time(() => elaborate('code', whole, library().module, options)));
      if (theirs > 0) ratios.push((own.at(-1) ?? 0) / theirs);
    }
    report.figure(`read and check ${lines} lines, ms`, spread(own));
    report.figure(`read and check ${lines} lines / glslangValidator on the same text, its start taken out`, spread(ratios));
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
