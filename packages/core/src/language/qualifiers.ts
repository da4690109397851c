import { LanguageError, write, type DiagnosticList } from './diagnostics';
import type { Token } from './lexer';
import { oldStorage } from './old-spellings';
import type { TokenReader } from './token-reader';

export const PRECISIONS: ReadonlySet<string> = new Set(['lowp', 'mediump', 'highp']);

/** What stands before the type of a variable outside of functions. */
export interface Qualifiers {
  readonly storage?: 'in' | 'out' | 'uniform' | 'const';
  readonly flat: boolean;
  readonly invariant: boolean;
  readonly location?: number;
}

/** The order in which they stand (GLSL ES 3.00 specification, section 4.7). */
const RANKS: Readonly<Record<string, number>> = {
  layout: 0,
  invariant: 1,
  flat: 2,
  smooth: 2,
  centroid: 3,
  in: 4,
  out: 4,
  uniform: 4,
  const: 4,
  lowp: 5,
  mediump: 5,
  highp: 5,
};

const LAYOUTS = ['location', 'std140', 'shared', 'packed', 'row_major', 'column_major'];

/** Reads qualifiers. Precision and layout in memory are ours to choose and are read over. */
export class QualifierReader {
  constructor(
    private readonly reader: TokenReader,
    private readonly diagnostics: DiagnosticList,
    private readonly stage: 'vertices' | 'pixels',
  ) {}

  read(): Qualifiers {
    let storage: Qualifiers['storage'];
    let location: number | undefined;
    const seen = new Map<string, Token>();
    let last: Token | undefined;
    for (;;) {
      const word = this.reader.peek();
      const old = oldStorage(word.text, this.stage);
      const name = old ?? word.text;
      const rank = Object.hasOwn(RANKS, name) ? RANKS[name] : undefined;
      if (rank === undefined || word.kind !== 'name') break;
      this.reader.next();
      if (old) this.sayOld(word, old);
      if (seen.has(name) && name !== 'layout') throw new LanguageError(`“${word.text}” stands twice.`, word);
      if (last && rank < (RANKS[last.text] ?? 0)) throw new LanguageError(`“${word.text}” stands before “${last.text}”.`, word);
      if (last && rank === RANKS[last.text] && rank > 0)
        throw new LanguageError(`“${last.text}” and “${word.text}” exclude each other.`, word);
      seen.set(name, word);
      last = { ...word, text: name };
      if (name === 'layout') location = this.layout() ?? location;
      if (name === 'in' || name === 'out' || name === 'uniform' || name === 'const') storage = name;
    }
    for (const each of ['flat', 'smooth', 'centroid']) {
      const word = seen.get(each);
      if (word && storage !== 'in' && storage !== 'out')
        throw new LanguageError(`“${each}” is for what goes from vertices to pixels: “in” or “out”.`, word);
    }
    return { storage, flat: seen.has('flat'), invariant: seen.has('invariant'), location };
  }

  private sayOld(word: Token, today: string): void {
    this.diagnostics.add('error', `“${word.text}” is from an older version of the language; today it is “${today}”.`, word, {
      mends: [write(today, word)],
    });
  }

  /** `layout(location = 0)` @returns the location, if one is given */
  private layout(): number | undefined {
    this.reader.expect('(', 'after "layout"');
    let location: number | undefined;
    do {
      const name = this.reader.expectName('the name of a layout');
      if (!LAYOUTS.includes(name.text)) {
        throw new LanguageError(`There is no layout “${name.text}”. There are ${LAYOUTS.join(', ')}.`, name);
      }
      if (name.text !== 'location') continue;
      this.reader.expect('=', 'after "location"');
      const number = this.reader.next();
      if (number.kind !== 'int' && number.kind !== 'uint') throw new LanguageError('A location is a whole number from 0.', number);
      location = Number(number.text.replace(/[uU]$/, ''));
    } while (this.reader.take(','));
    this.reader.expect(')', 'after the layout');
    return location;
  }
}
