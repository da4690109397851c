import type { Origin } from '../../ir/origin';

/** Text that was written by us; `lines[i]` says what line i (from 0) was made of. */
export interface EmittedSource {
  readonly text: string;
  readonly lines: readonly (Origin | undefined)[];
}

/** Collects lines with their origins. */
export class LineWriter {
  private readonly text: string[] = [];
  private readonly origins: (Origin | undefined)[] = [];
  private indent = 0;

  line(text: string, origin?: Origin): void {
    this.text.push(text === '' ? '' : '  '.repeat(this.indent) + text);
    this.origins.push(origin);
  }

  indented(work: () => void): void {
    this.indent++;
    work();
    this.indent--;
  }

  /** With one empty line where there are several. */
  finishTidy(): EmittedSource {
    const kept = this.text.map((line, index) => line !== '' || this.text[index - 1] !== '');
    const text = this.text.filter((_, index) => kept[index]);
    return { text: `${text.join('\n')}\n`, lines: this.origins.filter((_, index) => kept[index]) };
  }

  finish(): EmittedSource {
    return { text: `${this.text.join('\n')}\n`, lines: this.origins };
  }
}

/** What the given line (from 1) of the emitted text was made of: its own origin, or that of the nearest line above. */
export function originOfLine(source: EmittedSource, line: number): Origin | undefined {
  for (let index = Math.min(line, source.lines.length) - 1; index >= 0; index--) {
    const origin = source.lines[index];
    if (origin) return origin;
  }
  return undefined;
}
