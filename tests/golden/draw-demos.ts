import type { LightRig, Material, MaterialImage, StageSet } from '@brelvin/contract';
import {
  compileFor,
  DEMO_DOCUMENTS,
  DEMO_IMAGES,
  demoPanorama,
  demoLibrary,
  FLOOR,
  materialsOf,
  FrameRenderer,
  mipChain,
  newFloorMaterial,
  newSet,
  panoramaPixels,
  StageScene,
  MaterialPipelinesCache,
  variantsUnder,
  type DeviceTexture,
  type EnvironmentPixels,
  type MipChain,
  GLSL_TARGET,
} from '@brelvin/core';
import { WebGl2Device } from '@brelvin/devices';

export const SIDE = 96;
export const RIGS = ['rig-north-window', 'rig-dusk-quay', 'rig-lamp-room'];

export interface DemoPictures {
  /** One a picture, in order. */
  readonly names: string[];
  /** 8-bit sRGB rows, RGBA, one picture after the other, as base64. */
  readonly pixels: string;
}

/** A demo on a set under a light rig: 8-bit sRGB rows from the top, RGBA. */
export interface DrawnDemo {
  readonly demo: string;
  readonly rig: string;
  readonly pixels: Uint8Array<ArrayBuffer>;
}

/** Draws every demo material on a sphere, and the sets that are made for one, each under light rigs, one rig after the other. */
export async function drawDemos(rigs: readonly string[], side: number): Promise<DrawnDemo[]> {
  const on = await easel(side);
  const drawn: DrawnDemo[] = [];
  const sphere = newSet('sphere');
  const materials = DEMO_DOCUMENTS.flatMap(({ id, document }) => (document.format === 'brelvin-material' ? [{ id, document }] : []));
  const scenes = [
    ...materials.filter(({ id }) => !id.startsWith('material-label')).map(({ id }) => ({ id, set: sphere })),
    { id: 'material-puppet-cheek', set: demo<StageSet>('set-puppet-on-stand') },
    { id: 'material-label-front', set: demo<StageSet>('set-label-cube') },
    { id: 'material-lamp-chimney', set: demo<StageSet>('set-lamp-on-the-sill') },
    { id: 'material-lamp-chimney', set: demo<StageSet>('set-glass-oil-filler') },
    { id: 'material-salt-glazed-jar', set: demo<StageSet>('set-jar-and-seal') },
  ];
  for (const { id, set } of scenes) for (const rigId of rigs) drawn.push(await drawScene(on, id, set, rigId, materials));
  return drawn;
}

/** What pictures are drawn with, and into. */
export interface Easel {
  readonly device: WebGl2Device;
  readonly renderer: FrameRenderer;
  readonly surfaces: MaterialPipelinesCache;
  readonly target: DeviceTexture;
}

export async function easel(side: number): Promise<Easel> {
  const device = WebGl2Device.create(new OffscreenCanvas(side, side));
  const target = device.createTexture({ width: side, height: side, format: 'rgba8unorm', samples: 1 });
  return { device, renderer: await FrameRenderer.create(device), surfaces: new MaterialPipelinesCache(device), target };
}

/** A set with a material on the Bench, as the Library shows it. */
export async function drawScene(
  { device, renderer, surfaces, target }: Easel,
  id: string,
  set: StageSet,
  rigId: string,
  materials: readonly { readonly id: string; readonly document: Material }[],
): Promise<DrawnDemo> {
  const rig = demo<LightRig>(rigId);
  if (rig.environment) await renderer.environments.bring(rig.environment, demoAround);
  const scene = new StageScene(device, renderer);
  scene.setBench(id);
  scene.show(set);
  const camera = scene.portrait();
  const named = materialsOf(set);
  const seen = materials.filter((each) => each.id === id || named.has(each.id));
  for (const worn of [...seen, { id: FLOOR, document: newFloorMaterial() }]) {
    const { compiled } = compileFor(GLSL_TARGET, worn.document, demoLibrary(), { variants: variantsUnder(rig) });
    if (!compiled) throw new Error(`${worn.id} does not compile`);
    scene.assign(worn.id, { material: worn.document, surface: await surfaces.find(worn.id, compiled) });
    await renderer.images.bring(Object.values(worn.document.images), demoChain);
  }
  const { width, height } = target;
  const size = { width, height };
  const picture = { items: scene.items(0), camera, rig, seconds: 0, casters: scene.casters(0) };
  renderer.draw(picture, { size, samples: 4, target, targetSize: size });
  const pixels = await device.readPixels(target);
  scene.destroy();
  return { demo: `${id} on ${set.name}`, rig: rig.name, pixels };
}

export async function run(): Promise<DemoPictures> {
  const drawn = await drawDemos(RIGS, SIDE);
  const all = new Uint8Array(drawn.length * SIDE * SIDE * 4);
  drawn.forEach(({ pixels }, index) => all.set(pixels, index * pixels.length));
  let text = '';
  for (let at = 0; at < all.length; at += 4096) text += String.fromCharCode(...all.subarray(at, at + 4096));
  return { names: drawn.map(({ demo, rig }) => `${demo} under ${rig}`), pixels: btoa(text) };
}

export function demo<T extends StageSet | LightRig | Material>(id: string): T {
  const found = DEMO_DOCUMENTS.find((each) => each.id === id);
  if (!found) throw new RangeError(`there is no demo ${id}`);
  return found.document as T;
}

async function demoChain({ asset, role }: MaterialImage): Promise<MipChain | undefined> {
  const image = DEMO_IMAGES.find((each) => each.asset === asset);
  return image && mipChain(image.pixels(), role);
}

async function demoAround([asset]: readonly string[]): Promise<EnvironmentPixels | undefined> {
  const picture = demoPanorama(asset);
  return picture && panoramaPixels(picture);
}
