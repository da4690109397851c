import type { BinaryOperator, Direction } from '../ir/ir';
import { NAMED_TYPES } from '../ir/types';
import { LanguageError, write, type DiagnosticList } from './diagnostics';
import type { Token } from './lexer';
import { OLD_STORAGE } from './old-spellings';
import { ExpressionParser } from './parse-expression';
import type {
  BlockSyntax,
  DeclarationSyntax,
  DeclareSyntax,
  ExpressionSyntax,
  FunctionSyntax,
  GlobalSyntax,
  ImportSyntax,
  ParameterSyntax,
  StatementSyntax,
  StructSyntax,
  TypeSyntax,
} from './syntax';
import { TokenReader } from './token-reader';

const PRECISIONS = new Set(['lowp', 'mediump', 'highp']);
const ASSIGNMENTS = new Set(['=', '+=', '-=', '*=', '/=', '%=', '&=', '|=', '^=', '<<=', '>>=']);

/** Parses the declarations of one text; errors are collected and parsing goes on at the next declaration. */
export function parse(tokens: readonly Token[], diagnostics: DiagnosticList): DeclarationSyntax[] {
  return new Parser(new TokenReader(tokens), diagnostics).declarations();
}

class Parser {
  private readonly expressions: ExpressionParser;

  constructor(
    private readonly reader: TokenReader,
    private readonly diagnostics: DiagnosticList,
  ) {
    this.expressions = new ExpressionParser(reader);
  }

