import type { Range } from '../ir/origin';
import { write, type DiagnosticList } from './diagnostics';
import type { SourceText } from './source';

export interface Token extends Range {
  readonly kind: 'name' | 'float' | 'int' | 'uint' | 'operator' | 'end';
  readonly text: string;
  /** The documentation comment that stands directly before this token. */
  readonly documentation?: Range;
}

/** Words that a #define may stand for. */
const LONGEST_DEFINE = 64;

const SPACE = /[ \t\r\n\f\v]+/y;
const LINE_COMMENT = /\/\/[^\n]*/y;
const BLOCK_COMMENT = /\/\*[\s\S]*?\*\//y;
const DIRECTIVE = /#[^\n]*/y;
const FLOAT = /(?:\d+\.\d*|\.\d+)(?:[eE][+-]?\d+)?[fF]?|\d+[eE][+-]?\d+[fF]?|\d+[fF]/y;
const INTEGER = /(?:0[xX][0-9a-fA-F]+|\d+)[uU]?/y;
const QUOTED = /"[^"\n]*"|'[^'\n]*'/y;
const NAME = /[A-Za-z_][A-Za-z0-9_]*/y;
// Longest first, so that "<<=" is not read as "<<" and "=".
const OPERATOR = /<<=|>>=|\+\+|--|<<|>>|[<>=!+\-*/%&|^]=|&&|\|\||\^\^|[-+*/%<>=!~&|^?:;,.()[\]{}]/y;
const DEFINE = /^#\s*define\s+([A-Za-z_]\w*)\s+(.+?)\s*$/;

/** Splits shading code into tokens. Constant `#define`s are put in place; `#version` is read over. */
export function tokenize(source: SourceText, diagnostics: DiagnosticList): Token[] {
  const { text } = source;
  const tokens: Token[] = [];
  const defines = new Map<string, Token[]>();
  let at = 0;
  let documentation: Range | undefined;

  /** How many characters from here on fit a pattern. */
  const span = (pattern: RegExp): number => {
    pattern.lastIndex = at;
    return pattern.test(text) ? pattern.lastIndex - at : 0;
  };
  const push = (kind: Token['kind'], length: number): void => {
    tokens.push({ kind, text: text.slice(at, at + length), from: at, to: at + length, documentation });
    documentation = undefined;
    at += length;
  };
  const named = (length: number): void => {
    const replacement = defines.get(text.slice(at, at + length));
    if (!replacement) {
      push('name', length);
      return;
    }
    for (const token of replacement) tokens.push({ ...token, from: at, to: at + length });
    at += length;
  };

  // What is frequent is tried first: nothing else begins like a space or a name.
  for (let length = 0; at < text.length;) {
    if ((length = span(SPACE))) at += length;
    else if ((length = span(NAME))) named(length);
    else if ((length = span(LINE_COMMENT))) at += length;
    else if ((length = span(BLOCK_COMMENT))) {
      if (text.startsWith('/**', at)) documentation = { from: at, to: at + length };
      at += length;
    } else if (text.startsWith('/*', at)) {
      const end = { from: text.length, to: text.length };
      diagnostics.add(
        'error',
        'This comment is never closed. Add "*/" where it should end.',
        { from: at, to: at + 2 },
        { mends: [write(' */', end, 'Close it at the end')] },
      );
      break;
    } else if ((length = span(FLOAT))) push('float', length);
    else if ((length = span(INTEGER))) push(/[uU]/.test(text.charAt(at + length - 1)) ? 'uint' : 'int', length);
    else if ((length = span(OPERATOR))) push('operator', length);
    else if ((length = span(DIRECTIVE))) {
      readDirective(text.slice(at, at + length), at);
      at += length;
    } else if ((length = span(QUOTED))) {
      diagnostics.add('error', 'Words in quotes have no meaning in shading code.', { from: at, to: at + length });
      at += length;
    } else {
      const character = String.fromCodePoint(text.codePointAt(at) ?? 0);
      diagnostics.add('error', `The character "${character}" has no meaning here.`, { from: at, to: at + character.length });
      at += character.length;
    }
  }
  tokens.push({ kind: 'end', text: '', from: text.length, to: text.length });
  return tokens;

  function readDirective(line: string, from: number): void {
    if (/^#\s*version\b/.test(line) || /^#\s*$/.test(line)) return;
    const range = { from, to: from + line.trimEnd().length };
    const define = DEFINE.exec(line);
    const [, name, value] = define ?? [];
    if (!name || !value || line.includes(`${name}(`)) {
      diagnostics.add('error', 'Only "#version" and "#define NAME constant" are understood. Use a function or a const instead.', range);
      return;
    }
    const inner = { position: source.position.bind(source), path: source.path, text: value } as unknown as SourceText;
    const put = tokenize(inner, diagnostics)
      .slice(0, -1)
      .flatMap((token) => (token.kind === 'name' ? (defines.get(token.text) ?? [token]) : [token]));
    if (put.length > LONGEST_DEFINE) {
      diagnostics.add('error', `A #define may stand for at most ${LONGEST_DEFINE} words. Use a function instead.`, range);
      return;
    }
    defines.set(name, put);
  }
}
