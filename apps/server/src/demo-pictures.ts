import type { BrelvinDocument, LightRig, Material, StageSet } from '@brelvin/contract';
import { DEMO_DOCUMENTS, materialsOf } from '@brelvin/core';
import { createHash } from 'node:crypto';
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { DEMO_PICTURES } from './folders';

/** Of which documents each kept picture was drawn: digests, by the material's id. */
export const DRAWN_FROM = 'drawn-from.json';

/** A material of the demo with all that its picture shows. */
export interface DemoScene {
  readonly id: string;
  readonly material: Material;
  readonly set: StageSet;
  readonly rig: LightRig;
  /** SHA-256 of these, and of the other materials that the set wears. */
  readonly digest: string;
}

/** The demo's materials, each as its Bench opens it. */
export function demoScenes(): DemoScene[] {
  return DEMO_DOCUMENTS.flatMap(({ id, document }) => {
    if (document.format !== 'brelvin-material') return [];
    const { seenIn } = document;
    const [set, rig] = [demoDocument(seenIn.set) as StageSet, demoDocument(seenIn.rig) as LightRig];
    const others = [...materialsOf(set)].filter((other) => other !== id).map(demoDocument);
    const digest = createHash('sha256')
      .update(JSON.stringify([document, set, rig, ...others]))
      .digest('hex');
    return [{ id, material: document, set, rig, digest }];
  });
}

/** The picture of a demo material as it is kept here, PNG; nothing when none is. */
export function demoPicture(id: string): Buffer | undefined {
  const path = join(DEMO_PICTURES, `${id}.png`);
  return existsSync(path) ? readFileSync(path) : undefined;
}

function demoDocument(id: string | undefined): BrelvinDocument {
  const found = DEMO_DOCUMENTS.find((each) => each.id === id);
  if (!found) throw new RangeError(`The demo has no document ${id}.`);
  return found.document;
}
