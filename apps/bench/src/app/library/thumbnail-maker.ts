import { Injectable, inject } from '@angular/core';
import type { LightRig, Material, StageSet } from '@brelvin/contract';
import {
  compileFor,
  drawThumbnail,
  FLOOR,
  FrameRenderer,
  materialsOf,
  newFloorMaterial,
  newRig,
  newSet,
  StageScene,
  MaterialPipelinesCache,
  variantsUnder,
  THUMBNAIL_SIZE,
  GLSL_TARGET,
} from '@brelvin/core';
import { WebGl2Device } from '@brelvin/devices';
import { DocumentApi } from '../shared/api/document-api';
import { FunctionShelf } from '../shared/functions/function-shelf';
import { EnvironmentShelf } from '../shared/images/environment-shelf';
import { ImageShelf } from '../shared/images/image-shelf';
import { MeshShelf } from '../shared/meshes/mesh-shelf';
import { pngOf } from '../shared/pixels/png-of';

interface Studio {
  readonly device: WebGl2Device;
  readonly renderer: FrameRenderer;
  readonly surfaces: MaterialPipelinesCache;
}

/** Programs that are kept from one picture to the next: those of a set or two. */
const MOST_SURFACES = 12;

/** Draws pictures of materials that no Bench has drawn yet, one after the other, on one device out of sight. */
@Injectable({ providedIn: 'root' })
export class ThumbnailMaker {
  private readonly api = inject(DocumentApi);
  private readonly functions = inject(FunctionShelf);
  private readonly shelf = inject(ImageShelf);
  private readonly around = inject(EnvironmentShelf);
  private readonly meshes = inject(MeshShelf);
  private queue: Promise<unknown> = Promise.resolve();
  private studio?: Studio;
  /** From one rest to the next. */
  private shift = 0;

  /**
   * Draws a material's picture, in the set and light in which it was last seen, and keeps it on the server.
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
    const material = (await this.api.read(id)).document as Material;
    const [set, rig] = await Promise.all([
      this.beside<StageSet>(material.seenIn.set, newSet('')),
      this.beside<LightRig>(material.seenIn.rig, newRig('')),
    ]);
    const { device, renderer, surfaces } = (this.studio ??= await openStudio());
    if (!wanted()) {
      this.close();
      return undefined;
    }
    const scene = new StageScene(device, renderer);
    try {
      renderer.meshes.load = (asset) => this.meshes.load(asset);
      renderer.meshes.workApart = (asset, work) => this.meshes.workOut(asset, work);
      await renderer.meshes.bring(Object.values(set.meshes).flatMap(({ source }) => source?.asset ?? []));
      scene.setBench(id);
      scene.show(set);
      const camera = scene.portrait();
      if (scene.items(0).length === 0) return undefined;
      for (const [worn, source] of await this.materialsOn(set, id, material)) {
        const { compiled } = compileFor(GLSL_TARGET, source, this.functions.library(), { variants: variantsUnder(rig) });
        if (!compiled && worn === id) return undefined;
        if (!compiled) continue;
        scene.assign(worn, { material: source, surface: await surfaces.find(worn, compiled) });
        // A picture with placeholders would stay in the Library.
        await renderer.images.bring(Object.values(source.images), (image) => this.shelf.load(image));
      }
      if (rig.environment) await renderer.environments.bring(rig.environment, (assets) => this.around.load(assets));
      if (rig.backgroundImage) await renderer.images.bring([rig.backgroundImage.image], (image) => this.shelf.load(image));
      const drawn = (): Promise<Uint8Array<ArrayBuffer>> =>
        drawThumbnail(device, renderer, { camera, rig, seconds: 0, items: scene.items(0), casters: scene.casters(0) });
      let pixels = await drawn();
      // What programs want of a large mesh is worked out apart from the page, once a drawing has asked for it.
      while (wanted() && renderer.meshes.awaits) {
        await renderer.meshes.settled();
        pixels = await drawn();
      }
      // Of a context that was given back nothing can be read.
      if (!wanted()) return undefined;
      await this.api.saveThumbnail(id, step, await pngOf(pixels));
      return this.api.thumbnailUrl(id, step);
    } finally {
      scene.destroy();
      surfaces.trim(MOST_SURFACES);
    }
  }

  private async materialsOn(set: StageSet, id: string, material: Material): Promise<Map<string, Material>> {
    const all = new Map([[id, material]]);
    if (set.floor.shown) all.set(FLOOR, newFloorMaterial());
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

async function openStudio(): Promise<Studio> {
  const device = WebGl2Device.create(new OffscreenCanvas(THUMBNAIL_SIZE, THUMBNAIL_SIZE));
  return { device, renderer: await FrameRenderer.create(device), surfaces: new MaterialPipelinesCache(device) };
}
