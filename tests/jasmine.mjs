/** Runs Jasmine in Node over the given files, with time enough for a browser, and names the specs that took long. */
import Jasmine from 'jasmine';

const SLOW = 5_000;
const slow = [];

const jasmine = new Jasmine();
jasmine.loadConfig({ spec_dir: '.', spec_files: process.argv.slice(2), random: false, stopSpecOnExpectationFailure: false });
jasmine.jasmine.DEFAULT_TIMEOUT_INTERVAL = Number(process.env.SPEC_TIMEOUT ?? 400_000);
jasmine.addReporter({
  specDone: ({ fullName, duration }) => {
    if (duration > SLOW) slow.push({ fullName, duration });
  },
  jasmineDone: () => {
    if (slow.length > 0) console.log('\nseconds   slow specs');
    for (const { fullName, duration } of slow.sort((a, b) => b.duration - a.duration))
      console.log(`${(duration / 1000).toFixed(1).padStart(7)}   ${fullName}`);
  },
});
await jasmine.execute();
