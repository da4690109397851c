import { LruCache } from '../cache/lru-cache';
import type { Statement } from '../ir/ir';
import { mapStatements } from '../ir/map-body';
import type { Origin } from '../ir/origin';
import type { Diagnostic, DiagnosticList } from './diagnostics';
import type { Environment } from './environment';
import type { SourceText } from './source';
import { withoutComments } from './without-comments';

/** A function's statements, what was said of them, and where its text began when they were read. */
interface KnownBody {
  readonly from: number;
  readonly read: ReadBody;
  readonly said: readonly Diagnostic[];
}
type Bodies = ReadonlyMap<string, KnownBody>;

/** What is read next to what was read just before, and the mends that are tried in between. */
const MOST_TEXTS = 12;
const remembered = new LruCache<Bodies>(MOST_TEXTS);

/** A body that was read. */
export interface ReadBody {
  readonly body: readonly Statement[];
  /** What is said of it depends on the bodies of others. */
  readonly dependsOnOthers: boolean;
  /** It calls a function that stands further down, or itself. */
  readonly callsAhead: boolean;
}

interface Placed {
  readonly from: number;
  readonly to: number;
  readonly body?: readonly { readonly from: number; readonly to: number }[];
}

/**
 * Bodies of functions that were read before, so that what is typed into one does not read all others again. They are the same as
 * long as all that stands outside of bodies is: a function whose text is the same then has the same body, moved to where it
 * stands now. What was said of it is said again, unless it speaks of other places: then it is read again.
 */
export class KnownBodies {
  private readonly before: Bodies;
  private readonly now = new Map<string, KnownBody>();

  private constructor(
    private readonly source: SourceText,
    private readonly diagnostics: DiagnosticList,
    key: string,
  ) {
    this.before = remembered.get(key) ?? new Map<string, KnownBody>();
    remembered.set(key, this.now);
  }

  /** @returns nothing for a text of whose functions that cannot be told */
  static of(
    source: SourceText,
    diagnostics: DiagnosticList,
    environment: Environment,
    functions: readonly Placed[],
  ): KnownBodies | undefined {
    const { options } = environment;
    // Whoever asks what names stand for wants to hear of all of them; macros change what a text means.
    if (options.index || !options.names || /^[ \t]*#[ \t]*(?:define|undef|if|ifdef|ifndef)\b/m.test(source.text)) return undefined;
    const { mark, allBut } = options.names;
    const brought = [...environment.importedNames].flatMap((name) => environment.overloadsOf(name)).map(identityOf);
    // What the Library has is named where something is missing.
    const importable = [...(options.importer?.names ?? [])].join();
    const read = [source.path, mark, allBut, options.stage, options.advice, options.parameters, importable];
    const beside = [environment.imported, options.directions, options.systemUniforms, options.names.taken].map(
      (each) => each && identityOf(each),
    );
    return new KnownBodies(source, diagnostics, [...read, ...beside, ...brought, headsOf(source.text, functions)].join('\n'));
  }

  /** The body of a function, as it was or by reading it. */
  body(syntax: Placed, read: () => ReadBody): ReadBody {
    // What could not be parsed here may have its reason elsewhere.
    if (this.diagnostics.hasErrorIn(syntax)) return read();
    const text = this.source.text.slice(syntax.from, syntax.to);
    const known = this.before.get(text);
    if (known) {
      const by = syntax.from - known.from;
      this.diagnostics.sayAgain(known.said, by);
      this.now.set(text, known);
      return { ...known.read, body: moved(known.read.body, by) };
    }
    const since = this.diagnostics.mark;
    const fresh = read();
    const said = this.diagnostics.saidWithin(syntax, since);
    // Structs of one function get names that no other has, and a line has another number once it has moved.
    const moves = !fresh.dependsOnOthers && !/\bstruct\b|__(?:LINE|FILE)__/.test(text);
    if (moves && said) this.now.set(text, { from: syntax.from, read: fresh, said });
    return fresh;
  }
}

/** All that stands outside of bodies. */
function headsOf(text: string, functions: readonly Placed[]): string {
  let at = 0;
  let heads = '';
  for (const { body = [] } of functions) {
    const [first, last] = [body[0], body.at(-1)];
    if (!first || !last) continue;
    heads += text.slice(at, first.from);
    at = last.to;
  }
  return withoutComments(heads + text.slice(at));
}

const identities = new WeakMap<object, number>();
let count = 0;

function identityOf(thing: object): number {
  const known = identities.get(thing);
  if (known !== undefined) return known;
  identities.set(thing, ++count);
  return count;
}

function moved(body: readonly Statement[], by: number): readonly Statement[] {
  if (by === 0) return body;
  const place = ({ path, range }: Origin): Origin => ({ path, ...(range ? { range: { from: range.from + by, to: range.to + by } } : {}) });
  return mapStatements(body, (each) => (each.origin ? { ...each, origin: place(each.origin) } : each));
}
