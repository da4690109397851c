import { setTimeout as pause } from 'node:timers/promises';

const FIRST_PAUSE_MS = 1000;
const LONGEST_PAUSE_MS = 30_000;
/** After so long it counts as having run well. */
const WELL_MS = 60_000;

/**
 * Runs something again whenever it ends by itself, after a pause that grows while it does not last.
 *
 * @param begin starts it; gives `{ ended, ready }`: what it ended with, and whether it ever was of use
 * @param options.isWanted asked before each further start
 * @param options.tell hears in a sentence what happened
 * @returns what it ended with when it was not wanted any more, or never was of use
 */
export async function keepRunning(begin, { name, isWanted, tell }) {
  for (let wait = FIRST_PAUSE_MS; ;) {
    const started = Date.now();
    const run = begin();
    const code = await run.ended;
    if (!isWanted() || !run.ready()) return code;
    if (Date.now() - started > WELL_MS) wait = FIRST_PAUSE_MS;
    tell(`${name} ended unexpectedly (${code}); it is started again in ${wait / 1000} s.`);
    await pause(wait);
    if (!isWanted()) return code;
    wait = Math.min(wait * 2, LONGEST_PAUSE_MS);
  }
}
