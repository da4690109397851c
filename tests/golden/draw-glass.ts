import type { GraphNode, LightRig, Material, StageSet } from '@brelvin/contract';
import { demo, drawScene } from './draw-demos';
import { easel } from './easel';
import { pngText } from './png-text';

const SIDE = 300;
const CHIMNEY = 'material-lamp-chimney';
const ROUGHNESS = [0.15, 0.3, 0.5, 0.8];
const RIGS = ['rig-north-window', 'rig-lamp-room'];

/** A PNG file as base64: the lamp's chimney, rougher from left to right, in two light rigs. */
export async function run(): Promise<{ readonly png: string }> {
  const sheet = new OffscreenCanvas(ROUGHNESS.length * SIDE, RIGS.length * SIDE);
  const context = sheet.getContext('2d');
  if (!context) throw new Error('there is no canvas to draw on');
  for (const [row, rig] of RIGS.entries())
    for (const [column, roughness] of ROUGHNESS.entries()) {
      const sill = demo<StageSet>('set-lamp-on-the-sill');
      const { pixels } = await drawScene(
        await easel(),
        { bench: CHIMNEY, material: rough(roughness), set: sill, rig: demo<LightRig>(rig) },
        SIDE,
      );
      context.putImageData(new ImageData(new Uint8ClampedArray(pixels.buffer), SIDE, SIDE), column * SIDE, row * SIDE);
    }
  return { png: await pngText(sheet) };
}

function rough(roughness: number): Material {
  const glass = demo<Material>(CHIMNEY);
  const nodes = Object.entries(glass.surface.nodes).map(([id, node]): [string, GraphNode] => [
    id,
    node.kind === 'physicalSurface' ? { ...node, values: { ...node.values, roughness } } : node,
  ]);
  const ribbons = Object.entries(glass.surface.ribbons).filter(([inlet]) => !inlet.endsWith('.roughness'));
  return { ...glass, surface: { ...glass.surface, nodes: Object.fromEntries(nodes), ribbons: Object.fromEntries(ribbons) } };
}
