import type { Pixels } from '../image/mips';

/** Which way the green of a normal map points, and how sure that is, 0…1. */
export interface NormalSense {
  readonly green: 'up' | 'down' | 'unclear';
  readonly certainty: number;
}

const MOST_SAMPLES = 65_536;
/** Below this many pixels that lean there is nothing to tell by. */
const LEAST_LEANING = 64;

/**
 * Slopes of a height do not curl: what the height gains first to the right and then down, it gains first down and then to
 * the right (integrability: Frankot and Chellappa 1988, "A method for enforcing integrability in shape from shading", IEEE
 * PAMI 10(4)). Read with green the wrong way, they do; whichever reading curls less is right. A map whose bumps run only
 * along one axis curls neither way, and stays unclear. Reading red the wrong way as well is the same as reading bumps as
 * dents, which no map tells.
 */
export function normalSense({ width, height, data }: Pixels): NormalSense {
  if (width < 3 || height < 3) return { green: 'unclear', certainty: 0 };
  const step = Math.max(1, Math.floor(Math.sqrt((width * height) / MOST_SAMPLES)));
  let [up, down, leaning] = [0, 0, 0];
  // Slopes of height to the right and, with green up, upwards in the picture.
  const slope = (x: number, y: number, channel: 0 | 1): number => {
    const at = (y * width + x) * 4;
    const deep = Math.max((data[at + 2] ?? 0) - 127.5, 8);
    return -((data[at + channel] ?? 0) - 127.5) / deep;
  };
  for (let y = 1; y < height - 1; y += step) {
    for (let x = 1; x < width - 1; x += step) {
      const acrossUp = slope(x, y - 1, 0) - slope(x, y + 1, 0);
      const upAcross = slope(x + 1, y, 1) - slope(x - 1, y, 1);
      if (Math.abs(acrossUp) < 0.03 && Math.abs(upAcross) < 0.03) continue;
      leaning++;
      // Bounded, so that a few sharp edges do not outvote the rest.
      up += Math.min(Math.abs(acrossUp - upAcross), 1);
      down += Math.min(Math.abs(acrossUp + upAcross), 1);
    }
  }
  if (leaning < LEAST_LEANING) return { green: 'unclear', certainty: 0 };
  const certainty = Math.abs(up - down) / Math.max(up + down, 1e-9);
  if (certainty < 0.15) return { green: 'unclear', certainty };
  return { green: up < down ? 'up' : 'down', certainty };
}
