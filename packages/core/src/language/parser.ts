import type { Direction } from '../ir/ir';
import { NAMED_TYPES } from '../ir/types';
import { LanguageError, write, type DiagnosticList } from './diagnostics';
import type { Token } from './lexer';
import { beginsFunction, closeBlock } from './open-brace';
import { ExpressionParser } from './parse-expression';
import { PRECISIONS, QualifierReader, type Qualifiers } from './qualifiers';
import type {
  BlockSyntax,
  CaseSyntax,
  DeclarationSyntax,
  DeclaredSyntax,
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

/** Tokens that are looked through for the end of an array's length. */
const MOST_IN_BRACKETS = 64;
/** Words that begin what functions do not have. */
const ONLY_OUTSIDE = new Set(['uniform', 'in', 'out', 'inout', 'layout', 'flat', 'smooth', 'centroid', 'invariant', 'import']);
/** Words that begin a declaration. */
const KEYWORDS = new Set([
  'struct',
  'uniform',
  'in',
  'out',
  'const',
  'layout',
  'flat',
  'smooth',
  'centroid',
  'invariant',
  'precision',
  'void',
]);

/** Parses the declarations of one text; errors are collected and parsing goes on at the next declaration. */
export function parse(tokens: readonly Token[], diagnostics: DiagnosticList): DeclarationSyntax[] {
  return new Parser(new TokenReader(tokens), diagnostics, stageOf(tokens)).declarations();
}

/** The stage that a text is most likely of: a whole program that places no vertices is of the pixels. */
function stageOf(tokens: readonly Token[]): 'vertices' | 'pixels' {
  const names = (wanted: string): boolean => tokens.some(({ text }) => text === wanted);
  return names('main') && !names('gl_Position') ? 'pixels' : 'vertices';
}

class Parser {
  private readonly expressions: ExpressionParser;
  private readonly qualifiers: QualifierReader;

  constructor(
    private readonly reader: TokenReader,
    private readonly diagnostics: DiagnosticList,
    stage: 'vertices' | 'pixels',
  ) {
    this.expressions = new ExpressionParser(reader);
    this.qualifiers = new QualifierReader(reader, diagnostics, stage);
  }

  declarations(): DeclarationSyntax[] {
    const found: DeclarationSyntax[] = [];
    while (this.reader.peek().kind !== 'end') {
      const declaration = this.diagnostics.guard(() => this.declaration(), null);
      if (declaration === null) this.reader.skipDeclaration();
      else if (declaration) found.push(declaration);
    }
    return found;
  }

  private declaration(): DeclarationSyntax | undefined {
    const start = this.reader.peek();
    if (this.reader.take(';')) {
      this.diagnostics.add('warning', 'Nothing ends here: behind a function stands no “;”. Browsers refuse it.', start, {
        mends: [write('', start, 'Take “;” away')],
      });
      return undefined;
    }
    if (this.reader.is('precision')) return this.precision();
    if (this.reader.is('import') && this.reader.peek(1).kind === 'name') return this.importLine();
    const qualifiers = this.qualifiers.read();
    const { storage } = qualifiers;
    if (storage === 'uniform' && this.reader.is('{', 1)) return this.uniformBlock(start);
    // `invariant gl_Position;` and `layout(std140) uniform;` say how drivers are to do what we leave to them.
    if (this.reader.last !== start && this.namesOnly(qualifiers)) return undefined;
    const type = this.type('a declaration: a type, "struct", "uniform", "in", "out" or "const"');
    if (type.struct && !storage && this.reader.take(';')) return { ...type.struct, documentation: start.documentation };
    if (type.struct && this.startsAnew()) this.reader.expect(';', 'after the struct');
    const name = this.reader.peek();
    if (name.kind === 'name' && this.reader.is('(', 1) && !storage) {
      this.reader.next();
      return this.function(start, type, name);
    }
    return this.globalVariable(qualifiers, type, start);
  }

  /** Whether what follows is no name of a variable but the beginning of something else. */
  private startsAnew(): boolean {
    const { kind, text } = this.reader.peek();
    return kind === 'end' || NAMED_TYPES.has(text) || KEYWORDS.has(text);
  }

  private namesOnly({ storage, invariant }: Qualifiers): boolean {
    if (storage === 'uniform' && this.reader.take(';')) return true;
    if (!invariant || storage || (!this.reader.is(';', 1) && !this.reader.is(',', 1))) return false;
    do this.reader.expectName('the name of what is to be invariant');
    while (this.reader.take(','));
    this.reader.expect(';', 'after the names');
    return true;
  }

  /** Precisions are read and not used: all is computed with the highest. */
  private precision(): undefined {
    this.reader.next();
    const precision = this.reader.peek();
    if (!PRECISIONS.has(precision.text)) throw new LanguageError('A precision is “lowp”, “mediump” or “highp”.', precision);
    this.reader.next();
    const type = this.reader.expectName('the type that is to have this precision');
    const known = NAMED_TYPES.get(type.text);
    if (known?.kind !== 'sampler' && type.text !== 'float' && type.text !== 'int')
      throw new LanguageError('A precision is for float, int or a sampler.', type);
    this.reader.expect(';', 'after the precision');
  }

  private importLine(): ImportSyntax {
    const start = this.reader.next();
    const name = this.reader.expectName('the name of a function of the Library');
    const end = this.reader.expect(';', 'after the import');
    return { op: 'import', name: name.text, nameRange: name, from: start.from, to: end.to };
  }

  private globalVariable(qualifiers: Qualifiers, type: TypeSyntax, start: Token): GlobalSyntax {
    const { flat, location } = qualifiers;
    const storage = qualifiers.storage ?? 'private';
    const declaration = this.declarators(type, storage === 'const', start);
    const { documentation } = start;
    return { op: 'global', storage, flat, location, declaration, documentation, from: start.from, to: declaration.to };
  }

  private uniformBlock(start: Token): BlockSyntax {
    const name = this.reader.expectName('the name of the block').text;
    const members = this.members();
    const instance = this.reader.peek().kind === 'name' && !this.startsAnew() ? this.reader.next() : undefined;
    if (instance && this.reader.is('['))
      throw new LanguageError('Arrays of blocks have no place here. Put the array into the block.', this.reader.peek());
    const end = this.reader.expect(';', 'after the uniform block');
    const named = instance && { name: instance.text, from: instance.from, to: instance.to };
    return { op: 'uniformBlock', name, members, instance: named, documentation: start.documentation, from: start.from, to: end.to };
  }

  private struct(): StructSyntax {
    const start = this.reader.next();
    const unnamed = this.reader.is('{');
    const name = unnamed ? start : this.reader.expectName('the name of the struct');
    const fields = this.members();
    return {
      op: 'struct',
      name: unnamed ? `unnamed${start.from}` : name.text,
      nameRange: name,
      documentation: start.documentation,
      fields,
      from: start.from,
      to: this.reader.last.to,
    };
  }

  private members(): DeclareSyntax[] {
    this.reader.expect('{', 'before the members');
    const members: DeclareSyntax[] = [];
    while (!this.reader.take('}')) {
      const start = this.reader.peek();
      const { storage } = this.qualifiers.read();
      if (storage) throw new LanguageError(`“${storage}” has no meaning inside of a struct or block.`, start);
      if (this.reader.is('struct'))
        throw new LanguageError('A struct cannot be declared inside of another. Put it before.', this.reader.peek());
      members.push(this.declarators(this.type('the type of a member'), false, start));
    }
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
    const { from, documentation } = start;
    let body: StatementSyntax[] | undefined;
    let { to } = close;
    if (!this.reader.take(';')) {
      this.reader.expect('{', 'before the body of the function');
      body = this.statementsUntilBrace();
      ({ to } = this.reader.last);
    }
    return { op: 'function', name: name.text, nameRange: name, result, parameters, body, documentation, from, to };
  }

  private parameter(): ParameterSyntax {
    const start = this.reader.peek();
    const constant = this.reader.take('const');
    const direction: Direction = (['inout', 'in', 'out'] as const).find((each) => this.reader.take(each)) ?? 'in';
    if (constant && direction !== 'in') throw new LanguageError(`What is written to (${direction}) cannot be const.`, start);
    const type = this.type('the type of a parameter');
    // A parameter that nothing reads needs no name.
    const name =
      this.reader.is(',') || this.reader.is(')') || this.reader.is('[') ? undefined : this.reader.expectName('the name of the parameter');
    const array = this.reader.is('[') ? { ...type, ...this.expressions.arrayLength() } : type;
    return { name: name?.text ?? '', type: array, direction, constant, from: start.from, to: (name ?? type).to };
  }

  private type(expected: string): TypeSyntax {
    while (PRECISIONS.has(this.reader.peek().text)) this.reader.next();
    if (this.reader.is('struct')) {
      const struct = this.struct();
      return { name: struct.name, struct, ...this.expressions.arrayLength(), from: struct.from, to: struct.to };
    }
    const name = this.reader.expectName(expected);
    const { length, open } = this.expressions.arrayLength();
    return { name: name.text, length, open, from: name.from, to: name.to };
  }

  private declarators(type: TypeSyntax, constant: boolean, start: Token): DeclareSyntax {
    const variables: DeclaredSyntax[] = [];
    if (!(type.struct && this.reader.is(';'))) {
      do {
        const name = this.reader.expectName('the name of a variable');
        if (this.reader.is('('))
          throw new LanguageError('A function cannot stand inside another one. Put it before, outside of all functions.', start);
        const { length, open } = this.expressions.arrayLength();
        const value = this.reader.take('=') ? this.expressions.expression() : undefined;
        variables.push({ name: name.text, length, open, value, from: name.from, to: name.to });
      } while (this.reader.take(','));
    }
    const end = this.reader.expect(';', 'at the end of the declaration');
    return { op: 'declare', type, constant, variables, from: start.from, to: end.to };
  }

  /** Statements up to and including the closing brace. */
  private statementsUntilBrace(): StatementSyntax[] {
    const body = this.statementsUntil(() => this.reader.is('}'));
    // What stands there can be read all the same.
    this.diagnostics.guard(() => void closeBlock(this.reader, this.diagnostics.source), undefined);
    return body;
  }

  /** Statements up to something; one bad statement does not hide the next. */
  private statementsUntil(ends: () => boolean): StatementSyntax[] {
    const body: StatementSyntax[] = [];
    while (!ends() && this.reader.peek().kind !== 'end' && !beginsFunction(this.reader)) {
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
    if (this.reader.is('precision')) {
      this.precision();
      return { op: 'block', body: [], from: start.from, to: this.reader.last.to };
    }
    if (ONLY_OUTSIDE.has(start.text)) throw new LanguageError(`“${start.text}” stands outside of functions.`, start);
    if (start.text === 'else') throw new LanguageError('This “else” belongs to no “if”.', start);
    if (this.reader.take('switch')) return this.switch(start);
    if (this.reader.is('case') || this.reader.is('default')) {
      throw new LanguageError(`“${start.text}” stands only inside of a “switch”.`, start);
    }
    if (this.reader.take('if')) return this.if(start);
    if (this.reader.take('for')) return this.for(start);
    if (this.reader.take('while')) {
      this.reader.expect('(', 'after "while"');
      const asked = this.asked();
      this.reader.expect(')', 'after the condition');
      const body = this.statement();
      return { op: 'while', ...asked, body, testFirst: true, from: start.from, to: body.to };
    }
    if (this.reader.take('do')) return this.doWhile(start);
    if (this.reader.take('return')) {
      const value = this.reader.is(';') ? undefined : this.expressions.sequence();
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
    const statement = this.evaluated();
    this.reader.expect(';', 'at the end of the statement');
    return statement;
  }

  private startsDeclaration(): boolean {
    const { kind, text } = this.reader.peek();
    if (text === 'const' || text === 'struct' || PRECISIONS.has(text)) return true;
    if (kind !== 'name' || this.reader.is('(', 1)) return false;
    if (this.reader.peek(1).kind === 'name') return true;
    if (this.reader.is('[', 1)) return this.isName(this.behindBrackets(1));
    return NAMED_TYPES.has(text);
  }

  private isName(ahead: number | undefined): boolean {
    return ahead !== undefined && this.reader.peek(ahead).kind === 'name';
  }

  /** How far ahead the token behind the `[…]` is that opens there. */
  private behindBrackets(ahead: number): number | undefined {
    for (let depth = 0, at = ahead; at < ahead + MOST_IN_BRACKETS; at++) {
      const { text } = this.reader.peek(at);
      if (text === '[') depth++;
      if (text === ']' && --depth === 0) return at + 1;
    }
    return undefined;
  }

  /** Expressions for what they do: assignments, increments and calls. */
  private evaluated(): StatementSyntax {
    const value = this.expressions.sequence();
    return { op: 'evaluate', value, from: value.from, to: value.to };
  }

  private condition(word: string): ExpressionSyntax {
    this.reader.expect('(', `after "${word}"`);
    const condition = this.expressions.sequence();
    this.reader.expect(')', 'after the condition');
    return condition;
  }

  private if(start: Token): StatementSyntax {
    const condition = this.condition('if');
    const yes = this.statement();
    const no = this.reader.take('else') ? this.statement() : undefined;
    return { op: 'if', condition, yes, no, from: start.from, to: (no ?? yes).to };
  }

  /** A condition, which may declare what it asks: `while (bool more = …)`. */
  private asked(): { readonly condition: ExpressionSyntax; readonly declares?: DeclareSyntax } {
    if (!this.startsDeclaration()) return { condition: this.expressions.sequence() };
    const start = this.reader.peek();
    const type = this.type('a type');
    const { text: name, from, to } = this.reader.expectName('the name of a variable');
    this.reader.expect('=', 'before the value of the condition');
    const value = this.expressions.expression();
    const declares: DeclareSyntax = {
      op: 'declare',
      type,
      constant: false,
      variables: [{ name, value, from, to }],
      from: start.from,
      to: value.to,
    };
    return { condition: { op: 'name', name, from, to }, declares };
  }

  private switch(start: Token): StatementSyntax {
    const selector = this.condition('switch');
    this.reader.expect('{', 'before the cases of "switch"');
    const cases: CaseSyntax[] = [];
    const isLabel = (): boolean => this.reader.is('case') || this.reader.is('default');
    if (!isLabel() && !this.reader.is('}')) throw new LanguageError('A “switch” begins with “case …:” or “default:”.', this.reader.peek());
    while (isLabel()) {
      const { from } = this.reader.peek();
      const labels: CaseSyntax['labels'][number][] = [];
      while (isLabel()) {
        const label = this.reader.next();
        const value = label.text === 'case' ? this.expressions.expression() : undefined;
        const { to } = this.reader.expect(':', `after "${label.text}"`);
        labels.push({ value, from: label.from, to });
      }
      const body = this.statementsUntil(() => this.reader.is('}') || isLabel());
      cases.push({ labels, body, from, to: this.reader.last.to });
    }
    const end = this.reader.expect('}', 'to close the "switch"');
    return { op: 'switch', selector, cases, from: start.from, to: end.to };
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
    const asked = this.reader.is(';') ? {} : this.asked();
    this.reader.expect(';', 'after the condition of "for"');
    const step = this.reader.is(')') ? undefined : this.evaluated();
    this.reader.expect(')', 'after the steps of "for"');
    const body = this.statement();
    return { op: 'for', start: first, ...asked, step, body, from: start.from, to: body.to };
  }

  private anyStatementUpToSemicolon(): StatementSyntax {
    if (this.startsDeclaration()) {
      const start = this.reader.peek();
      const constant = this.reader.take('const');
      return this.declarators(this.type('a type'), constant, start);
    }
    const statement = this.evaluated();
    this.reader.expect(';', 'after the start of "for"');
    return statement;
  }
}
