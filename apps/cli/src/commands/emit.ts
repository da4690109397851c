import { mkdir, writeFile } from 'node:fs/promises';
import { basename, join } from 'node:path';
import { compileToRead, library, libraryWith, newCodeMaterial, TARGETS, type TargetName } from '@brelvin/core';
import { CODE_FILE, libraryBeside, readCodeFile } from '../code-file';
import type { ExitCode, Output } from '../output';
import { programInputs } from '../program-inputs';
import { BadFile, readMaterialFile } from '../read-file';
import { sourceMapOf } from '../source-maps';

export interface EmitOptions {
  readonly target: TargetName;
  readonly out: string;
}

/** Endings of both stages. */
const ENDINGS = { glsl: ['vert', 'frag'], wgsl: ['vert.wgsl', 'frag.wgsl'] } as const;

/**
 * Writes a material, or its code, as programs of a target: both stages, each with a source map beside it, and what they read.
 *
 * @throws BadFile
 */
export async function emit(file: string, { target, out }: EmitOptions, output: Output): Promise<ExitCode> {
  const { material, library: known } = await materialAndLibrary(file);
  const { compiled, problems } = compileToRead(TARGETS[target], material, known);
  if (!compiled) {
    for (const { node, message } of problems) output.err(`${file}: ${node ? `${node}: ` : ''}${message}`);
    return 1;
  }
  await mkdir(out, { recursive: true });
  const name = basename(file).replace(/\.[^.]*$/, '');
  const put = async (path: string, text: string): Promise<void> => writeFile(join(out, path), text);
  const { vertex, fragment } = compiled.program;
  for (const [index, source] of [vertex, fragment].entries()) {
    const path = `${name}.${ENDINGS[target][index]}`;
    await put(path, source.text);
    await put(`${path}.map`, sourceMapOf(source, path, name, material.code));
    output.out(join(out, path));
  }
  await put(`${name}.inputs.json`, `${JSON.stringify(programInputs(compiled, material, target), null, 2)}\n`);
  output.out(join(out, `${name}.inputs.json`));
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
