import { DEMO_DOCUMENTS } from '@brelvin/core';
import { drawDemos, type DrawnDemo } from './draw-demos';
import { easel } from './easel';
import { pngText } from './png-text';

const SIDE = 128;
const LINE = 16;

/** A PNG file as base64: demos down, all light rigs of the demo across, each with its name. */
export async function run(): Promise<{ readonly png: string }> {
  const rigs = DEMO_DOCUMENTS.flatMap(({ id, document }) => (document.format === 'brelvin-light-rig' ? [id] : []));
  const drawn = await drawDemos(await easel(), rigs, SIDE);
  const rows = Math.ceil(drawn.length / rigs.length);
  const sheet = new OffscreenCanvas(rigs.length * SIDE, LINE + rows * (SIDE + LINE));
  const context = sheet.getContext('2d');
  if (!context) throw new Error('there is no canvas to draw on');
  context.fillStyle = '#202020';
  context.fillRect(0, 0, sheet.width, sheet.height);
  context.fillStyle = '#e8e8e8';
  context.font = '11px sans-serif';
  drawn.slice(0, rigs.length).forEach(({ rig }, column) => context.fillText(rig, column * SIDE + 4, 12));
  drawn.forEach((each, index) => put(context, each, (index % rigs.length) * SIDE, LINE + Math.floor(index / rigs.length) * (SIDE + LINE)));
  return { png: await pngText(sheet) };
}

function put(context: OffscreenCanvasRenderingContext2D, { demo, pixels }: DrawnDemo, left: number, top: number): void {
  context.putImageData(new ImageData(new Uint8ClampedArray(pixels.buffer), SIDE, SIDE), left, top + LINE);
  if (left === 0) context.fillText(demo.replace('material-', '').replaceAll('-', ' '), 4, top + 12);
}
