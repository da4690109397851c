import { Injectable, inject } from '@angular/core';
import type { BrelvinDocument, DistanceField, LightRig, Material, StageSet } from '@brelvin/contract';
import {
  fieldsOf,
  materialsOf,
  newMaterial,
  newMesh,
  newRig,
  newSet,
  openStudio,
  renderDocument,
  THUMBNAIL,
  withFields,
  writtenField,
  type AssetReader,
  type Studio,
} from '@brelvin/core';
import { WebGl2Device } from '@brelvin/devices';
import { DocumentApi } from '../shared/api/document-api';
import { FunctionShelf } from '../shared/functions/function-shelf';
import { EnvironmentShelf } from '../shared/images/environment-shelf';
import { ImageShelf } from '../shared/images/image-shelf';
import { MeshShelf } from '../shared/meshes/mesh-shelf';
import { pngOf } from '../shared/pixels/png-of';

/** Programs that are kept from one picture to the next: those of a set or two. */
const MOST_SURFACES = 12;

/** Draws pictures of materials and fields that no Bench has drawn yet, one after the other, on one device out of sight. */
@Injectable({ providedIn: 'root' })
export class ThumbnailMaker {
  private readonly api = inject(DocumentApi);
  private readonly functions = inject(FunctionShelf);
  private readonly shelf = inject(ImageShelf);
  private readonly around = inject(EnvironmentShelf);
  private readonly meshes = inject(MeshShelf);
  private readonly assets: AssetReader = {
    image: (image) => this.shelf.load(image),
    environment: (assets) => this.around.load(assets),
    mesh: (asset) => this.meshes.load(asset),
    workApart: (asset, work) => this.meshes.workOut(asset, work),
  };
  private queue: Promise<unknown> = Promise.resolve();
  private studio?: Studio;
  /** From one rest to the next. */
  private shift = 0;

  /**
   * Draws a material's picture, in the set and light in which it was last seen, or a field's, and keeps it on the server.
   *
   * @returns its address; nothing when the material does not compile, or the maker went to rest before
   * @throws ApiFailure, NoWebGl2
   */
  make(id: string, step: number): Promise<string | undefined> {
    const { shift } = this;
    const made = this.queue.then(() => this.draw(id, step, () => shift === this.shift));
    this.queue = made.catch(() => undefined);
    return made;
  }

  /** Gives the graphics context back, and up what was still to be drawn. */
  rest(): void {
    this.shift++;
    this.close();
  }

  private close(): void {
    this.studio?.device.destroy();
    this.studio = undefined;
  }

  private async draw(id: string, step: number, wanted: () => boolean): Promise<string | undefined> {
    if (!wanted()) return undefined;
    await this.functions.ready();
    const { material, set, rig, whole } = await this.sceneOf((await this.api.read(id)).document);
    const studio = (this.studio ??= openStudio(WebGl2Device.create(new OffscreenCanvas(THUMBNAIL.width, THUMBNAIL.height))));
    if (!wanted()) {
      this.close();
      return undefined;
    }
    const documents = { bench: id, materials: await this.materialsOn(set, id, material), set, rig, library: this.functions.library() };
    try {
      const { pixels } = await renderDocument(studio, documents, this.assets, { size: THUMBNAIL, whole, wanted });
      if (!pixels) return undefined;
      await this.api.saveThumbnail(id, step, await pngOf(pixels));
      return this.api.thumbnailUrl(id, step);
    } finally {
      studio.surfaces.trim(MOST_SURFACES);
    }
  }

  /** A material in its set; a field alone, in a plain one. */
  private async sceneOf(document: BrelvinDocument): Promise<{ material: Material; set: StageSet; rig: LightRig; whole: boolean }> {
    if (document.format === 'brelvin-field') {
      const mesh = newMesh('field', {}, { field: '-', formula: writtenField(document).text });
      return { material: newMaterial(''), set: { ...newSet(''), meshes: { mesh } }, rig: newRig(''), whole: true };
    }
    const material = document as Material;
    const [set, rig] = await Promise.all([
      this.beside<StageSet>(material.seenIn.set, newSet('')),
      this.beside<LightRig>(material.seenIn.rig, newRig('')),
    ]);
    const texts = new Map<string, string | undefined>();
    for (const field of fieldsOf(set)) {
      const found = await this.beside<DistanceField | undefined>(field, undefined);
      texts.set(field, found?.format === 'brelvin-field' ? writtenField(found).text : undefined);
    }
    return { material, set: { ...set, meshes: withFields(set.meshes, (each) => texts.get(each)) }, rig, whole: false };
  }

  private async materialsOn(set: StageSet, id: string, material: Material): Promise<Map<string, Material>> {
    const all = new Map([[id, material]]);
    for (const other of materialsOf(set)) {
      const found = await this.beside<Material | undefined>(other, undefined);
      if (found && !all.has(other)) all.set(other, found);
    }
    return all;
  }

  private async beside<T>(id: string | undefined, instead: T): Promise<T> {
    if (!id) return instead;
    return this.api.read(id).then(
      ({ document }) => document as unknown as T,
      () => instead,
    );
  }
}
