import type { MaterialCode } from '@brelvin/contract';
import { addMapping, GenMapping, setSourceContent, toEncodedMap } from '@jridgewell/gen-mapping';
import { CODE_PATH, libraryText, VERTICES_PATH, type EmittedSource } from '@brelvin/core';

/**
 * A source map (ECMA-426) of an emitted program: each line to the code it was made of, or to the node of a graph.
 *
 * @param code the material's own texts, which stand in the map under `NAME.glsl` and `NAME.vertices.glsl`
 */
export function sourceMapOf(emitted: EmittedSource, file: string, name: string, code?: MaterialCode): string {
  const map = new GenMapping({ file });
  const contents = new Map<string, { readonly source: string; readonly text?: string }>();
  const sourceOf = (path: string): { readonly source: string; readonly text?: string } => {
    const known = contents.get(path);
    if (known) return known;
    const made =
      path === CODE_PATH
        ? { source: `${name}.glsl`, text: code?.text }
        : path === VERTICES_PATH
          ? { source: `${name}.vertices.glsl`, text: code?.vertices }
          : { source: path.endsWith('.glsl') ? `library/${path}` : `graph/${path}`, text: libraryText(path) };
    contents.set(path, made);
    if (made.text !== undefined) setSourceContent(map, made.source, made.text);
    return made;
  };
  emitted.lines.forEach((origin, index) => {
    if (!origin) return;
    const { source, text } = sourceOf(origin.path);
    const before = text === undefined || !origin.range ? [''] : text.slice(0, origin.range.from).split('\n');
    addMapping(map, {
      generated: { line: index + 1, column: 0 },
      source,
      original: { line: before.length, column: before.at(-1)?.length ?? 0 },
    });
  });
  return JSON.stringify(toEncodedMap(map));
}
