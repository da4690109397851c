import { LanguageError } from '../diagnostics';
import type { Token } from '../token';
import type { Expansion, Macro } from './macro';

/** Tokens that macros may come to in one text: a short chain of them can come to more than anyone has memory for. */
const MOST_TOKENS = 100_000;

/** Reads on in the text; used where the arguments of a macro stand behind it. */
export interface TokenSource {
  /** The next token, macros not put in place; nothing at the end. */
  next(): Token | undefined;
  /** Gives a token back, to be read again. */
  back(token: Token): void;
}

/** Puts macros in place (GLSL ES 3.00 specification, section 3.4; the rules of expansion are those of C++). */
export class MacroExpander {
  readonly expansions: Expansion[] = [];
  private made = 0;

  /** @param known what some names stand for that depends on where they stand */
  constructor(
    private readonly macros: ReadonlyMap<string, Macro>,
    private readonly known: (token: Token) => Token | undefined,
  ) {}

  /** Whether a token may stand for something else. */
  stands({ kind, text }: Token): boolean {
    return kind === 'name' && (this.macros.has(text) || text.startsWith('__'));
  }

  /**
   * Writes what a token stands for.
   *
   * @param source from where arguments are read on
   * @param outermost whether the token stands in the text itself, in the body of no macro
   * @throws LanguageError for arguments that are not there or too many
   */
  expand(token: Token, source: TokenSource, out: Token[], active: ReadonlySet<string> = NONE, outermost = true): void {
    const macro = token.kind === 'name' && !active.has(token.text) ? this.macros.get(token.text) : undefined;
    const args = macro && (macro.parameters ? this.argumentsOf(macro, token, source) : NO_ARGUMENTS);
    if (!macro || !args) {
      out.push((token.kind === 'name' && this.known(token)) || token);
      return;
    }
    if (outermost) this.expansions.push({ from: token.from, to: args.to ?? token.to, macro });
    // A body stands where its name stands; what came as an argument keeps its own place in the text.
    const name = { from: token.from, to: token.to };
    const body = this.filled(macro, args.list, active).map((each) => (each.own ? { ...each.token, ...name } : each.token));
    this.made += body.length;
    if (this.made > MOST_TOKENS) {
      throw new LanguageError(`Macros come to more than ${MOST_TOKENS / 1000},000 words here. Use functions instead.`, name);
    }
    const inside = new Set(active).add(macro.name);
    const rest = new TokenList(body, source);
    for (let each = rest.nextOwn(); each; each = rest.nextOwn()) this.expand(each, rest, out, inside, false);
  }

  /** The body with the arguments in place, these put in place themselves before. */
  private filled(
    { body, parameters }: Macro,
    args: readonly (readonly Token[])[],
    active: ReadonlySet<string>,
  ): { readonly token: Token; readonly own: boolean }[] {
    const given = new Map<string, readonly Token[]>();
    return body.flatMap((token): { readonly token: Token; readonly own: boolean }[] => {
      const index = token.kind === 'name' ? (parameters?.indexOf(token.text) ?? -1) : -1;
      if (index < 0) return [{ token, own: true }];
      let list = given.get(token.text);
      if (!list) {
        const expanded: Token[] = [];
        const source = new TokenList(args[index] ?? [], undefined);
        for (let each = source.nextOwn(); each; each = source.nextOwn()) this.expand(each, source, expanded, active, false);
        given.set(token.text, (list = expanded));
      }
      this.made += list.length;
      return list.map((each) => ({ token: each, own: false }));
    });
  }

  /** The arguments behind a name; nothing where no bracket follows, and so nothing is to be put in place. */
  private argumentsOf({ name, parameters = [] }: Macro, token: Token, source: TokenSource): Arguments | undefined {
    const open = source.next();
    if (open?.text !== '(') {
      if (open) source.back(open);
      return undefined;
    }
    const list: Token[][] = [[]];
    for (let depth = 1, each = source.next(); ; each = source.next()) {
      if (!each) throw new LanguageError(`The arguments of the macro “${name}” are never closed. Put “)” behind them.`, token);
      if (each.text === '(') depth++;
      else if (each.text === ')' && --depth === 0) {
        const [first] = list;
        const none = list.length === 1 && first?.length === 0 && parameters.length === 0;
        if (!none && list.length !== parameters.length) {
          const wanted = parameters.length === 1 ? '1 argument' : `${parameters.length} arguments`;
          throw new LanguageError(`The macro “${name}” takes ${wanted}, ${none ? 0 : list.length} are given.`, {
            from: token.from,
            to: each.to,
          });
        }
        return { list, to: each.to };
      }
      if (each.text === ',' && depth === 1) list.push([]);
      else list.at(-1)?.push(each);
    }
  }
}

interface Arguments {
  readonly list: readonly (readonly Token[])[];
  readonly to?: number;
}

const NO_ARGUMENTS: Arguments = { list: [] };
const NONE: ReadonlySet<string> = new Set();

/** A list of tokens, and behind it what follows in the text: the arguments of a macro may stand there. */
class TokenList implements TokenSource {
  private at = 0;
  private readonly returned: Token[] = [];

  constructor(
    private readonly tokens: readonly Token[],
    private readonly behind: TokenSource | undefined,
  ) {}

  nextOwn(): Token | undefined {
    return this.returned.pop() ?? this.tokens[this.at++];
  }

  next(): Token | undefined {
    return this.nextOwn() ?? this.behind?.next();
  }

  back(token: Token): void {
    if (this.at <= this.tokens.length || !this.behind) this.returned.push(token);
    else this.behind.back(token);
  }
}
