import type { Range } from '../ir/origin';
import { write, type DiagnosticList } from './diagnostics';
import type { SourceText } from './source';

export interface Token extends Range {
  readonly kind: 'name' | 'float' | 'int' | 'uint' | 'operator' | 'end';
  readonly text: string;
  /** The documentation comment that stands directly before this token. */
  readonly documentation?: Range;
}

// Longest first, so that "<<=" is not read as "<<" and "=".
const OPERATORS = [
  '<<=',
  '>>=',
  '++',
  '--',
  '<<',
  '>>',
  '<=',
  '>=',
  '==',
  '!=',
  '&&',
  '||',
  '^^',
  '+=',
  '-=',
  '*=',
  '/=',
  '%=',
  '&=',
  '|=',
  '^=',
  '+',
  '-',
  '*',
  '/',
  '%',
  '<',
  '>',
  '=',
  '!',
  '~',
  '&',
  '|',
  '^',
  '?',
  ':',
  ';',
  ',',
  '.',
  '(',
  ')',
  '[',
  ']',
  '{',
  '}',
];

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
const DEFINE = /^#\s*define\s+([A-Za-z_]\w*)\s+(.+?)\s*$/;

/** Splits shading code into tokens. Constant `#define`s are put in place; `#version` is read over. */
export function tokenize(source: SourceText, diagnostics: DiagnosticList): Token[] {
  const { text } = source;
  const tokens: Token[] = [];
  const defines = new Map<string, Token[]>();
  let at = 0;
  let documentation: Range | undefined;

  const match = (pattern: RegExp): string | undefined => {
    pattern.lastIndex = at;
    return pattern.exec(text)?.[0];
  };
  const push = (kind: Token['kind'], length: number): void => {
    tokens.push({ kind, text: text.slice(at, at + length), from: at, to: at + length, documentation });
    documentation = undefined;
    at += length;
  };

  while (at < text.length) {
    const space = match(SPACE) ?? match(LINE_COMMENT);
    if (space) {
      at += space.length;
      continue;
    }
    const comment = match(BLOCK_COMMENT);
    if (comment) {
      if (comment.startsWith('/**')) documentation = { from: at, to: at + comment.length };
      at += comment.length;
      continue;
    }
    if (text.startsWith('/*', at)) {
      const end = { from: text.length, to: text.length };
      diagnostics.add(
        'error',
        'This comment is never closed. Add "*/" where it should end.',
        { from: at, to: at + 2 },
        { mends: [write(' */', end, 'Close it at the end')] },
      );
      break;
    }
    const directive = match(DIRECTIVE);
    if (directive) {
      readDirective(directive, at);
      at += directive.length;
      continue;
    }
    const name = match(NAME);
    if (name) {
      const replacement = defines.get(name);
      if (replacement) {
        for (const token of replacement) tokens.push({ ...token, from: at, to: at + name.length });
        at += name.length;
      } else push('name', name.length);
      continue;
    }
    const float = match(FLOAT);
    if (float) {
      push('float', float.length);
      continue;
    }
    const integer = match(INTEGER);
    if (integer) {
      push(/[uU]$/.test(integer) ? 'uint' : 'int', integer.length);
      continue;
    }
    const operator = OPERATORS.find((each) => text.startsWith(each, at));
    if (operator) {
      push('operator', operator.length);
      continue;
    }
    const words = match(QUOTED);
    if (words) {
      diagnostics.add('error', 'Words in quotes have no meaning in shading code.', { from: at, to: at + words.length });
      at += words.length;
      continue;
    }
    const character = String.fromCodePoint(text.codePointAt(at) ?? 0);
    diagnostics.add('error', `The character "${character}" has no meaning here.`, { from: at, to: at + character.length });
    at += character.length;
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
