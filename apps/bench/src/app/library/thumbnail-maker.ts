import { Injectable, inject } from '@angular/core';
import {
  compileMaterial,
  drawThumbnail,
  FLOOR,
  FrameRenderer,
  materialsOf,
  newMaterial,
  newRig,
  newSet,
  StageScene,
  throwsShadows,
  THUMBNAIL_SIZE,
  type LightRig,
  type Material,
  type StageSet,
  type Surface,
} from '@brelvin/core';
import { WebGl2Device } from '@brelvin/devices';
import { DocumentApi } from '../shared/api/document-api';
import { FunctionShelf } from '../shared/functions/function-shelf';
import { EnvironmentShelf } from '../shared/images/environment-shelf';
import { ImageShelf } from '../shared/images/image-shelf';
import { MeshShelf } from '../shared/meshes/mesh-shelf';
import { pngOf } from '../shared/pixels/png-of';

/** Draws pictures of materials that no Bench has drawn yet, one after the other, on one device out of sight. */
@Injectable({ providedIn: 'root' })
export class ThumbnailMaker {
  private readonly api = inject(DocumentApi);
  private readonly functions = inject(FunctionShelf);
  private readonly shelf = inject(ImageShelf);
  private readonly around = inject(EnvironmentShelf);
  private readonly meshes = inject(MeshShelf);
  private queue: Promise<unknown> = Promise.resolve();
  private device?: { device: WebGl2Device; renderer: FrameRenderer };

  /**
   * Draws a material's picture, in the set and light in which it was last seen, and keeps it on the server.
   *
   * @returns its address; nothing when the material does not compile
   * @throws ApiFailure, NoWebGl2
   */
  make(id: string, step: number): Promise<string | undefined> {
    const made = this.queue.then(() => this.draw(id, step));
    this.queue = made.catch(() => undefined);
    return made;
  }

  /** Gives the graphics context back. */
  rest(): void {
    this.device?.device.destroy();
    this.device = undefined;
  }

  private async draw(id: string, step: number): Promise<string | undefined> {
    await this.functions.ready();
    const material = (await this.api.read(id)).document as Material;
    const [set, rig] = await Promise.all([
      this.beside<StageSet>(material.seenIn.set, newSet('')),
      this.beside<LightRig>(material.seenIn.rig, newRig('')),
    ]);
    const { device, renderer } = (this.device ??= await openDevice());
    const scene = new StageScene(device, renderer);
    const surfaces: Surface[] = [];
    try {
      renderer.meshes.load = (asset) => this.meshes.load(asset);
      await renderer.meshes.bring(Object.values(set.meshes).flatMap(({ source }) => source?.asset ?? []));
      scene.setBench(id);
      scene.show(set);
      const camera = scene.portrait();
      const [first] = scene.items(0);
      if (!first) return undefined;
      for (const [worn, source] of await this.materialsOn(set, id, material)) {
        const { compiled } = compileMaterial(source, this.functions.library(), { variants: throwsShadows(rig) ? ['shadowed'] : [] });
        if (!compiled && worn === id) return undefined;
        if (!compiled) continue;
        const surface = await renderer.prepare(compiled, { camera, rig, seconds: 0 }, first.mesh, source);
        surfaces.push(surface);
        scene.wear(worn, { material: source, surface });
        // A picture with placeholders would stay in the Library.
        await renderer.images.bring(Object.values(source.images), (image) => this.shelf.load(image));
      }
      if (rig.environment) await renderer.environments.bring(rig.environment, (assets) => this.around.load(assets));
      if (rig.backgroundImage) await renderer.images.bring([rig.backgroundImage.image], (image) => this.shelf.load(image));
      const pixels = await drawThumbnail(device, renderer, { camera, rig, seconds: 0, items: scene.items(0), casters: scene.casters(0) });
      await this.api.saveThumbnail(id, step, await pngOf(pixels));
      return this.api.thumbnailUrl(id, step);
    } finally {
      surfaces.forEach((surface) => surface.destroy());
      scene.destroy();
    }
  }

  private async materialsOn(set: StageSet, id: string, material: Material): Promise<Map<string, Material>> {
    const all = new Map([[id, material]]);
    if (set.floor.shown) all.set(FLOOR, newMaterial('Floor'));
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

async function openDevice(): Promise<{ device: WebGl2Device; renderer: FrameRenderer }> {
  const device = WebGl2Device.create(new OffscreenCanvas(THUMBNAIL_SIZE, THUMBNAIL_SIZE));
  return { device, renderer: await FrameRenderer.create(device) };
}
