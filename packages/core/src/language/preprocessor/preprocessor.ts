import { LanguageError, write, type DiagnosticList } from '../diagnostics';
import { nearestMend } from '../nearest-name';
import { Scanner } from '../scanner';
import type { SourceText } from '../source';
import { holds } from './condition';
import type { Token } from '../token';
import type { Macro } from './macro';
import { MacroExpander, type TokenSource } from './macros';

const DIRECTIVES = ['define', 'undef', 'if', 'ifdef', 'ifndef', 'elif', 'else', 'endif', 'error', 'pragma', 'extension', 'version', 'line'];

/** Extensions of older versions whose functions the language has by itself. */
const BUILT_IN_EXTENSIONS = new Set([
  'GL_OES_standard_derivatives',
  'GL_EXT_shader_texture_lod',
  'GL_EXT_frag_depth',
  'GL_EXT_draw_buffers',
  'GL_OES_texture_3D',
]);

/** A `#if` that is open. */
interface Group {
  /** Its directive, to point at. */
  readonly begins: Token;
  /** It stands in text that is left out as a whole. */
  readonly leftOut: boolean;
  /** One of its parts was compiled. */
  done: boolean;
  hasElse: boolean;
}

/** Reads a text through the preprocessor (GLSL ES 3.00 specification, section 3.4). */
export class Preprocessor {
  private readonly scanner: Scanner;
  private readonly macros = new Map<string, Macro>();
  private readonly expander: MacroExpander;
  private readonly groups: Group[] = [];
  private readonly returned: Token[] = [];
  /** What `#line` adds to the number of a line. */
  private lineShift = 0;
  private file = 0;
  private begun = false;
  /** Whether anything but directives was read. */
  private hasTokens = false;
  private readonly reader: TokenSource = { next: () => this.next(), back: (token) => void this.returned.push(token) };

  constructor(
    private readonly source: SourceText,
    private readonly diagnostics: DiagnosticList,
  ) {
    this.scanner = new Scanner(source.text, diagnostics);
    for (const [name, value] of PREDEFINED) this.macros.set(name, { name, body: [{ kind: 'int', text: value, from: 0, to: 0 }] });
    this.expander = new MacroExpander(this.macros, (token) => this.placeOf(token));
  }

  /** All tokens, macros put in place. */
  tokens(): Token[] {
    const tokens: Token[] = [];
    this.diagnostics.expandedBy(this.expander.expansions);
    for (let token = this.next(); token; token = this.next()) {
      if (!this.expander.stands(token)) {
        tokens.push(token);
        continue;
      }
      const each = token;
      this.diagnostics.guard(() => this.expander.expand(each, this.reader, tokens), undefined);
    }
    for (const { begins } of this.groups) {
      const end = { from: this.source.text.length, to: this.source.text.length };
      const mends = [write('\n#endif\n', end, 'Put “#endif” at the end')];
      this.diagnostics.add('error', `This “#${begins.text}” is never closed. Put “#endif” where it should end.`, begins, { mends });
    }
    return tokens;
  }

  /** The next token of the text that is compiled, macros not yet put in place. */
  private next(): Token | undefined {
    const returned = this.returned.pop();
    if (returned) return returned;
    for (;;) {
      const token = this.scanner.next();
      if (token !== '#') {
        this.begun = true;
        this.hasTokens = true;
        return token;
      }
      this.directive();
    }
  }

  private placeOf({ text, from, to }: Token): Token | undefined {
    if (text === '__LINE__') return { kind: 'int', text: String(this.source.position(from).line + this.lineShift), from, to };
    return text === '__FILE__' ? { kind: 'int', text: String(this.file), from, to } : undefined;
  }

  /** Reads a line of the preprocessor and what it leaves out. */
  private directive(): void {
    for (let leavesOut = this.line(); leavesOut; leavesOut = this.line(true)) {
      if (!this.scanner.skip()) return;
    }
    this.begun = true;
  }

  /**
   * Reads the line behind a `#`.
   *
   * @param left whether it stands in text that is left out, where only what opens and closes groups counts
   * @returns whether the text behind it is left out
   */
  private line(left = false): boolean {
    const [name, ...rest] = this.firstWord();
    // A "#" alone does nothing.
    if (!name) return left;
    const leavesOut = this.diagnostics.guard<boolean | undefined>(() => this.groupLine(name, rest, left), left);
    if (leavesOut !== undefined) return leavesOut;
    if (!left) this.diagnostics.guard(() => this.plainLine(name, rest), undefined);
    return left;
  }

  /** The directive's name, and where its rest is made of tokens, these. */
  private firstWord(): Token[] {
    const at = this.scanner.place;
    const [, name] = /^[ \t]*(\w*)/.exec(this.source.text.slice(at, at + 80)) ?? [];
    // Words behind these are for people, and behind what is no directive they mean nothing.
    if (!name || (DIRECTIVES.includes(name) && name !== 'error' && name !== 'pragma')) return this.scanner.line();
    const words = this.scanner.words();
    const from = this.source.text.indexOf(name, at);
    return [
      { kind: 'name', text: name, from, to: from + name.length },
      { kind: 'name', text: words.slice(name.length).trim(), from, to: from + words.length },
    ];
  }

