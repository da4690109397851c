import type { BrelvinDocument, LibraryFunction, Graph } from '@brelvin/contract';
import type { Edit } from '../document/edit';
import { importsOf, renamedIn } from '../language';
import { functionOfKind, type FunctionTexts } from './function-library';

/** Names of the functions of the Library that a document asks for by itself, each once, in order. */
export function functionsUsedBy(document: BrelvinDocument): string[] {
  if (document.format === 'brelvin-function') return importsOf(document.text).sort();
  if (document.format !== 'brelvin-material') return [];
  const { code, surface, groups } = document;
  const nodes = [surface, ...Object.values(groups).map(({ graph }) => graph)].flatMap(functionsInGraph);
  return [...new Set([...importsOf(code?.text ?? ''), ...importsOf(code?.vertices ?? ''), ...nodes])].sort();
}

function functionsInGraph({ nodes }: Graph): string[] {
  const kinds = new Set<string>();
  for (const id of Object.keys(nodes)) kinds.add(nodes[id]?.kind ?? '');
  return [...kinds].flatMap((kind) => functionOfKind(kind) ?? []);
}

/** The same with all that those import in their turn. */
export function functionsNeededBy(document: BrelvinDocument, texts: FunctionTexts): Set<string> {
  const former = new Map([...texts].flatMap(([name, { formerNames = [] }]) => formerNames.map((each) => [each, name] as const)));
  const found = new Set<string>();
  const enter = (asked: string): void => {
    const name = texts.has(asked) ? asked : (former.get(asked) ?? asked);
    if (found.has(name)) return;
    found.add(name);
    importsOf(texts.get(name)?.text ?? '').forEach(enter);
  };
  functionsUsedBy(document).forEach(enter);
  return found;
}

/** Gives a function another name, also in its own text; what asks for it by the old one goes on working. */
export function renameFunction(document: LibraryFunction, wanted: string): Edit {
  const { label, changes } = takeNameOver(document, wanted);
  return { label, changes: [...changes, { path: ['text'], value: renamedIn(document.text, document.name, wanted) }] };
}

/** Has the Library call a function as its own text does already. */
export function takeNameOver({ name, formerNames }: LibraryFunction, called: string): Edit {
  const former = [name, ...formerNames.filter((each) => each !== name && each !== called)].slice(0, 64);
  return {
    label: `Call it ${called}`,
    changes: [
      { path: ['name'], value: called },
      { path: ['formerNames'], value: former },
    ],
  };
}

/** What a function of the Library begins with. */
export function newFunction(name: string, text = firstText(name)): LibraryFunction {
  return { format: 'brelvin-function', version: 1, name, tags: [], text, formerNames: [] };
}

function firstText(name: string): string {
  return `/**
 * ${name}: what it does, in one line.
 * @inlet amount fraction "Amount" = 0.5 in 0..1: what 0 and 1 mean.
 */
vec3 ${name}(vec3 colour, float amount) {
  return colour * amount;
}
`;
}
