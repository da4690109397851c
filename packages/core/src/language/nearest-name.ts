import { distance } from 'fastest-levenshtein';
import type { Range } from '../ir/origin';
import { write, type CodeMend } from './diagnostics';

/** The candidate that differs least from `name`, if it differs by at most a third of its letters, rounded up. */
export function nearestName(name: string, candidates: Iterable<string>): string | undefined {
  // One letter is near to every other.
  if (name.length < 2) return undefined;
  let best: string | undefined;
  let bestDistance = Math.ceil(name.length / 3) + 1;
  for (const candidate of candidates) {
    if (Math.abs(candidate.length - name.length) >= bestDistance) continue;
    const edits = distance(name.toLowerCase(), candidate.toLowerCase());
    if (edits < bestDistance) {
      best = candidate;
      bestDistance = edits;
    }
  }
  return best;
}

/** A mend that writes the nearest right name. */
export function nearestMend(name: string, range: Range, candidates: Iterable<string>): CodeMend | undefined {
  const near = nearestName(name, candidates);
  return near === undefined ? undefined : write(near, { from: range.from, to: range.from + name.length });
}
