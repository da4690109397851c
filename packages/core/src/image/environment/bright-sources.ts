import type { FloatPicture } from '../float-picture';

/** Light from one place of an environment that is far brighter than the rest. */
export interface BrightSource {
  /** Unit length, the environment's own frame. */
  readonly direction: readonly number[];
  /** Radiance above the rest times solid angle, scene-linear. */
  readonly power: readonly number[];
}

/** Of the uniform block that the filter reads them from. */
export const MOST_SOURCES = 64;
/** How much brighter than the mean a place must be to be taken out at first. */
const BRIGHT = 8;
/** Pixels along each side that one source stands for, as a part of all around. */
const GRAIN = 1 / 256;

/** A picture of a part of the sphere: where its pixels look, and how much of the sphere each is. */
export interface LookingPicture {
  readonly picture: FloatPicture;
  readonly direction: (x: number, y: number) => readonly number[];
  /** Steradians. */
  readonly angle: (x: number, y: number) => number;
  /** Pixels in a whole round. */
  readonly round: number;
}

/**
 * Takes suns and lamps out: what is above a brightness, in few directions. Samples would miss them or find them twice; as
 * directions they can be added up exactly.
 *
 * @returns the pictures without them, the same ones where there are none
 */
export function withoutSources(parts: readonly LookingPicture[]): {
  readonly dimmed: readonly FloatPicture[];
  readonly sources: readonly BrightSource[];
} {
  for (let limit = BRIGHT * meanOf(parts); ; limit *= 2) {
    const sources = sourcesAbove(parts, limit);
    if (!sources) continue;
    if (sources.length === 0) return { dimmed: parts.map(({ picture }) => picture), sources };
    const dimmed = parts.map(({ picture }) => ({ ...picture, data: picture.data.map((value) => Math.min(value, limit)) }));
    return { dimmed, sources };
  }
}

function meanOf(parts: readonly LookingPicture[]): number {
  let [sum, whole] = [0, 0];
  for (const { picture, angle } of parts)
    eachPixel(picture, (x, y, at) => {
      const share = angle(x, y);
      whole += share;
      // The brightest things must not lift the mean that they are measured by: four stops above white is enough.
      for (let channel = 0; channel < 3; channel++) sum += (Math.min(picture.data[at + channel] ?? 0, 16) * share) / 3;
    });
  return Math.max(sum / Math.max(whole, 1e-9), 1e-6);
}

/** Nothing where there are too many. */
function sourcesAbove(parts: readonly LookingPicture[], limit: number): BrightSource[] | undefined {
  const found = new Map<string, { readonly towards: number[]; readonly power: number[] }>();
  let tooMany = false;
  parts.forEach(({ picture, direction, angle, round }, part) => {
    const grain = Math.max(1, Math.round(round * GRAIN));
    eachPixel(picture, (x, y, at) => {
      // Most pixels are not: they must cost nothing.
      const [red, green, blue] = [picture.data[at] ?? 0, picture.data[at + 1] ?? 0, picture.data[at + 2] ?? 0];
      if (tooMany || (red <= limit && green <= limit && blue <= limit)) return;
      const above = [red, green, blue].map((each) => Math.max(each - limit, 0));
      const key = `${part} ${Math.floor(x / grain)} ${Math.floor(y / grain)}`;
      const source = found.get(key) ?? { towards: [0, 0, 0], power: [0, 0, 0] };
      found.set(key, source);
      const share = angle(x, y);
      const way = direction(x, y);
      const weight = above.reduce((sum, each) => sum + each, 0) * share;
      for (let axis = 0; axis < 3; axis++) {
        source.towards[axis] = (source.towards[axis] ?? 0) + (way[axis] ?? 0) * weight;
        source.power[axis] = (source.power[axis] ?? 0) + (above[axis] ?? 0) * share;
      }
      tooMany = found.size > MOST_SOURCES;
    });
  });
  if (tooMany) return undefined;
  return [...found.values()].map(({ towards, power }) => {
    const length = Math.hypot(...towards) || 1;
    return { direction: towards.map((each) => each / length), power };
  });
}

function eachPixel({ width, height }: FloatPicture, visit: (x: number, y: number, at: number) => void): void {
  for (let y = 0; y < height; y++) for (let x = 0; x < width; x++) visit(x, y, (y * width + x) * 3);
}
