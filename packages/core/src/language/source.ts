import type { Range } from '../ir/origin';

/** One text of shading code under the name by which diagnostics and source maps call it. */
export class SourceText {
  private readonly lineStarts: readonly number[];

  constructor(
    readonly path: string,
    readonly text: string,
  ) {
    const starts = [0];
    for (let at = text.indexOf('\n'); at >= 0; at = text.indexOf('\n', at + 1)) starts.push(at + 1);
    this.lineStarts = starts;
  }

  /** Line and column of an offset, both counted from 1. */
  position(offset: number): { line: number; column: number } {
    let low = 0;
    let high = this.lineStarts.length - 1;
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if ((this.lineStarts[middle] ?? 0) <= offset) low = middle;
      else high = middle - 1;
    }
    return { line: low + 1, column: offset - (this.lineStarts[low] ?? 0) + 1 };
  }

  slice(range: Range): string {
    return this.text.slice(range.from, range.to);
  }
}
