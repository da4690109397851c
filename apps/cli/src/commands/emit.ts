import { mkdir, writeFile } from 'node:fs/promises';
import { basename, join } from 'node:path';
import { compileMaterial } from '@brelvin/core';
import type { ExitCode, Output } from '../output';
import { readMaterialFile } from '../read-file';

export const TARGETS = ['glsl'] as const;

/**
 * Writes a material as programs of a target: `NAME.vert` and `NAME.frag`.
 *
 * @throws BadFile
 */
export async function emit(file: string, { out }: { out: string }, output: Output): Promise<ExitCode> {
  const { compiled, problems } = compileMaterial(await readMaterialFile(file));
  if (!compiled) {
    for (const { node, message } of problems) output.err(`${file}: ${node}: ${message}`);
    return 1;
  }
  await mkdir(out, { recursive: true });
  const name = basename(file).replace(/\.[^.]*$/, '');
  for (const [suffix, source] of [
    ['vert', compiled.glsl.vertex],
    ['frag', compiled.glsl.fragment],
  ] as const) {
    const path = join(out, `${name}.${suffix}`);
    await writeFile(path, source.text);
    output.out(path);
  }
  return 0;
}
