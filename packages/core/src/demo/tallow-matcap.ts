import { srgbFromLinear } from '../image/colour-space';
import type { Pixels } from '../image/mips';

export const TALLOW_SIDE = 256;
/** What the demo documents call its file. */
export const TALLOW_ASSET = '7'.repeat(64);

/** Where the light stands before the ball, and how a warm glow lies opposite. */
const LIGHT = [-0.48, 0.58, 0.66] as const;
const RED: readonly number[] = [0.36, 0.028, 0.02];
const DEEP: readonly number[] = [0.07, 0.004, 0.006];
const PALE: readonly number[] = [0.92, 0.52, 0.36];

/** A ball of red sealing tallow as a lit sphere: light that wraps and seeps through, one soft highlight, a warm rim. */
export function tallowPixels(): Pixels {
  const data = new Uint8Array(TALLOW_SIDE * TALLOW_SIDE * 4);
  for (let row = 0; row < TALLOW_SIDE; row++)
    for (let column = 0; column < TALLOW_SIDE; column++) {
      const [x, y] = [((column + 0.5) / TALLOW_SIDE) * 2 - 1, 1 - ((row + 0.5) / TALLOW_SIDE) * 2];
      const far = Math.min(Math.hypot(x, y), 0.999);
      const scale = far / Math.max(Math.hypot(x, y), 1e-6);
      const normal = [x * scale, y * scale, Math.sqrt(1 - far * far)];
      const cosine = normal.reduce((sum, each, axis) => sum + each * (LIGHT[axis] ?? 0), 0) / Math.hypot(...LIGHT);
      const wrapped = Math.max((cosine + 0.5) / 1.5, 0) ** 1.4;
      const half = [LIGHT[0], LIGHT[1], LIGHT[2] + 1];
      const shine = Math.max(normal.reduce((sum, each, axis) => sum + each * (half[axis] ?? 0), 0) / Math.hypot(...half), 0) ** 48;
      const rim = (1 - (normal[2] ?? 0)) ** 3 * Math.max(0.6 - cosine * 0.5, 0);
      const at = (row * TALLOW_SIDE + column) * 4;
      for (let channel = 0; channel < 3; channel++) {
        const [deep = 0, red = 0, pale = 0] = [DEEP[channel], RED[channel], PALE[channel]];
        const light = deep + (red - deep) * wrapped + pale * shine * 0.75 + red * rim * 0.5;
        data[at + channel] = Math.round(srgbFromLinear(Math.min(light, 1)) * 255);
      }
      data[at + 3] = 255;
    }
  return { width: TALLOW_SIDE, height: TALLOW_SIDE, data };
}
