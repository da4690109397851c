import { writeFile } from 'node:fs/promises';
import { ORBIT_CAMERA, validate, type OrbitCamera } from '@brelvin/contract';
import {
  channelsOf,
  LARGEST_PICTURE,
  layerNumbers,
  MOST_LAYER_NUMBERS,
  PICTURE_LAYERS,
  type PictureLayer,
  type PictureSize,
  RECORDED,
} from '@brelvin/core';
import { ExrWriter } from '@brelvin/io';
import { nodeBinaries, pngFile } from '@brelvin/io/node';
import type { ExitCode, Output } from '../output';
import { drawnScene, type DrawnScene } from '../pictures/drawn-scene';
import { readScene, withParameters } from '../pictures/scene-file';
import { withStudio } from '../pictures/studio';
import { BadFile } from '../read-file';

export interface RenderOptions {
  readonly out: string;
  readonly set?: string;
  readonly rig?: string;
  readonly view?: string;
  /** In its place. */
  readonly camera?: OrbitCamera;
  readonly size: PictureSize;
  readonly time: number;
  readonly parameter: readonly string[];
  /** A sequence of so many pictures. */
  readonly frames?: number;
  readonly fps: number;
  /** Layers of an EXR file besides the whole. */
  readonly passes: readonly PictureLayer[];
  /** Whether it is told how far it is. */
  readonly progress?: boolean;
}

/**
 * Draws a document as a PNG file, or as a sequence of them.
 *
 * @throws BadFile
 */
export async function render(file: string, options: RenderOptions, output: Output): Promise<ExitCode> {
  const { out, set, rig, view, camera, size, time, parameter, frames, fps, progress, passes } = options;
  const ending = /\.(png|exr)$/.exec(out)?.[0];
  if (ending === undefined) throw new BadFile(`--out ${out}: pictures are written as PNG or OpenEXR; end the name in .png or .exr.`);
  const layers = layersOf(ending, options);
  const exr = new ExrWriter(nodeBinaries);
  const scene = withParameters(await readScene(file, { set, rig }), parameter);
  return withStudio(async (studio) => {
    let whole = true;
    for (let frame = 0; frame < (frames ?? 1); frame++) {
      // What is missing is told once.
      const told = frame === 0 ? output : { ...output, err: () => undefined };
      const onProgress = (share: number): void => {
        if (progress) output.out(`progress ${((frame + share) / (frames ?? 1)).toFixed(3)}`);
      };
      const drawn = await drawnScene(studio, scene, { size, view, camera, seconds: time + frame / fps, layers, onProgress }, told);
      whole &&= drawn.whole;
      const path = frames === undefined ? out : out.replace(/\.\w+$/, `.${String(frame + 1).padStart(4, '0')}${ending}`);
      await writeFile(path, await fileOf(size, drawn, exr)).catch((error: NodeJS.ErrnoException) => {
        throw new BadFile(`${path}: cannot be written (${error.code ?? String(error)}).`);
      });
      output.out(path);
      if (frame === 0 && passes.includes('part')) await writeParts(out, drawn, output);
    }
    return whole ? 0 : 1;
  });
}

/** `512x512`, pixels. @throws RangeError with words for the user */
export function pictureSize(text: string): PictureSize {
  const [, width = NaN, height = NaN] = (/^(\d{1,6})x(\d{1,6})$/.exec(text) ?? []).map(Number);
  if (!(width > 0 && height > 0)) throw new RangeError('It must be width x height in pixels, as in 512x512.');
  if (Math.max(width, height) > LARGEST_PICTURE) throw new RangeError(`A picture has at most ${LARGEST_PICTURE} pixels a side.`);
  return { width, height };
}

/** @throws BadFile where what is wished for does not fit the file */
function layersOf(ending: string, { passes, size }: RenderOptions): readonly PictureLayer[] | undefined {
  if (ending === '.exr') {
    const layers: PictureLayer[] = ['whole', ...new Set(passes.filter((pass) => pass !== 'whole'))];
    const share = layerNumbers(size, layers) / MOST_LAYER_NUMBERS;
    if (share > 1)
      throw new BadFile(
        `--size: with these passes the file would hold ${share.toFixed(1)} times the numbers that are drawn into one. Draw it smaller, or its passes one at a time.`,
      );
    return layers;
  }
  if (passes.length > 0) throw new BadFile('--passes: only OpenEXR files have layers; end the name of --out in .exr.');
  return undefined;
}

async function fileOf({ width, height }: PictureSize, { pixels, layers }: DrawnScene, exr: ExrWriter): Promise<Uint8Array> {
  if (!layers) return pngFile({ width, height }, pixels ?? new Uint8Array());
  const all = [...layers].map(([layer, values]) => ({
    ...(layer === 'whole' ? {} : { name: layer }),
    channels: channelsOf(layer),
    values,
  }));
  return exr.write(width, height, all);
}

/** Writes which part each number stands for, beside the picture. */
async function writeParts(out: string, { parts = [] }: DrawnScene, output: Output): Promise<void> {
  const path = out.replace(/\.exr$/, '.parts.json');
  await writeFile(path, `${JSON.stringify(Object.fromEntries(parts.map((part, index) => [index + 1, part])), null, 2)}\n`);
  output.out(path);
}

/** `{"target":[0,0,0],"distance":5,"azimuth":0.5,"elevation":0.3,"fieldOfView":0.6}`. @throws RangeError with words for the user */
export function cameraOf(text: string): OrbitCamera {
  let camera: unknown;
  try {
    camera = JSON.parse(text);
  } catch {
    throw new RangeError('It must be JSON, as cameras stand in sets.');
  }
  const [problem] = validate(ORBIT_CAMERA, camera);
  if (problem) throw new RangeError(`${problem.place || 'camera'}: ${problem.message}`);
  return camera as OrbitCamera;
}

/** `diffuse,normal`, or `terms` for all of light. @throws RangeError with words for the user */
export function passesOf(text: string): readonly PictureLayer[] {
  const known = PICTURE_LAYERS.filter((layer) => layer !== 'whole');
  const terms = known.filter((layer) => !RECORDED.some((each) => each === layer));
  return text.split(',').flatMap((name) => {
    if (name === 'terms') return terms;
    const found = known.find((each) => each === name);
    if (!found) throw new RangeError(`There is no pass “${name}”. There is ${known.join(', ')}, and terms for all of light.`);
    return [found];
  });
}
