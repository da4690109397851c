import type { Range } from '../ir/origin';
import { write, type DiagnosticList } from './diagnostics';
import { logicalText, type LogicalText } from './preprocessor/logical-text';
import type { Token } from './token';

const SPACE = /[ \t\r\n\f\v]+/y;
const SPACE_IN_LINE = /[ \t\r\f\v]+/y;
const LINE_COMMENT = /\/\/[^\n]*/y;
const BLOCK_COMMENT = /\/\*[\s\S]*?\*\//y;
const FLOAT = /(?:\d+\.\d*|\.\d+)(?:[eE][+-]?\d+)?[fF]?|\d+[eE][+-]?\d+[fF]?/y;
const INTEGER = /(?:0[xX][0-9a-fA-F]+|\d+)[uU]?/y;
/** What is stuck to a number and does not belong to one. */
const STUCK = /[A-Za-z_0-9]+/y;
const QUOTED = /"[^"\n]*"|'[^'\n]*'/y;
// Longest first, so that "<<=" is not read as "<<" and "=".
const OPERATOR = /<<=|>>=|\+\+|--|<<|>>|[<>=!+\-*/%&|^]=|&&|\|\||\^\^|[-+*/%<>=!~&|^?:;,.()[\]{}]/y;
const REST_OF_LINE = /[^\n]*/y;

