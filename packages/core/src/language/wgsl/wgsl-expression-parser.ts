import type { BinaryOperator } from '../../ir/ir';
import { LanguageError, write } from '../diagnostics';
import type { Token } from '../lexer';
import type { TokenReader } from '../token-reader';
import type { WgslExpression, WgslType } from './wgsl-syntax';
import { isTemplated } from './wgsl-types';

const DEEPEST_NESTING = 256;
const LONGEST_CHAIN = 1000;

/** Binding strength; WGSL asks for brackets where it is easily mistaken (section 8.19). */
const PRECEDENCE: Readonly<Record<string, number>> = {
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

/** Operators that stand beside one another only in brackets. */
const APART = [new Set(['&', '|', '^']), new Set(['&&', '||']), new Set(['<<', '>>']), new Set(['<', '>', '<=', '>=', '==', '!='])];

/** Reads expressions and types of WGSL. */
export class WgslExpressionParser {
  private depth = 0;

  constructor(private readonly reader: TokenReader) {}

  /** `vec3<f32>`, `array<f32, 4>`. */
  type(): WgslType {
    const name = this.reader.expectName('a type');
    const args = this.reader.is('<') ? this.template() : [];
    return { name: name.text, nameRange: name, args, from: name.from, to: this.reader.last.to };
  }

  private template(): WgslExpression[] {
    this.reader.expect('<', 'before the template');
    const args: WgslExpression[] = [];
    while (!this.reader.is('>')) {
      const name = this.reader.peek();
      if (name.kind === 'name' && this.reader.is('<', 1)) {
        const type = this.type();
        args.push({ op: 'type', type, from: type.from, to: type.to });
      } else args.push(this.binary(PRECEDENCE['<<'] ?? 8));
      if (!this.reader.take(',')) break;
    }
    this.reader.expect('>', 'to close the template');
    return args;
  }

  expression(): WgslExpression {
    return this.nested(() => this.binary(1));
  }

  nested<T>(work: () => T): T {
    if (this.depth >= DEEPEST_NESTING)
      throw new LanguageError(`This is nested more than ${DEEPEST_NESTING} deep. Split it into several statements.`, this.reader.peek());
    this.depth++;
    try {
      return work();
    } finally {
      this.depth--;
    }
  }

  /** The operator that stands here, signs that begin with ">" put together. */
  joined(): string {
    const first = this.reader.peek();
    if (first.text !== '>' || first.kind !== 'operator') return first.kind === 'operator' ? first.text : '';
    const [second, third] = [this.reader.peek(1), this.reader.peek(2)];
    const touches = second.from === first.to;
    if (touches && second.text === '>') return third.text === '=' && third.from === second.to ? '>>=' : '>>';
    return touches && second.text === '=' ? '>=' : '>';
  }

  private binary(lowest: number): WgslExpression {
    let left = this.nested(() => this.unary());
    let before: string | undefined;
    for (let count = 0; ; count++) {
      if (count > LONGEST_CHAIN)
        throw new LanguageError(
          `More than ${LONGEST_CHAIN} operations stand in a row here. Split them into several statements.`,
          this.reader.peek(),
        );
      const operator = this.joined();
      const strength = Object.hasOwn(PRECEDENCE, operator) ? (PRECEDENCE[operator] ?? 0) : 0;
      if (strength === 0 || strength < lowest) return left;
      const sign = this.reader.peek();
      for (let each = 0; each < (operator === '>>' || operator === '>=' ? 2 : 1); each++) this.reader.next();
      const right = this.nested(() => this.binary(strength + 1));
      this.refuseMixed(before, operator, left, right, sign);
      before = operator;
      left = { op: 'binary', operator: operator as BinaryOperator, left, right, from: left.from, to: right.to };
    }
  }

  /** `a & b | c` needs brackets. */
  private refuseMixed(before: string | undefined, operator: string, left: WgslExpression, right: WgslExpression, sign: Token): void {
    const family = APART.find((each) => each.has(operator));
    if (!family) return;
    const { from: start } = left;
    const open = left.op === 'binary' && before !== undefined && left.from === start ? before : undefined;
    const chained = family.has('<') || family.has('<<');
    if (open !== undefined && family.has(open) && (chained || open !== operator)) {
      // What is compared twice is hardly meant so: no brackets make it right.
      const mends = chained
        ? []
        : [
            {
              label: 'Put brackets round the first',
              edits: [
                { from: left.from, to: left.from, text: '(' },
                { from: left.to, to: left.to, text: ')' },
              ],
            },
          ];
      throw new LanguageError(`WGSL wants brackets between “${open}” and “${operator}”.`, sign, { mends });
    }
    if (right.op !== 'binary' || (!family.has('&&') && !family.has('&'))) return;
    const inside = right.operator;
    const bare = this.reader.last.text !== ')';
    if (bare && family.has(inside) && inside !== operator) {
      const mends = [
        {
          label: 'Put brackets round the second',
          edits: [
            { from: right.from, to: right.from, text: '(' },
            { from: right.to, to: right.to, text: ')' },
          ],
        },
      ];
      throw new LanguageError(`WGSL wants brackets between “${operator}” and “${inside}”.`, sign, { mends });
    }
  }

  unary(): WgslExpression {
    const token = this.reader.peek();
    if (
      token.kind === 'operator' &&
      (token.text === '-' || token.text === '!' || token.text === '~' || token.text === '&' || token.text === '*')
    ) {
      this.reader.next();
      const value = this.nested(() => this.unary());
      return { op: 'unary', operator: token.text, value, from: token.from, to: value.to };
    }
    if (token.text === '&&') throw new LanguageError('A pointer to a pointer has no place here.', token);
    if (token.text === '+')
      throw new LanguageError('WGSL has no “+” before a number. Leave it out.', token, { mends: [write('', token, 'Take “+” away')] });
    return this.postfix(this.primary());
  }

  private postfix(start: WgslExpression): WgslExpression {
    let object = start;
    for (;;) {
      if (this.reader.take('.')) {
        const field = this.reader.expectName('a component or member name after "."');
        object = { op: 'member', object, field: field.text, fieldRange: field, from: object.from, to: field.to };
      } else if (this.reader.take('[')) {
        const index = this.expression();
        const end = this.reader.expect(']', 'after the index');
        object = { op: 'index', object, index, from: object.from, to: end.to };
      } else return object;
    }
  }

  private primary(): WgslExpression {
    const token = this.reader.peek();
    const { from } = token;
    if (token.kind === 'float' || token.kind === 'int' || token.kind === 'uint') {
      this.reader.next();
      return { op: 'number', kind: token.kind, text: token.text, from, to: token.to };
    }
    if (this.reader.take('(')) {
      const value = this.expression();
      this.reader.expect(')', 'to close the bracket');
      // The brackets belong to it: what is mended around it stays whole.
      return { ...value, from, to: this.reader.last.to };
    }
    if (token.kind !== 'name') {
      if (this.reader.is('?')) throw new LanguageError('WGSL has no “?”. Write select(no, yes, condition).', token);
      throw new LanguageError(`Expected a value, found ${this.reader.describe(token)}.`, token);
    }
    this.reader.next();
    if (token.text === 'true' || token.text === 'false') return { op: 'boolean', value: token.text === 'true', from, to: token.to };
    const args = isTemplated(token.text) && this.reader.is('<') ? this.template() : [];
    const callee: WgslType = { name: token.text, nameRange: token, args, from, to: this.reader.last.to };
    if (this.reader.is('(')) {
      const list = this.args();
      return { op: 'call', callee, args: list, from, to: this.reader.last.to };
    }
    return args.length > 0 ? { op: 'type', type: callee, from, to: callee.to } : { op: 'name', name: token.text, from, to: token.to };
  }

  args(): WgslExpression[] {
    this.reader.expect('(', 'before the arguments');
    const found: WgslExpression[] = [];
    while (!this.reader.is(')')) {
      found.push(this.expression());
      if (!this.reader.take(',')) break;
    }
    this.reader.expect(')', 'after the arguments');
    return found;
  }
}
