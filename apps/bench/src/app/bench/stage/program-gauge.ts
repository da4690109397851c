import type { Device, FrameRenderer, Picture, PictureSize, MaterialPipelines } from '@brelvin/core';
import { SAMPLES } from './paint-pictures';

/** The first drawing of a new program: small enough that even the slowest comes back. */
const FIRST: PictureSize = { width: 64, height: 48 };
const SECOND: PictureSize = { width: 192, height: 144 };
/** Milliseconds that a whole picture may take. */
const BEARABLE_MS = 2000;
/** A machine that does something else for a moment does not make a program slow: the quickest of so many drawings counts. */
const DOUBTS = 3;
/** A drawing that takes longer than this is not drawn again: a second look costs too much. */
const TOO_LONG_MS = 1500;
/** Milliseconds that a picture at rest takes where a whole one would take too long. */
const INSTEAD_MS = 500;

/** How long a whole picture takes, and how small it is drawn instead where that is too long. */
export interface FrameCost {
  readonly milliseconds: number;
  /** 1 where it is bearable. */
  readonly scale: number;
}

export const BEARABLE: FrameCost = { milliseconds: 0, scale: 1 };

/**
 * Draws a picture small and out of sight, and tells from it how long a whole one takes.
 *
 * @param pictureNow the picture at each drawing: what stood there may be gone by the next
 */
export async function gauge(device: Device, renderer: FrameRenderer, pictureNow: () => Picture, whole: PictureSize): Promise<FrameCost> {
  const time = async (size: PictureSize): Promise<number> => {
    const target = device.createTexture({ ...size, format: 'rgba8unorm', samples: 1 });
    try {
      // What others have asked of the device is not this program's doing.
      await device.finished();
      const started = performance.now();
      renderer.draw(pictureNow(), { size, samples: SAMPLES, target, targetSize: size, cssSize: size });
      await device.finished();
      return performance.now() - started;
    } finally {
      target.destroy();
    }
  };
  const pixels = ({ width, height }: PictureSize): number => width * height;
  const first = await time(FIRST);
  if (first * (pixels(whole) / pixels(FIRST)) < BEARABLE_MS) return BEARABLE;
  // Part of it is the same for every size, as the vertices of a dense mesh are: what grows with the pixels tells.
  const larger = pixels(whole) / (pixels(SECOND) - pixels(FIRST));
  const growth = async (): Promise<number> => Math.max(0, (await time(SECOND)) - first);
  let grown = await growth();
  const isDoubtful = (): boolean => grown * larger >= BEARABLE_MS && grown < TOO_LONG_MS;
  for (let doubt = 1; doubt < DOUBTS && isDoubtful(); doubt++) grown = Math.min(grown, await growth());
  const milliseconds = grown * larger;
  return milliseconds < BEARABLE_MS ? BEARABLE : { milliseconds, scale: Math.max(0.05, Math.sqrt(INSTEAD_MS / milliseconds)) };
}

/** The paces of programs. They are gauged one after the other: what stands there wears only one for a try. */
export class ProgramGauges {
  private readonly paces = new WeakMap<MaterialPipelines, FrameCost>();
  private readonly doubted = new WeakSet<MaterialPipelines>();
  private readonly underway = new Set<MaterialPipelines>();
  private last: Promise<unknown> = Promise.resolve();

  knows(surface: MaterialPipelines): boolean {
    return this.paces.has(surface);
  }

  /** Whether it is gauged at the moment, or waits to be. */
  isTaking(surface: MaterialPipelines | undefined): boolean {
    return surface !== undefined && this.underway.has(surface);
  }

  /** Comes back when none is gauged. */
  async idle(): Promise<void> {
    while (this.underway.size > 0) await this.last;
  }

  paceOf(surface: MaterialPipelines | undefined): FrameCost {
    return (surface && this.paces.get(surface)) ?? BEARABLE;
  }

  /** Whether a slow program is to be gauged once more, now that others come onto the device no longer: true once. */
  doubts(surface: MaterialPipelines | undefined): boolean {
    if (!surface || this.paceOf(surface).scale === 1 || this.doubted.has(surface)) return false;
    this.doubted.add(surface);
    return true;
  }

  /**
   * Takes back that a program is slow, where a picture at rest tells otherwise: the machine had more to do when it was gauged.
   *
   * @returns whether it was taken back
   */
  learn(surface: MaterialPipelines | undefined, milliseconds: number): boolean {
    const { scale } = this.paceOf(surface);
    if (!surface || scale === 1 || milliseconds / (scale * scale) >= BEARABLE_MS) return false;
    this.paces.set(surface, BEARABLE);
    return true;
  }

  /** @param work gauges it; nothing where that cannot be done now */
  async take(surface: MaterialPipelines, work: () => Promise<FrameCost | undefined> | undefined): Promise<void> {
    this.underway.add(surface);
    const taken = this.last.then(work).finally(() => this.underway.delete(surface));
    this.last = taken.catch(() => undefined);
    const pace = await taken;
    if (pace) this.paces.set(surface, pace);
  }
}
