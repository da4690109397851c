import {
  CANVAS_FORMAT,
  type BoundResources,
  type ColourFormat,
  type DeviceTexture,
  type DrawCall,
  type PassDescriptor,
  type PassFormats,
} from './device';
import type { GroupLayout } from '../emit/bindings';

/** A pass that does not keep the contract of `Device`: a defect of ours. */
export class PassRefused extends Error {}

/** What a pass draws into. */
export function formatsOf({ colour, depth }: Pick<PassDescriptor, 'colour' | 'depth'>): PassFormats {
  const onto = colour === 'canvas' ? undefined : colour;
  return {
    colour: colour === 'canvas' ? CANVAS_FORMAT : (onto?.format as ColourFormat | undefined),
    depth: depth !== undefined,
    samples: onto?.samples ?? depth?.samples ?? 1,
  };
}

/**
 * What is wrong with a pass, if anything: its drawings were made for other targets, lack what their programs read, or read
 * what they draw into (WebGPU, "Render passes", validation of render pass descriptors and draw calls).
 */
export function passFault(pass: PassDescriptor): string | undefined {
  const { colour, depth, draws } = pass;
  if (!colour && !depth) return 'a pass needs a target';
  const into = formatsOf(pass);
  if (depth && colour && (colour === 'canvas' ? 1 : colour.samples) !== depth.samples) return 'colour and depth differ in their samples';
  for (const draw of draws) {
    const fault = drawFault(draw, into, pass);
    if (fault) return `${draw.pipeline.descriptor.program.label}: ${fault}`;
  }
  return undefined;
}

function drawFault({ pipeline, bindings, vertexBuffers }: DrawCall, into: PassFormats, pass: PassDescriptor): string | undefined {
  const { descriptor } = pipeline;
  const made = descriptor.into;
  if (made.colour !== into.colour || made.depth !== into.depth || made.samples !== into.samples)
    return `made for ${formatsText(made)}, drawn into ${formatsText(into)}`;
  if (descriptor.depth !== 'none' && !into.depth) return 'its depth has nothing to be compared with';
  if (descriptor.blend && into.colour === 'rgba32float') return '32-bit floats cannot be blended everywhere';
  const wanted = descriptor.program.vertexBuffers.length;
  if (vertexBuffers.length !== wanted) return `${vertexBuffers.length} vertex buffers in the place of ${wanted}`;
  for (const [number, layout] of descriptor.program.layout.entries()) {
    if (layout.key === '') continue;
    const group = bindings[number];
    if (group?.layout.key !== layout.key) return `group ${number} holds ${group?.layout.key ?? 'nothing'} in the place of ${layout.key}`;
    if (group.textures.some((texture) => drawnInto(texture, pass))) return `group ${number} holds what is drawn into`;
  }
  return undefined;
}

/** Levels of one texture may be read and written in one pass on some devices, but not on all. */
function drawnInto(texture: DeviceTexture, { colour, depth }: PassDescriptor): boolean {
  return texture === colour || texture === depth;
}

function formatsText({ colour, depth, samples }: PassFormats): string {
  return `${colour ?? 'no colour'}${depth ? ' with depth' : ''}, ${samples === 1 ? 'one sample' : `${samples} samples`}`;
}

/** What is wrong with resources for a layout, if anything. */
export function groupFault({ blocks, textures }: GroupLayout, given: BoundResources): string | undefined {
  const block = blocks.find((_, index) => !given.blocks[index]);
  if (block !== undefined) return `the block ${block} is not given`;
  for (const [index, { name, cube }] of textures.entries()) {
    const texture = given.textures[index];
    if (!texture) return `the texture ${name} is not given`;
    if ((texture.cube ?? false) !== cube) return `the texture ${name} is ${cube ? 'not a cube' : 'a cube'}`;
    if (texture.samples !== 1) return `the texture ${name} has several samples`;
  }
  return undefined;
}
