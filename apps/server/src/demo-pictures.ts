import { demoDocument, demoScenes, materialsOf } from '@brelvin/core';
import { createHash } from 'node:crypto';
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { DEMO_PICTURES } from './folders';

/** Of which documents each kept picture was drawn: digests, by the document's id. */
export const DRAWN_FROM = 'drawn-from.json';

/** SHA-256 of all that each picture shows, the other materials that its set wears included, by the document's id. */
export function demoDigests(): Readonly<Record<string, string>> {
  return Object.fromEntries(
    demoScenes().map(({ id, bench, material, set, rig, whole }) => {
      const others = [...materialsOf(set)].filter((other) => other !== bench).map(demoDocument);
      const shown = JSON.stringify([material, set, rig, ...others, ...(whole ? ['whole'] : [])]);
      return [id, createHash('sha256').update(shown).digest('hex')];
    }),
  );
}

/** The picture of a demo document as it is kept here, PNG; nothing when none is. */
export function demoPicture(id: string): Buffer | undefined {
  const path = join(DEMO_PICTURES, `${id}.png`);
  return existsSync(path) ? readFileSync(path) : undefined;
}
