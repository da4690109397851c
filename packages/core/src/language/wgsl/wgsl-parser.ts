import type { BinaryOperator } from '../../ir/ir';
import { LanguageError, write, type DiagnosticList } from '../diagnostics';
import type { Token } from '../lexer';
import { TokenReader } from '../token-reader';
import { isTemplated } from './wgsl-types';
import type {
  WgslAttribute,
  WgslCase,
  WgslDeclaration,
  WgslDeclare,
  WgslExpression,
  WgslFunction,
  WgslGlobal,
  WgslMember,
  WgslStatement,
  WgslType,
} from './wgsl-syntax';

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

const COMPOUND = new Set(['+=', '-=', '*=', '/=', '%=', '&=', '|=', '^=', '<<=', '>>=']);

/** Words of other languages at the beginning of a declaration, with what WGSL writes. */
const FOREIGN: Readonly<Record<string, string>> = {
  uniform: 'var<uniform> name: type;',
  float: 'var name: f32 = …;',
  vec2: 'var name: vec2f = …;',
  vec3: 'var name: vec3f = …;',
  vec4: 'var name: vec4f = …;',
  int: 'var name: i32 = …;',
  void: 'fn name() { … }',
};

/** Reads declarations; errors are collected and reading goes on at the next one. */
export function parseWgsl(tokens: readonly Token[], diagnostics: DiagnosticList): WgslDeclaration[] {
  return new WgslParser(new TokenReader(tokens), diagnostics).declarations();
}

class WgslParser {
  private depth = 0;

  constructor(
    private readonly reader: TokenReader,
    private readonly diagnostics: DiagnosticList,
  ) {}

  declarations(): WgslDeclaration[] {
    const found: WgslDeclaration[] = [];
    while (this.reader.peek().kind !== 'end') {
      const declaration = this.diagnostics.guard(() => this.declaration(), null);
      if (declaration === null) this.skipDeclaration();
      else if (declaration) found.push(declaration);
    }
    return found;
  }

  private skipDeclaration(): void {
    let depth = 0;
    while (this.reader.peek().kind !== 'end') {
      const { text } = this.reader.next();
      if (text === '{') depth++;
      if (text === '}' && --depth <= 0) return;
      if (text === ';' && depth === 0) return;
    }
  }

  private declaration(): WgslDeclaration | undefined {
    const start = this.reader.peek();
    const { documentation, from } = start;
    if (this.reader.take(';')) return undefined;
    if (this.reader.is('enable') || this.reader.is('requires') || this.reader.is('diagnostic')) return this.directive(start);
    const attributes = this.attributes();
    const word = this.reader.peek();
    if (this.reader.take('fn'))
      return { ...this.function(attributes), documentation: documentation ?? word.documentation, from, to: this.reader.last.to };
    if (this.reader.take('struct')) {
      const name = this.reader.expectName('the name of the struct');
      const members = this.members('}', '{', 'the name of a member');
      this.reader.take(';');
      return { op: 'struct', name: name.text, nameRange: name, members, from, to: this.reader.last.to };
    }
    if (this.reader.take('alias')) {
      const name = this.reader.expectName('the new name of the type');
      this.reader.expect('=', 'before the type');
      const type = this.type();
      const end = this.reader.expect(';', 'after the type');
      return { op: 'alias', name: name.text, nameRange: name, type, from, to: end.to };
    }
    if (this.reader.take('const_assert')) {
      const value = this.expression();
      const end = this.reader.expect(';', 'after what is asserted');
      return { op: 'assert', value, from, to: end.to };
    }
    if (this.reader.is('import') && this.reader.peek(1).kind === 'name') {
      this.reader.next();
      const name = this.reader.expectName('the name of a function of the Library');
      const end = this.reader.expect(';', 'after the import');
      return { op: 'import', name: name.text, nameRange: name, from, to: end.to };
    }
    for (const kind of ['const', 'override', 'var'] as const)
      if (this.reader.take(kind))
        return { ...this.global(kind), documentation: documentation ?? word.documentation, from, to: this.reader.last.to };
    if (this.reader.is('let'))
      throw new LanguageError('“let” stands inside of functions; outside it is “const”.', word, { mends: [write('const', word)] });
    const foreign = Object.hasOwn(FOREIGN, word.text) ? FOREIGN[word.text] : undefined;
    const hint = foreign ? ` In WGSL one writes “${foreign}”.` : '';
    throw new LanguageError(
      `Expected a declaration: “fn”, “struct”, “const”, “override”, “var” or “alias”, found ${this.reader.describe(word)}.${hint}`,
      word,
    );
  }

