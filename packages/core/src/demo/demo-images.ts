import type { MaterialImage } from '@brelvin/contract';
import type { Pixels } from '../image/mips';
import { JAR_MAPS, JAR_SIDE } from './jar-maps';
import { LABEL_ASSETS, labelPixels, LABELS } from './label-images';
import { brassPixels, METAL_SIDE, scratchPixels } from './metal-maps';
import { TALLOW_ASSET, tallowPixels } from './tallow-matcap';

export interface DemoImage {
  readonly name: string;
  /** What the demo documents call its file; whoever stores the file puts its real address in. */
  readonly asset: string;
  readonly pixels: () => Pixels;
}

type MapName = `jar-${keyof typeof JAR_MAPS}` | 'brass-orm' | 'float-scratches';

const MAPS: Readonly<Record<MapName, { readonly side: number; readonly pixels: () => Pixels }>> = {
  'jar-colour': { side: JAR_SIDE, pixels: JAR_MAPS.colour },
  'jar-roughness': { side: JAR_SIDE, pixels: JAR_MAPS.roughness },
  'jar-normal': { side: JAR_SIDE, pixels: JAR_MAPS.normal },
  'jar-height': { side: JAR_SIDE, pixels: JAR_MAPS.height },
  'jar-occlusion': { side: JAR_SIDE, pixels: JAR_MAPS.occlusion },
  'brass-orm': { side: METAL_SIDE, pixels: brassPixels },
  'float-scratches': { side: METAL_SIDE, pixels: scratchPixels },
};

const MAP_NAMES = Object.keys(MAPS) as MapName[];

function mapAsset(name: MapName): string {
  return `8${MAP_NAMES.indexOf(name)}`.repeat(32);
}

/** A map as a demo material has it. */
export function demoMap(name: MapName, role: MaterialImage['role'] = 'data'): MaterialImage {
  const { side } = MAPS[name];
  return { name, asset: mapAsset(name), width: side, height: side, role, wrapX: 'repeat', wrapY: 'clamp', filter: 'smooth', uvSet: 0 };
}

/** Images that the demo materials read. */
export const DEMO_IMAGES: readonly DemoImage[] = [
  ...LABELS.map((label): DemoImage => ({ name: `label-${label}.png`, asset: LABEL_ASSETS[label], pixels: () => labelPixels(label) })),
  { name: 'tallow-ball.png', asset: TALLOW_ASSET, pixels: tallowPixels },
  ...MAP_NAMES.map((name): DemoImage => ({ name: `${name}.png`, asset: mapAsset(name), pixels: MAPS[name].pixels })),
];
