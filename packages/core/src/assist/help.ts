import type { WorkspaceLibrary } from '../catalogue/function-library';
import { libraryText, type Library } from '../catalogue/library';
import type { Origin } from '../ir/origin';
import { SYSTEM_UNIFORMS } from '../compile/code/system-names';
import { declaredParameters } from '../compile/code/declared-parameters';
import type { CodeSymbol } from '../language';
import type { CodedText } from './coded-text';
import { dialectOf } from './dialect';

/** What is said of a name: how it is written, what it means, where its formula comes from. */
export interface NameHelp {
  readonly signatures: readonly string[];
  readonly help: string;
  readonly source?: string;
}

/** Words for types that are not plain GLSL. */
const TYPE_HELP: Readonly<Record<string, string>> = {
  Lit: 'Light that leaves a surface, its terms held apart: ambient, diffuse, specular, reflection, transmission, emission.',
  Surface: 'What paint is given: position, normal, tangent, toEye, uv, uv2, place, colour, copy.',
  Shape: 'What shape changes: put a place into position; normals follow.',
};

export function helpFor(symbol: CodeSymbol, { read, text }: CodedText, library: Library): NameHelp {
  const plain: NameHelp = { signatures: [symbol.signature], help: '' };
  if (symbol.kind === 'builtin') {
    const found = dialectOf(text).builtinHelp(symbol.name);
    return found
      ? {
          signatures: [symbol.signature, ...found.signatures.filter((each) => each !== symbol.signature)].slice(0, 4),
          help: found.help,
          source: found.source,
        }
      : plain;
  }
  if (symbol.kind === 'struct' || symbol.kind === 'type') return { ...plain, help: TYPE_HELP[symbol.name] ?? '' };
  if (symbol.kind === 'function of the Library') {
    const { workspace } = library as Partial<WorkspaceLibrary>;
    const documentation = workspace && [...workspace.names].includes(symbol.name) ? workspace.read(symbol.name).documentation : undefined;
    const source = documentation?.tags.find(({ name }) => name === 'source')?.text;
    return { ...plain, help: documentation?.help || 'A function of the Library.', source };
  }
  if (symbol.kind === 'function') return { ...plain, ...functionHelp(symbol, read, library) };
  const uniform = read.uniforms.find(({ name, nameRange }) => name === symbol.name && nameRange.from === symbol.declared?.range?.from);
  if (uniform) {
    const [parameter] = declaredParameters([uniform]).parameters;
    const known = Object.hasOwn(SYSTEM_UNIFORMS, uniform.name) && dialectOf(text).isWhole(text) ? SYSTEM_UNIFORMS[uniform.name] : undefined;
    return { ...plain, help: known?.help ?? parameter?.help ?? `The parameter “${parameter?.name ?? uniform.name}”.` };
  }
  return plain;
}

function functionHelp({ name, declared }: CodeSymbol, read: CodedText['read'], library: Library): Partial<NameHelp> {
  const kind = [...library.kinds.values()].find(
    ({ overloads }) => overloads.length > 0 && overloads.some((each) => each.name === name && each.origin.path === declared?.path),
  );
  if (kind) return { help: kind.help, source: kind.source };
  const told = declared && commentAbove(declared);
  if (told) return { help: told };
  const comment = [...read.documentation].find(([signature]) => signature.startsWith(`${name}(`) || signature.startsWith(`${name}_`))?.[1];
  return comment ? { help: comment.help || comment.title, source: comment.tags.find((each) => each.name === 'source')?.text } : {};
}

/** The plain comment that stands before a declaration of the shader library. */
function commentAbove({ path, range }: Origin): string {
  const text = libraryText(path);
  if (text === undefined || !range) return '';
  const lines = text.slice(0, text.lastIndexOf('\n', range.from) + 1).split('\n');
  lines.pop();
  const words: string[] = [];
  while (lines.at(-1)?.startsWith('//')) words.unshift((lines.pop() ?? '').slice(2).trim());
  return words.join(' ');
}
