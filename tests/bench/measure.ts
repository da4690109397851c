/** Milliseconds until a wait gives up: long, for a machine that has more to do. */
export const PATIENCE = 240_000;

/** Paired measurements: A and B in turn within one run, so that the machine's drift falls on both. */
export interface Pairing {
  readonly median: number;
  readonly low: number;
  readonly high: number;
}

export function quantile(sorted: readonly number[], share: number): number {
  const at = (sorted.length - 1) * share;
  const low = sorted[Math.floor(at)] ?? NaN;
  const high = sorted[Math.ceil(at)] ?? NaN;
  return low + (high - low) * (at - Math.floor(at));
}

/** Median of the numbers, with the interval that holds the middle half. */
export function spread(numbers: readonly number[]): Pairing {
  const sorted = [...numbers].sort((a, b) => a - b);
  return { median: quantile(sorted, 0.5), low: quantile(sorted, 0.25), high: quantile(sorted, 0.75) };
}

export async function time(work: () => unknown): Promise<number> {
  const started = performance.now();
  await work();
  return performance.now() - started;
}

/** Ratios A/B of `rounds` pairs, after one pair that is not counted. */
export async function ratio(rounds: number, a: () => unknown, b: () => unknown): Promise<Pairing> {
  await time(a);
  await time(b);
  const ratios: number[] = [];
  for (let round = 0; round < rounds; round++) {
    const first = round % 2 === 0;
    const [one, two] = first ? [await time(a), await time(b)] : [await time(b), await time(a)];
    ratios.push(first ? one / two : two / one);
  }
  return spread(ratios);
}
