import { evaluateBuiltin } from '../ir/builtins/table';
import { DiagnosticList, LanguageError } from './diagnostics';
import { tokenize } from './lexer';
import { nearestName } from './nearest-name';
import { ExpressionParser } from './parse-expression';
import { SourceText } from './source';
import type { ExpressionSyntax } from './syntax';
import { TokenReader } from './token-reader';

const CONSTANTS: Readonly<Record<string, number>> = { pi: Math.PI, tau: 2 * Math.PI, e: Math.E };
const FUNCTIONS = new Set([
  ...['sin', 'cos', 'tan', 'asin', 'acos', 'atan', 'radians', 'degrees', 'sqrt', 'inversesqrt', 'pow', 'exp', 'exp2', 'log', 'log2'],
  ...['abs', 'sign', 'floor', 'ceil', 'round', 'trunc', 'fract', 'mod', 'min', 'max', 'clamp', 'mix', 'step', 'smoothstep'],
]);

type Quantity = 'angle' | 'length' | 'time' | 'temperature' | 'stops';
/** What a unit measures, and how much of it in radians, metres, seconds, kelvins or stops it is. */
const UNITS: Readonly<Record<string, readonly [Quantity, number]>> = {
  rad: ['angle', 1],
  deg: ['angle', Math.PI / 180],
  '°': ['angle', Math.PI / 180],
  turn: ['angle', 2 * Math.PI],
  km: ['length', 1000],
  m: ['length', 1],
  cm: ['length', 0.01],
  mm: ['length', 1e-3],
  µm: ['length', 1e-6],
  nm: ['length', 1e-9],
  s: ['time', 1],
  ms: ['time', 1e-3],
  K: ['temperature', 1],
  stops: ['stops', 1],
};
const ARTICLES: Readonly<Record<Quantity, string>> = {
  angle: 'an angle',
  length: 'a length',
  time: 'a time',
  temperature: 'a temperature',
  stops: 'an exposure',
};
const WITH_UNIT = new RegExp(`([\\d.]+(?:e[+-]?\\d+)?)\\s*(${Object.keys(UNITS).join('|')})(?![\\w])`, 'g');
const SHARE = /([\d.]+)\s*%(?=\s*(?:$|\)))/g;
const MORE_OR_LESS = /^([+-])(.+)%$/;

/** What an expression is typed into. */
export interface NumberPlace {
  /** In which the number is shown: of `UNITS`, or `%`; plain numbers where absent: angles count in radians, lengths in metres. */
  readonly unit?: string;
  /** What it is now; `+25 %` is a quarter more. */
  readonly value?: number;
}

/**
 * The value of an expression typed into a number field: `1/3`, `pi/4`, `log2(1.25)`, with units (`30 deg`, `2 mm`), and in
 * parts of what is there (`+25 %`; of an exposure, the stops that make the picture a quarter brighter). Every number counts
 * as a float.
 *
 * @throws Error in plain words
 */
export function evaluateNumber(text: string, { unit, value: present }: NumberPlace = {}): number {
  const typed = text.trim().replace(/,(?=\d)(?![^(]*\))/g, '.');
  const [, sign, share] = MORE_OR_LESS.exec(typed) ?? [];
  if (share !== undefined && present !== undefined && unit !== '%') {
    const factor = 1 + ((sign === '-' ? -1 : 1) * evaluate(share)) / 100;
    if (unit !== 'stops') return present * factor;
    if (factor <= 0) throw new Error('No exposure makes a picture that much darker.');
    return present + Math.log2(factor);
  }
  const plain = typed.replace(SHARE, unit === '%' ? '$1' : '($1/100)');
  return evaluate(plain.replace(WITH_UNIT, (_, number: string, written: string) => `(${number}*${factorOf(written, unit)})`));
}

/** How many units of a field one of another unit is. */
function factorOf(written: string, unit: string | undefined): number {
  const [quantity, size] = UNITS[written] ?? ['length', 1];
  const [wanted, base] = (unit !== undefined && UNITS[unit]) || [quantity, 1];
  if (quantity !== wanted) throw new Error(`“${written}” is ${ARTICLES[quantity]}, and this is ${ARTICLES[wanted]}.`);
  return size / base;
}

function evaluate(text: string): number {
  const source = new SourceText('number', text);
  const diagnostics = new DiagnosticList(source);
  const reader = new TokenReader(tokenize(source, diagnostics));
  const [problem] = diagnostics.items;
  if (problem) throw new Error(problem.message);
  const syntax = new ExpressionParser(reader).expression();
  if (reader.peek().kind !== 'end')
    throw new LanguageError(
      `Expected nothing after ${JSON.stringify(source.slice(syntax))}, found ${reader.describe(reader.peek())}.`,
      reader.peek(),
    );
  const value = compute(syntax);
  if (!Number.isFinite(value)) throw new Error('This has no finite value.');
  return value;
}

function compute(syntax: ExpressionSyntax): number {
  switch (syntax.op) {
    case 'number':
      return syntax.value;
    case 'unary':
      if (syntax.operator === '-') return -compute(syntax.value);
      if (syntax.operator === '+') return compute(syntax.value);
      break;
    case 'binary': {
      const [left, right] = [compute(syntax.left), compute(syntax.right)];
      if (syntax.operator === '+') return left + right;
      if (syntax.operator === '-') return left - right;
      if (syntax.operator === '*') return left * right;
      if (syntax.operator === '/') return left / right;
      if (syntax.operator === '%') return left % right;
      break;
    }
    case 'name': {
      const known = CONSTANTS[syntax.name.toLowerCase()];
      if (known !== undefined) return known;
      throw new LanguageError(unknown(syntax.name, Object.keys(CONSTANTS)), syntax);
    }
    case 'call': {
      const { name } = syntax.callee;
      if (!FUNCTIONS.has(name)) throw new LanguageError(unknown(name, FUNCTIONS), syntax);
      const [value] =
        evaluateBuiltin(
          name,
          syntax.args.map((arg) => [compute(arg)]),
          false,
        ) ?? [];
      if (value !== undefined) return value;
    }
  }
  throw new LanguageError('Only numbers, units, + − × ÷ and functions such as sqrt(2) can stand here.', syntax);
}

function unknown(name: string, candidates: Iterable<string>): string {
  const near = nearestName(name, candidates);
  return `"${name}" is no number${near ? `; did you mean "${near}"?` : '.'}`;
}
