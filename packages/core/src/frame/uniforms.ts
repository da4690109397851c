import type { LightRig } from '@brelvin/contract';
import { environmentGlobals } from './environment/environment-globals';
import { clipFromWorld, eyeDirection, eyePosition, viewMatrix, type OrbitCamera } from '../scene/camera';
import { lightNumbers, type LightNumbers } from '../scene/lights';
import type { ShadowView } from '../scene/shadow-views';
import type { FrameGlobals } from '../compile/material-values';
import { MOST_SHADOWS } from '../document/light-rig';
import type { Bounds } from '../mesh/mesh';
import { mat4 } from 'gl-matrix';
import { cropMatrix, wholePart, type PicturePart, type PictureSize } from './picture-part';
import { blockLayout, type BlockLayout } from '../ir/layout';
import { library } from '../catalogue/library';
import { isArrayValue, isStruct, type Value } from '../ir/value';

/** The two clocks of the Stage, seconds: materials and meshes go by one, lights by the other. */
export interface StageClocks {
  readonly seconds: number;
  /** The same as `seconds` when absent. */
  readonly lightSeconds?: number;
}

/**
 * The members of `Frame` and `Lights`.
 *
 * @param fullSize in CSS pixels, whatever is drawn now
 * @param part what of the picture is drawn; the whole of it when absent
 * @param moved what is added to a place in the target to get the one in the whole picture, pixels
 */
export function frameGlobals(
  camera: OrbitCamera,
  rig: LightRig,
  size: PictureSize,
  { seconds, lightSeconds = seconds }: StageClocks,
  shadows: readonly ShadowView[] = [],
  fullSize = size,
  part: PicturePart = wholePart(size),
  moved = part.corner,
): FrameGlobals {
  const { whole } = part;
  const numbered = Object.entries(lightNumbers(rig, lightSeconds, shadows)) as [string, LightNumbers[keyof LightNumbers]][];
  const lights = numbered.map(([name, numbers]): [string, Value] => [name, isList(numbers) ? { items: numbers } : numbers]);
  const seen = clipFromWorld(camera, whole.width / whole.height);
  return new Map<string, Value>([
    ['clipFromWorld', [...mat4.multiply(mat4.create(), cropMatrix(part, size), seen)]],
    ['viewFromWorld', [...viewMatrix(camera)]],
    ['eyePosition', camera.orthographic ? [...eyeDirection(camera), 0] : [...eyePosition(camera), 1]],
    ['targetSize', [fullSize.width, fullSize.height, 1 / whole.width, 1 / whole.height]],
    ['pictureCorner', [...moved, whole.width / size.width, whole.height / size.height]],
    ['fogColour', [...rig.fog.colour, rig.fog.density]],
    ['frameTime', [seconds]],
    ...environmentGlobals(rig),
    ...lights,
    ...shadowGlobals(shadows),
  ]);
}

function shadowGlobals(shadows: readonly ShadowView[]): [string, Value][] {
  const slots = Array.from({ length: MOST_SHADOWS }, (_, slot) => shadows[slot]);
  return [
    ['shadowFromWorld', { items: slots.map((view) => (view ? [...view.clipFromWorld] : [...IDENTITY])) }],
    ['shadowInfo', { items: slots.map((view) => [view?.texel ?? 0, view?.widening ?? 0, ...(view?.range ?? [0, 0])]) }],
  ];
}

const IDENTITY = [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1];

function isList(numbers: readonly unknown[]): numbers is readonly (readonly number[])[] {
  return Array.isArray(numbers[0]);
}

const NO_FIELD = [0, 0, 0, 0];

/** The members of `Object` for a mesh with these bounds. */
export function objectGlobals(
  { low, high }: Bounds,
  depthOffset = 0,
  receives = true,
  part = 0,
  field: readonly number[] = NO_FIELD,
): FrameGlobals {
  const scale = high.map((each, axis) => {
    const extent = each - (low[axis] ?? 0);
    return extent > 1e-6 ? 1 / extent : 0;
  });
  return new Map<string, Value>([
    ['placeOrigin', [...low, 0]],
    ['placeScale', [...scale, 0]],
    ['partDepth', [depthOffset, receives ? 1 : 0, part, 0]],
    ['partField', field],
    ['partOutline', [0, 0, 0, 0]],
  ]);
}

export function libraryBlock(name: string): BlockLayout {
  const block = library().module.blocks.get(name);
  if (!block) throw new RangeError(`the shader library has no uniform block ${name}`);
  return blockLayout(block);
}

/** Writes members into a block's words, by its layout. */
export function writeBlock(layout: BlockLayout, globals: FrameGlobals, words: Float32Array): void {
  for (const { name, offset, stride } of layout.members.values()) {
    const value = globals.get(name);
    if (value === undefined) throw new RangeError(`nothing is known for ${layout.name}.${name}`);
    if (isStruct(value)) throw new TypeError('blocks hold no structs');
    if (isArrayValue(value)) value.items.forEach((item, index) => words.set(item as readonly number[], offset + index * stride));
    else words.set(value, offset);
  }
}
