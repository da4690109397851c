import { LruCache } from '../cache/lru-cache';
import type { IrFunction } from '../ir/ir';
import { hardened } from '../ir/hardened';
import { elaborate, goodMends, type Diagnostic, type ElaboratedSource } from '../language';
import { portsOf } from './function-kind';
import { CODE_KIND, type NodeKind } from './kind';
import { library } from './library';

/** What a code node begins with. */
export const FIRST_CODE = `// Its inlets are what the last function takes, its outlet is what it gives.
vec3 mine(vec3 colour, float amount) {
  return colour * amount;
}
`;

/** Characters that a code node may hold. */
export const LONGEST_CODE = 20_000;

/**
 * A code node's kind, made of the function that is typed in it; or why it cannot be read, with its ports where at least
 * the signature can be.
 */
export type CodeKind = { readonly kind: NodeKind } | { readonly problem: Diagnostic; readonly ports?: NodeKind };

/** Typing makes many that nobody asks for again. */
const MOST_KNOWN = 200;
const KNOWN = new LruCache<CodeKind>(MOST_KNOWN);

/** The same text gives the same kind. */
export function codeKind(text = FIRST_CODE): CodeKind {
  const known = KNOWN.get(text);
  if (known) return known;
  const made = readCode(text);
  KNOWN.set(text, made);
  return made;
}

function readCode(text: string): CodeKind {
  // Several nodes may use the same names: each gets its own.
  const read = (each: string): ElaboratedSource => elaborate('code', each, library().module, { names: { mark: markOf(each), allBut: '' } });
  const { module, diagnostics, own, documentation } = read(text);
  const errors = diagnostics.filter(({ severity }) => severity === 'error');
  const [error] = goodMends(
    errors,
    () => text,
    (_, mended) => read(mended).diagnostics,
  );
  const functions = own.flatMap((signature) => module.functions.get(signature) ?? []);
  const mine = functions.at(-1);
  if (error) return { problem: error, ports: kindOf(mine) };
  const complain = (message: string, at = 0): CodeKind => ({
    problem: { severity: 'error', message, path: 'code', range: { from: at, to: at }, ...positionOf(text, at) },
  });
  if (!mine) return complain('Write a function, for example: float mine(float a) { return a; }');
  const ports = portsOf(mine, documentation.get(mine.signature));
  if ('unfit' in ports) return complain(ports.unfit, mine.origin.range?.from);
  const safe = hardened(functions, module.functions);
  const overload = safe.at(-1);
  const kind = kindOf(mine);
  if (!kind || !overload) throw new ReferenceError('the catalogue must have the kind of code nodes');
  return { kind: { ...kind, ...ports, overloads: [overload], functions: safe } };
}

/** The kind with the ports of a function, whose inside may be wrong. */
function kindOf(declared: IrFunction | undefined): NodeKind | undefined {
  const base = library().kinds.get(CODE_KIND);
  const ports = declared && portsOf(declared);
  return base && ports && !('unfit' in ports) ? { ...base, ...ports } : undefined;
}

function positionOf(text: string, at: number): { line: number; column: number } {
  const before = text.slice(0, at).split('\n');
  return { line: before.length, column: (before.at(-1)?.length ?? 0) + 1 };
}

/** A number of the text itself, so that the same text has the same names everywhere. */
function markOf(text: string): string {
  let hash = 0x811c9dc5;
  for (let index = 0; index < text.length; index++) hash = Math.imul(hash ^ text.charCodeAt(index), 0x01000193) >>> 0;
  return hash.toString(36);
}
