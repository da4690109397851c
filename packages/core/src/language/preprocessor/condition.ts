import { LanguageError } from '../diagnostics';
import type { Token } from '../token';

/** Binding strength of the operators of `#if`, GLSL ES 3.00 section 3.4. */
const STRENGTHS: Readonly<Record<string, number>> = {
  '||': 1,
  '&&': 2,
  '|': 3,
  '^': 4,
  '&': 5,
  '==': 6,
  '!=': 6,
  '<': 7,
  '>': 7,
  '<=': 7,
  '>=': 7,
  '<<': 8,
  '>>': 8,
  '+': 9,
  '-': 9,
  '*': 10,
  '/': 10,
  '%': 10,
};

const OPERATIONS: Readonly<Record<string, (a: number, b: number) => number>> = {
  '||': (a, b) => Number(a !== 0 || b !== 0),
  '&&': (a, b) => Number(a !== 0 && b !== 0),
  '|': (a, b) => a | b,
  '^': (a, b) => a ^ b,
  '&': (a, b) => a & b,
  '==': (a, b) => Number(a === b),
  '!=': (a, b) => Number(a !== b),
  '<': (a, b) => Number(a < b),
  '>': (a, b) => Number(a > b),
  '<=': (a, b) => Number(a <= b),
  '>=': (a, b) => Number(a >= b),
  '<<': (a, b) => a << b,
  '>>': (a, b) => a >> b,
  '+': (a, b) => (a + b) | 0,
  '-': (a, b) => (a - b) | 0,
  '*': (a, b) => Math.imul(a, b),
  '/': (a, b) => Math.trunc(a / b) | 0,
  '%': (a, b) => (a % b) | 0,
};

/**
 * Whether the condition of `#if` or `#elif` holds.
 *
 * @param tokens macros in place, `defined` answered
 * @param at where to point when there are none
 * @throws LanguageError for what is no whole-number expression
 */
export function holds(tokens: readonly Token[], at: Token): boolean {
  const reader = new ConditionReader(tokens, at);
  const value = reader.expression(1, true);
  reader.finish();
  return value !== 0;
}

class ConditionReader {
  private at = 0;

  constructor(
    private readonly tokens: readonly Token[],
    private readonly directive: Token,
  ) {}

  finish(): void {
    const rest = this.tokens[this.at];
    if (rest) throw new LanguageError(`The condition ends before “${rest.text}”.`, rest);
  }

  /** @param counts whether the value matters: what stands behind `0 &&` need not be known */
  expression(lowest: number, counts: boolean): number {
    let left = this.value(counts);
    for (;;) {
      const operator = this.tokens[this.at];
      const strength = operator && Object.hasOwn(STRENGTHS, operator.text) ? (STRENGTHS[operator.text] ?? 0) : 0;
      if (!operator || strength < lowest || strength === 0) return left;
      this.at++;
      const decided = (operator.text === '&&' && left === 0) || (operator.text === '||' && left !== 0);
      const right = this.expression(strength + 1, counts && !decided);
      if ((operator.text === '/' || operator.text === '%') && right === 0 && counts) {
        throw new LanguageError('This divides by zero.', operator);
      }
      left = OPERATIONS[operator.text]?.(left, right) ?? 0;
    }
  }

  private value(counts: boolean): number {
    const token = this.tokens[this.at++];
    if (!token) throw new LanguageError('A condition is missing here, as in “#if QUALITY > 1”.', this.tokens.at(-1) ?? this.directive);
    switch (token.text) {
      case '(': {
        const value = this.expression(1, counts);
        const close = this.tokens[this.at++];
        if (close?.text !== ')') throw new LanguageError('A “)” is missing in this condition.', close ?? token);
        return value;
      }
      case '!':
        return Number(this.value(counts) === 0);
      case '-':
        return -this.value(counts) | 0;
      case '+':
        return this.value(counts);
      case '~':
        return ~this.value(counts);
    }
    if (token.kind === 'int') return /^0\d/.test(token.text) ? parseInt(token.text, 8) : Number(token.text);
    if (token.kind !== 'name')
      throw new LanguageError(`Conditions of the preprocessor know whole numbers only, not “${token.text}”.`, token);
    if (counts) throw new LanguageError(`“${token.text}” is not defined here. Ask for it with “defined(${token.text})” first.`, token);
    return 0;
  }
}