  declarations(): DeclarationSyntax[] {
    const found: DeclarationSyntax[] = [];
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

  private declaration(): DeclarationSyntax | undefined {
    const start = this.reader.peek();
    if (this.reader.take(';')) return undefined;
    if (this.reader.take('precision')) {
      while (!this.reader.take(';')) if (this.reader.next().kind === 'end') break;
      return undefined;
    }
    if (this.reader.is('struct')) return this.struct();
    if (this.reader.is('import') && this.reader.peek(1).kind === 'name') return this.importLine();
    if (this.reader.take('layout')) this.skipLayout();
    const flat = this.reader.take('flat');
    const old = Object.hasOwn(OLD_STORAGE, this.reader.peek().text) ? OLD_STORAGE[this.reader.peek().text] : undefined;
    if (old) {
      const word = this.reader.next();
      this.diagnostics.add('error', `“${word.text}” is from an older version of the language; today it is “${old}”.`, word, {
        mends: [write(old, word)],
      });
      return this.globalVariable(old, flat, start);
    }
    for (const storage of ['in', 'out', 'uniform', 'const'] as const) {
      if (!this.reader.take(storage)) continue;
      if (storage === 'uniform' && this.reader.is('{', 1)) return this.uniformBlock(start);
      return this.globalVariable(storage, flat, start);
    }
    const result = this.type('a declaration: a type, "struct", "uniform", "in", "out" or "const"');
    const name = this.reader.expectName('a name');
    if (this.reader.is('(')) return this.function(start, result, name);
    throw new LanguageError('A variable outside of functions needs "const", "uniform", "in" or "out" in front.', name, {
      mends: [write('const ', { from: start.from, to: start.from }, 'Make it a const')],
    });
  }

  private importLine(): ImportSyntax {
    const start = this.reader.next();
    const name = this.reader.expectName('the name of a function of the Library');
    const end = this.reader.expect(';', 'after the import');
    return { op: 'import', name: name.text, nameRange: name, from: start.from, to: end.to };
  }

  private skipLayout(): void {
    this.reader.expect('(', 'after "layout"');
    while (!this.reader.take(')')) if (this.reader.next().kind === 'end') return;
  }

  private globalVariable(storage: GlobalSyntax['storage'], flat: boolean, start: Token): GlobalSyntax {
    const declaration = this.declarators(this.type('a type'), storage === 'const', start);
    return { op: 'global', storage, flat, declaration, documentation: start.documentation, from: start.from, to: declaration.to };
  }

  private uniformBlock(start: Token): BlockSyntax {
    const name = this.reader.expectName('the name of the block').text;
    const members = this.members();
    const end = this.reader.expect(';', 'after the uniform block');
    return { op: 'uniformBlock', name, members, from: start.from, to: end.to };
  }

  private struct(): StructSyntax {
    const start = this.reader.next();
    const name = this.reader.expectName('the name of the struct');
    const fields = this.members();
    const end = this.reader.expect(';', 'after the struct');
    return {
      op: 'struct',
      name: name.text,
      nameRange: name,
      documentation: start.documentation,
      fields,
      from: start.from,
      to: end.to,
    };
  }

  private members(): DeclareSyntax[] {
    this.reader.expect('{', 'before the members');
    const members: DeclareSyntax[] = [];
    while (!this.reader.take('}')) members.push(this.declarators(this.type('the type of a member'), false, this.reader.peek()));
    return members;
  }

  private function(start: Token, result: TypeSyntax, name: Token): FunctionSyntax {
    this.reader.expect('(', 'before the parameters');
    const parameters: ParameterSyntax[] = [];
    if (this.reader.is('void') && this.reader.is(')', 1)) this.reader.next();
    if (!this.reader.is(')')) {
      do parameters.push(this.parameter());
      while (this.reader.take(','));
    }
    const close = this.reader.expect(')', 'after the parameters');
    const shared = { op: 'function', name: name.text, nameRange: name, result, parameters, documentation: start.documentation } as const;
    if (this.reader.take(';')) return { ...shared, from: start.from, to: close.to };
    this.reader.expect('{', 'before the body of the function');
    const body = this.statementsUntilBrace();
    return { ...shared, body, from: start.from, to: this.reader.last.to };
  }

  private parameter(): ParameterSyntax {
    const start = this.reader.peek();
    this.reader.take('const');
    const direction: Direction = (['inout', 'in', 'out'] as const).find((each) => this.reader.take(each)) ?? 'in';
    const type = this.type('the type of a parameter');
    const name = this.reader.expectName('the name of the parameter');
    const length = this.expressions.arrayLength();
    return { name: name.text, type: length ? { ...type, length } : type, direction, from: start.from, to: name.to };
  }

  private type(expected: string): TypeSyntax {
    while (PRECISIONS.has(this.reader.peek().text)) this.reader.next();
    const name = this.reader.expectName(expected);
    return { name: name.text, length: this.expressions.arrayLength(), from: name.from, to: name.to };
  }

  private declarators(type: TypeSyntax, constant: boolean, start: Token): DeclareSyntax {
    const variables: DeclareSyntax['variables'][number][] = [];
    do {
      const name = this.reader.expectName('the name of a variable');
      if (this.reader.is('(')) {
        throw new LanguageError('A function cannot stand inside another one. Is a "}" missing before it?', start);
      }
      const length = this.expressions.arrayLength();
      const value = this.reader.take('=') ? this.expressions.expression() : undefined;
      variables.push({ name: name.text, length, value, from: name.from, to: name.to });
    } while (this.reader.take(','));
    const end = this.reader.expect(';', 'at the end of the declaration');
    return { op: 'declare', type, constant, variables, from: start.from, to: end.to };
  }

  /** Statements up to and including the closing brace; one bad statement does not hide the next. */
  private statementsUntilBrace(): StatementSyntax[] {
    const body: StatementSyntax[] = [];
    while (!this.reader.is('}')) {
      if (this.reader.peek().kind === 'end') {
        // What stands there can be read all the same.
        this.diagnostics.guard(() => void this.reader.expect('}', 'to close the block'), undefined);
        return body;
      }
      const names = this.namesDeclared();
      const { from } = this.reader.peek();
      const statement = this.diagnostics.guard(() => this.statement(), null);
      if (statement) {
        body.push(statement);
        continue;
      }
      this.skipStatement();
      body.push({ op: 'broken', names, from, to: this.reader.last.to });
    }
    this.reader.next();
    return body;
  }

  /** What the statement that begins here seems to declare. */
  private namesDeclared(): string[] {
    const at = this.reader.is('const') ? 1 : 0;
    const [type, name] = [this.reader.peek(at), this.reader.peek(at + 1)];
    return type.kind === 'name' && name.kind === 'name' ? [name.text] : [];
  }

  /** To behind the next semicolon or block, so that what stands in a block is not taken for what follows. */
  private skipStatement(): void {
    let depth = 0;
    while (this.reader.peek().kind !== 'end' && (depth > 0 || !this.reader.is('}'))) {
      const { text } = this.reader.next();
      if (text === '{') depth++;
      if (text === '}' && --depth === 0) return;
      if (text === ';' && depth === 0) return;
    }
  }

  private statement(): StatementSyntax {
    return this.expressions.nested(() => this.anyStatement());
  }

  private anyStatement(): StatementSyntax {
    const start = this.reader.peek();
    if (this.reader.take('{')) {
      const body = this.statementsUntilBrace();
      return { op: 'block', body, from: start.from, to: this.reader.last.to };
    }
    if (this.reader.take(';')) return { op: 'block', body: [], from: start.from, to: start.to };
    if (this.reader.is('switch') && this.reader.is('(', 1)) {
      throw new LanguageError('“switch” is not part of the language. Use “if” and “else if”.', start);
    }
    if (this.reader.take('if')) return this.if(start);
    if (this.reader.take('for')) return this.for(start);
    if (this.reader.take('while')) {
      const condition = this.condition('while');
      const body = this.statement();
      return { op: 'while', condition, body, testFirst: true, from: start.from, to: body.to };
    }
    if (this.reader.take('do')) return this.doWhile(start);
    if (this.reader.take('return')) {
      const value = this.reader.is(';') ? undefined : this.expressions.expression();
      const end = this.reader.expect(';', 'after "return"');
      return { op: 'return', value, from: start.from, to: end.to };
    }
    for (const op of ['break', 'continue', 'discard'] as const) {
      if (!this.reader.take(op)) continue;
      const end = this.reader.expect(';', `after "${op}"`);
      return { op, from: start.from, to: end.to };
    }
    if (this.startsDeclaration()) {
      const constant = this.reader.take('const');
      return this.declarators(this.type('a type'), constant, start);
    }
    const statement = this.simpleStatement();
    this.reader.expect(';', 'at the end of the statement');
    return statement;
  }

  private startsDeclaration(): boolean {
    const { kind, text } = this.reader.peek();
    if (text === 'const' || PRECISIONS.has(text)) return true;
    if (kind !== 'name' || this.reader.is('(', 1)) return false;
    if (this.reader.peek(1).kind === 'name') return true;
    if (!NAMED_TYPES.has(text)) return false;
    return !(this.reader.is('[', 1) && this.reader.is('(', 4));
  }

  /** An assignment, an increment, or a call. */
  private simpleStatement(): StatementSyntax {
    const start = this.reader.peek();
    for (const sign of ['++', '--'] as const) {
      if (this.reader.take(sign)) return this.increment(this.expressions.expression(), sign, start.from);
    }
    const target = this.expressions.expression();
    for (const sign of ['++', '--'] as const) {
      if (this.reader.take(sign)) return this.increment(target, sign, start.from);
    }
    const { text } = this.reader.peek();
    if (!ASSIGNMENTS.has(text)) return { op: 'evaluate', value: target, from: target.from, to: target.to };
    this.reader.next();
    const value = this.expressions.expression();
    const operator = text === '=' ? undefined : (text.slice(0, -1) as BinaryOperator);
    return { op: 'assign', target, operator, value, from: target.from, to: value.to };
  }

  private increment(target: ExpressionSyntax, sign: '++' | '--', from: number): StatementSyntax {
    const to = this.reader.last.to;
    const one: ExpressionSyntax = { op: 'number', kind: 'int', value: 1, from, to };
    return { op: 'assign', target, operator: sign === '++' ? '+' : '-', value: one, from, to };
  }

  private condition(word: string): ExpressionSyntax {
    this.reader.expect('(', `after "${word}"`);
    const condition = this.expressions.expression();
    this.reader.expect(')', 'after the condition');
    return condition;
  }

  private if(start: Token): StatementSyntax {
    const condition = this.condition('if');
    const yes = this.statement();
    const no = this.reader.take('else') ? this.statement() : undefined;
    return { op: 'if', condition, yes, no, from: start.from, to: (no ?? yes).to };
  }

  private doWhile(start: Token): StatementSyntax {
    const body = this.statement();
    this.reader.expect('while', 'after the body of "do"');
    const condition = this.condition('while');
    const end = this.reader.expect(';', 'after "do … while (…)"');
    return { op: 'while', condition, body, testFirst: false, from: start.from, to: end.to };
  }

  private for(start: Token): StatementSyntax {
    this.reader.expect('(', 'after "for"');
    const first = this.reader.is(';') ? undefined : this.anyStatementUpToSemicolon();
    if (!first) this.reader.next();
    const condition = this.reader.is(';') ? undefined : this.expressions.expression();
    this.reader.expect(';', 'after the condition of "for"');
    const step: StatementSyntax[] = [];
    if (!this.reader.is(')')) {
      do step.push(this.simpleStatement());
      while (this.reader.take(','));
    }
    this.reader.expect(')', 'after the steps of "for"');
    const body = this.statement();
    return { op: 'for', start: first, condition, step, body, from: start.from, to: body.to };
  }

  private anyStatementUpToSemicolon(): StatementSyntax {
    if (this.startsDeclaration()) return this.declarators(this.type('a type'), false, this.reader.peek());
    const statement = this.simpleStatement();
    this.reader.expect(';', 'after the start of "for"');
    return statement;
  }
}
