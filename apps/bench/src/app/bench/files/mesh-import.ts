import { inject, Injectable } from '@angular/core';
import { LONGEST_NAME, type PartRule, type StageSet } from '@brelvin/contract';
import { materialFromImport, newMesh, newSet, type ImportedImage, type ImportedMaterial, type TakenImage } from '@brelvin/core';
import { endingOf } from '@brelvin/io';
import { DocumentApi } from '../../shared/api/document-api';
import { newId } from '../../shared/documents/new-id';
import { ImageShelf } from '../../shared/images/image-shelf';
import { MeshShelf, type TakenMesh } from '../../shared/meshes/mesh-shelf';

/** What an imported mesh came to be. */
export interface ImportedMesh {
  readonly set: string;
  /** The first of its materials; nothing where it has none. */
  readonly material?: string;
  readonly words: string;
}

/** Brings a mesh of a file in: its images onto the shelf, its materials as documents, and a set in which its parts wear them. */
@Injectable({ providedIn: 'root' })
export class MeshImport {
  private readonly api = inject(DocumentApi);
  private readonly images = inject(ImageShelf);
  private readonly meshes = inject(MeshShelf);

  /**
   * Each mesh among files, one after the other; one that cannot be taken does not keep the others out.
   *
   * @param told of each what came of it, or why it was not taken
   * @returns the first that came
   */
  async takeAll(files: readonly File[], rig: string | undefined, told: (words: string) => void): Promise<ImportedMesh | undefined> {
    let first: ImportedMesh | undefined;
    for (const main of MeshShelf.meshesAmong(files)) {
      try {
        const imported = await this.take(main, files, rig);
        first ??= imported;
        if (imported) told(imported.words);
      } catch (error) {
        told(error instanceof Error ? error.message : String(error));
      }
    }
    return first;
  }

  /**
   * @param main the mesh
   * @param files all that was chosen with it
   * @param rig in whose light the materials are to stand
   * @throws Error with words for the user; nothing when it was cancelled
   */
  async take(main: File, files: readonly File[], rig: string | undefined): Promise<ImportedMesh | undefined> {
    const mesh = await this.meshes.take(main, files);
    if (!mesh) return undefined;
    const said: string[] = [...mesh.words];
    const taken = await this.takeImages(mesh.images, said);
    const set = newId();
    const made = new Map<number, string>();
    for (const number of new Set(mesh.wears)) {
      const source = number === undefined ? undefined : mesh.materials[number];
      if (number === undefined || !source) continue;
      const id = newId();
      await this.api.create(id, materialFromImport(source, taken, { set, rig }));
      made.set(number, id);
    }
    await this.api.create(set, setOf(mesh, made));
    const [material] = made.values();
    return { set, material, words: summary(mesh, made.size, said) };
  }

  private async takeImages(images: readonly ImportedImage[], said: string[]): Promise<Map<number, TakenImage>> {
    const taken = new Map<number, TakenImage>();
    for (const [number, { name, bytes }] of images.entries()) {
      if (bytes.length === 0) continue;
      try {
        const image = await this.images.take(new File([bytes], `${name}.${endingOf(bytes)}`));
        if (image) taken.set(number, { name: name.slice(0, LONGEST_NAME), asset: image.asset, width: image.width, height: image.height });
      } catch (error) {
        said.push(error instanceof Error ? error.message : String(error));
      }
    }
    return taken;
  }
}

function setOf({ name, source, wears, materials }: TakenMesh, made: ReadonlyMap<number, string>): StageSet {
  const rules = source.parts.flatMap((part, order): [string, PartRule][] => {
    const number = wears[order];
    const material = made.get(number ?? -1);
    if (material === undefined) return [];
    const { doubleSided }: Pick<ImportedMaterial, 'doubleSided'> = materials[number ?? -1] ?? { doubleSided: true };
    return [[newId(), { order, mesh: 'mesh', pattern: part, material, values: {}, faces: doubleSided ? 'both' : 'front' }]];
  });
  const title = name.slice(0, LONGEST_NAME) || 'Mesh';
  const mesh = newMesh('imported', {}, { name: title, source });
  return { ...newSet(title), meshes: { mesh }, partRules: Object.fromEntries(rules) };
}

function summary({ source }: TakenMesh, materials: number, said: readonly string[]): string {
  const count = (number: number, one: string, many: string): string => `${number.toLocaleString('en')} ${number === 1 ? one : many}`;
  const { low, high } = source.bounds;
  const size = Math.max(...high.map((each, axis) => each - (low[axis] ?? 0)));
  const odd = size > 50 || size < 0.02 ? ` It measures ${Number(size.toPrecision(2))} m: fit it in the parts tab.` : '';
  return [
    `${source.file}: ${count(source.parts.length, 'part', 'parts')}, ${count(source.triangles, 'triangle', 'triangles')}, ${count(materials, 'material', 'materials')}.${odd}`,
    ...said,
  ].join(' ');
}
