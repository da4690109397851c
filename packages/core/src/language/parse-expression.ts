import type { BinaryOperator } from '../ir/ir';
import { LanguageError, write } from './diagnostics';
import type { Token } from './lexer';
import type { ExpressionSyntax, TypeSyntax } from './syntax';
import type { TokenReader } from './token-reader';

/** Binding strength, GLSL ES 3.00 section 5.1; higher binds tighter. */
const PRECEDENCE: Readonly<Record<BinaryOperator, number>> = {
  '||': 1,
  '^^': 2,
  '&&': 3,
  '|': 4,
  '^': 5,
  '&': 6,
  '==': 7,
  '!=': 7,
  '<': 8,
  '>': 8,
  '<=': 8,
  '>=': 8,
  '<<': 9,
  '>>': 9,
  '+': 10,
  '-': 10,
  '*': 11,
  '/': 11,
  '%': 11,
};

const ASSIGNMENTS = new Set(['=', '+=', '-=', '*=', '/=', '%=', '&=', '|=', '^=', '<<=', '>>=']);

const NO_LENGTH: Pick<TypeSyntax, 'length' | 'open'> = {};

const DEEPEST_NESTING = 256;
/** Operations that may stand in a row without brackets. */
const LONGEST_CHAIN = 1000;

export class ExpressionParser {
  private depth = 0;

  constructor(private readonly reader: TokenReader) {}

  /** Expressions in a row, `a = 1, b = 2`; the last one is the value. */
  sequence(): ExpressionSyntax {
    const first = this.expression();
    if (!this.reader.is(',')) return first;
    const parts = [first];
    while (this.reader.take(',')) {
      this.chained(parts.length);
      parts.push(this.expression());
    }
    return { op: 'sequence', parts, from: first.from, to: this.reader.last.to };
  }

  /** One expression, which may give a variable its value. */
  expression(): ExpressionSyntax {
    return this.nested(() => {
      const target = this.conditional();
      const sign = this.reader.peek();
      if (sign.kind !== 'operator' || !ASSIGNMENTS.has(sign.text)) return target;
      this.reader.next();
      const value = this.expression();
      const operator = sign.text === '=' ? undefined : (sign.text.slice(0, -1) as BinaryOperator);
      return { op: 'assignment', target, operator, sign: { from: sign.from, to: sign.to }, value, from: target.from, to: value.to };
    });
  }

  private conditional(): ExpressionSyntax {
    const condition = this.binary(1);
    if (!this.reader.take('?')) return condition;
    const yes = this.sequence();
    this.reader.expect(':', 'between the two results of "?"');
    const no = this.expression();
    return { op: 'conditional', condition, yes, no, from: condition.from, to: no.to };
  }

  /** Guards the stack: code nested deeper than anyone writes is refused, not crashed on. */
  nested<T>(work: () => T): T {
    if (this.depth >= DEEPEST_NESTING) {
      throw new LanguageError(`This is nested more than ${DEEPEST_NESTING} deep. Split it into several statements.`, this.reader.peek());
    }
    this.depth++;
    try {
      return work();
    } finally {
      this.depth--;
    }
  }

  private chained(count: number): void {
    if (count <= LONGEST_CHAIN) return;
    throw new LanguageError(
      `More than ${LONGEST_CHAIN} operations stand in a row here. Split them into several statements.`,
      this.reader.peek(),
    );
  }

  private binary(lowest: number): ExpressionSyntax {
    let left = this.unary();
    for (let count = 0; ; count++) {
      this.chained(count);
      const { kind, text } = this.reader.peek();
      const operator = text as BinaryOperator;
      const strength = kind === 'operator' ? PRECEDENCE[operator] : undefined;
      if (strength === undefined || strength < lowest) return left;
      this.reader.next();
      const right = this.nested(() => this.binary(strength + 1));
      left = { op: 'binary', operator, left, right, from: left.from, to: right.to };
    }
  }

  private unary(): ExpressionSyntax {
    const token = this.reader.peek();
    if (token.kind === 'operator' && (token.text === '-' || token.text === '!' || token.text === '~' || token.text === '+')) {
      this.reader.next();
      const value = this.nested(() => this.unary());
      return { op: 'unary', operator: token.text, value, from: token.from, to: value.to };
    }
    if (token.text === '++' || token.text === '--') {
      this.reader.next();
      const target = this.nested(() => this.unary());
      return { op: 'increment', target, operator: token.text === '++' ? '+' : '-', before: true, from: token.from, to: target.to };
    }
    return this.postfix(this.primary());
  }