  /** What opens, parts and closes groups. @returns whether what follows is left out; nothing for another directive */
  private groupLine(name: Token, rest: readonly Token[], left: boolean): boolean | undefined {
    switch (name.text) {
      case 'if':
      case 'ifdef':
      case 'ifndef': {
        const group: Group = { begins: name, leftOut: left, done: false, hasElse: false };
        this.groups.push(group);
        // Whatever is wrong with its condition: what it opens is closed further on.
        if (!left) group.done = this.diagnostics.guard(() => this.asks(name, rest), true);
        return !group.done;
      }
      case 'elif':
      case 'else': {
        const group = this.open(name);
        if (group.hasElse)
          throw new LanguageError(`“#${name.text}” stands behind the “#else” of this group.`, name, { declared: group.begins });
        group.hasElse = name.text === 'else';
        if (group.leftOut || group.done) return true;
        group.done = name.text === 'else' || this.asks(name, rest);
        return !group.done;
      }
      case 'endif': {
        const { leftOut } = this.open(name);
        this.groups.pop();
        return leftOut;
      }
      default:
        return undefined;
    }
  }

  private open(name: Token): Group {
    const group = this.groups.at(-1);
    if (!group) throw new LanguageError(`There is no open “#if” for this “#${name.text}”.`, name);
    return group;
  }

  private asks(name: Token, rest: readonly Token[]): boolean {
    if (name.text === 'if' || name.text === 'elif') return holds(this.conditionOf(rest), name);
    const [asked] = rest;
    if (asked?.kind !== 'name') throw new LanguageError(`“#${name.text}” needs the name of a macro.`, name);
    return this.isDefined(asked.text) === (name.text === 'ifdef');
  }

  private isDefined(name: string): boolean {
    return this.macros.has(name) || name === '__LINE__' || name === '__FILE__';
  }

  /** A condition with `defined` answered and macros in place. */
  private conditionOf(tokens: readonly Token[]): Token[] {
    const answered: Token[] = [];
    for (let at = 0; at < tokens.length; at++) {
      const token = tokens[at];
      if (!token) break;
      if (token.text !== 'defined') {
        answered.push(token);
        continue;
      }
      const bracket = tokens[at + 1]?.text === '(';
      const name = tokens[at + (bracket ? 2 : 1)];
      if (name?.kind !== 'name' || (bracket && tokens[at + 3]?.text !== ')')) {
        throw new LanguageError('“defined” asks for a name, as in “defined(QUALITY)”.', token);
      }
      at += bracket ? 3 : 1;
      answered.push({ kind: 'int', text: this.isDefined(name.text) ? '1' : '0', from: token.from, to: name.to });
    }
    const list = [...answered];
    const source: TokenSource = { next: () => list.shift(), back: (token) => list.unshift(token) };
    const out: Token[] = [];
    for (let each = list.shift(); each; each = list.shift()) this.expander.expand(each, source, out, undefined, false);
    return out;
  }

  private plainLine(name: Token, rest: readonly Token[]): void {
    switch (name.text) {
      case 'define':
        this.define(name, rest);
        return;
      case 'undef':
        this.undefine(name, rest);
        return;
      case 'error':
        throw new LanguageError(`The text itself says: ${rest[0]?.text === '' ? 'it is not to be compiled here' : rest[0]?.text}.`, name);
      case 'pragma':
        return;
      case 'version':
        this.version(name, rest);
        return;
      case 'extension':
        this.extension(name, rest);
        return;
      case 'line':
        this.lineNumber(name, rest);
        return;
      case 'include':
        throw new LanguageError('There is no “#include”. A function of the Library is taken into use by “import name;”.', name);
      default:
        throw new LanguageError(
          `There is no directive “#${name.text}”. There are ${DIRECTIVES.map((each) => `#${each}`).join(', ')}.`,
          name,
          {
            mends: [nearestMend(name.text, name, DIRECTIVES)],
          },
        );
    }
  }

