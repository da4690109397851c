import { specialised } from '../ir/specialise';
import type { NodeKind } from './kind';

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
  const overloads = kind.overloads.map((each) => {
    if (key.length > 0) return specialised(each, known, each.name + key.join(''));
    // What the library has under the same signature is the same, only not yet worked out.
    const plain = specialised(each, known, each.name);
    return kind.featureless?.includes(plain.signature) ? plain : specialised(each, known, `${each.name}Plain`);
  });
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
