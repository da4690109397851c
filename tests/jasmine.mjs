/**
 * Runs Jasmine in Node over the given files, with time enough for a browser, and names the specs that took long. With
 * SPEC_SECONDS it keeps there how long each file took.
 */
import { writeFileSync } from 'node:fs';
import { basename } from 'node:path';
import Jasmine from 'jasmine';

const SLOW = 5_000;
const slow = [];
const seconds = {};
let last = performance.now();

const jasmine = new Jasmine();
jasmine.loadConfig({ spec_dir: '.', spec_files: process.argv.slice(2), random: false, stopSpecOnExpectationFailure: false });
jasmine.jasmine.DEFAULT_TIMEOUT_INTERVAL = Number(process.env.SPEC_TIMEOUT ?? 400_000);
jasmine.addReporter({
  specDone: ({ fullName, duration }) => {
    if (duration > SLOW) slow.push({ fullName, duration });
  },
  suiteDone: ({ filename }) => {
    // What begins and ends a suite counts, too.
    const now = performance.now();
    const file = basename(filename);
    seconds[file] = (seconds[file] ?? 0) + (now - last) / 1000;
    last = now;
  },
  jasmineDone: () => {
    if (slow.length > 0) console.log('\nseconds   slow specs');
    for (const { fullName, duration } of slow.sort((a, b) => b.duration - a.duration))
      console.log(`${(duration / 1000).toFixed(1).padStart(7)}   ${fullName}`);
    if (process.env.SPEC_SECONDS) writeFileSync(process.env.SPEC_SECONDS, JSON.stringify(seconds));
  },
});
await jasmine.execute();
