/** Runs Jasmine in Node over the given files, with time enough for a browser. */
import Jasmine from 'jasmine';

const jasmine = new Jasmine();
jasmine.loadConfig({ spec_dir: '.', spec_files: process.argv.slice(2), random: false, stopSpecOnExpectationFailure: false });
jasmine.jasmine.DEFAULT_TIMEOUT_INTERVAL = Number(process.env.SPEC_TIMEOUT ?? 240_000);
await jasmine.execute();