  private directive(start: Token): undefined {
    const { text } = this.reader.next();
    const names: Token[] = [];
    while (!this.reader.is(';') && this.reader.peek().kind !== 'end') names.push(this.reader.next());
    this.reader.expect(';', `after “${text}”`);
    const wanted = names.filter(({ kind }) => kind === 'name').map((each) => each.text);
    // Severities of diagnostics, and language features by name, change nothing here.
    if (text === 'enable')
      throw new LanguageError(`“${wanted.join(', ')}” is an extension that not every device has; materials do without it.`, start);
  }

  private attributes(): WgslAttribute[] {
    const found: WgslAttribute[] = [];
    while (this.reader.is('@')) {
      const { from } = this.reader.next();
      const name = this.reader.expectName('the name of an attribute');
      const args = this.reader.is('(') ? this.args() : [];
      found.push({ name: name.text, args, from, to: this.reader.last.to });
    }
    return found;
  }

  private members(close: string, open: string, what: string): WgslMember[] {
    this.reader.expect(open, 'before the list');
    const found: WgslMember[] = [];
    while (!this.reader.is(close)) {
      const { from, documentation } = this.reader.peek();
      const attributes = this.attributes();
      const name = this.reader.expectName(what);
      this.reader.expect(':', `after "${name.text}"; its type stands behind it`);
      const type = this.type();
      found.push({ name: name.text, nameRange: name, type, attributes, documentation, from, to: type.to });
      if (this.reader.is(';') && close === '}')
        throw new LanguageError('Members are parted by “,”.', this.reader.peek(), { mends: [write(',', this.reader.peek())] });
      if (!this.reader.take(',')) break;
    }
    this.reader.expect(close, 'to close the list');
    return found;
  }

  private function(attributes: readonly WgslAttribute[]): Omit<WgslFunction, 'from' | 'to'> {
    const name = this.reader.expectName('the name of the function');
    const parameters = this.members(')', '(', 'the name of a parameter');
    const arrow = this.reader.take('->');
    const resultAttributes = arrow ? this.attributes() : [];
    const result = arrow ? this.type() : undefined;
    const body = this.block();
    return { op: 'function', name: name.text, nameRange: name, attributes, parameters, result, resultAttributes, body };
  }

  private global(kind: WgslGlobal['kind']): Omit<WgslGlobal, 'from' | 'to'> {
    let space: string | undefined;
    if (kind === 'var' && this.reader.take('<')) {
      space = this.reader.expectName('an address space').text;
      if (this.reader.take(',')) this.reader.expectName('how it is accessed');
      this.reader.expect('>', 'after the address space');
    }
    const { name, nameRange, type, value } = this.named();
    this.reader.expect(';', 'at the end of the declaration');
    return { op: 'global', kind, space, name, nameRange, type, value };
  }

  private named(): Pick<WgslDeclare, 'name' | 'nameRange' | 'type' | 'value'> {
    const name = this.reader.expectName('a name');
    const type = this.reader.take(':') ? this.type() : undefined;
    const value = this.reader.take('=') ? this.expression() : undefined;
    return { name: name.text, nameRange: name, type, value };
  }