  private define(directive: Token, [name, ...rest]: readonly Token[]): void {
    if (name?.kind !== 'name') throw new LanguageError('“#define” needs a name, as in “#define COUNT 4”.', name ?? directive);
    this.refuseReserved(name);
    const [open] = rest;
    const takes = open?.text === '(' && open.from === name.to;
    const parameters: string[] = [];
    let body = rest;
    if (takes) {
      let at = 1;
      while (rest[at]?.text !== ')') {
        const parameter = rest[at];
        if (parameter?.kind !== 'name')
          throw new LanguageError(`The parameters of “${name.text}” are names, closed by “)”.`, parameter ?? name);
        if (parameters.includes(parameter.text)) throw new LanguageError(`Two parameters are called “${parameter.text}”.`, parameter);
        parameters.push(parameter.text);
        at++;
        if (rest[at]?.text === ',') {
          at++;
          if (rest[at]?.text === ')') throw new LanguageError('A name is missing behind “,”.', rest[at] ?? name);
        } else if (rest[at]?.text !== ')')
          throw new LanguageError('The parameters of a macro are parted by “,” and closed by “)”.', rest[at] ?? name);
      }
      body = rest.slice(at + 1);
    }
    const macro: Macro = { name: name.text, body, defined: { from: name.from, to: name.to }, ...(takes ? { parameters } : {}) };
    const before = this.macros.get(name.text);
    if (before && !sameMacro(before, macro)) {
      const message = `“${name.text}” is defined otherwise before. Write “#undef ${name.text}” first.`;
      throw new LanguageError(message, name, { declared: before.defined });
    }
    this.macros.set(name.text, macro);
  }

  private refuseReserved(name: Token): void {
    const { text } = name;
    if (text === 'defined') throw new LanguageError('“defined” belongs to the preprocessor and is no name of a macro.', name);
    if (PREDEFINED.has(text) || text === '__LINE__' || text === '__FILE__') {
      throw new LanguageError(`“${text}” is defined by the language and stays as it is.`, name);
    }
    if (text.startsWith('GL_')) throw new LanguageError('Names that begin with “GL_” belong to the language. Choose another one.', name);
    if (text.includes('__')) this.diagnostics.add('warning', 'Names with two underscores in a row are reserved. Choose another one.', name);
  }

  private undefine(directive: Token, [name, more]: readonly Token[]): void {
    if (name?.kind !== 'name') throw new LanguageError('“#undef” needs the name of a macro.', name ?? directive);
    if (more) throw new LanguageError(`“#undef ${name.text}” ends here; one name is enough.`, more);
    this.refuseReserved(name);
    this.macros.delete(name.text);
  }

  private version(directive: Token, [number, profile]: readonly Token[]): void {
    if (this.begun) throw new LanguageError('“#version” stands before all else.', directive);
    const range = { from: directive.from, to: (profile ?? number ?? directive).to };
    if (number?.kind !== 'int')
      throw new LanguageError('“#version” needs a number: #version 300 es.', range, { mends: [write('version 300 es', range)] });
    const written = `${number.text}${profile ? ` ${profile.text}` : ''}`;
    if (written === '300 es') return;
    this.diagnostics.add(
      'warning',
      `This is read as “#version 300 es”, not ${written}. What is spelt otherwise there is said where it stands.`,
      range,
      {
        mends: [write('version 300 es', range)],
      },
    );
  }

  private extension(directive: Token, [name, colon, behaviour]: readonly Token[]): void {
    if (this.hasTokens) throw new LanguageError('“#extension” stands before all code.', directive);
    if (name?.kind !== 'name' || colon?.text !== ':' || behaviour?.kind !== 'name') {
      throw new LanguageError('An extension is asked for as in “#extension GL_EXT_name : enable”.', directive);
    }
    if (!['require', 'enable', 'warn', 'disable'].includes(behaviour.text)) {
      throw new LanguageError('An extension can be “require”, “enable”, “warn” or “disable”.', behaviour);
    }
    if (behaviour.text === 'disable' || BUILT_IN_EXTENSIONS.has(name.text)) return;
    if (name.text === 'all') {
      if (behaviour.text === 'warn') return;
      throw new LanguageError('All extensions at once can only be warned of or disabled.', behaviour);
    }
    if (behaviour.text === 'require') throw new LanguageError(`There is no extension “${name.text}” here.`, name);
    this.diagnostics.add('warning', `There is no extension “${name.text}” here; the program must do without it.`, name);
  }

  private lineNumber(directive: Token, rest: readonly Token[]): void {
    const [line, file, more] = this.conditionOf(rest);
    if (line?.kind !== 'int' || (file && file.kind !== 'int') || more) {
      throw new LanguageError('“#line” takes the number of the line that follows, and perhaps the number of a text.', directive);
    }
    this.lineShift = Number(line.text) - this.source.position(directive.from).line - 1;
    if (file) this.file = Number(file.text);
  }
}

/** GLSL ES 3.00 section 3.4. */
const PREDEFINED: ReadonlyMap<string, string> = new Map([
  ['__VERSION__', '300'],
  ['GL_ES', '1'],
  ['GL_FRAGMENT_PRECISION_HIGH', '1'],
]);

/** Whether two definitions come to the same, which may stand twice. */
function sameMacro(one: Macro, other: Macro): boolean {
  const words = ({ body }: Macro): string => body.map(({ text }) => text).join(' ');
  return words(one) === words(other) && one.parameters?.join() === other.parameters?.join();
}