/** What a token may begin with, by the code of a character: most of a text is told apart by one look. */
const NAME = 1;
const NUMBER = 2;
/** A bracket or mark that is no part of a longer operator. */
const MARK = 3;
const BEGINS = new Uint8Array(128);
for (const each of 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz_') BEGINS[each.charCodeAt(0)] = NAME;
for (const each of '0123456789') BEGINS[each.charCodeAt(0)] = NUMBER;
for (const each of '()[]{},;:?~') BEGINS[each.charCodeAt(0)] = MARK;
const SLASH = '/'.charCodeAt(0);
const BLANK = ' '.charCodeAt(0);

/** Splits a text into tokens, one at a time; lines of the preprocessor are handed out as such. */
export class Scanner {
  private readonly logical: LogicalText;
  private readonly text: string;
  private at = 0;
  /** Nothing but space and comments stands before on this line. */
  private lineBegins = true;
  private documentation: Range | undefined;
  private quiet = false;

  constructor(
    text: string,
    private readonly diagnostics: DiagnosticList,
  ) {
    this.logical = logicalText(text);
    this.text = this.logical.text;
  }

  /** The next token outside of directives; `#` where a directive begins, read on by `line`; nothing at the end. */
  next(): Token | '#' | undefined {
    for (;;) {
      this.space(SPACE);
      if (this.at >= this.text.length) return undefined;
      if (this.text[this.at] === '#' && this.lineBegins) {
        this.at++;
        return '#';
      }
      const token = this.token();
      if (token) return token;
    }
  }

  /** The tokens up to the end of the line. */
  line(): Token[] {
    const tokens: Token[] = [];
    for (;;) {
      this.space(SPACE_IN_LINE);
      if (this.at >= this.text.length || this.text[this.at] === '\n') {
        this.documentation = undefined;
        return tokens;
      }
      const token = this.token();
      if (token) tokens.push(token);
    }
  }

  /** The rest of the line as it is written, without comments at its end. */
  words(): string {
    const words = this.text.slice(this.at, this.at + this.span(REST_OF_LINE)).replace(/\/\/.*$|\/\*.*?\*\//g, '');
    this.at += this.span(REST_OF_LINE);
    return words.trim();
  }

  /** Passes over text that is not compiled, up to the next line of the preprocessor. @returns whether there is one */
  skip(): boolean {
    this.quiet = true;
    try {
      while (this.at < this.text.length) {
        this.space(SPACE);
        if (this.text[this.at] === '#' && this.lineBegins) {
          this.at++;
          return true;
        }
        this.lineBegins = false;
        this.at++;
      }
      return false;
    } finally {
      this.quiet = false;
    }
  }

  /** Whether a bracket opens right here, without a space: `#define F(x)`. */
  get opensHere(): boolean {
    return this.text[this.at] === '(';
  }

  /** The place in the written text up to which was read. */
  get place(): number {
    return this.logical.written(this.at);
  }

  private space(pattern: RegExp): void {
    // One blank between words is what stands there most often.
    if (this.text.charCodeAt(this.at) === BLANK) this.at++;
    const code = this.text.charCodeAt(this.at);
    if (code > BLANK && code !== SLASH) return;
    for (let length = 0; this.at < this.text.length;) {
      const from = this.at;
      if ((length = this.span(pattern))) {
        this.at += length;
        if (this.text.slice(from, this.at).includes('\n')) this.lineBegins = true;
      } else if (this.text[from] !== '/') return;
      else if ((length = this.span(LINE_COMMENT))) this.at += length;
      else if ((length = this.span(BLOCK_COMMENT))) {
        this.at += length;
        if (this.text.startsWith('/**', from)) this.documentation = this.range(from, this.at);
      } else if (this.text.startsWith('/*', from)) {
        this.openComment(from);
        this.at = this.text.length;
      } else return;
    }
  }

  private openComment(from: number): void {
    if (this.quiet) return;
    const line = this.text.indexOf('\n', from);
    const end = this.logical.written(line < 0 ? this.text.length : line);
    const mends = [write(' */', { from: end, to: end }, 'Close it at the end of the line')];
    this.diagnostics.add('error', 'This comment is never closed. Add "*/" where it should end.', this.range(from, from + 2), { mends });
  }

  private token(): Token | undefined {
    this.lineBegins = false;
    let length = 0;
    const begins = BEGINS[this.text.charCodeAt(this.at)];
    if (begins === NAME) return this.push('name', this.nameLength());
    if (begins === MARK) return this.push('operator', 1);
    if ((length = this.span(FLOAT))) return this.number('float', length);
    if ((length = this.span(INTEGER))) {
      return this.number(/[uU]/.test(this.text.charAt(this.at + length - 1)) ? 'uint' : 'int', length);
    }
    if ((length = this.span(OPERATOR))) return this.push('operator', length);
    if ((length = this.span(QUOTED))) return this.refuse(length, 'Words in quotes have no meaning in shading code.');
    const character = String.fromCodePoint(this.text.codePointAt(this.at) ?? 0);
    const message =
      character === '#'
        ? 'A line of the preprocessor begins with "#"; nothing stands before it.'
        : `The character "${character}" has no meaning here.`;
    return this.refuse(character.length, message);
  }

  private nameLength(): number {
    let end = this.at + 1;
    while (isOfName(BEGINS[this.text.charCodeAt(end)])) end++;
    return end - this.at;
  }

  private number(kind: 'float' | 'int' | 'uint', length: number): Token {
    this.at += length;
    const stuck = this.span(STUCK);
    this.at -= length;
    if (stuck === 0) return this.push(kind, length);
    const whole = this.text.slice(this.at, this.at + length + stuck);
    const range = this.range(this.at, this.at + length + stuck);
    const float = kind === 'int' && /^\d+[fF]$/.test(whole);
    const [message, mend] = float
      ? [`A float has a point: ${whole.slice(0, -1)}.0.`, write(`${whole.slice(0, -1)}.0`, range)]
      : [`"${whole.slice(0, 40)}" is neither a number nor a name.`, undefined];
    this.diagnostics.add('error', message, range, { mends: [mend] });
    return this.push(float ? 'float' : kind, length + stuck);
  }

  private refuse(length: number, message: string): undefined {
    this.diagnostics.add('error', message, this.range(this.at, this.at + length));
    this.at += length;
  }

  private push(kind: Token['kind'], length: number): Token {
    const [at, end] = [this.at, this.at + length];
    const from = this.logical.written(at);
    const to = this.logical.written(end - 1) + 1;
    const token: Token = { kind, text: this.text.slice(at, end), from, to, documentation: this.documentation };
    this.documentation = undefined;
    this.at += length;
    return token;
  }

  /** How many characters from here on fit a pattern. */
  private span(pattern: RegExp): number {
    pattern.lastIndex = this.at;
    return pattern.test(this.text) ? pattern.lastIndex - this.at : 0;
  }

  private range(from: number, to: number): Range {
    return { from: this.logical.written(from), to: to > from ? this.logical.written(to - 1) + 1 : this.logical.written(to) };
  }
}

function isOfName(begins: number | undefined): boolean {
  return begins === NAME || begins === NUMBER;
}
