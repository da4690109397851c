import { inject, Injectable } from '@angular/core';
import type { Material, MaterialImage, StageSet } from '@brelvin/contract';
import {
  applyChanges,
  dressPart,
  facesByName,
  filesForParts,
  joinEdits,
  newMaterial,
  partNames,
  putImage,
  wireMapSet,
  type Edit,
} from '@brelvin/core';
import { DocumentApi } from '../../shared/api/document-api';
import { newId } from '../../shared/documents/new-id';
import { ImageShelf } from '../../shared/images/image-shelf';

/** Gives parts of a mesh an image each: a material is made for every part whose name a file has. */
@Injectable({ providedIn: 'root' })
export class PartImages {
  private readonly api = inject(DocumentApi);
  private readonly shelf = inject(ImageShelf);

  /**
   * @returns one step of the set that dresses all of them; nothing when it was cancelled
   * @throws Error with words for the user
   */
  async take(files: readonly File[], set: StageSet, mesh: string, seenIn: Material['seenIn']): Promise<Edit | undefined> {
    const stands = set.meshes[mesh];
    const parts = stands ? partNames(stands) : [];
    const names = files.map(({ name }) => name);
    const found = filesForParts(names, parts, facesByName(names));
    if (found.size === 0)
      throw new Error(
        `No file is named after a part. Dropped here, images become materials of the parts, one each: end their names in ${parts.slice(0, 6).join(', ')}.`,
      );
    const edits: Edit[] = [];
    for (const [part, number] of found) {
      const file = files[number];
      const image = file && (await this.shelf.take(file));
      if (!image) return undefined;
      const id = newId();
      await this.api.create(id, materialOf(image, seenIn));
      edits.push(dressPart(set, mesh, part, 'material', id, newId));
    }
    return joinEdits(`An image on each of ${edits.length} parts`, ...edits);
  }
}

function materialOf(image: MaterialImage, seenIn: Material['seenIn']): Material {
  const plain = newMaterial(image.name || 'Image', seenIn);
  const shown = applyChanges(plain, [putImage('colour', { ...image, role: 'colour' })]);
  const plan = { label: '', surface: 'physicalSurface', height: 'nothing', maps: [{ image: 'colour', packing: 'colour' }] } as const;
  return applyChanges(shown, wireMapSet(shown, plan, newId).changes);
}