  private postfix(start: ExpressionSyntax): ExpressionSyntax {
    let object = start;
    for (let count = 0; ; count++) {
      this.chained(count);
      if (this.reader.take('.')) {
        const field = this.reader.expectName('a component or field name after "."');
        if (this.reader.is('(')) {
          const args = this.args();
          object = { op: 'method', object, name: field, args, from: object.from, to: this.reader.last.to };
        } else object = { op: 'member', object, field: field.text, fieldRange: field, from: object.from, to: field.to };
      } else if (this.reader.take('[')) {
        const index = this.sequence();
        const end = this.reader.expect(']', 'after the index');
        object = { op: 'index', object, index, from: object.from, to: end.to };
      } else if (this.reader.is('++') || this.reader.is('--')) {
        const { text, to } = this.reader.next();
        object = { op: 'increment', target: object, operator: text === '++' ? '+' : '-', before: false, from: object.from, to };
      } else return object;
    }
  }

  private primary(): ExpressionSyntax {
    const token = this.reader.peek();
    if (token.kind === 'float' || token.kind === 'int' || token.kind === 'uint') {
      this.reader.next();
      return { op: 'number', kind: token.kind, value: numberOf(token), from: token.from, to: token.to };
    }
    if (this.reader.take('(')) {
      const value = this.sequence();
      this.reader.expect(')', 'to close the bracket');
      return value;
    }
    if (token.kind !== 'name') {
      throw new LanguageError(`Expected a value, found ${this.reader.describe(token)}.`, token);
    }
    if (token.text === 'true' || token.text === 'false') {
      this.reader.next();
      return { op: 'boolean', value: token.text === 'true', from: token.from, to: token.to };
    }
    const name = this.reader.next();
    const isArrayConstructor = this.reader.is('[') && this.closesBeforeCall();
    if (!this.reader.is('(') && !isArrayConstructor) return { op: 'name', name: name.text, from: name.from, to: name.to };
    const { length, open } = isArrayConstructor ? this.arrayLength() : NO_LENGTH;
    return this.callArguments({ name: name.text, length, open, from: name.from, to: name.to });
  }

  /** Whether `[…]` is followed by `(`: `vec4[2](…)` constructs, `list[2]` indexes. */
  private closesBeforeCall(): boolean {
    let ahead = 1;
    while (!this.reader.is(']', ahead)) {
      if (this.reader.peek(ahead).kind === 'end' || ahead > 8) return false;
      ahead++;
    }
    return this.reader.is('(', ahead + 1);
  }

  /** `[4]`, `[]` or nothing. */
  arrayLength(): Pick<TypeSyntax, 'length' | 'open'> {
    if (!this.reader.take('[')) return NO_LENGTH;
    const { from } = this.reader.last;
    if (this.reader.take(']')) return { open: { from, to: this.reader.last.to } };
    const length = this.expression();
    this.reader.expect(']', 'after the length of the array');
    if (this.reader.is('[')) {
      throw new LanguageError('Arrays of arrays are not part of GLSL ES 3.00. Put the inner array into a struct.', this.reader.peek());
    }
    return { length };
  }

  private callArguments(callee: TypeSyntax): ExpressionSyntax {
    const args = this.args();
    return { op: 'call', callee, args, from: callee.from, to: this.reader.last.to };
  }

  private args(): ExpressionSyntax[] {
    this.reader.expect('(', 'before the arguments');
    const args: ExpressionSyntax[] = [];
    if (this.reader.is('void') && this.reader.is(')', 1)) this.reader.next();
    if (!this.reader.is(')')) {
      do args.push(this.expression());
      while (this.reader.take(','));
    }
    this.reader.expect(')', 'after the arguments');
    return args;
  }
}

/** The value of a number as written, GLSL ES 3.00 section 4.1.3: whole numbers keep their 32 bits, one that begins with 0 is octal. */
function numberOf(token: Token): number {
  const { kind, text } = token;
  if (kind === 'float') {
    const value = parseFloat(text);
    if (!Number.isFinite(Math.fround(value))) throw new LanguageError(`The number ${text.slice(0, 40)} is too large for float.`, token);
    return value;
  }
  const digits = text.replace(/[uU]$/, '');
  const octal = /^0\d/.test(digits);
  if (octal && /[89]/.test(digits)) {
    throw new LanguageError(`A whole number that begins with 0 is octal, and has no digit above 7.`, token, {
      mends: [write(text.replace(/^0+(?=\d)/, ''), token)],
    });
  }
  const value = octal ? parseInt(digits, 8) : Number(digits);
  if (value > 0xffffffff) throw new LanguageError(`The number ${text.slice(0, 40)} is too large for ${kind}.`, token);
  return kind === 'int' ? value | 0 : value;
}
