import type { LightRig, Material, StageSet } from '@brelvin/contract';
import {
  DEMO_DOCUMENTS,
  DEMO_IMAGES,
  demoLibrary,
  demoPanorama,
  materialsOf,
  mipChain,
  newSet,
  openStudio,
  panoramaPixels,
  renderDocument,
  demoDocument,
  type AssetReader,
  type DemoScene,
  type Studio,
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
  const studio = easel();
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
  for (const { id, set } of scenes)
    for (const rigId of rigs) {
      const scene = { bench: id, material: demo<Material>(id), set, rig: demo<LightRig>(rigId) };
      drawn.push(await drawScene(studio, scene, side));
    }
  return drawn;
}

export function easel(): Studio {
  return openStudio(WebGl2Device.create(new OffscreenCanvas(1, 1)));
}

/** A set with a material on the Bench, as the Library shows it. */
export async function drawScene(
  studio: Studio,
  { bench: id, material, set, rig, whole }: Pick<DemoScene, 'bench' | 'material' | 'set' | 'rig'> & Partial<Pick<DemoScene, 'whole'>>,
  side: number,
): Promise<DrawnDemo> {
  const named = materialsOf(set);
  const materials = new Map(
    DEMO_DOCUMENTS.flatMap((each) =>
      each.document.format === 'brelvin-material' && (each.id === id || named.has(each.id)) ? [[each.id, each.document] as const] : [],
    ),
  );
  const documents = { bench: id, materials: materials.set(id, material), set, rig, library: demoLibrary() };
  const { pixels, lacks } = await renderDocument(studio, documents, DEMO_ASSETS, { size: { width: side, height: side }, whole });
  if (!pixels || lacks.length > 0)
    throw new Error(`${id} on ${set.name}: ${lacks.map(({ name, reason }) => `${name}: ${reason}`).join(' ')}`);
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
  return demoDocument(id) as T;
}

/** Files of the demo; its meshes are all made here. */
const DEMO_ASSETS: AssetReader = {
  image: async ({ asset, role }) => {
    const image = DEMO_IMAGES.find((each) => each.asset === asset);
    return image && mipChain(image.pixels(), role);
  },
  environment: async ([asset]) => {
    const picture = demoPanorama(asset);
    return picture && panoramaPixels(picture);
  },
  mesh: async () => undefined,
};
