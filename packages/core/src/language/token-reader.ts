import { LanguageError, write, type CodeMend } from './diagnostics';
import type { Token } from './lexer';

/** A cursor over tokens with the few questions a parser asks. */
export class TokenReader {
  private at = 0;
  /** Why blocks are open at the end. */
  unclosed?: LanguageError;

  constructor(readonly tokens: readonly Token[]) {}

  peek(ahead = 0): Token {
    const token = this.tokens[this.at + ahead] ?? this.tokens.at(-1);
    if (!token) throw new RangeError('a token list ends with an end token');
    return token;
  }

  next(): Token {
    const token = this.peek();
    if (token.kind !== 'end') this.at++;
    return token;
  }

  get last(): Token {
    return this.tokens[Math.max(0, this.at - 1)] ?? this.peek();
  }

  is(text: string, ahead = 0): boolean {
    const token = this.peek(ahead);
    return token.text === text && token.kind !== 'end';
  }

  take(text: string): boolean {
    if (!this.is(text)) return false;
    this.next();
    return true;
  }

  /** @throws LanguageError at the gap where `text` is missing. */
  expect(text: string, where: string): Token {
    if (this.is(text)) return this.next();
    const found = this.peek();
    // A missing closer belongs to the end of what came before, not to the next line's first word.
    const gap = { from: this.last.to, to: this.last.to };
    const closes = text === ';' || text === ')' || text === ']' || text === '}';
    const mend: CodeMend | undefined = closes ? write(text, gap, `Put “${text}”`) : undefined;
    throw new LanguageError(`Expected "${text}" ${where}, found ${this.describe(found)}.`, closes ? gap : found, { mends: [mend] });
  }

  /** Behind the next semicolon or block, where reading can go on after an error. */
  skipDeclaration(): void {
    let depth = 0;
    while (this.peek().kind !== 'end') {
      const { text } = this.next();
      if (text === '{') depth++;
      if (text === '}' && --depth <= 0) return;
      if (text === ';' && depth === 0) return;
    }
  }

  expectName(what: string): Token {
    const token = this.peek();
    if (token.kind === 'name') return this.next();
    throw new LanguageError(`Expected ${what}, found ${this.describe(token)}.`, token);
  }

  describe(token: Token): string {
    return token.kind === 'end' ? 'the end of the code' : `"${token.text}"`;
  }
}
