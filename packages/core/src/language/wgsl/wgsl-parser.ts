import type { BinaryOperator } from '../../ir/ir';
import { LanguageError, write, type DiagnosticList } from '../diagnostics';
import type { Token } from '../lexer';
import { beginsFunction, closeBlock } from '../open-brace';
import { TokenReader } from '../token-reader';
import { WgslExpressionParser } from './wgsl-expression-parser';
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
} from './wgsl-syntax';

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
  private readonly expressions: WgslExpressionParser;

  constructor(
    private readonly reader: TokenReader,
    private readonly diagnostics: DiagnosticList,
  ) {
    this.expressions = new WgslExpressionParser(reader);
  }

  declarations(): WgslDeclaration[] {
    const found: WgslDeclaration[] = [];
    while (this.reader.peek().kind !== 'end') {
      const declaration = this.diagnostics.guard(() => this.declaration(), null);
      if (declaration === null) this.reader.skipDeclaration();
      else if (declaration) found.push(declaration);
    }
    return found;
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
      const type = this.expressions.type();
      const end = this.reader.expect(';', 'after the type');
      return { op: 'alias', name: name.text, nameRange: name, type, from, to: end.to };
    }
    if (this.reader.take('const_assert')) {
      const value = this.expressions.expression();
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
      const args = this.reader.is('(') ? this.expressions.args() : [];
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
      const type = this.expressions.type();
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
    const result = arrow ? this.expressions.type() : undefined;
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
    const type = this.reader.take(':') ? this.expressions.type() : undefined;
    const value = this.reader.take('=') ? this.expressions.expression() : undefined;
    return { name: name.text, nameRange: name, type, value };
  }

  private block(): WgslStatement[] {
    this.reader.expect('{', 'before the block');
    const body = this.statementsUntil(() => this.reader.is('}'));
    this.diagnostics.guard(() => void closeBlock(this.reader, this.diagnostics.source), undefined);
    return body;
  }

  private statementsUntil(ends: () => boolean): WgslStatement[] {
    const body: WgslStatement[] = [];
    while (!ends() && this.reader.peek().kind !== 'end' && !beginsFunction(this.reader)) {
      const { from } = this.reader.peek();
      const declares = ['let', 'var', 'const'].some((each) => this.reader.is(each)) && this.reader.peek(1).kind === 'name';
      const names = declares ? [this.reader.peek(1).text] : [];
      const statement = this.diagnostics.guard(() => this.expressions.nested(() => this.statement()), null);
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
    if (this.reader.is('fn'))
      throw new LanguageError('A function cannot stand inside another one. Put it before, outside of all functions.', start);
    if (this.reader.is('{')) return here({ op: 'block', body: this.block() });
    if (this.reader.take('if')) return this.if(from);
    if (this.reader.take('switch')) return this.switch(from);
    if (this.reader.take('loop')) return this.loop(from);
    if (this.reader.take('for')) return this.for(from);
    if (this.reader.take('while')) {
      const condition = this.expressions.expression();
      return here({ op: 'while', condition, body: this.block() });
    }
    if (this.reader.take('return')) {
      const value = this.reader.is(';') ? undefined : this.expressions.expression();
      this.reader.expect(';', 'after "return"');
      return here({ op: 'return', value });
    }
    if (this.reader.take('const_assert')) {
      const value = this.expressions.expression();
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
      return done({ op: 'assign', value: this.expressions.expression() });
    }
    const target = this.expressions.unary();
    for (const [sign, operator] of [
      ['++', '+'],
      ['--', '-'],
    ] as const)
      if (this.reader.take(sign)) return done({ op: 'increment', target, operator });
    if (this.reader.take('=')) return done({ op: 'assign', target, value: this.expressions.expression() });
    const sign = this.compound();
    if (sign) return done({ op: 'assign', target, operator: sign, value: this.expressions.expression() });
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
    if (this.expressions.joined() !== '>>=') return undefined;
    for (let count = 0; count < 3; count++) this.reader.next();
    return '>>';
  }

  private if(from: number): WgslStatement {
    const condition = this.expressions.expression();
    const yes = this.block();
    let no: readonly WgslStatement[] | undefined;
    if (this.reader.take('else')) {
      const other = this.reader.peek().from;
      no = this.reader.take('if') ? [this.expressions.nested(() => this.if(other))] : this.block();
    }
    return { op: 'if', condition, yes, no, from, to: this.reader.last.to };
  }

  private switch(from: number): WgslStatement {
    const selector = this.expressions.expression();
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
          const value = this.reader.take('default') ? undefined : this.expressions.expression();
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
        breakIf = this.expressions.expression();
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
    const condition = this.reader.is(';') ? undefined : this.expressions.expression();
    this.reader.expect(';', 'after the condition of "for"');
    const step = this.reader.is(')') ? undefined : this.simple();
    this.reader.expect(')', 'after the step of "for"');
    return { op: 'for', start, condition, step, body: this.block(), from, to: this.reader.last.to };
  }
}
