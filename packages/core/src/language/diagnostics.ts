import { distance } from 'fastest-levenshtein';
import type { Range } from '../ir/origin';
import type { SourceText } from './source';

export interface Diagnostic {
  readonly severity: 'error' | 'warning';
  /** Plain words: what is wrong, and what was expected. */
  readonly message: string;
  readonly path: string;
  readonly range: Range;
  /** Line and column of `range.from`, counted from 1. */
  readonly line: number;
  readonly column: number;
  /** Replacing `range` by this text mends it. */
  readonly replacement?: string;
}

/** Ends the elaboration of one construct; the collector turns it into a diagnostic. */
export class LanguageError extends Error {
  constructor(
    message: string,
    readonly range: Range,
    readonly replacement?: string,
  ) {
    super(message);
  }
}

const MOST_DIAGNOSTICS = 50;

export class DiagnosticList {
  readonly items: Diagnostic[] = [];

  constructor(private readonly source: SourceText) {}

  add(severity: Diagnostic['severity'], message: string, range: Range, replacement?: string): void {
    if (this.items.length >= MOST_DIAGNOSTICS) return;
    const already = this.items.some((item) => item.range.from === range.from && item.message === message);
    if (already) return;
    this.items.push({
      severity,
      message,
      path: this.source.path,
      range,
      ...this.source.position(range.from),
      replacement,
    });
  }

  /** Runs `work`; a LanguageError becomes a diagnostic and `fallback` the result. Anything else is a defect and goes on up. */
  guard<T>(work: () => T, fallback: T): T {
    try {
      return work();
    } catch (error) {
      if (!(error instanceof LanguageError)) throw error;
      this.add('error', error.message, error.range, error.replacement);
      return fallback;
    }
  }
}

/** The candidate that differs least from `name`, if it differs by at most a third of its letters, rounded up. */
export function nearestName(name: string, candidates: Iterable<string>): string | undefined {
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

/** `path:line:column: severity: message`, as compilers print it. */
export function formatDiagnostic(diagnostic: Diagnostic): string {
  const mend = diagnostic.replacement === undefined ? '' : ` Did you mean "${diagnostic.replacement}"?`;
  return `${diagnostic.path}:${diagnostic.line}:${diagnostic.column}: ${diagnostic.severity}: ${diagnostic.message}${mend}`;
}
