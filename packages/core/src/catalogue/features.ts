import { specialised } from '../ir/specialise';
import { signatureOf } from '../ir/build';
import type { IrFunction, Module } from '../ir/ir';
import type { NodeKind } from './kind';

/** Ends the name of a function that was made without any of its features. */
const NONE = 'Plain';

const made = new WeakMap<NodeKind, Map<string, NodeKind>>();

/**
 * A kind as a node has it that switched some of its features on: without the inlets and the code that the others need.
 * Which features are on is structure, so what is off costs nothing.
 */
export function featuredKind(kind: NodeKind, on: readonly string[] = []): NodeKind {
  const { features } = kind;
  if (!features) return kind;
  const known = new Map(features.map(({ name }): [string, boolean] => [name, on.includes(name)]));
  const key = features.filter(({ name }) => known.get(name)).map(({ label }) => inOneWord(label));
  const before = made.get(kind) ?? new Map<string, NodeKind>();
  made.set(kind, before);
  const found = before.get(key.join());
  if (found) return found;
  const overloads = kind.overloads.map((each) => specialised(each, known, `${each.name}${key.join('') || NONE}`));
  const left = new Set(overloads.flatMap(({ parameters }) => parameters.map(({ name }) => name)));
  const fresh: NodeKind = {
    ...kind,
    inlets: kind.inlets.filter(({ name }) => left.has(name)),
    overloads,
    functions: [...(kind.functions ?? []), ...overloads],
  };
  before.set(key.join(), fresh);
  return fresh;
}

/** A label as part of a name: each of its words with a capital. */
function inOneWord(label: string): string {
  return label.replace(/(?:^|[^A-Za-z0-9]+)([A-Za-z0-9])/g, (_, first: string) => first.toUpperCase());
}

/** The library's own overload that does what a function made without features does; nothing where it has none. */
export function libraryTwin({ name, parameters, origin }: IrFunction, { functions }: Module): IrFunction | undefined {
  if (!name.endsWith(NONE)) return undefined;
  const types = parameters.map(({ type }) => type);
  const found = functions.get(signatureOf(name.slice(0, -NONE.length), types));
  return found?.origin.path === origin.path ? found : undefined;
}
