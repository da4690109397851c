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
  'sin',
  'cos',
  'tan',
  'sqrt',
  'abs',
  'floor',
  'ceil',
  'round',
  'min',
  'max',
  'pow',
  'exp',
  'log',
  'radians',
  'degrees',
]);

/**
 * The value of an expression typed into a number field, e.g. `1/3`, `pi/4`, `sqrt(2)`. Every number counts as
 * a float; degrees are written `45deg`.
 *
 * @throws Error in plain words
 */
export function evaluateNumber(text: string): number {
  const source = new SourceText(
    'number',
    text
      .trim()
      .replace(/,/g, '.')
      .replace(/([\d.]+)\s*(?:deg|°)/g, '($1*pi/180)'),
  );
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
  throw new LanguageError('Only numbers, + − × ÷ and functions such as sqrt(2) can stand here.', syntax);
}

function unknown(name: string, candidates: Iterable<string>): string {
  const near = nearestName(name, candidates);
  return `"${name}" is no number${near ? `; did you mean "${near}"?` : '.'}`;
}