  /** `vec3<f32>`, `array<f32, 4>`. */
  private type(): WgslType {
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

  private block(): WgslStatement[] {
    this.reader.expect('{', 'before the block');
    const body = this.statementsUntil(() => this.reader.is('}'));
    this.diagnostics.guard(() => void this.reader.expect('}', 'to close the block'), undefined);
    return body;
  }

  private statementsUntil(ends: () => boolean): WgslStatement[] {
    const body: WgslStatement[] = [];
    while (!ends() && this.reader.peek().kind !== 'end') {
      const { from } = this.reader.peek();
      const declares = ['let', 'var', 'const'].some((each) => this.reader.is(each)) && this.reader.peek(1).kind === 'name';
      const names = declares ? [this.reader.peek(1).text] : [];
      const statement = this.diagnostics.guard(() => this.nested(() => this.statement()), null);
      if (statement) body.push(statement);
      else if (statement === null) {
        this.skipStatement();
        body.push({ op: 'broken', names, from, to: this.reader.last.to });
      }
    }
    return body;
  }

  private skipStatement(): void {
    let depth = 0;
    while (this.reader.peek().kind !== 'end' && (depth > 0 || !this.reader.is('}'))) {
      const { text } = this.reader.next();
      if (text === '{') depth++;
      if (text === '}' && --depth === 0) return;
      if (text === ';' && depth === 0) return;
    }
  }

  private statement(): WgslStatement | undefined {
    const start = this.reader.peek();
    const { from } = start;
    if (this.reader.take(';')) return undefined;
    this.attributes();
    const here = <const T extends object>(statement: T): T & { from: number; to: number } => ({
      ...statement,
      from,
      to: this.reader.last.to,
    });
    if (this.reader.is('{')) return here({ op: 'block', body: this.block() });
    if (this.reader.take('if')) return this.if(from);
    if (this.reader.take('switch')) return this.switch(from);
    if (this.reader.take('loop')) return this.loop(from);
    if (this.reader.take('for')) return this.for(from);
    if (this.reader.take('while')) {
      const condition = this.expression();
      return here({ op: 'while', condition, body: this.block() });
    }
    if (this.reader.take('return')) {
      const value = this.reader.is(';') ? undefined : this.expression();
      this.reader.expect(';', 'after "return"');
      return here({ op: 'return', value });
    }
    if (this.reader.take('const_assert')) {
      const value = this.expression();
      this.reader.expect(';', 'after what is asserted');
      return here({ op: 'assert', value });
    }
    for (const op of ['break', 'continue', 'discard'] as const) {
      if (!this.reader.take(op)) continue;
      if (op === 'break' && this.reader.is('if'))
        throw new LanguageError('“break if” stands only at the end of “continuing { … }”.', start);
      this.reader.expect(';', `after "${op}"`);
      return here({ op });
    }
    if (this.reader.is('else')) throw new LanguageError('This “else” belongs to no “if”.', start);
    if (this.reader.is('do')) throw new LanguageError('WGSL has no “do”. Write loop { … continuing { break if …; } }.', start);
    const simple = this.simple();
    this.reader.expect(';', 'at the end of the statement');
    return { ...simple, to: this.reader.last.to };
  }

  /** What may also begin a `for`, or be its step. */
  private simple(): WgslStatement {
    const start = this.reader.peek();
    const { from } = start;
    const done = <const T extends object>(statement: T): T & { from: number; to: number } => ({
      ...statement,
      from,
      to: this.reader.last.to,
    });
    for (const kind of ['let', 'var', 'const'] as const) {
      if (!this.reader.take(kind)) continue;
      if (kind === 'var' && this.reader.take('<')) {
        this.reader.expectName('an address space');
        this.reader.expect('>', 'after the address space');
      }
      return done({ op: 'declare', kind, ...this.named() });
    }
    if (Object.hasOwn(FOREIGN, start.text) && this.reader.peek(1).kind === 'name') {
      throw new LanguageError(`In WGSL a variable begins with “let” or “var”: “${FOREIGN[start.text]}”.`, start);
    }
    if (this.reader.is('_') && this.reader.is('=', 1)) {
      this.reader.next();
      this.reader.next();
      return done({ op: 'assign', value: this.expression() });
    }
    const target = this.unary();
    for (const [sign, operator] of [
      ['++', '+'],
      ['--', '-'],
    ] as const)
      if (this.reader.take(sign)) return done({ op: 'increment', target, operator });
    if (this.reader.take('=')) return done({ op: 'assign', target, value: this.expression() });
    const sign = this.compound();
    if (sign) return done({ op: 'assign', target, operator: sign, value: this.expression() });
    if (target.op !== 'call') throw new LanguageError('Expected a statement: an assignment or a call.', target);
    return done({ op: 'evaluate', value: target });
  }

  private compound(): BinaryOperator | undefined {
    const { text } = this.reader.peek();
    if (COMPOUND.has(text)) {
      this.reader.next();
      return text.slice(0, -1) as BinaryOperator;
    }
    // ">>=" comes as single signs.
    if (this.joined() !== '>>=') return undefined;
    for (let count = 0; count < 3; count++) this.reader.next();
    return '>>';
  }

  private if(from: number): WgslStatement {
    const condition = this.expression();
    const yes = this.block();
    let no: readonly WgslStatement[] | undefined;
    if (this.reader.take('else')) {
      const other = this.reader.peek().from;
      no = this.reader.take('if') ? [this.nested(() => this.if(other))] : this.block();
    }
    return { op: 'if', condition, yes, no, from, to: this.reader.last.to };
  }

  private switch(from: number): WgslStatement {
    const selector = this.expression();
    this.reader.expect('{', 'before the cases of "switch"');
    const cases: WgslCase[] = [];
    while (!this.reader.is('}')) {
      const start = this.reader.peek();
      const labels: WgslCase['labels'][number][] = [];
      if (this.reader.take('default')) labels.push({ from: start.from, to: start.to });
      else if (this.reader.take('case')) {
        do {
          const label = this.reader.peek();
          if (this.reader.is(':') || this.reader.is('{')) break;
          const value = this.reader.take('default') ? undefined : this.expression();
          labels.push({ value, from: label.from, to: this.reader.last.to });
        } while (this.reader.take(','));
      } else throw new LanguageError(`Expected “case” or “default”, found ${this.reader.describe(start)}.`, start);
      this.reader.take(':');
      const body = this.block();
      cases.push({ labels, body, from: start.from, to: this.reader.last.to });
    }
    this.reader.expect('}', 'to close the "switch"');
    return { op: 'switch', selector, cases, from, to: this.reader.last.to };
  }

  private loop(from: number): WgslStatement {
    this.reader.expect('{', 'before the body of the loop');
    const body = this.statementsUntil(() => this.reader.is('}') || this.reader.is('continuing'));
    let continuing: readonly WgslStatement[] = [];
    let breakIf: WgslExpression | undefined;
    if (this.reader.take('continuing')) {
      this.reader.expect('{', 'after "continuing"');
      continuing = this.statementsUntil(() => this.reader.is('}') || (this.reader.is('break') && this.reader.is('if', 1)));
      if (this.reader.take('break')) {
        this.reader.next();
        breakIf = this.expression();
        this.reader.expect(';', 'after "break if"');
      }
      this.reader.expect('}', 'to close "continuing"');
    }
    this.reader.expect('}', 'to close the loop');
    return { op: 'loop', body, continuing, breakIf, from, to: this.reader.last.to };
  }

  private for(from: number): WgslStatement {
    this.reader.expect('(', 'after "for"');
    const start = this.reader.is(';') ? undefined : this.simple();
    this.reader.expect(';', 'after the start of "for"');
    const condition = this.reader.is(';') ? undefined : this.expression();
    this.reader.expect(';', 'after the condition of "for"');
    const step = this.reader.is(')') ? undefined : this.simple();
    this.reader.expect(')', 'after the step of "for"');
    return { op: 'for', start, condition, step, body: this.block(), from, to: this.reader.last.to };
  }

  private expression(): WgslExpression {
    return this.nested(() => this.binary(1));
  }

  private nested<T>(work: () => T): T {
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
  private joined(): string {
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

  private unary(): WgslExpression {
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

  private args(): WgslExpression[] {
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
