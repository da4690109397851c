import type { Device, FrameRenderer, Picture, PictureSize } from '@brelvin/core';

/** The first drawing of a new program: small enough that even the slowest comes back. */
const FIRST: PictureSize = { width: 64, height: 48 };
const SECOND: PictureSize = { width: 192, height: 144 };
/** Milliseconds that a whole picture may take. */
const BEARABLE_MS = 2000;
/** Milliseconds that a picture at rest takes where a whole one would take too long. */
const INSTEAD_MS = 500;

/** How long a whole picture takes, and how small it is drawn instead where that is too long. */
export interface Pace {
  readonly milliseconds: number;
  /** 1 where it is bearable. */
  readonly scale: number;
}

export const BEARABLE: Pace = { milliseconds: 0, scale: 1 };

/** Draws a picture small and out of sight, and tells from it how long a whole one takes. */
export async function gauge(device: Device, renderer: FrameRenderer, picture: Picture, whole: PictureSize): Promise<Pace> {
  const time = async (size: PictureSize): Promise<number> => {
    const target = device.createTexture({ ...size, format: 'rgba8unorm', samples: 1 });
    try {
      const started = performance.now();
      renderer.draw(picture, { size, samples: 1, target, targetSize: size, cssSize: size });
      await device.finished();
      return performance.now() - started;
    } finally {
      target.destroy();
    }
  };
  const pixels = ({ width, height }: PictureSize): number => width * height;
  const first = await time(FIRST);
  if (first * (pixels(whole) / pixels(FIRST)) < BEARABLE_MS) return BEARABLE;
  // Part of it is the same for every size: what grows with the pixels tells.
  const second = await time(SECOND);
  const milliseconds = Math.max(0, second - first) * (pixels(whole) / (pixels(SECOND) - pixels(FIRST)));
  return milliseconds < BEARABLE_MS ? BEARABLE : { milliseconds, scale: Math.max(0.05, Math.sqrt(INSTEAD_MS / milliseconds)) };
}
