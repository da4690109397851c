import { existsSync } from 'node:fs';
import { readdir } from 'node:fs/promises';
import { basename, dirname, extname, join } from 'node:path';
import type { MaterialCode } from '@brelvin/contract';
import type { FunctionLibrary } from '@brelvin/core';
import {
  codeDiagnostics,
  elaborate,
  functionDiagnostics,
  library,
  libraryWith,
  loopsCountedIn,
  NO_FUNCTIONS,
  readCode,
  VERTICES_PATH,
  type Diagnostic,
  type FunctionText,
  type FunctionTexts,
  type Library,
  type PlacedLoop,
} from '@brelvin/core';
import { readTextFile } from './read-file';

export const CODE_FILE = /\.(glsl|wgsl|vert|frag)$/;
const MATERIAL = /\bpaint\s*\(\s*(?:(?:in\s+)?Surface\b|\w+\s*:\s*Surface\b)|\bvoid\s+main\s*\(|@(?:fragment|vertex)\b/;
/** What pixels do where only the vertices are written. */
const PLAIN_PIXELS = 'out vec4 pixel;\nvoid main() { pixel = vec4(1.0); }\n';

/** What a file of shading code is: a material's text, with its vertex stage beside it, or functions. */
export type CodeFile =
  | { readonly kind: 'material'; readonly code: MaterialCode; readonly files: { readonly text?: string; readonly vertices?: string } }
  | { readonly kind: 'function'; readonly name: string; readonly text: string }
  | { readonly kind: 'functions'; readonly text: string };

/** @throws BadFile */
export async function readCodeFile(file: string): Promise<CodeFile> {
  const text = await readTextFile(file);
  const beside = (suffix: string): string => file.replace(CODE_FILE, suffix);
  if (extname(file) === '.vert') {
    const pixels = beside('.frag');
    const known = existsSync(pixels);
    return {
      kind: 'material',
      code: { text: known ? await readTextFile(pixels) : PLAIN_PIXELS, vertices: text },
      files: { vertices: file, ...(known ? { text: pixels } : {}) },
    };
  }
  if (extname(file) === '.frag') {
    const vertices = beside('.vert');
    if (!existsSync(vertices)) return { kind: 'material', code: { text }, files: { text: file } };
    return { kind: 'material', code: { text, vertices: await readTextFile(vertices) }, files: { text: file, vertices } };
  }
  if (MATERIAL.test(text)) return { kind: 'material', code: { text }, files: { text: file } };
  const name = basename(file, extname(file));
  return new RegExp(`\\b${name.replace(/\W/g, '')}\\s*\\(`).test(text) ? { kind: 'function', name, text } : { kind: 'functions', text };
}

/** The shader library, with the functions that stand in the same folder under their names. */
export async function libraryBeside(file: string): Promise<Library> {
  const texts = await functionsIn(dirname(file));
  return texts.size > 0 ? libraryWith(texts, library()) : library();
}

/** Files `NAME.glsl` and `NAME.wgsl` that hold a function NAME. */
export async function functionsIn(folder: string): Promise<FunctionTexts> {
  const names = await readdir(folder).catch((): string[] => []);
  const found = new Map<string, FunctionText>();
  for (const each of names.filter((name) => /\.(?:glsl|wgsl)$/.test(name))) {
    const file = await readCodeFile(join(folder, each));
    if (file.kind === 'function') found.set(file.name, { text: file.text });
  }
  return found.size > 0 ? found : NO_FUNCTIONS;
}

/** What is to be said of a file of shading code; where loops stand whose length is not plain. */
export interface FoundInCode {
  readonly diagnostics: readonly Diagnostic[];
  readonly loops: readonly PlacedLoop[];
}

/** @throws BadFile */
export async function foundIn(file: string): Promise<FoundInCode> {
  const [read, known] = [await readCodeFile(file), await libraryBeside(file)];
  if (read.kind === 'function') {
    // A file of its own is read in its place, whatever stands beside it.
    const texts = new Map([
      ...((known as Partial<{ workspace: FunctionLibrary }>).workspace?.texts ?? NO_FUNCTIONS),
      [read.name, { text: read.text }],
    ]);
    return { diagnostics: functionDiagnostics(read.name, read.text, libraryWith(texts, library())), loops: [] };
  }
  if (read.kind === 'functions') {
    const { diagnostics } = elaborate(file, read.text, known.module, { advice: true, names: { mark: 'mine' } });
    return { diagnostics, loops: [] };
  }
  const reading = readCode(read.code, known);
  const isHere = ({ path }: Pick<Diagnostic, 'path'>): boolean => (path === VERTICES_PATH ? read.files.vertices : read.files.text) === file;
  return { diagnostics: codeDiagnostics(read.code, known).filter(isHere), loops: loopsCountedIn(read.code, reading).filter(isHere) };
}
