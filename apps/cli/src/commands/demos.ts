import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { BrelvinDocument } from '@brelvin/contract';
import { assetsOf, demoFunctions, functionsNeededBy, seenWith, writeBrelvinFile } from '@brelvin/core';
import { demoWithFiles } from '@brelvin/io/node';
import type { ExitCode, Output } from '../output';

/** Writes the demo's documents as files, each with all that it shows and is seen with. */
export async function writeDemos({ out }: { readonly out: string }, output: Output): Promise<ExitCode> {
  const { documents, files } = demoWithFiles();
  const byId = new Map(documents.map(({ id, document }) => [id, document]));
  const contents = new Map(files.map(({ sha256, type, file }) => [sha256, { bytes: new Uint8Array(file), type }]));
  const texts = demoFunctions();
  await mkdir(out, { recursive: true });
  for (const { id, document } of documents) {
    const beside = besideOf(id, document, byId);
    const all = [document, ...beside.values()];
    const assets = new Map(
      all.flatMap(assetsOf).flatMap(({ sha256 }) => {
        const content = contents.get(sha256);
        return content ? [[sha256, content] as const] : [];
      }),
    );
    const needed = new Set(all.flatMap((each) => [...functionsNeededBy(each, texts)]));
    const functions = new Map([...needed].map((name) => [name, texts.get(name)?.text ?? '']));
    const path = join(out, `${id}.brelvin`);
    await writeFile(path, writeBrelvinFile({ document, beside, assets, functions }));
    output.out(path);
  }
  return 0;
}

/** What a document is seen with, and what is seen with that. */
function besideOf(id: string, document: BrelvinDocument, all: ReadonlyMap<string, BrelvinDocument>): Map<string, BrelvinDocument> {
  const found = new Map<string, BrelvinDocument>();
  const enter = (each: BrelvinDocument): void => {
    for (const other of seenWith(each)) {
      const read = all.get(other);
      if (!read || other === id || found.has(other)) continue;
      found.set(other, read);
      // What others were last seen in is no part of this picture.
      if (read.format === 'brelvin-set') enter(read);
    }
  };
  enter(document);
  return found;
}
