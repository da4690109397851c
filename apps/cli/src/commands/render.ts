import { writeFile } from 'node:fs/promises';
import { LARGEST_PICTURE, type PictureSize } from '@brelvin/core';
import { pngFile } from '@brelvin/io/node';
import type { ExitCode, Output } from '../output';
import { drawnScene } from '../pictures/drawn-scene';
import { readScene, withParameters } from '../pictures/scene-file';
import { withStudio } from '../pictures/studio';
import { BadFile } from '../read-file';

export interface RenderOptions {
  readonly out: string;
  readonly set?: string;
  readonly rig?: string;
  readonly view?: string;
  readonly size: PictureSize;
  readonly time: number;
  readonly parameter: readonly string[];
  /** A sequence of so many pictures. */
  readonly frames?: number;
  readonly fps: number;
  /** Whether it is told how far it is. */
  readonly progress?: boolean;
}

/**
 * Draws a document as a PNG file, or as a sequence of them.
 *
 * @throws BadFile
 */
export async function render(file: string, options: RenderOptions, output: Output): Promise<ExitCode> {
  const { out, set, rig, view, size, time, parameter, frames, fps, progress } = options;
  if (!out.endsWith('.png')) throw new BadFile(`--out ${out}: pictures are written as PNG; end the name in .png.`);
  const scene = withParameters(await readScene(file, { set, rig }), parameter);
  return withStudio(async (studio) => {
    let whole = true;
    for (let frame = 0; frame < (frames ?? 1); frame++) {
      // What is missing is told once.
      const told = frame === 0 ? output : { ...output, err: () => undefined };
      const onProgress = (share: number): void => {
        if (progress) output.out(`progress ${((frame + share) / (frames ?? 1)).toFixed(3)}`);
      };
      const drawn = await drawnScene(studio, scene, { size, view, seconds: time + frame / fps, onProgress }, told);
      whole &&= drawn.whole;
      const path = frames === undefined ? out : out.replace(/\.png$/, `.${String(frame + 1).padStart(4, '0')}.png`);
      await writeFile(path, pngFile(size, drawn.pixels)).catch((error: NodeJS.ErrnoException) => {
        throw new BadFile(`${path}: cannot be written (${error.code ?? String(error)}).`);
      });
      output.out(path);
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
