import type { LightRig, Material, MaterialImage, OrbitCamera, StageSet } from '@brelvin/contract';
import type { Library } from '../catalogue/library';
import type { Device, PassTimes } from '../device/device';
import { newFloorMaterial } from '../document/new-documents';
import { FLOOR } from '../document/part-rules';
import type { SurfaceVariant } from '../compile/surface-programs';
import { compileFor } from '../emit/emitted-material';
import type { EnvironmentPixels } from '../image/environment/environment-pixels';
import type { CubeChain, MipChain } from '../image/mips';
import type { MeshData } from '../mesh/mesh';
import { litProgram } from '../scene/lights';
import { wholePicture } from './large-picture';
import { FrameRenderer } from './frame-renderer';
import type { MaterialPipelines } from './material-pipelines';
import { MaterialPipelinesCache } from './material-pipelines-cache';
import { drawLayers, RECORDED, type PictureLayer } from './picture-layers';
import type { Picture } from './picture';
import type { MeshBank } from './mesh-bank';
import { StageScene } from './stage-scene';
import type { PictureSize } from './picture-part';

/** What pictures are drawn with, one after the other; programs are kept from one to the next. */
export interface Studio {
  readonly device: Device;
  readonly renderer: FrameRenderer;
  readonly surfaces: MaterialPipelinesCache;
}

export function openStudio(device: Device): Studio {
  return { device, renderer: new FrameRenderer(device), surfaces: new MaterialPipelinesCache(device) };
}

/** The documents that make a picture. */
export interface SeenDocuments {
  /** Id of the material on the Bench, which parts without a rule wear. */
  readonly bench: string;
  /** That one, and what else the parts of the set wear, by id. What is not here is drawn as not ready. */
  readonly materials: ReadonlyMap<string, Material>;
  readonly set: StageSet;
  readonly rig: LightRig;
  readonly library?: Library;
}

/** Where the files come from that documents show; nothing for what cannot be had. */
export interface AssetReader {
  image(image: MaterialImage): Promise<MipChain | CubeChain | undefined>;
  environment(assets: readonly string[]): Promise<EnvironmentPixels | undefined>;
  mesh(asset: string): Promise<MeshData | undefined>;
  /** Works something out from a large mesh apart from here. */
  readonly workApart?: MeshBank['workApart'];
}

export interface RenderView {
  readonly size: PictureSize;
  /** Of the Stage's clock, and of the lights' own. */
  readonly seconds?: number;
  /** The view for the Library when absent. */
  readonly camera?: OrbitCamera;
  /** In place of that: all that stands in the set is seen. */
  readonly whole?: boolean;
  /** What is drawn instead of a picture for eyes; see `drawLayers`. */
  readonly layers?: readonly PictureLayer[];
  /** In place of a picture: how long its passes take. */
  readonly timed?: boolean;
  /** Asked between steps: once it says no, nothing more is done. */
  readonly wanted?: () => boolean;
  /** Told the part of the picture that is drawn, 0…1. */
  readonly onProgress?: (share: number) => void;
}

/** What a picture lacks: it is drawn without, or shows a placeholder. */
export interface RenderLack {
  readonly what: 'material' | 'mesh' | 'image' | 'environment';
  readonly name: string;
  readonly reason: string;
}

export interface RenderedDocument {
  /**
   * 8-bit sRGB RGBA rows from the top, with the background's opacity. None where nothing stands in the set, where the
   * material on the Bench does not compile, or where it is not wanted any more.
   */
  readonly pixels?: Uint8Array<ArrayBuffer>;
  /** In place of pixels, where layers were wanted. */
  readonly layers?: ReadonlyMap<PictureLayer, Float32Array<ArrayBuffer>>;
  /** With them: what the numbers of the layer `part` stand for, from 1. */
  readonly parts?: readonly string[];
  /** Where that was wanted. */
  readonly times?: PassTimes;
  readonly lacks: readonly RenderLack[];
}

/**
 * Documents → a picture: a material in its set, under its light, at a time.
 *
 * @throws ProgramRefused by the device
 */
