import type { LightRig, Material, StageSet } from '@brelvin/contract';
import {
  DEMO_DOCUMENTS,
  DEMO_IMAGES,
  demoLibrary,
  demoPanorama,
  materialsOf,
  mipChain,
  newSet,
  panoramaPixels,
  renderDocument,
  demoDocument,
  demoSet,
  type AssetReader,
  type DemoScene,
  type Studio,
} from '@brelvin/core';

export const SIDE = 96;
export const RIGS = ['rig-north-window', 'rig-dusk-quay', 'rig-lamp-room'];

/** A demo on a set under a light rig: 8-bit sRGB rows from the top, RGBA. */
export interface DrawnDemo {
  readonly demo: string;
  readonly rig: string;
  readonly pixels: Uint8Array<ArrayBuffer>;
}

/** Every demo material on a sphere, and the sets that are made for one. */
function scenes(): { readonly id: string; readonly set: StageSet }[] {
  const sphere = newSet('sphere');
  const materials = DEMO_DOCUMENTS.flatMap(({ id, document }) => (document.format === 'brelvin-material' ? [{ id, document }] : []));
  return [
    ...materials.filter(({ id }) => !id.startsWith('material-label')).map(({ id }) => ({ id, set: sphere })),
    { id: 'material-puppet-cheek', set: demo<StageSet>('set-puppet-on-stand') },
    { id: 'material-label-front', set: demo<StageSet>('set-label-cube') },
    { id: 'material-lamp-chimney', set: demo<StageSet>('set-lamp-on-the-sill') },
    { id: 'material-lamp-chimney', set: demo<StageSet>('set-glass-oil-filler') },
    { id: 'material-salt-glazed-jar', set: demo<StageSet>('set-jar-and-seal') },
    { id: 'material-store-boards', set: demoSet('set-net-store') },
  ];
}

/** Draws all of them under each light rig, one rig after the other. */
export async function drawDemos(studio: Studio, rigs: readonly string[], side: number): Promise<DrawnDemo[]> {
  const drawn: DrawnDemo[] = [];
  for (const scene of scenes()) for (const rig of rigs) drawn.push(await drawUnder(studio, scene, rig, side));
  return drawn;
}

/** Draws each of them once, under one light rig after the other in turn. */
export async function drawDemosInTurn(studio: Studio, rigs: readonly string[], side: number): Promise<DrawnDemo[]> {
  const drawn: DrawnDemo[] = [];
  for (const [index, scene] of scenes().entries()) drawn.push(await drawUnder(studio, scene, rigs[index % rigs.length] ?? '', side));
  return drawn;
}

function drawUnder(studio: Studio, { id, set }: ReturnType<typeof scenes>[number], rigId: string, side: number): Promise<DrawnDemo> {
  return drawScene(studio, { bench: id, material: demo<Material>(id), set, rig: demo<LightRig>(rigId) }, side);
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
