import { mkdir, writeFile } from 'node:fs/promises';
import { basename, join } from 'node:path';
import { compileFor, library, libraryWith, newCodeMaterial, GLSL_TARGET } from '@brelvin/core';
import { CODE_FILE, libraryBeside, readCodeFile } from '../code-file';
import type { ExitCode, Output } from '../output';
import { BadFile, readMaterialFile } from '../read-file';
import { sourceMapOf } from '../source-maps';

export const TARGETS = ['glsl'] as const;

/**
 * Writes a material, or its code, as programs of a target: `NAME.vert` and `NAME.frag`, each with a source map beside it.
 *
 * @throws BadFile
 */
export async function emit(file: string, { out }: { out: string }, output: Output): Promise<ExitCode> {
  const { material, library: known } = await materialAndLibrary(file);
  const { compiled, problems } = compileFor(GLSL_TARGET, material, known);
  if (!compiled) {
    for (const { node, message } of problems) output.err(`${file}: ${node ? `${node}: ` : ''}${message}`);
    return 1;
  }
  await mkdir(out, { recursive: true });
  const name = basename(file).replace(/\.[^.]*$/, '');
  for (const [suffix, source] of [
    ['vert', compiled.program.vertex],
    ['frag', compiled.program.fragment],
  ] as const) {
    const path = join(out, `${name}.${suffix}`);
    await writeFile(path, source.text);
    await writeFile(`${path}.map`, sourceMapOf(source, `${name}.${suffix}`, name, material.code));
    output.out(path);
  }
  return 0;
}

async function materialAndLibrary(file: string) {
  if (!CODE_FILE.test(file)) {
    const { material, functions } = await readMaterialFile(file);
    const texts = new Map([...functions].map(([name, text]) => [name, { text }]));
    return { material, library: texts.size > 0 ? libraryWith(texts, library()) : library() };
  }
  const read = await readCodeFile(file);
  if (read.kind !== 'material') throw new BadFile(`${file}: holds functions, but no material: there is no paint and no void main().`);
  return { material: newCodeMaterial(basename(file), {}, read.code), library: await libraryBeside(file) };
}
