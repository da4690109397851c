import type { Pairing } from './measure';

/** Collects figures against their bounds and prints them. */
export class Report {
  private broken = 0;

  bound(what: string, { median, low, high }: Pairing, most: number, note = ''): void {
    const fine = median <= most;
    if (!fine) this.broken++;
    const figures = `${median.toFixed(3)} (${low.toFixed(3)} … ${high.toFixed(3)})`;
    console.log(`${fine ? 'within ' : 'BEYOND '} ${what}: ${figures}, bound ${most}${note ? `, ${note}` : ''}`);
  }

  figure(what: string, { median, low, high }: Pairing): void {
    console.log(`        ${what}: ${median.toFixed(2)} (${low.toFixed(2)} … ${high.toFixed(2)})`);
  }

  /** A part that could not be measured; the others go on. */
  failed(part: string, error: unknown): void {
    this.broken++;
    console.log(`FAILED  ${part}: ${error instanceof Error ? (error.stack ?? error.message) : String(error)}`);
  }

  get allWithin(): boolean {
    return this.broken === 0;
  }
}
