import type { Range } from '../ir/origin';
import type { Expansion } from './preprocessor/macro';
import type { SourceText } from './source';

/** Text in place of a range of the source; an empty range inserts. */
export interface TextEdit extends Range {
  readonly text: string;
}

/** A way to mend what is wrong: what it does, in a few words, and the edits that do it, from first to last. */
export interface CodeMend {
  readonly label: string;
  readonly edits: readonly TextEdit[];
}

/** Another place that explains a diagnostic: “declared here”. */
export interface RelatedPlace {
  readonly message: string;
  readonly path: string;
  readonly range: Range;
  readonly line: number;
  readonly column: number;
}

export interface Diagnostic {
  readonly severity: 'error' | 'warning';
  /** Plain words: what is wrong, and what was expected. */
  readonly message: string;
  readonly path: string;
  readonly range: Range;
  /** Line and column of `range.from`, counted from 1. */
  readonly line: number;
  readonly column: number;
  readonly mends?: readonly CodeMend[];
  readonly related?: readonly RelatedPlace[];
}

/** What can be said besides the message. */
export interface DiagnosticMore {
  readonly mends?: readonly (CodeMend | undefined)[];
  /** Where in the same text the thing was declared. */
  readonly declared?: Range;
}

/** Ends the elaboration of one construct; the collector turns it into a diagnostic. */
export class LanguageError extends Error {
  constructor(
    message: string,
    readonly range: Range,
    readonly more: DiagnosticMore = {},
  ) {
    super(message);
  }
}

/** Ends a construct about whose reason something was said before. */
export class KnownTrouble extends LanguageError {
  constructor(range: Range) {
    super('', range);
  }
}

/** A mend that writes other text over a range. */
export function write(text: string, { from, to }: Range, label = `Write “${text}”`): CodeMend {
  return { label, edits: [{ from, to, text }] };
}

const MOST_DIAGNOSTICS = 50;

interface SaidUntil {
  readonly all: number;
  readonly said: number;
}

export class DiagnosticList {
  /** What is told: the first ones. */
  readonly items: Diagnostic[] = [];
  private readonly all: Diagnostic[] = [];
  private readonly known = new Set<string>();
  /** Where something could not be read because of an error that is said elsewhere. */
  private readonly troubles: Range[] = [];
  /** How often something was said, or not said again. */
  private said = 0;

  private expansions: readonly Expansion[] = [];

  constructor(readonly source: SourceText) {}

  /** Where macros were put in place in the text: what is wrong there is wrong in their definition. */
  expandedBy(expansions: readonly Expansion[]): void {
    this.expansions = expansions;
  }

  add(severity: Diagnostic['severity'], message: string, range: Range, more: DiagnosticMore = {}): void {
    this.said++;
    if (this.expansions.length === 0) this.put(severity, message, range, more);
    else if (!(severity === 'error' && this.endedByMacro(range))) this.put(severity, message, range, this.throughMacro(range, more));
  }

  /** An error behind a macro whose definition ends with a semicolon: that is what is wrong. */
  private endedByMacro(range: Range): boolean {
    const { text } = this.source;
    const blamed = this.expansions.find(
      ({ macro, from, to }) =>
        macro.body.at(-1)?.text === ';' && from <= range.from && !/[;\n]/.test(text.slice(to, range.from).trimStart()),
    );
    const end = blamed?.macro.body.at(-1);
    if (!blamed || !end) return false;
    const { name } = blamed.macro;
    this.put('error', `The macro “${name}” ends with “;”, which is put in place with it. Take it away.`, end, {
      mends: [write('', end, 'Take “;” away')],
      declared: blamed,
    });
    return true;
  }

  /** What comes from a macro is shown with its definition, and mended only where that changes nothing else. */
  private throughMacro(range: Range, { mends = [], declared }: DiagnosticMore): DiagnosticMore {
    const touches = (each: Range): Expansion | undefined =>
      this.expansions.find(({ from, macro }) => each.from < from + macro.name.length && each.to > from);
    const through = touches(range);
    const safe = mends.filter((mend) => !mend?.edits.some((edit) => (touches(edit)?.macro.body.length ?? 0) > 1));
    return { mends: through && through.macro.body.length > 1 ? [] : safe, declared: declared ?? through?.macro.defined };
  }

  private put(severity: Diagnostic['severity'], message: string, range: Range, { mends = [], declared }: DiagnosticMore): void {
    const key = `${range.from} ${message}`;
    if (this.known.has(key)) return;
    this.known.add(key);
    const { path } = this.source;
    const real = mends.filter((each) => each !== undefined);
    this.all.push({
      severity,
      message,
      path,
      range: { from: range.from, to: range.to },
      ...this.source.position(range.from),
      ...(real.length > 0 ? { mends: real } : {}),
      ...(declared ? { related: [{ message: 'Declared here.', path, range: declared, ...this.source.position(declared.from) }] } : {}),
    });
    const last = this.all.at(-1);
    if (last && this.items.length < MOST_DIAGNOSTICS) this.items.push(last);
  }

  /** How much was said until now. */
  get mark(): SaidUntil {
    return { all: this.all.length, said: this.said };
  }

  /** What was said since, where it speaks of nothing outside of a range; nothing otherwise. */
  saidWithin({ from, to }: Range, since: SaidUntil): readonly Diagnostic[] | undefined {
    const items = this.all.slice(since.all);
    const isIn = (range: Range): boolean => range.from >= from && range.to <= to;
    const all = items.every(
      ({ range, mends = [], related = [] }) =>
        isIn(range) && mends.every(({ edits }) => edits.every(isIn)) && related.every((each) => isIn(each.range)),
    );
    return all && this.said - since.said === items.length ? items : undefined;
  }

  /** Says once more what was said of a text that has moved since. */
  sayAgain(items: readonly Diagnostic[], by: number): void {
    const moved = <T extends Range>(range: T): T => ({ ...range, from: range.from + by, to: range.to + by });
    for (const { severity, message, range, mends, related = [] } of items) {
      this.said++;
      this.put(severity, message, moved(range), {
        mends: mends?.map((mend) => ({ ...mend, edits: mend.edits.map(moved) })),
        declared: related[0] && moved(related[0].range),
      });
    }
  }

  /** Whether something that lies wholly inside a range could not be read, here or because of an error elsewhere. */
  hasErrorIn(range: Range): boolean {
    const isIn = (each: Range): boolean => each.from >= range.from && each.to <= range.to;
    return this.all.some((each) => each.severity === 'error' && isIn(each.range)) || this.troubles.some(isIn);
  }

  /** Runs `work`; a LanguageError becomes a diagnostic and `fallback` the result. Anything else is a defect and goes on up. */
  guard<T>(work: () => T, fallback: T): T {
    try {
      return work();
    } catch (error) {
      if (!(error instanceof LanguageError)) throw error;
      if (error instanceof KnownTrouble) {
        this.troubles.push(error.range);
        this.said++;
      } else this.add('error', error.message, error.range, error.more);
      return fallback;
    }
  }
}

/** `path:line:column: severity: message`, as compilers print it. */
export function formatDiagnostic({ path, line, column, severity, message, mends = [] }: Diagnostic): string {
  const mend = mends.map(({ label }) => ` ${label}.`).join('');
  return `${path}:${line}:${column}: ${severity}: ${message}${mend && ` To mend:${mend}`}`;
}

/** A text with edits made in it. */
export function withEdits(text: string, edits: readonly TextEdit[]): string {
  return [...edits]
    .sort((a, b) => b.from - a.from)
    .reduce((result, { from, to, text: put }) => result.slice(0, from) + put + result.slice(to), text);
}