export async function renderDocument(
  { device, renderer, surfaces }: Studio,
  { bench, materials, set, rig, library }: SeenDocuments,
  assets: AssetReader,
  { size, seconds = 0, camera, whole, layers, timed, wanted = () => true, onProgress = () => undefined }: RenderView,
): Promise<RenderedDocument> {
  const lacks: RenderLack[] = [];
  const scene = new StageScene(device, renderer);
  const { images, environments, meshes } = renderer;
  const bringImages = async (all: readonly MaterialImage[]): Promise<void> => {
    const missing = await images.bring(all, (image) => assets.image(image));
    lacks.push(...missing.map(({ name }) => lack('image', name, 'It cannot be had: a grey check stands in its place.')));
  };
  try {
    meshes.load = (asset) => assets.mesh(asset);
    meshes.workApart = assets.workApart;
    await meshes.bring(Object.values(set.meshes).flatMap(({ source }) => source?.asset ?? []));
    scene.setBench(bench);
    scene.show(set);
    lacks.push(...scene.problems.map(({ mesh, message }) => lack('mesh', set.meshes[mesh]?.name ?? mesh, message)));
    const view = camera ?? (whole ? scene.wholeView() : scene.portrait());
    if (scene.items(seconds).length === 0) return { lacks };
    const lit = litProgram(rig);
    const apart = layers?.some((layer) => layer !== 'whole' && !RECORDED.some((each) => each === layer)) === true;
    const variants: SurfaceVariant[] = [...(lit === 'plain' ? [] : [lit]), ...(apart ? (['inspect'] as const) : [])];
    const floor: [string, Material][] = set.floor.shown ? [[FLOOR, newFloorMaterial()]] : [];
    const onField = async (id: string, material: Material): Promise<MaterialPipelines | undefined> => {
      const { compiled, problems } = compileFor(device.target, material, library, { variants, wornBy: 'field' });
      if (!compiled) lacks.push(lack('material', material.name, problems[0]?.message ?? 'It does not compile for a field.'));
      return compiled && surfaces.find(`${id} on field`, compiled, [lit]);
    };
    for (const [id, material] of new Map([...floor, ...materials])) {
      const { compiled, problems } = compileFor(device.target, material, library, { variants });
      if (!compiled) lacks.push(lack('material', material.name, problems[0]?.message ?? 'It does not compile.'));
      if (!compiled && id === bench) return { lacks };
      if (!compiled) continue;
      const surface = await surfaces.find(id, compiled, [lit]);
      scene.assign(id, { material, surface, onField: scene.wornOnFields.has(id) ? await onField(id, material) : undefined });
      // A picture with placeholders would stay.
      await bringImages(Object.values(material.images));
    }
    if (rig.environment && !(await environments.bring(rig.environment, (files) => assets.environment(files))))
      lacks.push(lack('environment', rig.environment.name, 'It cannot be had: its light is missing.'));
    if (rig.backgroundImage) await bringImages([rig.backgroundImage.image]);
    const drawn = async (): Promise<Omit<RenderedDocument, 'lacks'>> => {
      const picture = { camera: view, rig, seconds, items: scene.items(seconds), casters: scene.casters(seconds) };
      const goesOn = (done: number, of: number): boolean => {
        onProgress(done / of);
        return wanted();
      };
      if (layers) {
        const parts = picture.items.map(({ part }) => part?.name ?? '');
        return { layers: await drawLayers(renderer, picture, { size, cssSize: size }, layers, goesOn), parts };
      }
      if (timed) return { times: await timesOf(device, renderer, picture, size) };
      return { pixels: await wholePicture(device, renderer, picture, size, goesOn) };
    };
    if (!wanted()) return { lacks };
    let made = await drawn();
    // What programs want of a large mesh is worked out apart, once a drawing has asked for it.
    while (wanted() && meshes.awaits) {
      await meshes.settled();
      made = await drawn();
    }
    // Of a device that was given back nothing can be read.
    return wanted() ? { ...made, lacks } : { lacks };
  } finally {
    scene.destroy();
  }
}

async function timesOf(device: Device, renderer: FrameRenderer, picture: Picture, size: PictureSize): Promise<PassTimes> {
  const target = device.createTexture({ ...size, format: 'rgba8unorm', samples: 1 });
  try {
    return await device.timePasses(() => renderer.draw(picture, { size, samples: 4, target, targetSize: size }));
  } finally {
    target.destroy();
  }
}

function lack(what: RenderLack['what'], name: string, reason: string): RenderLack {
  return { what, name, reason };
}
