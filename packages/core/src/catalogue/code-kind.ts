import type { IrFunction } from '../ir/ir';
import { FLOAT, typeName, VEC2, VEC3, VEC4, type StructType, type Type } from '../ir/types';
import { elaborate, tokensOf, type Diagnostic } from '../language';
import { CODE_KIND, type InletSpec, type Meaning, type NodeKind, type OutletSpec } from './kind';
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
 * A code node's kind, made of the function that is typed in it; or why it can not be read, with its ports where at least
 * the signature can be.
 */
export type CodeKind = { readonly kind: NodeKind } | { readonly problem: Diagnostic; readonly ports?: NodeKind };

const KNOWN = new Map<string, CodeKind>();
/** Texts whose kinds are remembered: typing makes many that nobody asks for again. */
const MOST_KNOWN = 200;

/** The same text gives the same kind. */
export function codeKind(text = FIRST_CODE): CodeKind {
  const known = KNOWN.get(text);
  if (known) return known;
  const made = readCode(text);
  const [oldest] = KNOWN.keys();
  if (KNOWN.size >= MOST_KNOWN && oldest !== undefined) KNOWN.delete(oldest);
  KNOWN.set(text, made);
  return made;
}

/** Types that ribbons carry. */
const TYPES = new Set([FLOAT, VEC2, VEC3, VEC4].map(typeName));

function readCode(text: string): CodeKind {
  const { module } = library();
  const first = elaborate('code', text, module);
  const [error] = first.diagnostics.filter(({ severity }) => severity === 'error');
  if (error)
    return {
      problem: error,
      ports: portsOf([...first.module.functions.values()].filter(({ signature }) => !module.functions.has(signature)).at(-1)),
    };
  const complain = (message: string, at = 0): CodeKind => ({
    problem: { severity: 'error', message, path: 'code', range: { from: at, to: at }, ...positionOf(text, at) },
  });
  const own = [...first.module.functions.values()].filter(({ signature }) => !module.functions.has(signature));
  const mine = own.at(-1);
  if (!mine) return complain('Write a function, for example: float mine(float a) { return a; }');
  const at = mine.origin.range?.from;
  const odd = mine.parameters.find(({ type, direction }) => direction !== 'in' || !TYPES.has(typeName(type)));
  if (odd) return complain(`“${odd.name}” can not become an inlet. Take a float, vec2, vec3 or vec4.`, at);
  const outlets = outletsOf(mine.result);
  if (!outlets) return complain('The last function must give a float, vec2, vec3, vec4, Lit, or a struct of such.', at);
  const names = new Set([...own.map(({ name }) => name), ...[...first.module.structs.keys()].filter((name) => !module.structs.has(name))]);
  const ports = [...mine.parameters.map(({ name }) => name), ...outlets.map(({ name }) => name)];
  const twice = ports.find((name) => names.has(name));
  if (twice !== undefined) return complain(`“${twice}” is the name of a function or struct too. Choose another one.`, at);
  // Several nodes may use the same names: each gets its own.
  const second = elaborate('code', renamed(text, names), module);
  if (second.diagnostics.some(({ severity }) => severity === 'error'))
    return complain('A #define may not stand for a function of the node.', at);
  const functions = [...second.module.functions.values()].filter(({ signature }) => !module.functions.has(signature));
  const overload = functions.at(-1);
  if (!overload) throw new RangeError('renaming lost a function');
  const inlets = mine.parameters.map(({ name, type }) => inletOf(name, type));
  const base = library().kinds.get(CODE_KIND);
  if (!base) throw new ReferenceError('the catalogue must have the kind of code nodes');
  return { kind: { ...base, inlets, outlets, overloads: [overload], functions } };
}

function positionOf(text: string, at: number): { line: number; column: number } {
  const before = text.slice(0, at).split('\n');
  return { line: before.length, column: (before.at(-1)?.length ?? 0) + 1 };
}

/** The ports of a function whose inside can not be read. */
function portsOf(declared: IrFunction | undefined): NodeKind | undefined {
  const base = library().kinds.get(CODE_KIND);
  const outlets = declared && outletsOf(declared.result);
  if (!base || !outlets || !declared.parameters.every(({ type }) => TYPES.has(typeName(type)))) return undefined;
  return { ...base, inlets: declared.parameters.map(({ name, type }) => inletOf(name, type)), outlets };
}

/** A number of the text itself, so that the same text has the same names everywhere. */
function markOf(text: string): string {
  let hash = 0x811c9dc5;
  for (let index = 0; index < text.length; index++) hash = Math.imul(hash ^ text.charCodeAt(index), 0x01000193) >>> 0;
  return hash.toString(36);
}

function renamed(text: string, names: ReadonlySet<string>): string {
  const mark = markOf(text);
  let result = '';
  let at = 0;
  for (const token of tokensOf(text)) {
    if (token.kind !== 'name' || token.from < at || !names.has(token.text)) continue;
    result += text.slice(at, token.to) + `_${mark}`;
    at = token.to;
  }
  return result + text.slice(at);
}

const isColour = (name: string): boolean => /colou?r|tint|rgb/i.test(name);

function meaningOf(name: string, type: Type): Meaning {
  const size = typeName(type);
  if (size === 'float') return 'number';
  if (size === 'vec2') return 'uv';
  return size === 'vec3' && isColour(name) ? 'colour' : 'vector';
}

function inletOf(name: string, type: Type): InletSpec {
  const meaning = meaningOf(name, type);
  const size = type.kind === 'vector' ? type.size : 1;
  const value = meaning === 'colour' ? [0.8, 0.8, 0.8] : Array<number>(size).fill(0);
  return { name, label: labelOf(name), meaning, default: { value }, help: '' };
}

/** `edgeWidth` is read as “Edge width”. */
function labelOf(name: string): string {
  const words = name.replace(/_/g, ' ').replace(/([a-z])([A-Z])/g, (_, end: string, start: string) => `${end} ${start.toLowerCase()}`);
  return words.charAt(0).toUpperCase() + words.slice(1);
}

function outletsOf(result: Type): OutletSpec[] | undefined {
  if (result.kind === 'struct' && result.name !== 'Lit') return fieldsOf(result);
  if (result.kind === 'struct') return [{ name: 'result', label: 'Light', meaning: 'light', help: '' }];
  return TYPES.has(typeName(result)) ? [{ name: 'result', label: 'Result', meaning: meaningOf('', result), help: '' }] : undefined;
}

function fieldsOf({ fields }: StructType): OutletSpec[] | undefined {
  if (!fields.every(({ type }) => TYPES.has(typeName(type)))) return undefined;
  return fields.map(({ name, type }) => ({ name, label: labelOf(name), meaning: meaningOf(name, type), help: '' }));
}

/** Functions that come with kinds, by signature. */
export function functionsOf(kinds: Iterable<NodeKind>): [string, IrFunction][] {
  return [...kinds].flatMap(({ functions = [] }) => functions.map((each): [string, IrFunction] => [each.signature, each]));
}
