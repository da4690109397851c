import { pictureDifference, type PictureSize, type Studio } from '@brelvin/core';
import { ImageCodecs } from '@brelvin/io';
import { nodeBinaries } from '@brelvin/io/node';
import type { ExitCode, Output } from '../output';
import { drawnScene } from '../pictures/drawn-scene';
import { readScene } from '../pictures/scene-file';
import { withStudio } from '../pictures/studio';
import { BadFile, readBytes } from '../read-file';

export interface CompareOptions {
  /** Of documents, which are drawn. */
  readonly size: PictureSize;
  readonly time: number;
  /** Of 255: by so much a channel of a pixel may differ. */
  readonly most: number;
  readonly json?: boolean;
}

interface SeenPicture extends PictureSize {
  readonly pixels: Uint8Array;
}

const PICTURE_FILE = /\.(png|jpe?g|webp)$/i;

/**
 * Says by how much two pictures differ; documents are drawn first.
 *
 * @throws BadFile
 */
export async function compare(a: string, b: string, options: CompareOptions, output: Output): Promise<ExitCode> {
  const [one, other] = await seen([a, b], options, output);
  if (!one || !other) return 1;
  if (one.width !== other.width || one.height !== other.height)
    throw new BadFile(
      `${a} has ${one.width} × ${one.height} pixels, ${b} ${other.width} × ${other.height}: only pictures of one size can be compared.`,
    );
  const { mean, largest, share } = pictureDifference(one.pixels, other.pixels);
  if (options.json) output.out(JSON.stringify({ mean, largest, share }, null, 2));
  else
    output.out(
      `mean ${mean.toFixed(3)}, largest ${largest} of 255; ${(share * 100).toFixed(2)} % of the pixels differ by more than rounding`,
    );
  return largest <= options.most ? 0 : 1;
}

async function seen(files: readonly string[], { size, time }: CompareOptions, output: Output): Promise<SeenPicture[]> {
  const read = async (studio?: Studio): Promise<SeenPicture[]> => {
    const all: SeenPicture[] = [];
    // One after the other: they are drawn by one renderer.
    for (const file of files) {
      if (!studio || PICTURE_FILE.test(file)) all.push(await decoded(file));
      else
        all.push({
          ...size,
          pixels: (await drawnScene(studio, await readScene(file), { size, seconds: time }, output)).pixels ?? new Uint8Array(),
        });
    }
    return all;
  };
  return files.every((file) => PICTURE_FILE.test(file)) ? read() : withStudio(read);
}

async function decoded(file: string): Promise<SeenPicture> {
  try {
    const bytes = new Uint8Array(await readBytes(file));
    const { width, height, data } = await new ImageCodecs(nodeBinaries).decode(bytes.buffer);
    return { width, height, pixels: new Uint8Array(data.buffer, data.byteOffset, data.byteLength) };
  } catch (error) {
    if (error instanceof BadFile) throw error;
    throw new BadFile(`${file}: ${error instanceof Error ? error.message : String(error)}`);
  }
}
